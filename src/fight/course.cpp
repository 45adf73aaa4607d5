#include "fight/course.h"

#include "fight/counting.h"
#include "fight/effects.h"
#include "fight/instants.h"
#include "fight/reasons.h"
#include "fight/states.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

/// The share of a side's health that is left, lives counted in.
double health_left(const Field& f, Side side) {
    double left = 0;
    double whole = 0;
    for (const Actor& actor : f.cast.actors) {
        if (actor.setup->side != side || !actor.life.counts) continue;
        const double life = actor.ceilings[f.rules.health] * f.rules.armoury.combat.revive_share;
        left += actor.life.standing ? health(f, actor) + actor.life.left * life : 0;
        whole += actor.ceilings[f.rules.health] + actor.life.first * life;
    }
    return whole > 0 ? left / whole : 1;
}

/// Whether an actor comes by itself: not who waits to be called, nor who a fight drew to stay away
/// (M65a). By even luck the middle of a group comes, half of one up.
bool comes(const Field& f, const ActorSetup& actor) {
    if (actor.called) return false;
    if (!actor.uncertain) return true;
    const auto& [index, group, nth] = *actor.uncertain;
    if (f.even) return nth < (group->count + group->most + 1) / 2;
    return nth < foes_that_come(*group, group_draw(f.luck, index));
}

void finish(Field& f) {
    FightResult& result = f.ledger.result;
    result.time = to_units(f.now);
    if (f.ledger.kept) {
        result.events = static_cast<double>(f.clock.events);
        result.sum_up();
        const Actor& character = f.cast.actors.front();
        result.pools_left.resize(f.rules.pools);
        for (std::size_t p = 0; p < f.rules.pools; ++p)
            result.pools_left[p] =
                character.ceilings[p] > 0 ? character.pools[p] / character.ceilings[p] : 0;
    }
    for (Actor& actor : f.cast.actors)
        while (!actor.effects.empty()) drop_effect(f, actor, actor.effects.size() - 1);
    const Actor& character = f.cast.actors.front();
    for (std::size_t i = 0; i < character.pack.left.size(); ++i)
        f.ledger.counts->uses[i].left = static_cast<double>(character.pack.left[i]);
    result.won = !result.error && !result.timed_out && someone_left(f, Side::character);
    constexpr double least = 1e-12; // a remainder is never 0: its sign tells who won
    result.remainder = result.won ? std::max(health_left(f, Side::character), least)
                                  : -std::max(health_left(f, Side::foes), least);
}

} // namespace

void prepare(Field& f, const FightSetup& setup) {
    f.cast.setup = &setup;
    f.cast.actors.resize(setup.actors.size());
    f.cast.rows.resize(f.cast.actors.size(), f.rules.pools);
    for (std::size_t i = 0; i < f.cast.actors.size(); ++i)
        static_cast<PoolPart&>(f.cast.actors[i]) = f.cast.rows.of(i);
    f.cast.ours = static_cast<std::size_t>(
        std::count_if(setup.actors.begin(), setup.actors.end(),
                      [](const ActorSetup& actor) { return actor.side == Side::character; }));
    for (std::size_t i = 1; i < f.cast.actors.size(); ++i)
        prepare_actor(f, f.cast.actors[i], setup.actors[i]);
    prepare_character(f, setup.actors.front());
    for (Actor& actor : f.cast.actors) actor.callable.clear();
    for (Actor& actor : f.cast.actors)
        if (const auto& called = actor.setup->called)
            f.cast.actors[called->by].callable.push_back(&actor);
}

void prepare_character(Field& f, const ActorSetup& character) {
    prepare_actor(f, f.cast.actors.front(), character);
}

const FightResult& run(Field& f, double strength, const std::optional<Luck>& luck, Detail detail,
                       Timeline* timeline, Inquiry* inquiry) {
    f.strength = strength;
    f.even = !luck;
    f.luck = luck.value_or(Luck{});
    f.watch.timeline = timeline;
    f.watch.inquiry = inquiry;
    f.watch.any = timeline || inquiry;
    f.ledger.kept = detail == Detail::ledger;
    try {
        fight(f);
    } catch (const FightStopped& stopped) {
        f.ledger.result.error = stopped.error;
    } catch (const Uncounted&) {
        return run(f, strength, luck, Detail::ledger, timeline, inquiry);
    }
    finish(f);
    return f.ledger.result;
}

bool reads_time(const Actor& actor) {
    const auto turns = [](const Condition* formula) { return formula && formula->turns; };
    return std::any_of(actor.uses.rules.begin(), actor.uses.rules.end(),
                       [&](const RuleState& rule) { return turns(rule.formula); }) ||
           std::any_of(actor.swaps.due.begin(), actor.swaps.due.end(), turns) ||
           std::any_of(actor.places.begin(), actor.places.end(),
                       [](const Place& place) { return place.formulas->turns.has_value(); });
}

void find_what_there_is(Field& f) {
    f.cast.anybody_swaps = f.cast.anybody_reads_time = false;
    f.cast.anybody_hears = f.rules.passing_hear != 0;
    for (const Actor& actor : f.cast.actors) {
        f.cast.anybody_swaps = f.cast.anybody_swaps || !actor.setup->swaps.empty();
        f.cast.anybody_reads_time = f.cast.anybody_reads_time || actor.clocked;
        f.cast.anybody_hears = f.cast.anybody_hears || actor.hears != 0;
    }
}

void begin(Field& f) {
    begin_counting(f, ledger_shape(f.rules.armoury, *f.cast.actors.front().start.setup));
    f.cast.rows.rest_all();
    f.room.rates_used = 0;
    f.clock.events = 0;
    f.now = 0;
    f.over = false;
    f.cast.order_changed = true;
    f.flows.falling.clear();
    f.flows.fall_moment = never;
    f.clock.first_ready = f.clock.first_cooldown = 0;
    f.uses.restless = true;
    f.cast.all_came = false;
    f.clock.regenerated = true;
    f.flows.rates_stirred = f.flows.healths_moved = true;
    f.clock.first_tick = f.clock.first_end = f.clock.first_regen = f.clock.first_leave = never;
    f.uses.stirred = f.uses.uneasy = true;
    std::fill(f.ledger.holders.begin(), f.ledger.holders.end(), 0);
    f.cast.active.clear();
    for (Actor& actor : f.cast.actors) {
        start_actor(f, actor, actor.setup->arrival);
        if (!comes(f, *actor.setup)) actor.life.standing = actor.life.counts = false;
    }
    find_what_there_is(f);
    if (f.watch.inquiry) list_possible(f);
    if (!f.watch.timeline) return;
    for (const Actor& actor : f.cast.actors) f.watch.timeline->actors.push_back(actor.setup->name);
}

bool someone_left(const Field& f, Side side) {
    return std::any_of(f.cast.actors.begin(), f.cast.actors.end(), [&](const Actor& actor) {
        return actor.setup->side == side && actor.life.standing;
    });
}

} // namespace panoplon::fighting
