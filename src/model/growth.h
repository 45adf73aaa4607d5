// What a fighter is at a level, before anything is worn.
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

/// Base and growth, by stat; 0 where it has none (M6). A growth that is a number counts for each
/// level above the first; one that is a formula gives what is added at that level.
[[nodiscard]] std::vector<double> base_stats(const Armoury& armoury, const Fighter& fighter,
                                             int level);

} // namespace panoplon
