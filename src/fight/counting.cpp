#include "fight/counting.h"

#include "base/text.h"

#include <fmt/format.h>

namespace panoplon::fighting {

void begin_counting(Field& f, const LedgerShape& shape) {
    Kept& ledger = f.ledger;
    const bool was_written = ledger.counts == &ledger.result;
    if (ledger.kept || was_written || ledger.result.shape != shape) ledger.result.reset(shape);
    ledger.result.won = ledger.result.timed_out = false;
    ledger.result.error.reset();
    if (!ledger.kept && ledger.unread.shape != shape) ledger.unread.reset(shape);
    ledger.counts = ledger.kept ? &ledger.result : &ledger.unread;
}

void too_many_events(const Field& f) {
    if (!f.ledger.kept) throw Uncounted();
    const Armoury& armoury = f.rules.armoury;
    const FightResult& result = f.ledger.result;
    std::string most = armoury.effects.empty() ? "" : ", most of them triggers and effects";
    double times = static_cast<double>(f.clock.events) / 4;
    const auto look = [&](double done, const std::string& what) {
        if (done <= times) return;
        times = done;
        most = fmt::format(", most of them {}, {} times", what, rounded(done, 0));
    };
    for (std::size_t a = 0; a < result.actions.size(); ++a)
        look(result.actions[a].done + result.foe_actions[a].done,
             fmt::format("the action '{}'", armoury.actions[a].id));
    for (std::size_t i = 0; i < result.uses.size(); ++i)
        look(
            result.uses[i].used,
            fmt::format("uses of '{}'", armoury.at(f.cast.actors[0].start.setup->pack[i].item).id));
    throw FightStopped{{fmt::format("more than {} events by time {}{}: they go on without end, or "
                                    "combat.event_limit is too low for so long a fight",
                                    armoury.combat.event_limit, rounded(to_units(f.now), 3), most),
                        armoury.combat.span}};
}

void find_counts(Field& f, Actor& actor) {
    std::vector<ActionCount>& counts =
        actor.ours ? f.ledger.counts->actions : f.ledger.counts->foe_actions;
    std::vector<double>& dealt =
        actor.ours ? f.ledger.counts->dealt_by_action : f.ledger.counts->taken_by_action;
    for (std::vector<Place>* const list : {&actor.places, &actor.thrown})
        for (Place& place : *list) {
            if (!place.action) continue;
            place.count = counts.data() + place.id.index();
            place.dealt = dealt.data() + place.id.index() * f.rules.armoury.damages.size();
        }
}

void count_lost_time(Field& f, EffectId id, const Origin& origin, Ticks cut, Ticks overlap) {
    const auto add = [&](auto& count) {
        count.cut += to_units(cut);
        count.overlap += to_units(overlap);
    };
    add(f.ledger.counts->effects[id.index()]);
    if (origin.kind == Origin::Kind::packed) add(f.ledger.counts->uses[origin.index]);
}

void count_tick(Field& f, const Actor& actor, EffectId id, double lost) {
    (actor.ours ? f.ledger.counts->taken_by_effect
                : f.ledger.counts->dealt_by_effect)[id.index()] += lost;
}

} // namespace panoplon::fighting
