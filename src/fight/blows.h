// Blows of a trial: what decides one, what it deals, and what a hit brings with it (M62, M63). What
// only stats decide is found once for a state of both sides. Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// Pays, strikes, and calls whom the action summons.
[[gnu::always_inline]] inline void strike(Field& f, Actor& actor, Place& place);
/// What a use does: nothing is paid, and no time passes (M32b).
void strike_at_once(Field& f, Actor& actor, Place& place);
[[nodiscard]] [[gnu::always_inline]] inline const BlowTerms&
blow_terms(Field& f, Actor& actor, Place& place, Actor& target);
/// What is left of an amount after the target's defences; never below 0.
[[nodiscard]] double mitigated(Field& f, std::size_t type, double amount, Environment& env);
/// The same of an amount that a critical hit multiplies by a factor, before or after it.
[[nodiscard]] double after_crit(Field& f, std::size_t type, double raw, double factor,
                                Environment& env);
/// What a damage comes to in the middle of its range or spread.
[[nodiscard]] double middle_damage(Field& f, const DamageTerms& damage, double factor,
                                   Environment& env);
/// The share of what the target lost that comes back to the actor (M62a).
[[nodiscard]] double share_returned(Field& f, const Actor& actor, const Actor& target);
[[nodiscard]] double chance_of(Evaluator& formula, const Environment& environment);

} // namespace panoplon::fighting
