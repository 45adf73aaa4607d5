#include "fight/arena.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

/// Begins an action whose damage flows over its time in place of landing at once (M68).
void Arena::flow_action(Actor& actor, Place& place) {
    begin_action(actor, place);
    actor.acting = &place;
    rates_stirred_ = true;
    actor.flow_ends = actor.ready;
    int struck = 0;
    for (Actor* target = actor.opposed; target != actor.opposed_end && actor.standing; ++target) {
        if (!target->active()) continue;
        save_up(actor, place, *target, add_flow(actor, place, *target));
        if (++struck == place.action->targets) return;
    }
}

void Arena::end_flows() {
    for (Actor& actor : actors_) {
        if (!actor.acting || actor.flow_ends > now_) continue;
        actor.acting = nullptr;
        actor.flow_count = 0;
        rates_stirred_ = true;
    }
}

const Flow& Arena::add_flow(Actor& actor, Place& place, Actor& target) {
    if (actor.flow_count == actor.flows.size()) actor.flows.emplace_back();
    Flow& flow = actor.flows[actor.flow_count++];
    aim_flow(actor, flow, place, &target);
    return flow;
}

/// Points the flow of an action at a target. The rate is that of the whole action over its whole
/// time, so what a fallen target leaves goes on to the next: hit × ((1 − crit) × mitigated(plain) +
/// crit × mitigated(crit)), by type.
void Arena::aim_flow(Actor& actor, Flow& flow, Place& place, Actor* target) {
    if (!target) {
        flow = Flow();
        rates_stirred_ = true;
        return;
    }
    if (place.formulas->steady && flow.place == &place && flow.target == target &&
        flow.self_version == actor.derived->version &&
        flow.target_version == target->derived->version)
        return;
    flow.target = target;
    flow.place = &place;
    flow.unlike_self = flow.unlike_target = 0;
    flow.self_version = actor.derived->version;
    flow.target_version = target->derived->version;
    rates_stirred_ = true;
    find_flow(flow, actor, place, *target);
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
    for (PoolRates& rates : actor.rates) rates.own_gain = rates.own_loss = 0;
    actor.own_hostile = 0;
    actor.own_sources.clear();
    bool moving = false;
    const auto put = [&](std::size_t pool, double per_unit, Origin::Kind kind, std::size_t index) {
        if (per_unit < 0) {
            actor.rates[pool].own_loss += -per_unit / ticks_per_unit;
            return;
        }
        const double gain = per_unit * actor.restore_factor / ticks_per_unit;
        actor.rates[pool].own_gain += gain;
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
    for (Actor& actor : actors_) {
        if (!actor.active()) continue;
        if (actor.own_rates_changed) find_own_rates(actor);
        for (PoolRates& rates : actor.rates) {
            rates.gain = rates.own_gain;
            rates.loss = rates.own_loss;
        }
        actor.absorb_rate = actor.absorb > 0 ? actor.own_hostile : 0;
        actor.rates[health_].loss -= actor.absorb_rate;
    }
    for (Actor& actor : actors_)
        for (std::size_t f = 0; f < actor.flow_count; ++f) {
            const Flow& flow = actor.flows[f];
            if (!flow.target || flow.target->warded) continue;
            Actor& target = *flow.target;
            if (target.absorb > 0) {
                target.absorb_rate += flow.rate;
                continue;
            }
            target.rates[health_].loss += flow.rate;
            for (std::size_t i = 0; i < flow.drained.size(); ++i)
                actor.rates[actor.acting->action->drains[i].first.index()].gain +=
                    flow.drained[i] * actor.restore_factor;
        }
    for (Actor& actor : actors_)
        for (PoolRates& rates : actor.rates) rates.net = rates.gain - rates.loss;
}

/// The moment at which somebody's absorbs are used up.
Ticks Arena::next_absorbed() const {
    Ticks first = never;
    for (const Actor& actor : actors_)
        if (actor.active() && actor.absorb_rate > 0)
            first = std::min(first, now_ + actor.absorb / actor.absorb_rate);
    return first;
}

/// Notes the moment at which the next health ends, between two ticks of the clock, and whose.
void Arena::find_falls() {
    healths_moved_ = false;
    falling_.clear();
    fall_moment_ = never;
    for (Actor& actor : actors_) {
        const double loss = -actor.rates[health_].net;
        if (!actor.active() || loss <= 0) continue;
        const Ticks moment = now_ + health(actor) / loss;
        if (moment > fall_moment_) continue;
        if (moment < fall_moment_) falling_.clear();
        fall_moment_ = moment;
        falling_.push_back(&actor);
    }
}

/// Moves every pool along its rate.
void Arena::flow_until(Ticks moment) {
    const Ticks passed = moment - now_;
    for (Actor& actor : actors_) {
        if (!actor.active()) continue;
        if (ledger_) keep_ledger(actor, passed);
        for (std::size_t p = 0; p < actor.pools.size(); ++p)
            actor.pools[p] =
                std::clamp(actor.pools[p] + actor.rates[p].net * passed, 0.0, actor.ceilings[p]);
        if (actor.absorb_rate > 0) {
            // The moment that next_absorbed() found, whatever its division rounded.
            const bool used_up = moment >= now_ + actor.absorb / actor.absorb_rate;
            wear_absorbs(actor, used_up ? actor.absorb : actor.absorb_rate * passed);
        }
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
    for (std::size_t f = 0; f < actor.flow_count; ++f) {
        const Flow& flow = actor.flows[f];
        if (!flow.target || flow.target->warded) continue;
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
        const PoolRates& rates = actor.rates[pool];
        const double whole = rates.gain * passed;
        if (whole <= 0) return;
        const double over = std::clamp(
            actor.pools[pool] + whole - rates.loss * passed - actor.ceilings[pool], 0.0, whole);
        const double amount = rate * passed;
        const double past = amount * over / whole;
        count_given(origin, pool, amount - past, origin.kind == Origin::Kind::regen ? 0 : past);
    };
    for (const GainSource& source : actor.own_sources)
        give({source.kind, source.index, regen_word}, source.pool, source.rate);
    for (std::size_t f = 0; f < actor.flow_count; ++f) {
        const Flow& flow = actor.flows[f];
        if (!flow.target || flow.target->warded || flow.target->absorb > 0) continue;
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
            for (std::size_t f = 0; f < killer.flow_count; ++f)
                if (killer.flows[f].target == one) {
                    fire(killer, TriggerEvent::kill, &actor);
                    break;
                }
    }
    healths_moved_ = true;
    if (!over_) retarget();
}

/// Flows on the front go on to the next who stands; flows on each of several end with their target.
void Arena::retarget() {
    for (Actor& actor : actors_) {
        if (!actor.active() || !actor.acting) continue;
        for (std::size_t f = 0; f < actor.flow_count; ++f) {
            Flow& flow = actor.flows[f];
            if (flow.target && flow.target->active()) continue;
            const bool on_front = actor.acting->action->targets == 1;
            aim_flow(actor, flow, *actor.acting, on_front ? front_target(actor) : nullptr);
        }
    }
}

} // namespace panoplon
