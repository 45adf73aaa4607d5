// A change of one number as a patch of the file that it stands in.
#pragma once

#include "armoury/read.h"

#include <string>

namespace panoplon {

/// In the unified format, to be applied in the armoury's folder with no part of the path stripped.
/// Where the number is not the item's own yet, the patch adds it: to its row, to its table, or as
/// a line of its own. Refused where a table has no column for it. `key` as in `add.guard`.
[[nodiscard]] Result<std::string> patch_text(const ReadArmoury& read, const std::string& item,
                                             const std::string& key, double value);

} // namespace panoplon
