#include "fight/arena.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// What a renewal could set off.
constexpr EventSet of_blows =
    event_bit(TriggerEvent::hit) | event_bit(TriggerEvent::crit) | event_bit(TriggerEvent::hurt);

/// When a level that moves evenly is reached, a hair early: what then turns out to be not so yet
/// costs an instant, and nothing else.
Ticks moment_of(Ticks now, double way, double per_tick) {
    constexpr double hair = 1 - 1e-9;
    return per_tick > 0 ? now + way / per_tick * hair : never;
}

} // namespace

/// Whether what an actor does, begun again at its end, would go on as the same flow onto the same
/// targets.
bool Arena::renews(const Actor& actor) const {
    if (!actor.acting || !actor.acting->formulas->renewable || actor.flow_ends != actor.ready ||
        hears(actor, of_blows))
        return false;
    const int targets = actor.acting->action->targets;
    std::size_t flow = 0;
    const auto [first, end] = opposing(actor);
    for (std::size_t i = first; i < end && static_cast<int>(flow) < targets; ++i) {
        const Actor& target = actors_[i];
        if (!target.active()) continue;
        if (flow == actor.flow_count || hears(target, of_blows)) return false;
        const Flow& one = actor.flows[flow++];
        if (one.target != static_cast<int>(i) || one.self_version != actor.derived->version ||
            one.target_version != target.derived->version)
            return false;
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
                if (actor.pools[p] < cost)
                    possible = std::max(possible, moment_of(now_, cost - actor.pools[p],
                                                            actor.gains[p] - actor.losses[p]));
            }
        until = std::min(until, possible);
    }
    return until;
}

/// Until when no use rule of an actor can come to anything that it did not come to now.
Ticks Arena::uses_rest_until(const Actor& actor) const {
    if (actor.stirred == Stirred::all) return now_;
    Ticks until = never;
    for (const RuleState& rule : actor.rules) {
        if (!rule.sees_pools || rule.over) continue;
        const double amount = actor.pools[rule.pool];
        const double loss = actor.losses[rule.pool] - actor.gains[rule.pool];
        const bool cooling = actor.use_ready[rule.packed] > now_;
        if (amount >= rule.quiet_from)
            until = std::min(until, moment_of(now_, amount - rule.quiet_from, loss));
        else if (!ledger_ && cooling)
            continue;
        else if (!(cooling && amount < rule.refused_below && loss >= 0 &&
                   rule.last_refusal == Refused::cooling_down))
            return now_;
    }
    return until;
}

/// What one beginning adds to the account of what an action applies.
double Arena::saved_by(const Actor& actor) {
    const auto& applies = actor.acting->action->applies;
    return applies ? applies->chance * actor.flows.front().hit : 0;
}

/// The first beginning before `next` that could come to more than a renewal; otherwise one that is
/// not before it.
Ticks Arena::next_that_counts(const Actor& actor, Ticks next, Ticks rest) const {
    const Place& place = *actor.acting;
    const Ticks until = std::min({next, rest, same_choice_until(actor)});
    const Ticks every = actor.derived->every[place.index];
    const double most = static_cast<double>(event_limit_); // renew() ends the fight there
    if (!place.action->applies) {
        const double times = std::ceil(std::max(0.0, until - actor.flow_ends) / every);
        return actor.flow_ends + std::min(times, most) * every;
    }
    const double saved = saved_by(actor);
    double account = place.account;
    Ticks at = actor.flow_ends;
    for (double times = 0; at < until && times < most; ++times) {
        account += saved;
        if (account >= full_account) break;
        at += every;
    }
    return at;
}

void Arena::renew(Actor& actor, Ticks until) {
    const double saved = saved_by(actor);
    while (actor.flow_ends < until) {
        count_event();
        actor.counts[actor.acting->id.index()].done += 1;
        actor.acting->account += saved;
        actor.flow_ends += actor.derived->every[actor.acting->index];
    }
    actor.ready = actor.flow_ends;
}

/// Until when nothing that is asked at every instant can come to anything but what it came to now.
Ticks Arena::at_rest_until() const {
    Ticks rest = never;
    for (const Actor& actor : actors_) {
        if (!actor.active()) continue;
        if (actor.own_rates_changed) return now_; // a regen that moves: each instant has its own
        if (actor.uses) rest = std::min(rest, uses_rest_until(actor));
        const bool idle = !actor.acting && actor.ready <= now_ && front_target(actor) >= 0;
        if (idle) rest = std::min(rest, same_choice_until(actor));
    }
    return rest;
}

/// By even luck an action that begins again as it was changes nothing but counts. Such beginnings
/// are passed over until `next`, or until the first that could come to more; returns that moment.
Ticks Arena::pass_renewals(Ticks next) {
    const Ticks rest = at_rest_until();
    for (Actor& actor : actors_)
        if (actor.renewing) next = std::min(next, next_that_counts(actor, next, rest));
    for (Actor& actor : actors_)
        if (actor.renewing) renew(actor, next);
    return next;
}

} // namespace panoplon
