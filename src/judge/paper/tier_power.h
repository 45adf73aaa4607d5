// What tiers come to on paper.
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

struct TierPower {
    std::size_t items = 0; ///< worn ones with a budget
    double mean = 0;       ///< of what they spend over what their level allows, whatever the tier
};

/// By tier. All 0 in an armoury without a budget.
[[nodiscard]] std::vector<TierPower> tier_powers(const Armoury& armoury);

} // namespace panoplon
