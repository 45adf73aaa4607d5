// What an item's stats cost, against what its level and tier allow.
#pragma once

#include "model/armoury.h"

#include <optional>

namespace panoplon {

struct BudgetUse {
    double spent = 0;   ///< Σ cost × the item's own `add` amounts, in points
    double allowed = 0; ///< the level's points × places taken × the slot's and the tier's factor
    [[nodiscard]] double share() const { return allowed > 0 ? spent / allowed : 0; }
};

/// Reckons budgets; holds the compiled formula.
class BudgetMeter {
  public:
    explicit BudgetMeter(const Armoury& armoury);
    /// None for an armoury without a budget, and for items that are not worn.
    [[nodiscard]] std::optional<BudgetUse> operator()(const Item& item);

  private:
    const Armoury& armoury_;
    std::optional<Evaluator> points_;
};

} // namespace panoplon
