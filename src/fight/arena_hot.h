// What a fight calls most, for the compiler to inline. Included by arena.h; not for others.
#pragma once

#include "fight/arena.h"

#include <algorithm>

namespace panoplon {

inline void Arena::restore(Actor& actor, std::size_t pool, double amount, Origin origin) {
    amount *= actor.restore_factor;
    if (amount == 0) return;
    const double room = std::max(0.0, actor.ceilings[pool] - actor.pools[pool]);
    const bool fills = amount >= room - rounding_of(actor, pool);
    const double taken = fills ? room : amount;
    const double wasted = origin.kind == Origin::Kind::regen ? 0 : std::max(0.0, amount - taken);
    actor.pools[pool] = fills ? actor.ceilings[pool] : actor.pools[pool] + taken;
    stir_pool(actor, pool);
    if (actor.ours) count_given(origin, pool, taken, wasted);
    if (timeline_) tell_restored(actor, pool, taken, wasted, *origin.id);
}

inline void Arena::count_given(const Origin& origin, std::size_t pool, double restored,
                               double wasted) {
    Given& given =
        counts_
            ->given[counts_->shape.source(origin.kind, origin.index) * counts_->shape.pools + pool];
    given.restored += restored;
    given.wasted += wasted;
}

inline double Arena::take_from(Actor& actor, std::size_t pool, double amount) {
    double& left = actor.pools[pool];
    const double taken = amount >= left - rounding_of(actor, pool) ? left : amount;
    left -= taken;
    return taken;
}

inline double Arena::lose_health(Actor& actor, double amount) {
    if (amount <= 0) return 0;
    const double lost = take_from(actor, health_, amount);
    stir_pool(actor, health_);
    if (!actor.ours) counts_->overkill += std::max(0.0, amount - lost);
    return lost;
}

inline Environment Arena::environment(const Actor& self, const Actor* other) const {
    Environment env;
    env.self = view_of(self);
    if (other) env.other = view_of(*other);
    env[Scalar::level] = self.setup->level;
    env[Scalar::time] = to_units(now_);
    env[Scalar::strength] = strength_;
    return env;
}

inline double Arena::evaluate(Evaluator& formula, const Environment& environment) {
    const double value = formula(environment);
    if (!std::isfinite(value)) no_number(formula, value);
    return value;
}

inline bool Arena::dismissed(const Actor& actor, RuleState& rule) const {
    if (rule.over) return true;
    if (!ledger_ && !inquiry_) { // nobody counts refusals
        rule.over = actor.left[rule.packed] == 0;
        if (rule.over || actor.use_ready[rule.packed] > now_) return true;
    }
    const double amount = actor.pools[rule.pool];
    if (amount >= rule.quiet_from) {
        rule.last_refusal = Refused::no;
        return true;
    }
    return amount < rule.refused_below && actor.use_ready[rule.packed] > now_ &&
           rule.last_refusal == Refused::cooling_down;
}

inline void Arena::stir(Actor& actor) {
    healths_moved_ = true;
    stirred_ = stirred_ || actor.uses;
    actor.stirred = Stirred::all;
}

inline void Arena::stir_pool(Actor& actor, std::size_t pool) {
    healths_moved_ = true;
    if (restless_ || !actor.calm[pool].has(actor.pools[pool])) wake(actor);
}

inline void Arena::wake(Actor& actor) {
    stirred_ = true;
    if (actor.stirred == Stirred::no) actor.stirred = Stirred::pools;
}

} // namespace panoplon
