// One fight, and beside it the fastest honest loop for exactly that fight: the yardstick of the
// engine's speed. Both take the same draws, so every trial of one ends as the other's does.
#pragma once

#include "chance/draws.h"

#include <string>

namespace panoplon::bench {

/// The armoury of the fight, as armoury.toml: loadout `hero`, encounter `fight`.
[[nodiscard]] std::string reference_armoury();

struct Outcome {
    bool won = false;
    double time = 0;  ///< units
    double dealt = 0; ///< to the foe, without what is over its last health
};

/// A trial of that fight by hand: its numbers are written into the code.
[[nodiscard]] Outcome fight_by_hand(const Luck& luck);

} // namespace panoplon::bench
