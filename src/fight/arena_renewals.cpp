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
    Flow* const* flow = actor.flows.data();
    Flow* const* const end = flow + actor.flows.size();
    int struck = 0;
    for (Actor* target = actor.opposed; target != actor.opposed_end && struck < targets; ++target) {
        if (!target->active()) continue;
        if (flow == end || !*flow || (*flow)->target != target ||
            !still_flows(actor, **flow, *target))
            return false;
        ++flow;
        ++struck;
    }
    return flow == end;
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
                    possible = std::max(possible, moment_of(now_, lacking, actor.net[p]));
            }
        until = std::min(until, possible);
    }
    return until;
}

/// Until when no use rule of an actor can come to anything that it did not come to now.
Ticks Arena::uses_rest_until(const Actor& actor) const {
    if (actor.stirred == Stirred::all) return now_;
    Ticks until = never;
    for (std::size_t p = 0; p < pools_; ++p) {
        const Calm& calm = actor.calm[p];
        const double amount = actor.pools[p];
        if (!calm.has(amount)) return now_;
        const double net = actor.net[p];
        until = std::min({until, moment_of(now_, amount - calm.from, -net),
                          moment_of(now_, calm.below - amount, net)});
    }
    return until;
}

/// What the next thing that an action applies would only prolong (M20); null where it would begin.
EffectState* Arena::prolonged_by(Actor& receiver, EffectId effect) const {
    if (armoury_.at(effect).again == Again::pile || receiver.warded) return nullptr;
    for (EffectState& state : receiver.effects)
        if (state.id == effect) return &state;
    return nullptr;
}

/// What comes of an actor's beginnings until something else happens: each trigger that would hear
/// of what is expected to happen, with the chance that it would save up, and what is applied.
void Arena::find_renewal(Renewal& renewal, Actor& actor) {
    renewal.actor = &actor;
    renewal.every = actor.derived->every[actor.acting->index];
    renewal.heard.clear();
    const auto hear = [&](Actor& hearer, TriggerEvent event, double chance) {
        if ((hearer.hears & event_bit(event)) == 0) return;
        for (const Bearer* bearer : hearer.setup->triggers)
            for (const Trigger& trigger : bearer->triggers) {
                if (trigger.on != event) continue;
                const TriggerState& state = state_of(hearer, trigger);
                const auto at = static_cast<std::size_t>(&state - hearer.triggered.data());
                renewal.heard.push_back({&hearer, at, whole_chance(trigger, chance)});
            }
    };
    for (const Flow* flow : actor.flows) {
        Actor& target = *flow->target;
        if (target.warded) continue;
        hear(actor, TriggerEvent::hit, flow->hit);
        hear(actor, TriggerEvent::crit, flow->crit);
        hear(target, TriggerEvent::hurt, flow->hit);
    }
    const auto& applies = actor.acting->action->applies;
    renewal.receiver = nullptr;
    if (!applies) return;
    renewal.receiver = applies->to_self ? &actor : actor.flows.front()->target;
    renewal.running = prolonged_by(*renewal.receiver, applies->effect);
    renewal.saves = applies->chance * actor.flows.front()->hit;
}

/// Begins anew what an actor does, at the end of what it did; false, and nothing done, where more
/// would come of it than what goes on as it was.
bool Arena::renew(Renewal& renewal) {
    Actor& actor = *renewal.actor;
    Place& place = *actor.acting;
    const auto flows = static_cast<double>(actor.flows.size()); // each could be heard by the same
    for (const Renewal::Heard& heard : renewal.heard)
        if (heard.state().ready <= actor.flow_ends &&
            heard.state().account + heard.chance * flows >= full_account)
            return false;
    if (renewal.receiver) {
        double account = place.account + renewal.saves;
        if (account >= full_account) {
            if (!renewal.running) return false;
            prolong(*renewal.running, actor.flow_ends, place.action->applies->duration,
                    origin_of(place.id));
            first_end_ = std::min(first_end_, renewal.running->end);
            prolonged_ = true;
            account -= 1;
        }
        place.account = account;
    }
    for (const Renewal::Heard& heard : renewal.heard)
        if (heard.state().ready <= actor.flow_ends) heard.state().account += heard.chance;
    count_event();
    place.count->done += 1;
    actor.ready = actor.flow_ends += renewal.every;
    return true;
}

/// Whose beginning before a moment comes first; at one instant, who acts first.
Renewal* Arena::next_to_renew(Ticks before) {
    Renewal* first = nullptr;
    for (std::size_t i = 0; i < renewal_count_; ++i)
        if (renewals_[i].actor->flow_ends < before) {
            first = &renewals_[i];
            before = first->actor->flow_ends;
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

/// By even luck, the next moment at which something is due, but for ends of effects and for what
/// renews; and until when nothing that is asked at every instant can come to anything but what it
/// came to now.
Arena::Outlook Arena::look_out() {
    Outlook outlook{next_cooldown(), never};
    Ticks& next = outlook.next;
    if (swaps_) next = std::min(next, next_swap());
    if (clocked_) next = std::min(next, next_turn_in_time());
    first_ready_ = never;
    const bool passes = !watched_ && !order_moves_ && !swaps_; // else nothing renews
    const auto rest = [&](Ticks until) { outlook.rest = std::min(outlook.rest, until); };
    for (Actor* one : active_) {
        Actor& actor = *one;
        actor.renewing = passes && renews(actor);
        first_ready_ = std::min(first_ready_, actor.ready);
        if (actor.own_rates_changed) rest(now_); // a regen that moves: each instant has its own
        if (actor.uses && outlook.rest > now_) rest(uses_rest_until(actor));
        if (actor.ready <= now_) { // nothing to do yet
            for (const Place& place : actor.places)
                if (place.ready > now_) next = std::min(next, place.ready);
            if (!actor.acting && outlook.rest > now_ && front_target(actor))
                rest(same_choice_until(actor));
        }
        if (actor.renewing) continue;
        if (actor.ready > now_) next = std::min(next, actor.ready);
        if (actor.acting && actor.flow_ends > now_) next = std::min(next, actor.flow_ends);
    }
    if (all_came_) return outlook;
    for (const Actor& actor : actors_) {
        if (actor.present) continue;
        first_ready_ = std::min(first_ready_, actor.ready);
        next = std::min(next, actor.setup->arrival);
    }
    return outlook;
}

/// Whether something could come of what an actor begins anew: an effect, or a trigger that hears.
bool Arena::sets_off(const Actor& actor) const {
    if (actor.acting->action->applies) return true;
    constexpr EventSet own = event_bit(TriggerEvent::hit) | event_bit(TriggerEvent::crit);
    if ((actor.hears & own) != 0) return true;
    return std::any_of(actor.flows.begin(), actor.flows.end(), [](const Flow* flow) {
        return (flow->target->hears & event_bit(TriggerEvent::hurt)) != 0;
    });
}

/// By even luck an action that begins again as it was changes nothing but counts and the ends of
/// effects. Such beginnings are passed over until the next moment at which something else is due,
/// or until the first that could come to more; returns that moment, `end` at the latest.
Ticks Arena::pass_renewals(Ticks end) {
    const Outlook outlook = look_out();
    end = std::min(end, outlook.next);
    renewal_count_ = 0;
    for (Actor* one : in_order_) {
        Actor& actor = *one;
        if (!actor.active() || !actor.renewing) continue;
        actor.same_choice = std::min(outlook.rest, same_choice_until(actor));
        actor.sets_off = sets_off(actor);
        if (actor.sets_off) {
            if (renewal_count_ == renewals_.size()) renewals_.emplace_back();
            find_renewal(renewals_[renewal_count_++], actor);
            continue;
        }
        if (actor.same_choice == never) continue;
        const Ticks every = actor.derived->every[actor.acting->index];
        const double times = std::ceil((actor.same_choice - actor.flow_ends) / every);
        end = std::min(end, actor.flow_ends + std::max(0.0, times) * every);
    }
    const Ticks next = pass_chances(end);
    for (Actor* actor : active_)
        if (actor->renewing && !actor->sets_off) renew_until(*actor, next);
    return next;
}

/// The same for beginnings that save up chances, one after the other.
Ticks Arena::pass_chances(Ticks end) {
    Ticks next = std::min(end, next_end());
    if (renewal_count_ == 0) return next;
    prolonged_ = false;
    while (true) {
        Renewal* const first = next_to_renew(next);
        if (first && first->actor->flow_ends < first->actor->same_choice && renew(*first)) {
            next = std::min(next, first_end_); // what was prolonged may end sooner now
            continue;
        }
        if (prolonged_)
            for (std::size_t i = 0; i < renewal_count_; ++i)
                if (renewals_[i].receiver) find_effect_moments(*renewals_[i].receiver);
        if (first) return first->actor->flow_ends;
        if (!prolonged_) return next;
        prolonged_ = false;
        next = std::min(end, next_end());
    }
}

} // namespace panoplon
