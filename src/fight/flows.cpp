#include "fight/flows.h"

#include "fight/actions.h"
#include "fight/blows.h"
#include "fight/calls.h"
#include "fight/counting.h"
#include "fight/course.h"
#include "fight/effects.h"
#include "fight/reasons.h"
#include "fight/renewals.h"
#include "fight/states.h"
#include "fight/triggers.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

[[nodiscard]] bool is_empty(const Actor& actor, std::size_t pool) {
    return actor.pools[pool] <= rounding_of(actor, pool);
}

/// The flow of an action onto a target: the rate is that of the whole action over its whole time,
/// so what a fallen target leaves goes on to the next: hit × ((1 − crit) × mitigated(plain) +
/// crit × mitigated(crit)), by type.
Flow& flow_onto(Field& f, Actor& actor, Place& place, Actor& target) {
    Flow& flow = place.flows[target.position];
    if (place.formulas->steady && flow.strength == f.strength &&
        flow.self_version == actor.derived->version &&
        flow.target_version == target.derived->version)
        return flow;
    flow.target = &target;
    flow.strength = f.strength;
    flow.unlike_self = flow.unlike_target = 0;
    flow.self_version = actor.derived->version;
    flow.target_version = target.derived->version;
    find_flow(f, flow, actor, place, target);
    return flow;
}

/// A chance adds to its own account and comes true when the account reaches 1.
void save_up(Field& f, Actor& actor, Place& place, Actor& target, double hit, double crit) {
    const Action& action = *place.action;
    if (!f.cast.anybody_hears && action.applies.empty()) return;
    if (f.cast.anybody_hears && !target.under.warded) {
        fire(f, actor, TriggerEvent::hit, &target, hit);
        if (crit > 0) fire(f, actor, TriggerEvent::crit, &target, crit);
        fire(f, target, TriggerEvent::hurt, &actor, hit);
    }
    for (std::size_t i = 0; i < action.applies.size(); ++i) {
        const Application& application = action.applies[i];
        const double chance =
            std::clamp(value_of(f, place.formulas->chances[i], actor, &target), 0.0, 1.0);
        place.accounts[i] += chance * hit;
        const bool full = place.accounts[i] >= full_account;
        if (f.watch.inquiry)
            note_effect(f, actor, application.effect, action.id, nullptr, action.span,
                        full ? "" : chance_failed);
        if (!full) continue;
        place.accounts[i] -= 1;
        apply_effect(f, application.to_self ? actor : target, application.effect,
                     application.duration, !application.to_self, actor, origin_of(f, place.id));
    }
}

/// What one blow comes to in the mean, all at once; false where nothing more of it can follow.
bool land_evenly(Field& f, Actor& actor, Place& place, Actor& target, const BlowTerms& terms) {
    if (target.under.warded) return true;
    Loss whole;
    for (const DamageTerms& damage : terms.damages) {
        const double expected =
            terms.hit * ((1 - terms.crit) * damage.plain + terms.crit * damage.critical);
        const Loss loss = take_damage(f, target, expected * actor.strength);
        whole.lost += loss.lost;
        whole.absorbed += loss.absorbed;
        place.dealt[damage.type] += loss.all();
    }
    place.count->dealt += whole.all();
    for (std::size_t i = 0; i < terms.drains.size(); ++i)
        restore(f, actor, place.action->drains[i].first.index(), whole.lost * terms.drains[i],
                origin_of(f, place.id));
    const double returned = whole.all() * terms.returned * target.strength;
    if (returned > 0 && !actor.under.warded)
        place.count->returned += take_damage(f, actor, returned).all();
    for (const auto& [fallen, by] : {std::pair(&target, &actor), std::pair(&actor, &target)}) {
        if (health(f, *fallen) > 0 || !fallen->life.standing) continue;
        fall(f, *fallen, by);
        if (f.over) return false;
        retarget(f);
    }
    return actor.life.standing;
}

/// Regen and effects, per tick of the clock.
void find_own_rates(Field& f, Actor& actor) {
    std::fill(actor.own_gain, actor.own_gain + f.rules.pools, 0.0);
    std::fill(actor.own_loss, actor.own_loss + f.rules.pools, 0.0);
    actor.even.own_hostile = 0;
    actor.even.own_sources.clear();
    bool moving = false;
    const auto put = [&](std::size_t pool, double per_unit, Origin::Kind kind, std::size_t index) {
        if (per_unit < 0) {
            actor.own_loss[pool] += -per_unit / ticks_per_unit;
            return;
        }
        const double gain = per_unit * actor.under.restore_factor / ticks_per_unit;
        actor.own_gain[pool] += gain;
        if (f.ledger.kept && gain > 0) actor.even.own_sources.push_back({kind, index, pool, gain});
    };
    for (std::size_t r = 0; r < f.rules.regens.size(); ++r) {
        moving = moving || f.rules.regens[r].moves;
        put(f.rules.regens[r].pool,
            f.rules.regens[r].moves ? regen_rate(f, actor, r) : actor.derived->regen[r],
            Origin::Kind::regen, 0);
    }
    for (const EffectState& state : actor.effects)
        for (std::size_t i = 0; i < state.effect->per_time.size(); ++i) {
            const PoolId pool = state.effect->per_time[i].first;
            const double rate = rate_of(state, i);
            const bool hurts = rate < 0 && state.hostile;
            if (hurts && actor.under.warded) continue;
            put(pool.index(), rate < 0 ? rate * tick_strength(f, actor, state) : rate,
                Origin::Kind::effect, state.id.index());
            if (hurts && pool.index() == f.rules.health)
                actor.even.own_hostile += -rate * tick_strength(f, actor, state) / ticks_per_unit;
        }
    actor.even.own_rates_changed = moving;
    f.flows.rates_stirred = f.flows.rates_stirred || moving;
}

/// The moment at which somebody's absorbs are used up.
Ticks next_absorbed(const Field& f) {
    Ticks first = never;
    for (const Actor* actor : f.cast.active)
        if (actor->even.absorb_rate > 0)
            first = std::min(first, f.now + actor->under.absorb / actor->even.absorb_rate);
    return first;
}

/// What strikes an actor evenly is taken by absorbs, or by health and what shields it.
[[gnu::always_inline]] inline void strike_by(const Field& f, Actor& actor, double rate,
                                             bool shielded) {
    if (actor.under.absorb > 0) {
        actor.even.absorb_rate += rate;
        return;
    }
    actor.loss[f.rules.health] += rate;
    if (shielded) actor.even.struck += rate;
}

/// What shields have a share of besides blows, and what health loses of a blow.
[[gnu::noinline]] void begin_shares(Field& f) {
    for (Actor* actor : f.cast.active) {
        actor->even.struck = actor->under.absorb > 0 ? 0 : actor->even.own_hostile;
        actor->even.to_health = 1;
        for (PoolShield& shield : f.rules.shields)
            if (!is_empty(*actor, shield.pool))
                actor->even.to_health *= 1 - share_shielded(f, *actor, shield);
    }
}

/// M23c: of what strikes an actor a pool loses its share, or what it gains where it is empty.
[[gnu::noinline]] void share_out(Field& f, Actor& actor) {
    for (PoolShield& shield : f.rules.shields) {
        const double share = share_shielded(f, actor, shield);
        f.flows.rates_stirred = f.flows.rates_stirred || shield.moves;
        double& loss = actor.loss[shield.pool];
        double taken = share * actor.even.struck;
        if (is_empty(actor, shield.pool))
            taken = std::clamp(actor.gain[shield.pool] - loss, 0.0, taken);
        loss += taken;
        actor.loss[f.rules.health] -= taken;
        actor.even.struck -= taken;
    }
}

/// The moment at which a pool that shields is used up.
Ticks next_emptied(const Field& f) {
    Ticks first = never;
    for (const PoolShield& shield : f.rules.shields)
        for (const Actor* actor : f.cast.active)
            if (actor->net[shield.pool] < 0 && !is_empty(*actor, shield.pool))
                first =
                    std::min(first, f.now + actor->pools[shield.pool] / -actor->net[shield.pool]);
    return first;
}

/// Notes the moment at which the next health ends, between two ticks of the clock, and whose.
void find_falls(Field& f) {
    f.flows.healths_moved = false;
    f.flows.falling.clear();
    f.flows.fall_moment = never;
    for (Actor* actor : f.cast.active) {
        const double loss = -actor->net[f.rules.health];
        if (loss <= 0) continue;
        const Ticks moment = f.now + health(f, *actor) / loss;
        if (moment > f.flows.fall_moment) continue;
        if (moment < f.flows.fall_moment) f.flows.falling.clear();
        f.flows.fall_moment = moment;
        f.flows.falling.push_back(actor);
    }
}

/// What is over a ceiling is over for all who give to that pool alike.
void keep_gains(Field& f, const Actor& actor, Ticks passed) {
    const auto give = [&](const Origin& origin, std::size_t pool, double rate) {
        const double whole = actor.gain[pool] * passed;
        if (whole <= 0) return;
        const double over =
            std::clamp(actor.pools[pool] + whole - actor.loss[pool] * passed - actor.ceilings[pool],
                       0.0, whole);
        const double amount = rate * passed;
        const double past = amount * over / whole;
        count_given(f, origin, pool, amount - past, origin.kind == Origin::Kind::regen ? 0 : past);
    };
    for (const GainSource& source : actor.even.own_sources)
        give({source.kind, source.index, regen_word}, source.pool, source.rate);
    for (const Flow* some : actor.even.flows) {
        if (!some || some->target->under.warded || some->target->under.absorb > 0) continue;
        const Flow& flow = *some;
        for (std::size_t i = 0; i < flow.drained.size(); ++i)
            give(origin_of(f, actor.even.acting->id),
                 actor.even.acting->action->drains[i].first.index(),
                 flow.drained[i] * actor.under.restore_factor * flow.target->even.to_health);
    }
}

/// Writes down what a stretch of time will move, before it moves.
void keep_ledger(Field& f, const Actor& actor, Ticks passed) {
    if (actor.ours) keep_gains(f, actor, passed);
    for (const Flow* some : actor.even.flows) {
        if (!some || some->target->under.warded) continue;
        const Flow& flow = *some;
        const Place& place = *actor.even.acting;
        for (std::size_t i = 0; i < flow.dealt.size(); ++i)
            place.dealt[place.action->deals[i].first.index()] += flow.dealt[i] * passed;
        place.count->dealt += flow.rate * passed;
        if (!actor.under.warded) place.count->returned += flow.returned * passed;
    }
    for (const EffectState& state : actor.effects)
        for (std::size_t i = 0; i < state.effect->per_time.size(); ++i) {
            const double rate = rate_of(state, i);
            if (state.effect->per_time[i].first.index() == f.rules.health && rate < 0 &&
                !(state.hostile && actor.under.warded))
                count_tick(f, actor, state.id,
                           -rate * tick_strength(f, actor, state) * to_units(passed));
        }
}

/// Moves every pool along its rate.
void flow_until(Field& f, Ticks moment) {
    const Ticks passed = moment - f.now;
    if (f.ledger.kept)
        for (const Actor* actor : f.cast.active) keep_ledger(f, *actor, passed);
    f.cast.rows.move(passed);
    for (Actor* actor : f.cast.active) {
        if (actor->even.absorb_rate <= 0) continue;
        // The moment that next_absorbed() found, whatever its division rounded.
        const bool used_up = moment >= f.now + actor->under.absorb / actor->even.absorb_rate;
        wear_absorbs(f, *actor, used_up ? actor->under.absorb : actor->even.absorb_rate * passed);
    }
    for (const PoolShield& shield : f.rules.shields)
        for (Actor* actor : f.cast.active)
            if (actor->net[shield.pool] < 0 && is_empty(*actor, shield.pool)) {
                actor->pools[shield.pool] = 0;
                f.flows.rates_stirred = true;
            }
    if (moment < f.flows.fall_moment) return;
    for (Actor* actor : f.flows.falling) actor->pools[f.rules.health] = 0;
}

} // namespace

void flow_action(Field& f, Actor& actor, Place& place) {
    begin_action(f, actor, place);
    actor.even.acting = &place;
    actor.even.flows.clear();
    f.flows.rates_stirred = true;
    actor.even.ends = actor.ready;
    if (place.formulas->strikes) {
        int struck = 0;
        for_each_target(f, actor, [&](Actor& target) {
            Flow& flow = flow_onto(f, actor, place, target);
            actor.even.flows.push_back(&flow);
            save_up(f, actor, place, target, flow.hit, flow.crit);
            return actor.life.standing && ++struck != place.action->targets;
        });
    }
    if (place.formulas->calls && !f.over && actor.life.standing) call(f, actor, place);
}

void strike_evenly(Field& f, Actor& actor, Place& place) {
    place.count->done += 1;
    if (place.formulas->strikes) {
        int struck = 0;
        for_each_target(f, actor, [&](Actor& target) {
            const BlowTerms& terms = blow_terms(f, actor, place, target);
            const double hit = terms.hit, crit = terms.hit * terms.crit;
            if (!land_evenly(f, actor, place, target, terms)) return false;
            if (target.life.standing) save_up(f, actor, place, target, hit, crit);
            return ++struck != place.action->targets;
        });
    }
    if (place.formulas->calls && !f.over && actor.life.standing) call(f, actor, place);
}

void end_flows(Field& f) {
    for (Actor& actor : f.cast.actors) {
        if (!actor.even.acting || actor.even.ends > f.now) continue;
        actor.even.acting = nullptr;
        actor.even.flows.clear();
        f.flows.rates_stirred = true;
    }
}

void find_flow(Field& f, Flow& flow, Actor& actor, Place& place, Actor& target) {
    const BlowTerms& terms = blow_terms(f, actor, place, target);
    flow.hit = terms.hit;
    flow.crit = terms.hit * terms.crit;
    const double per_tick = actor.strength / time_of(f, actor, place);
    flow.rate = 0;
    flow.dealt.resize(terms.damages.size());
    for (std::size_t i = 0; i < terms.damages.size(); ++i) {
        const DamageTerms& damage = terms.damages[i];
        const double expected =
            terms.hit * ((1 - terms.crit) * damage.plain + terms.crit * damage.critical);
        flow.dealt[i] = expected * per_tick;
        flow.rate += flow.dealt[i];
    }
    flow.returned = flow.rate * terms.returned * target.strength;
    flow.drained.resize(terms.drains.size());
    for (std::size_t i = 0; i < terms.drains.size(); ++i)
        flow.drained[i] = terms.drains[i] * flow.rate;
}

void find_rates(Field& f) {
    if (!f.flows.rates_stirred) return;
    f.flows.rates_stirred = false;
    f.flows.healths_moved = true;
    for (Actor* actor : f.cast.active)
        if (actor->even.own_rates_changed) find_own_rates(f, *actor);
    f.cast.rows.begin_rates();
    for (Actor* actor : f.cast.active) {
        actor->even.absorb_rate = actor->under.absorb > 0 ? actor->even.own_hostile : 0;
        actor->loss[f.rules.health] -= actor->even.absorb_rate;
    }
    const bool shielded = !f.rules.shields.empty();
    if (shielded) begin_shares(f);
    for (Actor* one : f.cast.active) {
        Actor& actor = *one;
        for (const Flow* some : actor.even.flows) {
            if (!some || some->target->under.warded) continue;
            const Flow& flow = *some;
            Actor& target = *flow.target;
            if (flow.returned > 0 && !actor.under.warded)
                strike_by(f, actor, flow.returned, shielded);
            strike_by(f, target, flow.rate, shielded);
            if (target.under.absorb > 0) continue;
            const double factor =
                actor.under.restore_factor * (shielded ? target.even.to_health : 1);
            for (std::size_t i = 0; i < flow.drained.size(); ++i)
                actor.gain[actor.even.acting->action->drains[i].first.index()] +=
                    flow.drained[i] * factor;
        }
    }
    if (shielded)
        for (Actor* actor : f.cast.active) share_out(f, *actor);
    f.cast.rows.end_rates();
}

Ticks flow_on(Field& f, Ticks limit) {
    if (f.flows.healths_moved) find_falls(f);
    const Ticks next =
        pass_renewals(f, std::min({limit, f.flows.fall_moment, next_absorbed(f), next_emptied(f)}));
    flow_until(f, next);
    return next;
}

void fall_by_flow(Field& f) {
    if (f.now < f.flows.fall_moment) return;
    for (Actor* one : f.flows.falling) {
        Actor& actor = *one;
        if (f.over || !actor.active()) continue;
        std::vector<const Actor*> returning; // what it deals
        for (const Flow* flow : actor.even.flows)
            if (flow && flow->returned > 0) returning.push_back(flow->target);
        fall(f, actor, nullptr);
        if (f.over || actor.life.standing || !f.cast.anybody_hears) continue;
        for (Actor& killer : f.cast.actors) // whoever's damage flowed onto it, or came back to it
            if (std::any_of(killer.even.flows.begin(), killer.even.flows.end(),
                            [&](const Flow* flow) { return flow && flow->target == one; }) ||
                std::find(returning.begin(), returning.end(), &killer) != returning.end())
                fire(f, killer, TriggerEvent::kill, &actor);
    }
    f.flows.healths_moved = true;
    if (!f.over) retarget(f);
}

void retarget(Field& f) {
    f.flows.rates_stirred = true;
    for (Actor* one : f.cast.active) {
        Actor& actor = *one;
        for (Flow*& flow : actor.even.flows) {
            if (flow && flow->target->active()) continue;
            const bool on_front = actor.even.acting->action->targets == 1;
            Actor* const next = on_front ? front_target(f, actor) : nullptr;
            flow = next ? &flow_onto(f, actor, *actor.even.acting, *next) : nullptr;
        }
    }
}

} // namespace panoplon::fighting
