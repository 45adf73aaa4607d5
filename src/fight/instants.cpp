#include "fight/instants.h"

#include "fight/actions.h"
#include "fight/blows.h"
#include "fight/calls.h"
#include "fight/counting.h"
#include "fight/course.h"
#include "fight/effects.h"
#include "fight/flows.h"
#include "fight/reasons.h"
#include "fight/states.h"
#include "fight/swaps.h"
#include "fight/telling.h"
#include "fight/triggers.h"
#include "fight/uses.h"

#include <algorithm>
#include <iterator>

namespace panoplon::fighting {

namespace {

[[gnu::always_inline]] inline void act_all(Field& f) {
    for (Actor* one : f.cast.in_order) {
        Actor& actor = *one;
        if (actor.ready > f.now || !actor.active()) continue;
        Place* place = choose_action(f, actor, front_target(f, actor));
        if (f.watch.inquiry) note_choice(f, actor, place);
        if (!place) continue;
        count_event(f);
        if (f.even)
            flow_action(f, actor, *place);
        else
            strike(f, actor, *place);
        if (f.over) return;
        consider_uses(f);
        if (f.over) return;
    }
}

void arrive(Field& f) {
    f.cast.all_came = true;
    bool came = false;
    for (Actor* one : f.cast.in_order) {
        Actor& actor = *one;
        if (actor.life.present || !actor.life.standing) continue;
        if (actor.setup->arrival > f.now) {
            f.cast.all_came = false;
            continue;
        }
        actor.life.present = true;
        came = true;
        stir(f, actor);
        if (f.watch.timeline) tell(f, actor, "arrives", "", "", 0, health(f, actor));
    }
    if (came) find_active(f);
    for (Actor& actor : f.cast.actors)
        if (came && actor.life.present && actor.setup->arrival == f.now)
            fire(f, actor, TriggerEvent::start, nullptr);
    if (came && f.even) retarget(f);
}

void refresh_order(Field& f) {
    for (Actor& actor : f.cast.actors) {
        const double order = evaluate(f.rules.order, environment(f, actor, nullptr));
        f.cast.order_changed = f.cast.order_changed || order != actor.order;
        actor.order = order;
    }
}

void sort_order(Field& f) {
    f.cast.in_order.clear();
    for (Actor& actor : f.cast.actors) f.cast.in_order.push_back(&actor);
    // The character's side stands before the foes, and each in its position: a stable sort keeps
    // both. It takes room of its own, so it is left out where nothing would move.
    const auto before = [](const Actor* a, const Actor* b) { return a->order > b->order; };
    if (!std::is_sorted(f.cast.in_order.begin(), f.cast.in_order.end(), before))
        std::stable_sort(f.cast.in_order.begin(), f.cast.in_order.end(), before);
    f.cast.users.clear();
    std::copy_if(f.cast.in_order.begin(), f.cast.in_order.end(), std::back_inserter(f.cast.users),
                 [](const Actor* actor) { return !actor->uses.rules.empty(); });
    f.cast.order_changed = false;
}

/// One instant in the order of M60.
[[gnu::always_inline]] inline void instant(Field& f) {
    count_event(f);
    if (f.rules.order_moves) refresh_order(f);
    if (f.cast.order_changed) sort_order(f);
    f.clock.regenerated = false;
    if (f.even) {
        fall_by_flow(f);
        end_flows(f);
    } else {
        if (f.clock.first_tick <= f.now) tick_effects(f);
        if (!f.over && f.clock.first_regen <= f.now) regenerate(f);
    }
    f.clock.regenerated = true;
    if (!f.over && f.clock.first_end <= f.now) end_effects(f);
    if (!f.over && f.clock.first_leave <= f.now) leave_due(f);
    if (!f.over && !f.cast.all_came) arrive(f);
    if (!f.over && f.cast.anybody_swaps) consider_swaps(f);
    if (f.even || f.uses.uneasy || f.clock.first_cooldown <= f.now) wake_users(f);
    if (!f.over) consider_uses(f);
    if (!f.over && f.clock.first_ready <= f.now) act_all(f);
    if (f.watch.timeline) sample(f);
}

/// The next end of a cooldown. By even luck only those of uses: what an actor could do again
/// matters once it is free.
void find_next_cooldown(Field& f, Actor& actor) {
    actor.due.cooldown = never;
    const auto later = [&](Ticks moment) {
        if (moment > f.now) actor.due.cooldown = std::min(actor.due.cooldown, moment);
    };
    if (!f.even)
        for (const Place& place : actor.places) later(place.ready);
    for (std::size_t i = 0; i < actor.pack.ready.size(); ++i)
        if (actor.pack.left[i] > 0) later(actor.pack.ready[i]);
}

/// The first moment after this one at which something is due in a trial.
[[gnu::always_inline]] inline Ticks next_in_trial(Field& f) {
    Ticks next = std::min(next_cooldown(f), f.clock.first_leave), tick = never, end = never,
          regen = never, ready = never;
    if (f.cast.anybody_swaps) next = std::min(next, next_swap(f));
    if (f.cast.anybody_reads_time) next = std::min(next, next_turn_in_time(f));
    for (Actor& actor : f.cast.actors) {
        if (!actor.life.standing) continue;
        ready = std::min(ready, actor.ready);
        if (!actor.life.present) {
            next = std::min(next, actor.setup->arrival);
            continue;
        }
        if (actor.ready > f.now) next = std::min(next, actor.ready);
        if (actor.under.next_end > f.now) next = std::min(next, actor.under.next_end);
        end = std::min(end, actor.under.next_end);
        tick = std::min(tick, actor.under.next_tick);
        regen = std::min(regen, actor.due.regen);
    }
    f.clock.first_ready = ready;
    f.clock.first_end = end;
    f.clock.first_tick = tick;
    f.clock.first_regen = regen;
    return std::min({next, tick, regen});
}

} // namespace

void fight(Field& f) {
    begin(f);
    const Ticks limit = f.rules.armoury.combat.time_limit;
    while (true) {
        instant(f);
        if (f.over) return;
        if (f.even) find_rates(f);
        f.now = f.even ? flow_on(f, limit) : std::min(next_in_trial(f), limit);
        f.ledger.result.timed_out = f.now >= limit;
        if (f.ledger.result.timed_out) return;
    }
}

void find_active(Field& f) {
    f.cast.active.clear();
    for (Actor& actor : f.cast.actors)
        if (actor.active()) f.cast.active.push_back(&actor);
}

Ticks next_cooldown(Field& f) {
    if (f.clock.first_cooldown > f.now) return f.clock.first_cooldown;
    f.clock.first_cooldown = never;
    for (Actor* actor : f.cast.active) {
        find_next_cooldown(f, *actor);
        f.clock.first_cooldown = std::min(f.clock.first_cooldown, actor->due.cooldown);
    }
    return f.clock.first_cooldown;
}

Ticks next_turn_in_time(Field& f) {
    Ticks next = never;
    for (Actor& actor : f.cast.actors)
        if (actor.clocked && actor.active()) next = std::min(next, next_turn_in_time(f, actor));
    return next;
}

Ticks next_turn_in_time(Field& f, Actor& actor) {
    Ticks next = never;
    const auto look = [&](std::optional<TimeTurns>& turns, const Actor* other) {
        if (turns) next = std::min(next, turns->next(f.now, environment(f, actor, other)));
    };
    for (const RuleState& rule : actor.uses.rules)
        if (rule.formula && actor.pack.left[rule.packed] > 0) look(rule.formula->turns, nullptr);
    for (std::size_t i = 0; i < actor.swaps.due.size(); ++i)
        if (actor.swaps.due[i] && !actor.swaps.done[i]) look(actor.swaps.due[i]->turns, nullptr);
    if (actor.ready > f.now) return next; // its actions are looked at once it is free
    const Actor* const front = front_target(f, actor);
    for (const Place& place : actor.places)
        if (front && place.ready <= f.now) look(place.formulas->turns, front);
    return next;
}

Ticks next_end(Field& f) {
    Ticks next = never;
    f.clock.first_end = never;
    for (const Actor* actor : f.cast.active) {
        f.clock.first_end = std::min(f.clock.first_end, actor->under.next_end);
        if (actor->under.next_end > f.now) next = std::min(next, actor->under.next_end);
    }
    return next;
}

} // namespace panoplon::fighting
