// Whether trials bear out what even luck said of an item (M85).
#pragma once

#include "base/watch.h"
#include "judge/audit/audit.h"

#include <cstdint>

namespace panoplon {

struct ConfirmOptions {
    std::uint64_t trials = 100; ///< of each loadout in each context; 0: nothing is confirmed
    std::uint64_t seed = 1;
};

/// Looks at what is dominant, useless or a burden: in up to three contexts of its window (where the
/// number that decides is least, in the middle and greatest) the best, the best without the item
/// (or with it) and the one with its place empty fight under the same luck. Fills in `confirmed`.
void confirm_verdicts(const Judging& judging, const ConfirmOptions& options, AuditResult& result,
                      const Watch& watch = {});

} // namespace panoplon
