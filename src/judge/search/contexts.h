// Which contexts a piece of work looks at.
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

/// Contexts of a piece of work.
struct ContextScope {
    std::vector<CharacterId> characters; ///< empty: all
    std::vector<EncounterId> encounters; ///< empty: all that have a weight, but for the yardstick's
    LevelRange levels;                   ///< within the armoury's
    int step = 1;                        ///< levels; ≥ 1
    std::size_t sample = 0; ///< only so many of these contexts, spread over all; 0: all
};

/// A character at a level against an encounter.
struct Context {
    CharacterId character;
    int level = 1;
    EncounterId encounter;
};

/// By character, then encounter, then level: the levels of the scope at which the encounter is met.
/// A sample is the same each time.
[[nodiscard]] std::vector<Context> contexts_of(const Armoury& armoury, ContextScope scope);

} // namespace panoplon
