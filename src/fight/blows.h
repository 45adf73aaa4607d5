// Blows of a trial: what decides one, what it deals, and what a hit brings with it (M62, M63). What
// only stats decide is found once for a state of both sides. Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

[[gnu::always_inline]] inline void strike(Field& f, Actor& actor, Place& place, Actor* front);
[[nodiscard]] [[gnu::always_inline]] inline const BlowTerms&
blow_terms(Field& f, Actor& actor, Place& place, Actor& target);
/// What is left of an amount after the target's defences; never below 0.
[[nodiscard]] double mitigated(Field& f, std::size_t type, double amount, Environment& env);
[[nodiscard]] double chance_of(Evaluator& formula, const Environment& environment);

} // namespace panoplon::fighting
