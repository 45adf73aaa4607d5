#include "fight/arena.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// An account that is this close to 1 has reached it: ten tenths are 1.
constexpr double nearly_one = 1 - 1e-9;

} // namespace

/// Begins an action whose damage flows over its time in place of landing at once (M68).
void Arena::flow_action(Actor& actor, int place) {
    const Action& action = armoury_.at(actor.action(place));
    begin_action(actor, place);
    actor.acting = place;
    actor.flow_ends = actor.ready;
    int struck = 0;
    for (std::size_t i = 0; i < actors_.size() && actor.standing; ++i) {
        Actor& target = actors_[i];
        if (!target.active() || !opposed(actor, target)) continue;
        add_flow(actor, place, static_cast<int>(i));
        save_up(actor, place, target);
        if (++struck == action.targets) return;
    }
}

void Arena::end_flows() {
    for (Actor& actor : actors_) {
        if (actor.acting < 0 || actor.flow_ends > now_) continue;
        actor.acting = -1;
        actor.flow_count = 0;
    }
}

void Arena::add_flow(Actor& actor, int place, int target) {
    if (actor.flow_count == actor.flows.size()) actor.flows.emplace_back();
    aim_flow(actor, actor.flows[actor.flow_count++], place, target);
}

/// Points the flow of an action at a target. The rate is that of the whole action over its whole
/// time, so what a fallen target leaves goes on to the next.
void Arena::aim_flow(Actor& actor, Flow& flow, int place, int target) {
    flow.target = target;
    if (target < 0) return;
    const BlowTerms& terms = blow_terms(actor, place, actors_[static_cast<std::size_t>(target)]);
    const double per_tick = strength_of(actor) / terms.every;
    flow.rate = terms.total * per_tick;
    flow.by_type.resize(terms.by_type.size());
    for (std::size_t t = 0; t < terms.by_type.size(); ++t)
        flow.by_type[t] = terms.by_type[t] * per_tick;
    flow.drained.resize(terms.drain_shares.size());
    for (std::size_t p = 0; p < terms.drain_shares.size(); ++p)
        flow.drained[p] = terms.drain_shares[p] * flow.rate;
}

/// hit × ((1 − crit) × mitigated(plain) + crit × mitigated(crit)), by type.
const BlowTerms& Arena::blow_terms(Actor& actor, int place, Actor& target) {
    const ActionId id = actor.action(place);
    ActionFormulas& formulas = actions_[id.index()];
    BlowTerms& terms = actor.terms[static_cast<std::size_t>(place)];
    if (formulas.steady && terms.self_version == actor.version &&
        terms.target_version == target.version)
        return terms;
    const Action& action = armoury_.at(id);
    terms.every = time_taken(actor, place);
    terms.self_version = actor.version;
    terms.target_version = target.version;
    terms.by_type.assign(armoury_.damages.size(), 0.0);
    terms.drain_shares.assign(armoury_.pools.size(), 0.0);
    terms.total = 0;
    Environment env = environment(actor, &target);
    terms.hit = chance_of(hit_, env);
    const double crit = terms.crit = chance_of(crit_, env);
    const double crit_factor = crit > 0 ? evaluate(crit_factor_, env) : 1;
    for (std::size_t i = 0; i < action.deals.size(); ++i) {
        const std::size_t type = action.deals[i].first.index();
        const double raw = evaluate(formulas.deals[i], env);
        const auto mitigated = [&](double amount) {
            env[Scalar::amount] = std::max(0.0, amount);
            return std::max(0.0, evaluate(mitigated_[type], env));
        };
        const double plain = crit < 1 ? mitigated(raw) : 0;
        const double critical = crit > 0 ? mitigated(raw * crit_factor) : 0;
        const double expected = terms.hit * ((1 - crit) * plain + crit * critical);
        terms.by_type[type] += expected;
        terms.total += expected;
    }
    for (std::size_t i = 0; i < action.drains.size(); ++i)
        terms.drain_shares[action.drains[i].first.index()] +=
            std::max(0.0, evaluate(formulas.drains[i], env));
    return terms;
}

/// A chance adds to its own account and comes true when the account reaches 1.
void Arena::save_up(Actor& actor, int place, Actor& target) {
    const Action& action = armoury_.at(actor.action(place));
    const BlowTerms& terms = actor.terms[static_cast<std::size_t>(place)];
    if (triggers_ && !target.warded) {
        const double hit = terms.hit;
        const double crit = terms.hit * terms.crit;
        fire(actor, TriggerEvent::hit, &target, hit);
        if (crit > 0) fire(actor, TriggerEvent::crit, &target, crit);
        fire(target, TriggerEvent::hurt, &actor, hit);
    }
    if (!action.applies) return;
    double& account = actor.accounts[static_cast<std::size_t>(place)];
    account += action.applies->chance * actor.terms[static_cast<std::size_t>(place)].hit;
    const bool full = account >= nearly_one;
    if (inquiry_)
        note_effect(actor, action.applies->effect, action.id, nullptr, action.span,
                    full ? "" : chance_failed);
    if (!full) return;
    account -= 1;
    const bool to_self = action.applies->to_self;
    apply_effect(to_self ? actor : target, action.applies->effect, action.applies->duration,
                 !to_self, origin_of(actor.action(place)));
}

/// Regen and effects, per tick of the clock.
void Arena::find_own_rates(Actor& actor) {
    std::fill(actor.own_gains.begin(), actor.own_gains.end(), 0.0);
    std::fill(actor.own_losses.begin(), actor.own_losses.end(), 0.0);
    actor.own_hostile = 0;
    actor.own_sources.clear();
    bool moving = false;
    const auto put = [&](std::size_t pool, double per_unit, Origin::Kind kind, std::size_t index) {
        if (per_unit < 0) {
            actor.own_losses[pool] += -per_unit / ticks_per_unit;
            return;
        }
        const double gain = per_unit * actor.restore_factor / ticks_per_unit;
        actor.own_gains[pool] += gain;
        if (ledger_ && gain > 0) actor.own_sources.push_back({kind, index, pool, gain});
    };
    for (std::size_t p = 0; p < regen_.size(); ++p) {
        if (!regen_[p]) continue;
        moving = moving || regen_moves_[p];
        put(p, regen_moves_[p] ? regen_rate(actor, p) : actor.regen[p], Origin::Kind::regen, 0);
    }
    for (const EffectState& state : actor.effects)
        for (const auto& [pool, rate] : armoury_.at(state.id).per_time) {
            const bool hurts = rate < 0 && state.hostile;
            if (hurts && actor.warded) continue;
            put(pool.index(), rate < 0 ? rate * tick_strength(actor, state) : rate,
                Origin::Kind::effect, state.id.index());
            if (hurts && pool.index() == health_)
                actor.own_hostile += -rate * tick_strength(actor, state) / ticks_per_unit;
        }
    actor.own_rates_changed = moving;
}

/// What every pool gains and loses per tick of the clock until the next moment.
void Arena::find_rates() {
    for (Actor& actor : actors_) {
        if (!actor.active()) continue;
        if (actor.own_rates_changed) find_own_rates(actor);
        actor.gains = actor.own_gains;
        actor.losses = actor.own_losses;
        actor.absorb_rate = actor.absorb > 0 ? actor.own_hostile : 0;
        actor.losses[health_] -= actor.absorb_rate;
    }
    for (Actor& actor : actors_)
        for (std::size_t f = 0; f < actor.flow_count; ++f) {
            const Flow& flow = actor.flows[f];
            if (flow.target < 0) continue;
            Actor& target = actors_[static_cast<std::size_t>(flow.target)];
            if (target.warded) continue;
            if (target.absorb > 0) {
                target.absorb_rate += flow.rate;
                continue;
            }
            target.losses[health_] += flow.rate;
            for (std::size_t p = 0; p < flow.drained.size(); ++p)
                actor.gains[p] += flow.drained[p] * actor.restore_factor;
        }
}

/// The moment at which somebody's absorbs are used up.
Ticks Arena::next_absorbed() const {
    Ticks first = never;
    for (const Actor& actor : actors_)
        if (actor.active() && actor.absorb_rate > 0)
            first = std::min(first, now_ + actor.absorb / actor.absorb_rate);
    return first;
}

/// The moment at which the next health ends, between two ticks of the clock; notes whose.
Ticks Arena::next_fall() {
    falling_.clear();
    Ticks first = never;
    for (std::size_t i = 0; i < actors_.size(); ++i) {
        const Actor& actor = actors_[i];
        const double net = actor.losses[health_] - actor.gains[health_];
        if (!actor.active() || net <= 0) continue;
        const Ticks moment = now_ + health(actor) / net;
        if (moment > first) continue;
        if (moment < first) falling_.clear();
        first = moment;
        falling_.push_back(static_cast<int>(i));
    }
    fall_moment_ = first;
    return first;
}

/// Moves every pool along its rate.
void Arena::flow_until(Ticks moment) {
    const Ticks passed = moment - now_;
    for (Actor& actor : actors_) {
        if (!actor.active()) continue;
        if (ledger_) keep_ledger(actor, passed);
        for (std::size_t p = 0; p < actor.pools.size(); ++p)
            actor.pools[p] =
                std::clamp(actor.pools[p] + (actor.gains[p] - actor.losses[p]) * passed, 0.0,
                           actor.ceilings[p]);
        if (actor.absorb_rate > 0) {
            constexpr double used_up = 1e-9; // of the division that found the moment
            const double taken = actor.absorb_rate * passed;
            wear_absorbs(actor, taken >= actor.absorb * (1 - used_up) ? actor.absorb : taken);
        }
    }
    if (moment < fall_moment_) falling_.clear();
    for (const int index : falling_) actors_[static_cast<std::size_t>(index)].pools[health_] = 0;
}

/// Writes down what a stretch of time will move, before it moves.
void Arena::keep_ledger(const Actor& actor, Ticks passed) {
    if (is_ours(actor)) keep_gains(actor, passed);
    const bool ours = is_ours(actor);
    for (std::size_t f = 0; f < actor.flow_count; ++f) {
        const Flow& flow = actor.flows[f];
        if (flow.target < 0 || actors_[static_cast<std::size_t>(flow.target)].warded) continue;
        const ActionId id = actor.action(actor.acting);
        for (std::size_t t = 0; t < flow.by_type.size(); ++t) {
            const double dealt = flow.by_type[t] * passed;
            (ours ? result_.dealt : result_.taken)[t] += dealt;
            (ours ? result_.dealt_by_action
                  : result_.taken_by_action)[id.index() * result_.shape.damages + t] += dealt;
        }
        count_of(actor, id).dealt += flow.rate * passed;
    }
    for (const EffectState& state : actor.effects)
        for (const auto& [pool, rate] : armoury_.at(state.id).per_time)
            if (pool.index() == health_ && rate < 0 && !(state.hostile && actor.warded))
                count_tick(actor, state.id, -rate * tick_strength(actor, state) * to_units(passed));
}

/// What is over a ceiling is over for all who give to that pool alike.
void Arena::keep_gains(const Actor& actor, Ticks passed) {
    const auto give = [&](const Origin& origin, std::size_t pool, double rate) {
        const double whole = actor.gains[pool] * passed;
        if (whole <= 0) return;
        const double over = std::clamp(
            actor.pools[pool] + whole - actor.losses[pool] * passed - actor.ceilings[pool], 0.0,
            whole);
        const double amount = rate * passed;
        const double wasted = amount * over / whole;
        count_given(origin, pool, amount - wasted, wasted);
    };
    for (const GainSource& source : actor.own_sources)
        give({source.kind, source.index, regen_word}, source.pool, source.rate);
    for (std::size_t f = 0; f < actor.flow_count; ++f) {
        const Flow& flow = actor.flows[f];
        if (flow.target < 0) continue;
        const Actor& target = actors_[static_cast<std::size_t>(flow.target)];
        if (target.warded || target.absorb > 0) continue;
        for (std::size_t p = 0; p < flow.drained.size(); ++p)
            give(origin_of(actor.action(actor.acting)), p, flow.drained[p] * actor.restore_factor);
    }
}

void Arena::fall_by_flow() {
    if (falling_.empty()) return;
    for (const int index : falling_) {
        Actor& actor = actors_[static_cast<std::size_t>(index)];
        if (over_ || !actor.active()) continue;
        fall(actor, nullptr);
        if (over_ || actor.standing || !triggers_) continue;
        for (Actor& killer : actors_) // whoever's damage flowed onto it
            for (std::size_t f = 0; f < killer.flow_count; ++f)
                if (killer.flows[f].target == index) {
                    fire(killer, TriggerEvent::kill, &actor);
                    break;
                }
    }
    falling_.clear();
    if (!over_) retarget();
}

/// Flows on the front go on to the next who stands; flows on each of several end with their target.
void Arena::retarget() {
    for (Actor& actor : actors_) {
        if (!actor.active() || actor.acting < 0) continue;
        const Action& action = armoury_.at(actor.action(actor.acting));
        for (std::size_t f = 0; f < actor.flow_count; ++f) {
            Flow& flow = actor.flows[f];
            const bool standing =
                flow.target >= 0 && actors_[static_cast<std::size_t>(flow.target)].active();
            if (!standing)
                aim_flow(actor, flow, actor.acting, action.targets == 1 ? front_target(actor) : -1);
        }
    }
}

} // namespace panoplon
