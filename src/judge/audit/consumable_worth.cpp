#include "judge/audit/consumable_worth.h"

#include "judge/audit/time_sums.h"

namespace panoplon {

ConsumableWorth worth_of(const Item& item, std::span<const ItemContextRow> rows,
                         const std::vector<ContextRow>& contexts) {
    Tally units, packed, per_unit;
    for (const ItemContextRow& row : rows) {
        if (!row.in_window || !row.judged) continue;
        const double weight = contexts[row.context].weight;
        units.add(static_cast<double>(row.units), weight);
        packed.add(row.units > 0 ? 1 : 0, weight);
        if (row.units > 0)
            per_unit.add((row.best / row.without - 1) / static_cast<double>(row.units), weight);
    }
    const double unit = per_unit.mean();
    const double weight = to_weight(item.weight);
    return {units.mean(), packed.mean(), unit, weight > 0 ? unit / weight : 0,
            item.stack == unlimited ? 0 : unit * static_cast<double>(item.stack)};
}

} // namespace panoplon
