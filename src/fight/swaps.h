// Swaps to another loadout in the midst of a fight (M71). Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// Swaps come after arrivals and before uses, once the actor is free; each is done once a fight.
void consider_swaps(Field& f);
/// The first moment after this one at which one is due by time.
[[nodiscard]] Ticks next_swap(const Field& f);

} // namespace panoplon::fighting
