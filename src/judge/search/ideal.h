// An armoury whose gear has no drawbacks: what the bounds of a search are found with. On paper
// (M82) more of a stat in its own direction, more triggers and more to use never harm; where one
// thing stands for several, what could harm has to be out of it.
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

struct Ideal {
    /// As the original, with effects and consumables added at the end. What gear, tiers and sets
    /// lay on somebody is the half of it that is good for who wears them; foes, characters and
    /// actions are untouched.
    Armoury armoury;
    /// By item of the original: a consumable that weighs nothing, takes no time and cools down by
    /// itself; none where it is no consumable.
    std::vector<ItemId> free;
};

[[nodiscard]] Ideal ideal_of(const Armoury& armoury);

/// Whether a change of a stat is for the better; 0 says nothing. Of a stat without a direction
/// nothing is.
[[nodiscard]] bool betters(Better better, double change);

} // namespace panoplon
