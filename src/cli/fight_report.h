// Fights what a report of a fight tells.
#pragma once

#include "cli/fight_side.h"
#include "show/fight/show_fight.h"

namespace panoplon {

/// Runs the trials, and whatever else the report needs; the first error of what it can't do
/// without. One of even luck or of a margin is the report's `fault`. `margins`: of each trial, too.
[[nodiscard]] std::optional<FightError> fill_report(const Armoury& armoury, const FightSetup& setup,
                                                    const Watch& watch, const FightAsked& asked,
                                                    bool margins, FightReport& report);

} // namespace panoplon
