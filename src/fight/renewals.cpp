#include "fight/renewals.h"

#include "fight/actions.h"
#include "fight/calls.h"
#include "fight/counting.h"
#include "fight/course.h"
#include "fight/effects.h"
#include "fight/flows.h"
#include "fight/instants.h"
#include "fight/states.h"
#include "fight/swaps.h"
#include "fight/triggers.h"

#include <algorithm>
#include <cmath>

namespace panoplon::fighting {

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

/// Whether a flow, begun again now, would be what it is: with the same stats, or with others that
/// come to the same.
bool still_flows(Field& f, Actor& actor, Flow& flow, Actor& target) {
    const std::uint64_t self = actor.derived->version, other = target.derived->version;
    if (flow.self_version == self && flow.target_version == other) return true;
    if (flow.unlike_self == self && flow.unlike_target == other) return false;
    Flow& now = f.flows.flow_of_now;
    find_flow(f, now, actor, *actor.even.acting, target);
    const bool same = now.hit == flow.hit && now.crit == flow.crit && now.dealt == flow.dealt &&
                      now.drained == flow.drained && now.returned == flow.returned;
    (same ? flow.self_version : flow.unlike_self) = self;
    (same ? flow.target_version : flow.unlike_target) = other;
    return same;
}

/// Whether what an actor does, begun again at its end, would go on as the same flow onto the same
/// targets.
bool renews(Field& f, Actor& actor) {
    if (!actor.even.acting || !actor.even.acting->formulas->renewable ||
        actor.even.ends != actor.ready || (f.rules.passing_hear & of_blows) != 0 ||
        actor.under.stops_actions || (actor.setup->chooses_by_weight && actor.places.size() > 1))
        return false;
    const int targets = actor.even.acting->action->targets;
    Flow* const* flow = actor.even.flows.data();
    Flow* const* const end = flow + actor.even.flows.size();
    bool same = true;
    int struck = 0;
    for_each_target(f, actor, [&](Actor& target) {
        same = flow != end && *flow && (*flow)->target == &target &&
               still_flows(f, actor, **flow, target);
        if (same) ++flow;
        return same && ++struck != targets;
    });
    return same && flow == end;
}

/// Until when an actor certainly chooses the same again, or nothing where it does nothing: what
/// stands before that on its list is not ready, or not affordable.
Ticks same_choice_until(const Field& f, const Actor& actor) {
    Ticks until = never;
    if (actor.under.stops_actions) return until;
    if (actor.setup->chooses_by_weight && actor.places.size() > 1) return f.now;
    const Place* end =
        actor.even.acting ? actor.even.acting : actor.places.data() + actor.places.size();
    for (const Place* place = actor.places.data(); place != end; ++place) {
        if (!place->formulas->unconditional &&
            !(can_spend(actor, *place) && can_call(actor, *place)))
            continue;
        Ticks possible = std::max(f.now, place->ready);
        if (!place->formulas->when)
            for (const auto& [p, cost] : place->formulas->costs) {
                const double lacking = cost.number - rounding_of(actor, p) - actor.pools[p];
                if (!cost.formula && lacking > 0)
                    possible = std::max(possible, moment_of(f.now, lacking, actor.net[p]));
            }
        until = std::min(until, possible);
    }
    return until;
}

/// Until when no use rule of an actor can come to anything that it did not come to now.
Ticks uses_rest_until(const Field& f, const Actor& actor) {
    if (actor.under.stops_uses) return never;
    if (actor.uses.stirred == Stirred::all) return f.now;
    Ticks until = never;
    for (std::size_t p = 0; p < f.rules.pools; ++p) {
        const Calm& calm = actor.calm[p];
        const double amount = actor.pools[p];
        if (!calm.has(amount)) return f.now;
        const double net = actor.net[p];
        until = std::min({until, moment_of(f.now, amount - calm.from, -net),
                          moment_of(f.now, calm.below - amount, net)});
    }
    return until;
}

/// What the next thing that an action applies would only prolong (M20); null where it would begin.
EffectState* prolonged_by(const Field& f, Actor& receiver, EffectId effect) {
    if (f.rules.armoury.at(effect).again == Again::pile || receiver.under.warded ||
        receiver.under.immune)
        return nullptr;
    for (EffectState& state : receiver.effects)
        if (state.id == effect) return &state;
    return nullptr;
}

/// What comes of an actor's beginnings until something else happens: each trigger that would hear
/// of what is expected to happen, with the chance that it would save up, and what is applied.
void find_renewal(Field& f, Renewal& renewal, Actor& actor) {
    renewal.actor = &actor;
    renewal.every = actor.derived->every[actor.even.acting->index];
    renewal.heard.clear();
    renewal.moves = false;
    const auto hear = [&](Actor& hearer, TriggerEvent event, const Actor& other, double chance) {
        if ((hearer.hears & event_bit(event)) == 0) return;
        for (const Bearer* bearer : hearer.setup->triggers)
            for (const Trigger& trigger : bearer->triggers) {
                if (trigger.on != event) continue;
                const TriggerState& state = state_of(f, hearer, trigger);
                const auto at = static_cast<std::size_t>(&state - hearer.triggered.data());
                renewal.heard.push_back(
                    {&hearer, at, whole_chance(f, hearer, state, &other, chance)});
                renewal.moves = renewal.moves || (state.chance.formula &&
                                                  !state.chance.formula->formula().only_stats());
            }
    };
    for (const Flow* flow : actor.even.flows) {
        Actor& target = *flow->target;
        if (target.under.warded) continue;
        hear(actor, TriggerEvent::hit, target, flow->hit);
        hear(actor, TriggerEvent::crit, target, flow->crit);
        hear(target, TriggerEvent::hurt, actor, flow->hit);
    }
    renewal.receiver = nullptr;
    if (actor.even.acting->action->applies.empty()) return;
    const Application& applies = actor.even.acting->action->applies.front(); // the one that it has
    renewal.receiver = applies.to_self ? &actor : actor.even.flows.front()->target;
    renewal.running = prolonged_by(f, *renewal.receiver, applies.effect);
    renewal.saves = applies.chance.number * actor.even.flows.front()->hit;
}

/// Begins anew what an actor does, at the end of what it did; false, and nothing done, where more
/// would come of it than what goes on as it was.
bool renew(Field& f, Renewal& renewal) {
    Actor& actor = *renewal.actor;
    Place& place = *actor.even.acting;
    if (renewal.moves) return false;
    const auto flows =
        static_cast<double>(actor.even.flows.size()); // each could be heard by the same
    for (const Renewal::Heard& heard : renewal.heard)
        if (heard.state().ready <= actor.even.ends &&
            heard.state().account + heard.chance * flows >= full_account)
            return false;
    if (renewal.receiver) {
        double account = place.accounts.front() + renewal.saves;
        if (account >= full_account) {
            if (!renewal.running) return false;
            prolong(f, *renewal.running, actor.even.ends, place.action->applies.front().duration,
                    origin_of(f, place.id));
            f.clock.first_end = std::min(f.clock.first_end, renewal.running->end);
            f.flows.prolonged = true;
            account -= 1;
        }
        place.accounts.front() = account;
    }
    for (const Renewal::Heard& heard : renewal.heard)
        if (heard.state().ready <= actor.even.ends) heard.state().account += heard.chance;
    count_event(f);
    place.count->done += 1;
    actor.ready = actor.even.ends += renewal.every;
    return true;
}

/// Whose beginning before a moment comes first; at one instant, who acts first.
Renewal* next_to_renew(Field& f, Ticks before) {
    Renewal* first = nullptr;
    for (std::size_t i = 0; i < f.flows.renewal_count; ++i)
        if (f.flows.renewals[i].actor->even.ends < before) {
            first = &f.flows.renewals[i];
            before = first->actor->even.ends;
        }
    return first;
}

/// Begins anew, again and again, what sets nothing off.
void renew_until(Field& f, Actor& actor, Ticks moment) {
    if (actor.even.ends >= moment) return;
    const Ticks every = actor.derived->every[actor.even.acting->index];
    const double times = std::ceil((moment - actor.even.ends) / every);
    f.clock.events += static_cast<std::int64_t>(times);
    if (f.clock.events > f.rules.event_limit) too_many_events(f);
    actor.even.acting->count->done += times;
    actor.ready = actor.even.ends += times * every;
}

struct Outlook {
    Ticks next; ///< when something is due
    Ticks rest; ///< until when nothing else comes of what stands
};

/// By even luck, the next moment at which something is due, but for ends of effects and for what
/// renews; and until when nothing that is asked at every instant can come to anything but what it
/// came to now.
Outlook look_out(Field& f) {
    Outlook outlook{std::min(next_cooldown(f), f.clock.first_leave), never};
    Ticks& next = outlook.next;
    if (f.cast.anybody_swaps) next = std::min(next, next_swap(f));
    if (f.cast.anybody_reads_time) next = std::min(next, next_turn_in_time(f));
    f.clock.first_ready = never;
    const bool passes =
        !f.watch.any && !f.rules.order_moves && !f.cast.anybody_swaps; // else nothing renews
    const auto rest = [&](Ticks until) { outlook.rest = std::min(outlook.rest, until); };
    if (f.rules.shields_move) rest(f.now); // each instant has its own, as with a regen that moves
    for (Actor* one : f.cast.active) {
        Actor& actor = *one;
        actor.even.renewing = passes && renews(f, actor);
        f.clock.first_ready = std::min(f.clock.first_ready, actor.ready);
        if (actor.even.own_rates_changed) rest(f.now); // a regen that moves
        if (actor.uses.any && outlook.rest > f.now) rest(uses_rest_until(f, actor));
        if (actor.ready <= f.now) { // nothing to do yet
            for (const Place& place : actor.places)
                if (place.ready > f.now) next = std::min(next, place.ready);
            if (!actor.even.acting && outlook.rest > f.now && front_target(f, actor))
                rest(same_choice_until(f, actor));
        }
        if (actor.even.renewing) continue;
        if (actor.ready > f.now) next = std::min(next, actor.ready);
        if (actor.even.acting && actor.even.ends > f.now) next = std::min(next, actor.even.ends);
    }
    if (f.cast.all_came) return outlook;
    for (const Actor& actor : f.cast.actors) {
        if (actor.life.present || !actor.life.standing) continue;
        f.clock.first_ready = std::min(f.clock.first_ready, actor.ready);
        next = std::min(next, actor.setup->arrival);
    }
    return outlook;
}

/// Whether something could come of what an actor begins anew: an effect, or a trigger that hears.
bool sets_off(const Actor& actor) {
    if (!actor.even.acting->action->applies.empty()) return true;
    constexpr EventSet own = event_bit(TriggerEvent::hit) | event_bit(TriggerEvent::crit);
    if ((actor.hears & own) != 0) return true;
    return std::any_of(actor.even.flows.begin(), actor.even.flows.end(), [](const Flow* flow) {
        return (flow->target->hears & event_bit(TriggerEvent::hurt)) != 0;
    });
}

/// Passes over beginnings that save up chances, one after the other, until a moment or until the
/// first that could come to more; returns which.
Ticks pass_chances(Field& f, Ticks end) {
    Ticks next = std::min(end, next_end(f));
    if (f.flows.renewal_count == 0) return next;
    f.flows.prolonged = false;
    while (true) {
        Renewal* const first = next_to_renew(f, next);
        if (first && first->actor->even.ends < first->actor->even.same_choice && renew(f, *first)) {
            next = std::min(next, f.clock.first_end); // what was prolonged may end sooner now
            continue;
        }
        if (f.flows.prolonged)
            for (std::size_t i = 0; i < f.flows.renewal_count; ++i)
                if (f.flows.renewals[i].receiver)
                    find_effect_moments(f, *f.flows.renewals[i].receiver);
        if (first) return first->actor->even.ends;
        if (!f.flows.prolonged) return next;
        f.flows.prolonged = false;
        next = std::min(end, next_end(f));
    }
}

} // namespace

Ticks pass_renewals(Field& f, Ticks end) {
    const Outlook outlook = look_out(f);
    end = std::min(end, outlook.next);
    f.flows.renewal_count = 0;
    for (Actor* one : f.cast.in_order) {
        Actor& actor = *one;
        if (!actor.active() || !actor.even.renewing) continue;
        actor.even.same_choice = std::min(outlook.rest, same_choice_until(f, actor));
        actor.even.sets_off = sets_off(actor);
        if (actor.even.sets_off) {
            if (f.flows.renewal_count == f.flows.renewals.size()) f.flows.renewals.emplace_back();
            find_renewal(f, f.flows.renewals[f.flows.renewal_count++], actor);
            continue;
        }
        if (actor.even.same_choice == never) continue;
        const Ticks every = actor.derived->every[actor.even.acting->index];
        const double times = std::ceil((actor.even.same_choice - actor.even.ends) / every);
        end = std::min(end, actor.even.ends + std::max(0.0, times) * every);
    }
    const Ticks next = pass_chances(f, end);
    for (Actor* actor : f.cast.active)
        if (actor->even.renewing && !actor->even.sets_off) renew_until(f, *actor, next);
    return next;
}

} // namespace panoplon::fighting
