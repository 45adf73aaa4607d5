// Which contexts a piece of work looks at.
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

/// The contexts of one character and encounter, from the lowest level up: each search starts from
/// the best of the one before.
struct ContextChain {
    CharacterId character;
    EncounterId encounter;
    std::vector<int> levels;
};

/// Every `step`-th level of the range at which the encounter is met. Empty lists stand for all
/// characters, and for all encounters that have a weight but for the yardstick's. Chains without
/// levels are left out.
[[nodiscard]] std::vector<ContextChain> context_chains(const Armoury& armoury,
                                                       std::vector<CharacterId> characters,
                                                       std::vector<EncounterId> encounters,
                                                       const LevelRange& levels, int step);

} // namespace panoplon
