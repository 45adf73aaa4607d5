// Triggers: what waits for something to happen, and what it then gives (M62). Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// Whether something that an actor bears waits for one of these.
[[nodiscard]] inline bool hears(const Field& f, const Actor& actor, EventSet events) {
    return ((actor.hears | f.rules.passing_hear) & events) != 0;
}
/// Everything that an actor bears and that waits for this, in the order of its bearers: its own
/// and worn, its load band, its effects. `chance` is that of what has happened (M68).
void fire_all(Field& f, Actor& actor, TriggerEvent event, Actor* other, double chance);
inline void fire(Field& f, Actor& actor, TriggerEvent event, Actor* other, double chance = 1) {
    if (hears(f, actor, event_bit(event))) fire_all(f, actor, event, other, chance);
}
[[nodiscard]] TriggerState& state_of(Field& f, Actor& actor, const Trigger& trigger);
/// How likely a trigger comes true, where what it waits for happens with a chance.
[[nodiscard]] double whole_chance(Field& f, const Actor& actor, const TriggerState& state,
                                  const Actor* other, double chance);

} // namespace panoplon::fighting
