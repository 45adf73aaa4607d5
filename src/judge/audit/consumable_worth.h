// What a unit of a consumable is worth, and a stack (M84).
#pragma once

#include "judge/audit/verdict.h"

namespace panoplon {

/// What a consumable gives where the best packs it, over its window: shares of the margin.
struct ConsumableWorth {
    double units = 0;  ///< mean, in the best of all judged contexts
    double packed = 0; ///< share of them whose best has any
    double per_unit = 0, per_weight = 0, per_stack = 0; ///< of those that have any
};
[[nodiscard]] ConsumableWorth worth_of(const Item& item, std::span<const ItemContextRow> rows,
                                       const std::vector<ContextRow>& contexts);

} // namespace panoplon
