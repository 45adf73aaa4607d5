// Changes of numbers as a patch of the files that they stand in.
#pragma once

#include "armoury/read.h"

#include <string>
#include <vector>

namespace panoplon {

/// A number of a definition and what it is to be. `key` as in `add.guard`.
struct NumberChange {
    std::string kind, id, key;
    double value = 0;
};

/// In the unified format, to be applied in the armoury's folder with no part of the path stripped.
/// Where a number is not the definition's own yet, the patch adds it: to its row, to its table, or
/// as a line of its own. Refused where a table has no column for it.
[[nodiscard]] Result<std::string> patch_text(const ReadArmoury& read,
                                             const std::vector<NumberChange>& changes);

} // namespace panoplon
