// From a folder to a resolved armoury, with every mistake and doubt on the way.
#pragma once

#include "base/result.h"
#include "diagnostic/diagnostic.h"
#include "model/armoury.h"

#include <string>

namespace panoplon {

struct ReadArmoury {
    Armoury armoury; ///< complete only when there are no mistakes
    Sources sources;
    Sink sink;

    [[nodiscard]] bool usable() const { return sink.mistake_count() == 0; }
};

/// Reads and resolves the armoury in a folder. A Failure (Cause::file) when the folder can't be
/// read at all; everything that is wrong in its files is in the sink.
[[nodiscard]] Result<ReadArmoury> read_armoury(const std::string& folder);

} // namespace panoplon
