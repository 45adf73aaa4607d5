// Who is called to a side by an action, and leaves it again (M64a). The places of all that may be
// called are laid out with the others of a setup. Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// Whether somebody that an action calls could still come.
[[nodiscard]] bool can_call(const Actor& actor, ActionId action);
/// The same of an action on its list; true where that calls nobody.
[[nodiscard]] inline bool can_call(const Actor& actor, const Place& place) {
    return !place.formulas->calls || can_call(actor, place.id);
}
void call(Field& f, Actor& caller, const Place& place);
/// When somebody who is there next leaves.
void find_first_leave(Field& f);
/// It goes without falling.
void leave(Field& f, Actor& actor);
void leave_due(Field& f);

} // namespace panoplon::fighting
