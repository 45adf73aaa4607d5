// The order of moments and of what is done at one (M60). Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

void fight(Field& f);
void find_active(Field& f);
/// The first end of an effect after this moment. What had no length at all ends at the next
/// instant, whatever makes that.
[[nodiscard]] [[gnu::always_inline]] inline Ticks next_end(Field& f);
/// The first end of a cooldown after this moment, of those who are there.
[[nodiscard]] Ticks next_cooldown(Field& f);
/// The first moment after this one at which a condition on time may turn, of those who are there
/// (M60b).
[[nodiscard]] Ticks next_turn_in_time(Field& f);
[[nodiscard]] Ticks next_turn_in_time(Field& f, Actor& actor);

} // namespace panoplon::fighting
