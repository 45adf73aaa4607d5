#include "fight/swaps.h"

#include "fight/actions.h"
#include "fight/counting.h"
#include "fight/course.h"
#include "fight/reasons.h"
#include "fight/states.h"
#include "fight/telling.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

/// M71: other gear, actions and triggers; the pack, the effects and what cools down stay, pools
/// clamp.
void swap(Field& f, Actor& actor, const SetupSwap& swap) {
    count_event(f);
    const ActorSetup& to = f.cast.setup->swap_outfits[swap.outfit];
    const std::vector<Place> before = std::move(actor.places);
    if (f.watch.timeline)
        tell(f, actor, "swaps", swap.name, actor.setup->name, 0, health(f, actor));
    actor.pack.weight += to.pack_shift - actor.setup->pack_shift;
    actor.setup = &to;
    take_up(f, actor);
    find_counts(f, actor);
    for (Place& place : actor.places)
        for (const Place& one : before)
            if (place.id == one.id) {
                place.ready = one.ready;
                place.turn = one.turn;
                place.accounts = one.accounts;
            }
    actor.swaps.done.assign(to.swaps.size(), false);
    actor.even.acting = nullptr;
    actor.even.flows.clear();
    actor.ready = std::max(actor.ready, f.now + swap.takes);
    find_what_there_is(f);
    f.clock.first_cooldown = 0;
    derive(f, actor);
}

} // namespace

void consider_swaps(Field& f) {
    for (Actor* some : f.cast.active) {
        Actor& actor = *some;
        if (actor.ready > f.now) continue;
        for (std::size_t i = 0; i < actor.swaps.due.size(); ++i) {
            const SetupSwap& one = actor.setup->swaps[i];
            if (actor.swaps.done[i]) continue;
            Condition* const formula = actor.swaps.due[i];
            const bool due =
                formula ? holds(formula->value, environment(f, actor, nullptr)) : one.at <= f.now;
            if (f.watch.inquiry) note_swap(f, actor, one, due);
            if (!due) continue;
            actor.swaps.done[i] = true;
            if (one.refused.empty()) {
                swap(f, actor, one);
                break; // what it wears now has swaps of its own
            }
            if (f.watch.timeline)
                tell(f, actor, "swap_refused", one.name, actor.setup->name, 0, health(f, actor),
                     one.refused);
        }
    }
}

Ticks next_swap(const Field& f) {
    Ticks next = never;
    for (const Actor* actor : f.cast.active)
        for (std::size_t i = 0; i < actor->swaps.due.size(); ++i)
            if (!actor->swaps.done[i] && actor->setup->swaps[i].at > f.now)
                next = std::min(next, actor->setup->swaps[i].at);
    return next;
}

} // namespace panoplon::fighting
