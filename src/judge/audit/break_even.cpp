#include "judge/audit/break_even.h"

#include "base/compute_each.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Leads closer than this are equal.
constexpr double least_lead = 1e-6;

double lead_of(const PoolSample& sample, std::size_t foes, std::size_t health) {
    const auto share = [&](std::size_t actor, double otherwise) {
        return sample.shares[actor].empty() ? otherwise : sample.shares[actor][health];
    };
    double theirs = 0;
    for (std::size_t actor = foes; actor < sample.shares.size(); ++actor)
        theirs += share(actor, 1); // whole until it arrives
    return share(0, 1) - theirs / static_cast<double>(sample.shares.size() - foes);
}

/// Between samples even luck flows evenly.
double lead_at(const Timeline& told, double time, std::size_t foes, std::size_t health) {
    const auto after =
        std::lower_bound(told.samples.begin(), told.samples.end(), time,
                         [](const PoolSample& sample, double at) { return sample.time < at; });
    if (after == told.samples.end()) return lead_of(told.samples.back(), foes, health);
    if (after == told.samples.begin() || after->time == time) return lead_of(*after, foes, health);
    const PoolSample& before = *std::prev(after);
    const double share = (time - before.time) / (after->time - before.time);
    return lead_of(before, foes, health) * (1 - share) + lead_of(*after, foes, health) * share;
}

Outfit with_units(Outfit outfit, ItemId item, std::int64_t units) {
    std::erase_if(outfit.pack, [&](const PackedItem& packed) { return packed.item == item; });
    if (units > 0) outfit.pack.push_back({item, units, {}});
    return outfit;
}

/// In one context: from when on one unit leads, at the strength at which none is an even match.
std::optional<double> find_in(Engine& engine, const ContextRow& row, ItemId item) {
    const Armoury& armoury = engine.armoury();
    const FightSetup none =
        set_up_fight(armoury, with_units(row.outfit, item, 0), row.context.encounter);
    engine.prepare(none);
    const Margin margin = even_margin(engine, row.best.value);
    if (margin.error || margin.reach != Reach::within) return std::nullopt;
    const Timeline without = engine.tell(margin.value, std::nullopt);
    const FightSetup one =
        set_up_fight(armoury, with_units(row.outfit, item, 1), row.context.encounter);
    engine.prepare(one);
    const Timeline with = engine.tell(margin.value, std::nullopt);
    const auto first_foe =
        std::find_if(one.actors.begin(), one.actors.end(),
                     [](const ActorSetup& actor) { return actor.side == Side::foes; });
    return ahead_from(with, without, static_cast<std::size_t>(first_foe - one.actors.begin()),
                      armoury.combat.health.index());
}

} // namespace

std::optional<double> ahead_from(const Timeline& with, const Timeline& without, std::size_t foes,
                                 std::size_t health) {
    if (with.samples.empty() || without.samples.empty()) return std::nullopt;
    const double end = std::min(with.samples.back().time, without.samples.back().time);
    std::vector<double> times;
    for (const Timeline* told : {&with, &without})
        for (const PoolSample& sample : told->samples)
            if (sample.time <= end) times.push_back(sample.time);
    std::sort(times.begin(), times.end());
    std::optional<double> from;
    double before = 0; // the lead over the other, and when
    double before_at = 0;
    for (const double time : times) {
        const double over =
            lead_at(with, time, foes, health) - lead_at(without, time, foes, health);
        if (over <= least_lead)
            from = std::nullopt;
        else if (!from) // both flow evenly since: where did they cross?
            from = before_at + (time - before_at) * -before / (over - before);
        before = std::min(over, 0.0);
        before_at = time;
    }
    return from;
}

std::vector<BreakEven> find_break_evens(const Armoury& armoury, const AuditResult& result,
                                        const Watch& watch) {
    const auto found = compute_each(
        result.consumables.size(), [&] { return Engine(armoury); }, watch,
        [&](Engine& engine, std::size_t i) {
            BreakEven sum;
            const ItemId item = result.consumables[i].judged.item;
            for (const ItemContextRow& row : rows_of(result.packed_rows, item)) {
                if (!row.in_window || row.units == 0 || watch.stopped()) continue;
                ++sum.contexts;
                const auto time = find_in(engine, result.contexts[row.context], item);
                if (!time) continue;
                sum.least = sum.pays == 0 ? *time : std::min(sum.least, *time);
                sum.most = sum.pays == 0 ? *time : std::max(sum.most, *time);
                sum.time += *time;
                ++sum.pays;
            }
            if (sum.pays > 0) sum.time /= static_cast<double>(sum.pays);
            return sum;
        });
    if (watch.stopped()) return {};
    std::vector<BreakEven> list;
    for (const std::optional<BreakEven>& one : found) list.push_back(*one);
    return list;
}

} // namespace panoplon
