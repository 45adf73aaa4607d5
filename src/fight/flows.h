// Even luck: damage, regen and effects as flows between moments at which something is due (M68).
// Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// Begins an action whose damage flows over its time in place of landing at once (M68).
void flow_action(Field& f, Actor& actor, Place& place);
/// What a use does at once: what its blows come to in the mean (M32b).
void strike_evenly(Field& f, Actor& actor, Place& place);
void end_flows(Field& f);
inline void change_own_rates(Field& f, Actor& actor) {
    actor.even.own_rates_changed = true;
    f.flows.rates_stirred = true;
}
/// What flows, from the stats of now.
void find_flow(Field& f, Flow& flow, Actor& actor, Place& place, Actor& target);
/// What every pool gains and loses per tick of the clock until the next moment.
void find_rates(Field& f);
/// Lets everything flow to the next moment at which something is due; returns that.
[[nodiscard]] Ticks flow_on(Field& f, Ticks limit);
void fall_by_flow(Field& f);
/// Flows on the front go on to the next who stands; flows on each of several end with their target.
void retarget(Field& f);

} // namespace panoplon::fighting
