// Stats, pools and what they come to: an actor as it is now. Its state (what it wears, effects that
// change stats, its load band) has one value whatever came before it, so a state that was met is
// looked up. Not for others.
#pragma once

#include "fight/counting.h"
#include "fight/telling.h"
#include "fight/uses.h"

#include <algorithm>
#include <cmath>

namespace panoplon::fighting {

void prepare_actor(Field& f, Actor& actor, const ActorSetup& setup);
/// As it is when it comes.
void start_actor(Field& f, Actor& actor, Ticks arrival);
/// The state of now: one that was found already, or found now.
[[nodiscard]] Derived& derived(Field& f, Actor& actor);
void derive(Field& f, Actor& actor);
/// What counts of what it wears and packs.
[[nodiscard]] inline Thousandths carried(const Actor& actor) {
    return actor.setup->worn + actor.pack.weight;
}
/// After a change of the pack: only another band changes stats (M31).
void weigh_pack(Field& f, Actor& actor);
/// Units go, with their weight; what that changes is found by weigh_pack().
inline void take_from_pack(Field& f, Actor& actor, std::size_t packed, std::int64_t units) {
    actor.pack.left[packed] -= units;
    actor.pack.weight -= f.rules.armoury.at(actor.setup->pack[packed].item).weight * units;
    if (is_character(actor)) f.ledger.counts->uses[packed].used += static_cast<double>(units);
}
/// What is within rounding of a pool's ceiling (M12a).
[[nodiscard]] inline double rounding_of(const Actor& actor, std::size_t pool) {
    return rounding * actor.ceilings[pool];
}
/// Takes up to an amount from a pool, and returns what was taken.
inline double take_from(Actor& actor, std::size_t pool, double amount) {
    double& left = actor.pools[pool];
    const double taken = amount >= left - rounding_of(actor, pool) ? left : amount;
    left -= taken;
    return taken;
}
[[nodiscard]] inline double health(const Field& f, const Actor& actor) {
    return actor.pools[f.rules.health];
}
/// This is its state from now on.
inline void take_state(Actor& actor, Derived& state) {
    actor.derived = &state;
    actor.view.stats = state.stats.data();
}
inline Environment environment(const Field& f, const Actor& self, const Actor* other) {
    Environment env;
    env.self = self.view;
    if (other) env.other = other->view;
    env[Scalar::level] = self.setup->level;
    env[Scalar::time] = to_units(f.now);
    env[Scalar::strength] = f.strength;
    return env;
}
[[noreturn]] void no_number(const Evaluator& formula, double value);
inline double evaluate(Evaluator& formula, const Environment& environment) {
    const double value = formula(environment);
    if (!std::isfinite(value)) no_number(formula, value);
    return value;
}
[[nodiscard]] inline bool holds(Evaluator& formula, const Environment& environment) {
    return evaluate(formula, environment) != 0;
}
/// What a number is, or its formula now.
[[nodiscard]] inline double value_of(const Field& f, const CompiledQuantity& quantity,
                                     const Actor& self, const Actor* other) {
    return quantity.formula ? evaluate(*quantity.formula, environment(f, self, other))
                            : quantity.number;
}
[[nodiscard]] double regen_rate(Field& f, const Actor& actor, std::size_t regen);
/// Who is felled does nothing more; the fight ends at once when a side has nobody left (M60, M65).
void fall(Field& f, Actor& actor, Actor* by);
/// It is there no more, with all that it had.
void take_out(Field& f, Actor& actor);
inline void restore(Field& f, Actor& actor, std::size_t pool, double amount, Origin origin) {
    amount *= actor.under.restore_factor;
    if (amount == 0) return;
    const double room = std::max(0.0, actor.ceilings[pool] - actor.pools[pool]);
    const bool fills = amount >= room - rounding_of(actor, pool);
    const double taken = fills ? room : amount;
    const double wasted = origin.kind == Origin::Kind::regen ? 0 : std::max(0.0, amount - taken);
    actor.pools[pool] = fills ? actor.ceilings[pool] : actor.pools[pool] + taken;
    stir_pool(f, actor, pool);
    if (actor.ours) count_given(f, origin, pool, taken, wasted);
    if (f.watch.timeline) tell_restored(f, actor, pool, taken, wasted, *origin.id);
}
/// Takes health away, down to 0, and returns what was lost: what is over it is overkill (M62).
inline double lose_health(Field& f, Actor& actor, double amount) {
    if (amount <= 0) return 0;
    const double lost = take_from(actor, f.rules.health, amount);
    stir_pool(f, actor, f.rules.health);
    if (!actor.ours) f.ledger.counts->overkill += std::max(0.0, amount - lost);
    return lost;
}
/// The share of what health would lose that a pool loses in its place, while it has any (M23c).
[[nodiscard]] double share_shielded(Field& f, const Actor& actor, PoolShield& shield);
/// What a blow or a hostile tick comes to: absorbs take first, the oldest before the others (M23),
/// then shields.
[[gnu::always_inline]] inline Loss take_damage(Field& f, Actor& actor, double amount);

} // namespace panoplon::fighting
