#include "judge/audit/time_sums.h"

#include <algorithm>

namespace panoplon {

namespace {

constexpr double near_shortfall = 0.25;
constexpr double niche_share = 0.1;
constexpr double often_bound = 0.5;

ItemContextRow leaning(ItemContextRow row, double noise, Leaning way) {
    if (!row.judged || way == Leaning::none) return row;
    const double share = noise / row.worth;
    const double sign = way == Leaning::better ? 1 : -1;
    row.grip = std::max(0.0, row.grip + sign * share);
    row.shortfall = std::max(0.0, row.shortfall - sign * share);
    return row;
}

/// By what its tier's world has, and what is no dearer.
std::optional<ItemId> outclassed_by(const Judging& judging, const ItemVerdict& item) {
    const Armoury& armoury = judging.armoury;
    for (const ItemId other : item.outclassed_by)
        if (armoury.at(other).value <= armoury.at(item.item).value &&
            judging.peers.rank_of(armoury.at(other)) <=
                judging.peers.rank_of(armoury.at(item.item)))
            return other;
    return std::nullopt;
}

/// A consumable of which one unit is worth more than a typical place, nearly everywhere.
bool too_strong_by_itself(const AuditRules& rules, const ItemVerdict& item) {
    return item.unit_of_place > 1 && item.pick_share >= rules.dominant_share;
}

} // namespace

void widen(LevelRange& levels, int level) {
    levels.first = levels.first == 0 ? level : std::min(levels.first, level);
    levels.last = std::max(levels.last, level);
}

TimeSums add_up(ItemVerdict& item, std::span<const ItemContextRow> rows,
                const std::vector<ContextRow>& contexts, Leaning way) {
    TimeSums sums;
    Tally weight_binds, ban, force, grip, shortfall, unpicked, picks_contested, picks_all, units,
        places;
    for (const ItemContextRow& as_found : rows) {
        sums.seen += as_found.in_window;
        sums.none_with += as_found.in_window && as_found.with == nothing_legal;
        sums.none_without += as_found.in_window && as_found.without == nothing_legal;
        if (!as_found.in_window || !as_found.judged) continue;
        const ContextRow& context = contexts[as_found.context];
        const ItemContextRow row = leaning(as_found, context.noise(), way);
        const double picked = row.picked() ? 1 : 0;
        ++item.contexts;
        item.contested += row.contested;
        item.capped = item.capped || row.capped;
        widen(item.judged_levels, context.context.level);
        sums.picks += row.picked();
        sums.harms_everywhere = sums.harms_everywhere && row.harms;
        sums.met.insert(context.context.encounter);
        weight_binds.add(context.limiting.weight_binds ? 1 : 0, context.weight);
        if (row.picked()) sums.picked_in.insert(context.context.encounter);
        ban.add(1 - row.without / row.best, context.weight);
        force.add(1 - row.with / row.best, context.weight);
        shortfall.add(row.shortfall, context.weight);
        picks_all.add(picked, context.weight);
        if (!row.picked()) unpicked.add(row.shortfall, context.weight);
        if (row.units > 0) {
            units.add(std::log(row.best / row.without) / static_cast<double>(row.units),
                      context.weight);
            places.add(row.typical_worth, context.weight);
        }
        if (!row.contested) continue;
        picks_contested.add(picked, context.weight);
        grip.add(row.grip, context.weight);
    }
    item.weight_binds = weight_binds.mean() >= often_bound;
    item.ban_loss = ban.spread();
    item.force_loss = force.spread();
    item.grip = grip.spread();
    item.shortfall = shortfall.spread();
    item.shortfall_elsewhere = unpicked.mean();
    item.pick_share = picks_all.mean();
    item.contested_pick_share = picks_contested.mean();
    item.unit_of_place = places.mean() > 0 ? units.mean() / places.mean() : 0;
    return sums;
}

Verdict decide(const Judging& judging, const ItemVerdict& item, const TimeSums& sums) {
    const AuditRules& rules = judging.armoury.audit;
    if (!judging.paper[item.item.index()].unreachable.empty()) return Verdict::unreachable;
    if (!item.unread.empty()) return Verdict::idle;
    const bool on_paper = outclassed_by(judging, item).has_value();
    if (item.contexts == 0) return on_paper ? Verdict::outclassed : Verdict::unjudged;
    if (sums.harms_everywhere) return Verdict::burden;
    if (item.shortfall.min >= rules.useless_shortfall) return Verdict::useless;
    if (on_paper) return Verdict::outclassed;
    if (item.contested > 0 && item.contested_pick_share >= rules.dominant_share &&
        item.grip.mean >= rules.dominant_grip)
        return Verdict::dominant;
    if (too_strong_by_itself(rules, item)) return Verdict::dominant;
    if (item.pick_share >= strong_share) {
        const bool missed = item.contested > 0 && item.grip.mean >= rules.dominant_grip / 2;
        return missed ? Verdict::strong : Verdict::sound;
    }
    const bool one_of_several = sums.met.size() > 1 && sums.picked_in.size() == 1;
    if (sums.picks > 0 && item.shortfall_elsewhere > near_shortfall &&
        (item.pick_share < niche_share || one_of_several))
        return Verdict::niche;
    if (sums.picks > 0 || item.shortfall.min <= near_shortfall) return Verdict::sound;
    return Verdict::weak;
}

} // namespace panoplon
