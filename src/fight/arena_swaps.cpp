#include "fight/arena.h"

namespace panoplon {

/// Swaps come after arrivals and before uses, once the actor is free; each is done once a fight.
void Arena::consider_swaps() {
    for (Actor& actor : actors_) {
        if (!actor.active() || actor.ready > now_) continue;
        for (std::size_t i = 0; i < actor.setup->swaps.size(); ++i) {
            const SetupSwap& one = actor.setup->swaps[i];
            if (actor.swapped[i]) continue;
            const int formula = rule_formula(one.when);
            const bool due = formula < 0
                                 ? one.at <= now_
                                 : holds(rule_formulas_[static_cast<std::size_t>(formula)].second,
                                         environment(actor, nullptr));
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
    std::vector<Ticks> ready(to.actions.size(), 0);
    std::vector<double> accounts(to.actions.size(), 0);
    for (std::size_t now = 0; now < to.actions.size(); ++now)
        for (std::size_t before = 0; before < actor.setup->actions.size(); ++before)
            if (to.actions[now] == actor.setup->actions[before]) {
                ready[now] = actor.action_ready[before];
                accounts[now] = actor.accounts[before];
            }
    if (timeline_) tell(actor, "swaps", swap.name, actor.setup->name, 0, health(actor));
    actor.pack_weight += to.pack_shift - actor.setup->pack_shift;
    actor.setup = &to;
    actor.action_ready = std::move(ready);
    actor.accounts = std::move(accounts);
    actor.terms.assign(to.actions.size(), {});
    actor.times.assign(to.actions.size(), {});
    actor.strikes.assign(to.actions.size() * actors_.size(), {});
    actor.swapped.assign(to.swaps.size(), false);
    actor.acting = -1;
    actor.flow_count = 0;
    actor.ready = std::max(actor.ready, now_ + swap.takes);
    triggers_ = triggers_ || !to.triggers.empty();
    derive(actor);
}

Ticks Arena::next_swap(const Actor& actor) const {
    Ticks next = never;
    for (std::size_t i = 0; i < actor.setup->swaps.size(); ++i)
        if (!actor.swapped[i] && actor.setup->swaps[i].at > now_)
            next = std::min(next, actor.setup->swaps[i].at);
    return next;
}

} // namespace panoplon
