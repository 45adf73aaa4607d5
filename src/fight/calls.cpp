#include "fight/calls.h"

#include "fight/counting.h"
#include "fight/flows.h"
#include "fight/instants.h"
#include "fight/reasons.h"
#include "fight/states.h"
#include "fight/telling.h"
#include "fight/triggers.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

bool waits_for(const Actor& actor, ActionId action) {
    return actor.setup->called->action == action && !actor.life.standing;
}

/// As new, but for what its draws are counted by: who comes again does not have the same luck.
void enter(Field& f, Actor& actor) {
    const std::uint64_t blows = actor.blows, choices = actor.choices;
    std::vector<TriggerState> triggered = std::move(actor.triggered);
    start_actor(f, actor, f.now);
    actor.blows = blows;
    actor.choices = choices;
    actor.triggered = std::move(triggered);
    for (TriggerState& state : actor.triggered) {
        state.ready = 0;
        state.account = 0;
    }
    actor.life.counts = false;
    actor.life.present = true;
    actor.life.leaves = f.now + actor.setup->called->stays;
    count_event(f);
    f.clock.first_ready = std::min(f.clock.first_ready, f.now);
}

} // namespace

void find_first_leave(Field& f) {
    f.clock.first_leave = never;
    for (const Actor* actor : f.cast.active)
        f.clock.first_leave = std::min(f.clock.first_leave, actor->life.leaves);
}

bool can_call(const Actor& actor, ActionId action) {
    return std::any_of(actor.callable.begin(), actor.callable.end(),
                       [&](const Actor* one) { return waits_for(*one, action); });
}

void call(Field& f, Actor& caller, const Place& place) {
    std::vector<Actor*> came;
    for (Actor* one : caller.callable) {
        if (!waits_for(*one, place.id)) continue;
        if (static_cast<int>(came.size()) == place.action->summons.count) break;
        enter(f, *one);
        came.push_back(one);
        if (f.watch.inquiry) list_possible(f, *one);
        if (f.watch.timeline)
            tell(f, caller, "calls", place.action->id, one->setup->name, 0, health(f, *one));
    }
    find_active(f);
    find_first_leave(f);
    for (Actor* one : came) fire(f, *one, TriggerEvent::start, nullptr);
    if (f.even) retarget(f);
}

void leave(Field& f, Actor& actor) {
    take_out(f, actor);
    actor.life.present = false;
    if (f.watch.timeline) tell(f, actor, "leaves", "", "", 0, 0);
}

void leave_due(Field& f) {
    for (Actor* one : f.cast.in_order)
        if (one->active() && one->life.leaves <= f.now) leave(f, *one);
    if (f.even) retarget(f);
}

} // namespace panoplon::fighting
