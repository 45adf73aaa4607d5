#include "judge/audit/rolled.h"

#include "judge/audit/time_sums.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// A row as it would be, were the margin with the item this: the best is it or what does without
/// it.
ItemContextRow rolled_so(ItemContextRow row, double with, double noise) {
    const auto loss = [&](double margin) {
        const double lost = std::log(row.best / margin);
        return lost > noise ? lost : 0.0;
    };
    const double grip_before = loss(row.without);
    row.with = with;
    const double copies = row.grip > 0 ? grip_before / (row.worth * row.grip) : 1;
    const double best = std::max(with, row.without);
    if (!row.capped) row.worth += std::log(best / row.best) * row.share;
    row.best = best;
    row.judged = row.worth >= least_worth;
    if (!row.judged) return row;
    row.grip = loss(row.without) / (row.worth * copies);
    row.shortfall = loss(row.with) / row.worth;
    row.harms = row.empty > row.with * (1 + std::max(std::expm1(noise), clear_harm));
    return row;
}

} // namespace

std::optional<RolledVerdicts> rolled_verdicts(const Judging& judging, const ItemVerdict& verdict,
                                              std::span<const ItemContextRow> rows,
                                              const std::vector<ContextRow>& contexts) {
    Tally spread, thing;
    for (const ItemContextRow& row : rows) {
        if (!row.in_window || !row.judged || row.with_worst <= 0 || row.with_best <= 0) continue;
        const double weight = contexts[row.context].weight;
        spread.add(std::log(row.with_best / row.with_worst), weight);
        thing.add(std::log(row.with / row.empty), weight);
    }
    if (spread.mean() <= 0) return std::nullopt;
    const auto judged = [&](double ItemContextRow::*with) {
        std::vector<ItemContextRow> rolled(rows.begin(), rows.end());
        for (ItemContextRow& row : rolled)
            if (row.judged && row.*with > 0)
                row = rolled_so(row, row.*with, contexts[row.context].noise());
        ItemVerdict other;
        other.item = verdict.item;
        other.outclassed_by = verdict.outclassed_by;
        other.unread = verdict.unread;
        const TimeSums sums = add_up(other, rolled, contexts, Leaning::none);
        return decide(judging, other, sums);
    };
    return RolledVerdicts{judged(&ItemContextRow::with_worst), judged(&ItemContextRow::with_best),
                          spread.mean(), thing.mean()};
}

} // namespace panoplon
