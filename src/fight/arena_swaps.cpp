#include "fight/arena.h"

namespace panoplon {

/// Swaps come after arrivals and before uses, once the actor is free; each is done once a fight.
void Arena::consider_swaps() {
    for (Actor* some : active_) {
        Actor& actor = *some;
        if (actor.ready > now_) continue;
        for (std::size_t i = 0; i < actor.swaps.size(); ++i) {
            const SetupSwap& one = actor.setup->swaps[i];
            if (actor.swapped[i]) continue;
            RuleFormula* const formula = actor.swaps[i];
            const bool due =
                formula ? holds(formula->value, environment(actor, nullptr)) : one.at <= now_;
            if (inquiry_) note_swap(actor, one, due);
            if (!due) continue;
            actor.swapped[i] = true;
            if (one.refused.empty()) {
                swap(actor, one);
                break; // what it wears now has swaps of its own
            }
            if (timeline_)
                tell(actor, "swap_refused", one.name, actor.setup->name, 0, health(actor),
                     one.refused);
        }
    }
}

/// M71: other gear, actions and triggers; the pack, the effects and what cools down stay, pools
/// clamp.
void Arena::swap(Actor& actor, const SetupSwap& swap) {
    count_event();
    const ActorSetup& to = setup_->swap_outfits[swap.outfit];
    const std::vector<Place> before = std::move(actor.places);
    if (timeline_) tell(actor, "swaps", swap.name, actor.setup->name, 0, health(actor));
    actor.pack_weight += to.pack_shift - actor.setup->pack_shift;
    actor.setup = &to;
    take_up(actor);
    find_counts(actor);
    for (Place& place : actor.places)
        for (const Place& one : before)
            if (place.id == one.id) {
                place.ready = one.ready;
                place.account = one.account;
            }
    actor.swapped.assign(to.swaps.size(), false);
    actor.acting = nullptr;
    actor.flows.clear();
    actor.ready = std::max(actor.ready, now_ + swap.takes);
    find_what_there_is();
    first_cooldown_ = 0;
    derive(actor);
}

/// The first moment after this one at which one is due by time.
Ticks Arena::next_swap() const {
    Ticks next = never;
    for (const Actor* actor : active_)
        for (std::size_t i = 0; i < actor->swaps.size(); ++i)
            if (!actor->swapped[i] && actor->setup->swaps[i].at > now_)
                next = std::min(next, actor->setup->swaps[i].at);
    return next;
}

} // namespace panoplon
