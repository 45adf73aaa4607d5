// What an item's stats cost, against what its level and tier allow.
#pragma once

#include "model/armoury.h"

#include <optional>

namespace panoplon {

struct BudgetUse {
    double spent = 0;   ///< Σ cost × the item's own `add` amounts, in points
    double allowed = 0; ///< the level's points × the tier's factor
    [[nodiscard]] double share() const { return allowed > 0 ? spent / allowed : 0; }
};

/// None for an armoury without a budget, and for items that are not worn.
[[nodiscard]] std::optional<BudgetUse> budget_use(const Armoury& armoury, const Item& item);

} // namespace panoplon
