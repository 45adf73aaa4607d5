// How long a fight has to be for a unit of a consumable to pay (M84c).
#pragma once

#include "base/watch.h"
#include "judge/audit/audit.h"

#include <vector>

namespace panoplon {

struct BreakEven {
    std::size_t contexts = 0;   ///< of its window, whose best packs it
    std::size_t pays = 0;       ///< of these, in which a unit pays before the fight ends
    double time = 0;            ///< mean over these, in the armoury's unit
    double least = 0, most = 0; ///< likewise
};

/// By consumable, as result.consumables has them. The same for any number of threads. Stopped, it
/// has nothing.
[[nodiscard]] std::vector<BreakEven>
find_break_evens(const Armoury& armoury, const AuditResult& result, const Watch& watch = {});

/// From when on one fight's lead stays above another's: the share of its health that the character
/// has left less the mean share that the foes have. Both are of the same actors, `foes` the first
/// foe's place among them. None where it does not stay above to the end of the shorter one.
[[nodiscard]] std::optional<double> ahead_from(const Timeline& with, const Timeline& without,
                                               std::size_t foes, std::size_t health);

} // namespace panoplon
