// Sums over trials, as they come up. For the files of this folder.
#pragma once

#include "fight/trials.h"

namespace panoplon {

[[nodiscard]] TrialsSummary empty_summary(const LedgerShape& shape);
void add_trial(TrialsSummary& summary, const FightResult& result);
/// Adds what came after; the order of merging is the order of the trials.
void merge(TrialsSummary& into, const TrialsSummary& block);
/// To be done once, at the end.
void sort_times(TrialsSummary& summary);

/// A prepared engine: one for each thread.
[[nodiscard]] Engine engine_for(const Armoury& armoury, const FightSetup& setup);

} // namespace panoplon
