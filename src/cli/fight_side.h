// One side of a fight made ready: for the files of `fight`.
#pragma once

#include "cli/session.h"
#include "fight/setup.h"
#include "outfit/sheet.h"

namespace panoplon {

/// More than anybody waits for.
inline constexpr std::uint64_t most_trials = 10'000'000;

/// What was asked for on the command line.
struct FightAsked {
    LoadoutId loadout;
    EncounterId encounter;
    int level = 1;
    std::uint64_t trials = 0; ///< 0: even luck only
    std::uint64_t seed = 1;
    std::uint64_t told = 0;
    double precision = 0; ///< of the share of wins; 0: whatever so many trials give
};

/// A loadout that can be worn and can fight there.
struct FightSide {
    Outfit outfit;
    Sheet sheet;
    FightSetup setup;
};

/// None, and said to standard error, where something is refused.
[[nodiscard]] std::optional<FightSide> fight_side(const Armoury& armoury, LoadoutId loadout,
                                                  EncounterId encounter, int level);

/// `fight` with two sides.
int run_fight_two(const Invocation& invocation, const Opened& opened, const FightAsked& asked);

} // namespace panoplon
