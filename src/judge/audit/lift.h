// Lift: what an item gives in loadouts drawn at random, rather than in the best ones.
#pragma once

#include "base/watch.h"
#include "judge/audit/audit.h"

#include <cstdint>

namespace panoplon {

struct LiftOptions {
    std::uint64_t loadouts = 16; ///< drawn in each context; 0: no lift is found
    std::uint64_t seed = 1;
};

/// For each worn item, in up to three contexts of its window: loadouts drawn at random are changed
/// in one place, to the item from what was drawn there. Fills in `lift`, the mean gain in margin
/// by even luck with its interval. The same for any number of threads.
void find_lifts(const Judging& judging, const LiftOptions& options, AuditResult& result,
                const Watch& watch = {});

} // namespace panoplon
