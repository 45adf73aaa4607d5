// What an actor does next, what it costs and how long it takes (M61, M66). Not for others.
#pragma once

#include "fight/field.h"

#include <algorithm>

namespace panoplon::fighting {

/// Whatever hangs on what the actor wears now.
void take_up(Field& f, Actor& actor);
/// M61: the first on its list that is ready, affordable and whose `when` holds; none without one.
[[nodiscard]] [[gnu::always_inline]] inline Place* choose_action(Field& f, Actor& actor,
                                                                 const Actor* front);
[[nodiscard]] bool affordable(const Field& f, const Actor& actor, const Place& place);
/// Whether the units that it spends are in the pack (M61b).
[[nodiscard]] inline bool can_spend(const Actor& actor, const Place& place) {
    return !place.lacks_stack &&
           std::all_of(place.spends.begin(), place.spends.end(), [&](const auto& spent) {
               return actor.pack.left[spent.first] >= spent.second;
           });
}
/// Pays, and makes the actor busy (M62, M66).
[[gnu::always_inline]] inline void begin_action(Field& f, Actor& actor, Place& place);
[[nodiscard]] [[gnu::always_inline]] inline Ticks time_of(Field& f, Actor& actor, Place& place);
/// Whom a blow goes to first; null when nobody is there.
[[nodiscard]] [[gnu::always_inline]] inline Actor* front_target(const Field& f, const Actor& actor);
/// Whom the blows of an actor go to, in their order: those who stand, in the order of arrival, but
/// who taunts before the others (M23b). What happens to one may change who stands and who taunts:
/// each is visited once at most, and only while it stands. Ends when `strike` returns false.
template <class Strike>
[[gnu::always_inline]] inline void for_each_target(const Field& f, const Actor& actor,
                                                   const Strike& strike);
[[nodiscard]] inline bool opposed(const Actor& actor, const Actor& other) {
    return actor.ours != other.ours;
}

} // namespace panoplon::fighting
