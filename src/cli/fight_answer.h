// Finds what `fight` is asked for.
#pragma once

#include "cli/fight_side.h"
#include "show/fight/show_fight.h"

namespace panoplon {

/// Runs the trials, and whatever else the answer needs; the first error of what it can't do
/// without. One of even luck or of a margin is the answer's `fault`. `margins`: of each trial, too.
[[nodiscard]] std::optional<FightError> find_answer(const Armoury& armoury, const FightSetup& setup,
                                                    const Watch& watch, const FightAsked& asked,
                                                    bool margins, FightAnswer& answer);

} // namespace panoplon
