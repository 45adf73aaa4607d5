// All contexts of a scope, level by level: each finds its best from the best of the level before;
// then all of a character's at that level begin once more from one another's (M80).
#pragma once

#include "judge/audit/context_memory.h"
#include "judge/search/contexts.h"

#include <functional>
#include <memory>
#include <vector>

namespace panoplon {

/// The contexts of one character and encounter, as far as they were measured.
struct MeasuredChain {
    ContextChain of;
    std::vector<MeasuredContext> measured; ///< by level; fewer where the work was stopped
    std::size_t recalled = 0;              ///< of these, known from before
};

/// Called for each context that was searched, from any thread: the place of its chain, of its level
/// there, and the search as it ended.
using SeeSearch = std::function<void(std::size_t chain, std::size_t level, const Search& search)>;

/// Contexts of a level are searched in parallel; the result does not depend on the number of
/// threads, nor on what was known from before. Progress counts contexts.
[[nodiscard]] std::vector<MeasuredChain> measure_contexts(const Armoury& armoury,
                                                          const std::vector<ItemId>& groups,
                                                          const ContextScope& scope,
                                                          const Watch& watch, const Recall& recall,
                                                          const SeeSearch& see = {});

} // namespace panoplon
