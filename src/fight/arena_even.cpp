#include "fight/arena.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

/// Begins an action whose damage flows over its time in place of landing at once (M68).
void Arena::flow_action(Actor& actor, Place& place) {
    begin_action(actor, place);
    actor.acting = &place;
    actor.flows.clear();
    rates_stirred_ = true;
    actor.flow_ends = actor.ready;
    int struck = 0;
    for (Actor* target = actor.opposed; target != actor.opposed_end && actor.standing; ++target) {
        if (!target->active()) continue;
        Flow& flow = flow_onto(actor, place, *target);
        actor.flows.push_back(&flow);
        save_up(actor, place, *target, flow);
        if (++struck == place.action->targets) return;
    }
}

void Arena::end_flows() {
    for (Actor& actor : actors_) {
        if (!actor.acting || actor.flow_ends > now_) continue;
        actor.acting = nullptr;
        actor.flows.clear();
        rates_stirred_ = true;
    }
}

/// The flow of an action onto a target: the rate is that of the whole action over its whole time,
/// so what a fallen target leaves goes on to the next: hit × ((1 − crit) × mitigated(plain) + crit
/// × mitigated(crit)), by type.
Flow& Arena::flow_onto(Actor& actor, Place& place, Actor& target) {
    Flow& flow = place.flows[target.position];
    if (place.formulas->steady && flow.strength == actor.strength &&
        flow.self_version == actor.derived->version &&
        flow.target_version == target.derived->version)
        return flow;
    flow.target = &target;
    flow.strength = actor.strength;
    flow.unlike_self = flow.unlike_target = 0;
    flow.self_version = actor.derived->version;
    flow.target_version = target.derived->version;
    find_flow(flow, actor, place, target);
    return flow;
}

/// What flows, from the stats of now.
void Arena::find_flow(Flow& flow, Actor& actor, Place& place, Actor& target) {
    const BlowTerms& terms = blow_terms(actor, place, target);
    flow.hit = terms.hit;
    flow.crit = terms.hit * terms.crit;
    const double per_tick = actor.strength / time_of(actor, place);
    flow.rate = 0;
    flow.dealt.resize(terms.damages.size());
    for (std::size_t i = 0; i < terms.damages.size(); ++i) {
        const DamageTerms& damage = terms.damages[i];
        const double expected =
            terms.hit * ((1 - terms.crit) * damage.plain + terms.crit * damage.critical);
        flow.dealt[i] = expected * per_tick;
        flow.rate += flow.dealt[i];
    }
    flow.drained.resize(terms.drains.size());
    for (std::size_t i = 0; i < terms.drains.size(); ++i)
        flow.drained[i] = terms.drains[i] * flow.rate;
}

/// A chance adds to its own account and comes true when the account reaches 1.
void Arena::save_up(Actor& actor, Place& place, Actor& target, const Flow& flow) {
    const Action& action = *place.action;
    if (!triggers_ && !action.applies) return;
    const double hit = flow.hit; // what comes true may change the flow
    const double crit = flow.crit;
    if (triggers_ && !target.warded) {
        fire(actor, TriggerEvent::hit, &target, hit);
        if (crit > 0) fire(actor, TriggerEvent::crit, &target, crit);
        fire(target, TriggerEvent::hurt, &actor, hit);
    }
    if (!action.applies) return;
    place.account += action.applies->chance * hit;
    const bool full = place.account >= full_account;
    if (inquiry_)
        note_effect(actor, action.applies->effect, action.id, nullptr, action.span,
                    full ? "" : chance_failed);
    if (!full) return;
    place.account -= 1;
    const bool to_self = action.applies->to_self;
    apply_effect(to_self ? actor : target, action.applies->effect, action.applies->duration,
                 !to_self, origin_of(place.id));
}

/// Regen and effects, per tick of the clock.
void Arena::find_own_rates(Actor& actor) {
    std::fill(actor.own_gain, actor.own_gain + pools_, 0.0);
    std::fill(actor.own_loss, actor.own_loss + pools_, 0.0);
    actor.own_hostile = 0;
    actor.own_sources.clear();
    bool moving = false;
    const auto put = [&](std::size_t pool, double per_unit, Origin::Kind kind, std::size_t index) {
        if (per_unit < 0) {
            actor.own_loss[pool] += -per_unit / ticks_per_unit;
            return;
        }
        const double gain = per_unit * actor.restore_factor / ticks_per_unit;
        actor.own_gain[pool] += gain;
        if (ledger_ && gain > 0) actor.own_sources.push_back({kind, index, pool, gain});
    };
    for (std::size_t r = 0; r < regens_.size(); ++r) {
        moving = moving || regens_[r].moves;
        put(regens_[r].pool, regens_[r].moves ? regen_rate(actor, r) : actor.derived->regen[r],
            Origin::Kind::regen, 0);
    }
    for (const EffectState& state : actor.effects)
        for (const auto& [pool, rate] : state.effect->per_time) {
            const bool hurts = rate < 0 && state.hostile;
            if (hurts && actor.warded) continue;
            put(pool.index(), rate < 0 ? rate * tick_strength(actor, state) : rate,
                Origin::Kind::effect, state.id.index());
            if (hurts && pool.index() == health_)
                actor.own_hostile += -rate * tick_strength(actor, state) / ticks_per_unit;
        }
    actor.own_rates_changed = moving;
    rates_stirred_ = rates_stirred_ || moving;
}

/// What every pool gains and loses per tick of the clock until the next moment.
void Arena::find_rates() {
    if (!rates_stirred_) return;
    rates_stirred_ = false;
    healths_moved_ = true;
    for (Actor* actor : active_)
        if (actor->own_rates_changed) find_own_rates(*actor);
    rows_.begin_rates();
    for (Actor* actor : active_) {
        actor->absorb_rate = actor->absorb > 0 ? actor->own_hostile : 0;
        actor->loss[health_] -= actor->absorb_rate;
    }
    for (Actor* one : active_) {
        Actor& actor = *one;
        for (const Flow* some : actor.flows) {
            if (!some || some->target->warded) continue;
            const Flow& flow = *some;
            Actor& target = *flow.target;
            if (target.absorb > 0) {
                target.absorb_rate += flow.rate;
                continue;
            }
            target.loss[health_] += flow.rate;
            for (std::size_t i = 0; i < flow.drained.size(); ++i)
                actor.gain[actor.acting->action->drains[i].first.index()] +=
                    flow.drained[i] * actor.restore_factor;
        }
    }
    rows_.end_rates();
}

/// The moment at which somebody's absorbs are used up.
Ticks Arena::next_absorbed() const {
    Ticks first = never;
    for (const Actor* actor : active_)
        if (actor->absorb_rate > 0)
            first = std::min(first, now_ + actor->absorb / actor->absorb_rate);
    return first;
}

/// Notes the moment at which the next health ends, between two ticks of the clock, and whose.
void Arena::find_falls() {
    healths_moved_ = false;
    falling_.clear();
    fall_moment_ = never;
    for (Actor* actor : active_) {
        const double loss = -actor->net[health_];
        if (loss <= 0) continue;
        const Ticks moment = now_ + health(*actor) / loss;
        if (moment > fall_moment_) continue;
        if (moment < fall_moment_) falling_.clear();
        fall_moment_ = moment;
        falling_.push_back(actor);
    }
}

/// Moves every pool along its rate.
void Arena::flow_until(Ticks moment) {
    const Ticks passed = moment - now_;
    if (ledger_)
        for (const Actor* actor : active_) keep_ledger(*actor, passed);
    rows_.move(passed);
    for (Actor* actor : active_) {
        if (actor->absorb_rate <= 0) continue;
        // The moment that next_absorbed() found, whatever its division rounded.
        const bool used_up = moment >= now_ + actor->absorb / actor->absorb_rate;
        wear_absorbs(*actor, used_up ? actor->absorb : actor->absorb_rate * passed);
    }
    if (moment < fall_moment_) return;
    for (Actor* actor : falling_) actor->pools[health_] = 0;
}

/// Lets everything flow to the next moment at which something is due; returns that.
Ticks Arena::flow_on(Ticks limit) {
    if (healths_moved_) find_falls();
    const Ticks next = pass_renewals(std::min({limit, fall_moment_, next_absorbed()}));
    flow_until(next);
    return next;
}

/// Writes down what a stretch of time will move, before it moves.
void Arena::keep_ledger(const Actor& actor, Ticks passed) {
    if (actor.ours) keep_gains(actor, passed);
    for (const Flow* some : actor.flows) {
        if (!some || some->target->warded) continue;
        const Flow& flow = *some;
        const Place& place = *actor.acting;
        for (std::size_t i = 0; i < flow.dealt.size(); ++i)
            place.dealt[place.action->deals[i].first.index()] += flow.dealt[i] * passed;
        place.count->dealt += flow.rate * passed;
    }
    for (const EffectState& state : actor.effects)
        for (const auto& [pool, rate] : state.effect->per_time)
            if (pool.index() == health_ && rate < 0 && !(state.hostile && actor.warded))
                count_tick(actor, state.id, -rate * tick_strength(actor, state) * to_units(passed));
}

/// What is over a ceiling is over for all who give to that pool alike.
void Arena::keep_gains(const Actor& actor, Ticks passed) {
    const auto give = [&](const Origin& origin, std::size_t pool, double rate) {
        const double whole = actor.gain[pool] * passed;
        if (whole <= 0) return;
        const double over =
            std::clamp(actor.pools[pool] + whole - actor.loss[pool] * passed - actor.ceilings[pool],
                       0.0, whole);
        const double amount = rate * passed;
        const double past = amount * over / whole;
        count_given(origin, pool, amount - past, origin.kind == Origin::Kind::regen ? 0 : past);
    };
    for (const GainSource& source : actor.own_sources)
        give({source.kind, source.index, regen_word}, source.pool, source.rate);
    for (const Flow* some : actor.flows) {
        if (!some || some->target->warded || some->target->absorb > 0) continue;
        const Flow& flow = *some;
        for (std::size_t i = 0; i < flow.drained.size(); ++i)
            give(origin_of(actor.acting->id), actor.acting->action->drains[i].first.index(),
                 flow.drained[i] * actor.restore_factor);
    }
}

void Arena::fall_by_flow() {
    if (now_ < fall_moment_) return;
    for (Actor* one : falling_) {
        Actor& actor = *one;
        if (over_ || !actor.active()) continue;
        fall(actor, nullptr);
        if (over_ || actor.standing || !triggers_) continue;
        for (Actor& killer : actors_) // whoever's damage flowed onto it
            if (std::any_of(killer.flows.begin(), killer.flows.end(),
                            [&](const Flow* flow) { return flow && flow->target == one; }))
                fire(killer, TriggerEvent::kill, &actor);
    }
    healths_moved_ = true;
    if (!over_) retarget();
}

/// Flows on the front go on to the next who stands; flows on each of several end with their target.
void Arena::retarget() {
    rates_stirred_ = true;
    for (Actor* one : active_) {
        Actor& actor = *one;
        for (Flow*& flow : actor.flows) {
            if (flow && flow->target->active()) continue;
            const bool on_front = actor.acting->action->targets == 1;
            Actor* const next = on_front ? front_target(actor) : nullptr;
            flow = next ? &flow_onto(actor, *actor.acting, *next) : nullptr;
        }
    }
}

} // namespace panoplon
