#include "fight/arena.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// What a blow could set off.
constexpr EventSet of_blows =
    event_bit(TriggerEvent::hit) | event_bit(TriggerEvent::crit) | event_bit(TriggerEvent::hurt);

/// When a level that moves evenly is reached, a hair early: what then turns out to be not so yet
/// costs an instant, and nothing else.
Ticks moment_of(Ticks now, double way, double per_tick) {
    constexpr double hair = 1 - 1e-9;
    return per_tick > 0 ? now + way / per_tick * hair : never;
}

} // namespace

/// Whether a flow, begun again now, would be what it is: with the same stats, or with others that
/// come to the same.
bool Arena::still_flows(Actor& actor, Flow& flow, Actor& target) {
    const std::uint64_t self = actor.derived->version, other = target.derived->version;
    if (flow.self_version == self && flow.target_version == other) return true;
    if (flow.unlike_self == self && flow.unlike_target == other) return false;
    Flow& now = flow_of_now_;
    find_flow(now, actor, *actor.acting, target);
    const bool same = now.hit == flow.hit && now.crit == flow.crit && now.dealt == flow.dealt &&
                      now.drained == flow.drained;
    (same ? flow.self_version : flow.unlike_self) = self;
    (same ? flow.target_version : flow.unlike_target) = other;
    return same;
}

/// Whether what an actor does, begun again at its end, would go on as the same flow onto the same
/// targets.
bool Arena::renews(Actor& actor) {
    if (!actor.acting || !actor.acting->formulas->renewable || actor.flow_ends != actor.ready ||
        (passing_hear_ & of_blows) != 0)
        return false;
    const int targets = actor.acting->action->targets;
    std::size_t flow = 0;
    for (Actor* target = actor.opposed; target != actor.opposed_end; ++target) {
        if (static_cast<int>(flow) == targets) break;
        if (!target->active()) continue;
        if (flow == actor.flow_count) return false;
        Flow& one = actor.flows[flow++];
        if (one.target != target || !still_flows(actor, one, *target)) return false;
    }
    return flow == actor.flow_count;
}

/// Until when an actor certainly chooses the same again, or nothing where it does nothing: what
/// stands before that on its list is not ready, or not affordable.
Ticks Arena::same_choice_until(const Actor& actor) const {
    Ticks until = never;
    const Place* end = actor.acting ? actor.acting : actor.places.data() + actor.places.size();
    for (const Place* place = actor.places.data(); place != end; ++place) {
        Ticks possible = std::max(now_, place->ready);
        if (!place->formulas->when)
            for (const auto& [pool, cost] : place->action->cost) {
                const std::size_t p = pool.index();
                const double lacking = cost - rounding_of(actor, p) - actor.pools[p];
                if (lacking > 0)
                    possible = std::max(possible, moment_of(now_, lacking, actor.rates[p].net));
            }
        until = std::min(until, possible);
    }
    return until;
}

/// Until when no use rule of an actor can come to anything that it did not come to now.
Ticks Arena::uses_rest_until(const Actor& actor) const {
    if (actor.stirred == Stirred::all) return now_;
    Ticks until = never;
    for (std::size_t p = 0; p < actor.calm.size(); ++p) {
        const Calm& calm = actor.calm[p];
        const double amount = actor.pools[p];
        if (!calm.has(amount)) return now_;
        const double net = actor.rates[p].net;
        until = std::min({until, moment_of(now_, amount - calm.from, -net),
                          moment_of(now_, calm.below - amount, net)});
    }
    return until;
}

/// What the next thing that an action applies would only prolong (M20); null where it would begin.
EffectState* Arena::prolonged_by(Actor& actor) {
    const auto& applies = *actor.acting->action->applies;
    if (armoury_.at(applies.effect).again == Again::pile) return nullptr;
    Actor& receiver = applies.to_self ? actor : *actor.flows.front().target;
    if (receiver.warded) return nullptr;
    for (EffectState& state : receiver.effects)
        if (state.id == applies.effect) return &state;
    return nullptr;
}

/// Visits each trigger, not cooling down, that would hear of what an actor's beginning expects to
/// happen: its state and the chance that it would save up.
template <class Visit>
void Arena::for_each_heard(Actor& actor, const Visit& visit) {
    const auto hear = [&](Actor& hearer, TriggerEvent event, double chance) {
        if ((hearer.hears & event_bit(event)) == 0) return;
        for (const Bearer* bearer : hearer.setup->triggers)
            for (const Trigger& trigger : bearer->triggers) {
                if (trigger.on != event) continue;
                TriggerState& state = state_of(hearer, trigger);
                if (state.ready <= actor.flow_ends) visit(state, whole_chance(trigger, chance));
            }
    };
    for (std::size_t f = 0; f < actor.flow_count; ++f) {
        const Flow& flow = actor.flows[f];
        Actor& target = *flow.target;
        if (target.warded) continue;
        hear(actor, TriggerEvent::hit, flow.hit);
        hear(actor, TriggerEvent::crit, flow.crit);
        hear(target, TriggerEvent::hurt, flow.hit);
    }
}

/// Whether no trigger could come true by what an actor begins anew; each flow could be heard by
/// the same.
bool Arena::only_saves_up(Actor& actor) {
    bool only = true;
    for_each_heard(actor, [&](const TriggerState& state, double chance) {
        const double most = chance * static_cast<double>(actor.flow_count);
        only = only && state.account + most < full_account;
    });
    return only;
}

/// Begins anew what an actor does, at the end of what it did; false, and nothing done, where more
/// would come of it than what goes on as it was.
bool Arena::renew(Actor& actor) {
    Place& place = *actor.acting;
    if (triggers_ && !only_saves_up(actor)) return false;
    if (const auto& applies = place.action->applies) {
        double account = place.account + applies->chance * actor.flows.front().hit;
        if (account >= full_account) {
            EffectState* const running = prolonged_by(actor);
            if (!running) return false;
            prolong(applies->to_self ? actor : *actor.flows.front().target, *running,
                    actor.flow_ends, applies->duration, origin_of(place.id));
            prolonged_ = true;
            account -= 1;
        }
        place.account = account;
    }
    if (triggers_)
        for_each_heard(actor, [](TriggerState& state, double chance) { state.account += chance; });
    count_event();
    place.count->done += 1;
    actor.ready = actor.flow_ends += actor.derived->every[place.index];
    return true;
}

/// Whose beginning before a moment comes first, of those that set something off; at one instant,
/// who acts first.
Actor* Arena::next_to_renew(Ticks before) const {
    Actor* first = nullptr;
    for (Actor* actor : in_order_)
        if (actor->renewing && actor->sets_off && actor->flow_ends < before) {
            first = actor;
            before = actor->flow_ends;
        }
    return first;
}

/// Begins anew, again and again, what sets nothing off.
void Arena::renew_until(Actor& actor, Ticks moment) {
    if (actor.flow_ends >= moment) return;
    const Ticks every = actor.derived->every[actor.acting->index];
    const double times = std::ceil((moment - actor.flow_ends) / every);
    events_ += static_cast<std::int64_t>(times);
    if (events_ > event_limit_) too_many_events();
    actor.acting->count->done += times;
    actor.ready = actor.flow_ends += times * every;
}

/// Until when nothing that is asked at every instant can come to anything but what it came to now.
Ticks Arena::at_rest_until() const {
    Ticks rest = never;
    for (const Actor& actor : actors_) {
        if (!actor.active()) continue;
        if (actor.own_rates_changed) return now_; // a regen that moves: each instant has its own
        if (actor.uses) rest = std::min(rest, uses_rest_until(actor));
        const bool idle = !actor.acting && actor.ready <= now_ && front_target(actor);
        if (idle) rest = std::min(rest, same_choice_until(actor));
    }
    return rest;
}

/// Whether something could come of what an actor begins anew: an effect, or a trigger that hears.
bool Arena::sets_off(const Actor& actor) const {
    if (actor.acting->action->applies) return true;
    constexpr EventSet own = event_bit(TriggerEvent::hit) | event_bit(TriggerEvent::crit);
    if ((actor.hears & own) != 0) return true;
    return std::any_of(
        actor.flows.begin(), actor.flows.begin() + actor.flow_count,
        [](const Flow& flow) { return (flow.target->hears & event_bit(TriggerEvent::hurt)) != 0; });
}

/// By even luck an action that begins again as it was changes nothing but counts and the ends of
/// effects. Such beginnings are passed over until the next moment at which something else is due,
/// or until the first that could come to more; returns that moment, `end` at the latest.
Ticks Arena::pass_renewals(Ticks end) {
    end = std::min(end, next_by_even_luck());
    const Ticks rest = at_rest_until();
    for (Actor& actor : actors_) {
        if (!actor.renewing) continue;
        actor.same_choice = std::min(rest, same_choice_until(actor));
        actor.sets_off = sets_off(actor);
        if (actor.sets_off || actor.same_choice == never) continue;
        const Ticks every = actor.derived->every[actor.acting->index];
        const double times = std::ceil((actor.same_choice - actor.flow_ends) / every);
        end = std::min(end, actor.flow_ends + std::max(0.0, times) * every);
    }
    const Ticks next = pass_chances(end);
    for (Actor& actor : actors_)
        if (actor.renewing && !actor.sets_off) renew_until(actor, next);
    return next;
}

/// The same for beginnings that save up chances, one after the other.
Ticks Arena::pass_chances(Ticks end) {
    Ticks next = std::min(end, next_end());
    prolonged_ = false;
    while (true) {
        Actor* const first = next_to_renew(next);
        if (first) {
            if (first->flow_ends >= first->same_choice || !renew(*first)) return first->flow_ends;
            next = std::min(next, first_end_); // what was prolonged may end sooner now
            continue;
        }
        if (!prolonged_) return next;
        prolonged_ = false;
        next = std::min(end, next_end());
    }
}

} // namespace panoplon
