// The rules of a fight, plain and slow: written from docs/model.md alone, apart from the engine,
// which is compared with it event by event. No even luck.
#pragma once

#include "chance/draws.h"
#include "outfit/outfit.h"

#include <string>
#include <vector>

namespace panoplon::test {

/// One thing that happened, in the words of a timeline: hits, crits, misses, warded, tick,
/// restores, uses, effect, effect_again, effect_ends, trigger, swaps, swap_refused, arrives,
/// life_lost, falls.
struct Told {
    double time = 0; ///< units
    std::string actor, event, source, target;
    double amount = 0;
    double pool_after = 0;
};

struct ReferenceResult {
    std::vector<Told> events;
    bool won = false;
    double time = 0; ///< units
};

/// One trial of an outfit against an encounter.
[[nodiscard]] ReferenceResult reference_fight(const Armoury& armoury, const Outfit& outfit,
                                              EncounterId encounter, const Luck& luck,
                                              double strength);

} // namespace panoplon::test
