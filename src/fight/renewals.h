// What even luck passes over: an action that begins again as it was changes nothing but counts and
// the ends of effects (M68). Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// By even luck an action that begins again as it was changes nothing but counts and the ends of
/// effects. Such beginnings are passed over until the next moment at which something else is due,
/// or until the first that could come to more; returns that moment, `end` at the latest.
[[nodiscard]] Ticks pass_renewals(Field& f, Ticks end);

} // namespace panoplon::fighting
