// The ranks that a launcher of MPI has started, of which this process is one.
#pragma once

#include "base/post.h"
#include "base/result.h"

namespace panoplon {

/// Null where this process was started alone: nothing of MPI is loaded then. A Failure where it is
/// one of several and can't speak to the others.
[[nodiscard]] Result<Post*> started_post();

} // namespace panoplon
