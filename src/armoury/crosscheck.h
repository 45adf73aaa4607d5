// What can only be seen with the whole armoury in view.
#pragma once

#include "diagnostic/diagnostic.h"
#include "model/armoury.h"

namespace panoplon {

/// Puts derived stats in the order of their needs; a cycle is a mistake that shows it (M3), and
/// then the order has not all of them.
void order_derived_stats(Armoury& armoury, Sink& sink);

/// Mistakes across definitions: a band that changes the capacity (M50), a use rule for what is no
/// consumable, a level range outside of the armoury's, a fighter without health, … What other
/// mistakes have left out is passed over.
void cross_check(const Armoury& armoury, Sink& sink);
/// The part of it that is about items: callings and tags that nobody has, sockets and contents
/// that go in a circle, more places than a slot has.
void cross_check_gear(const Armoury& armoury, Sink& sink);

} // namespace panoplon
