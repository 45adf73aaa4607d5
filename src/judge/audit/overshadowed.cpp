#include "judge/audit/overshadowed.h"

#include "judge/audit/time_sums.h"
#include "judge/audit/verdict_sentence.h"

#include <algorithm>

namespace panoplon {

namespace {

/// An item's rows as they would be, were another of its place not there: the best is less, and so
/// is the place's worth.
std::vector<ItemContextRow> rows_without(std::span<const ItemContextRow> own,
                                         std::span<const ItemContextRow> other) {
    std::vector<ItemContextRow> rows(own.begin(), own.end());
    for (ItemContextRow& row : rows)
        for (const ItemContextRow& its : other) {
            if (its.context != row.context || its.without == nothing_legal || !row.judged) continue;
            const double best = std::max(row.with, its.without);
            if (!row.capped) row.worth -= std::log(row.best / best);
            row.judged = row.worth >= least_worth;
            row.best = best;
            if (row.judged) row.shortfall = std::log(best / row.with) / row.worth;
        }
    return rows;
}

} // namespace

void see_overshadowed(const Judging& judging, const std::vector<ItemContextRow>& rows,
                      const std::vector<ContextRow>& contexts, std::vector<ItemVerdict*> items) {
    for (ItemVerdict* verdict : items) {
        if (verdict->verdict != Verdict::useless && verdict->verdict != Verdict::weak) continue;
        std::size_t others = 0; // rivals that are not dominant
        for (const ItemVerdict* other : items)
            others += judging.peers.is_rival(other->item, verdict->item) &&
                      judging.twins[other->item.index()] != judging.twins[verdict->item.index()] &&
                      other->verdict != Verdict::dominant;
        for (ItemVerdict* other : items) {
            if (others == 0 || other->verdict != Verdict::dominant ||
                !judging.peers.is_rival(other->item, verdict->item))
                continue;
            const std::vector<ItemContextRow> without =
                rows_without(rows_of(rows, verdict->item), rows_of(rows, other->item));
            ItemVerdict alone;
            alone.item = verdict->item;
            alone.outclassed_by = verdict->outclassed_by;
            const TimeSums sums = add_up(alone, without, contexts, Leaning::none);
            const Verdict then = decide(judging, alone, sums);
            if (calls_for_change(then) || then == Verdict::weak) continue;
            verdict->overshadowed_by = other->item;
            verdict->edge_of = std::nullopt;
            verdict->sentence = sentence_of(judging, *verdict);
            other->overshadows.push_back(verdict->item);
            break;
        }
    }
    for (ItemVerdict* verdict : items)
        if (!verdict->overshadows.empty()) verdict->sentence = sentence_of(judging, *verdict);
}

} // namespace panoplon
