// Values of a tuned number at which something that a player notices steps (M92).
#pragma once

#include "judge/tune/tuning.h"

#include <vector>

namespace panoplon {

/// Where the item comes to be picked in most contexts of an encounter, and where the hits that fell
/// a foe, or the character, become fewer or more. Of these, those about the fair range and the
/// present value. By rising value.
[[nodiscard]] std::vector<Breakpoint>
find_breakpoints(const Armoury& armoury, const WhatIfs& what_ifs, const Tuning& tuning);

} // namespace panoplon
