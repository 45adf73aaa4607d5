// What an actor does next, what it costs and how long it takes (M61, M66). Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// Whatever hangs on what the actor wears now.
void take_up(Field& f, Actor& actor);
/// M61: the first on its list that is ready, affordable and whose `when` holds; none without one.
[[nodiscard]] [[gnu::always_inline]] inline Place* choose_action(Field& f, Actor& actor,
                                                                 const Actor* front);
[[nodiscard]] bool affordable(const Field& f, const Actor& actor, const Place& place);
/// Pays, and makes the actor busy (M62, M66).
[[gnu::always_inline]] inline void begin_action(Field& f, Actor& actor, Place& place);
[[nodiscard]] [[gnu::always_inline]] inline Ticks time_of(Field& f, Actor& actor, Place& place);
/// The first one that opposes it and stands, in the order of arrival; null when there is none.
[[nodiscard]] [[gnu::always_inline]] inline Actor* front_target(const Actor& actor);
[[nodiscard]] inline bool opposed(const Actor& actor, const Actor& other) {
    return actor.ours != other.ours;
}

} // namespace panoplon::fighting
