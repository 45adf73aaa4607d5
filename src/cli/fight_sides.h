// The sides of a fight, for the files of `fight`, and what is said where one can't fight.
#pragma once

#include "cli/session.h"
#include "work/fight_work.h"

namespace panoplon {

/// A loadout that can be worn and can fight there; none, and said to standard error, where
/// something is refused.
[[nodiscard]] std::optional<FightSide> fight_side(const Armoury& armoury, LoadoutId loadout,
                                                  EncounterId encounter, int level);

/// `fight` with two sides.
int run_fight_two(const Invocation& invocation, const Opened& opened, const FightRequest& request);

} // namespace panoplon
