// All contexts of a scope, each by itself, or taken from what is known from before.
#pragma once

#include "base/watch.h"
#include "judge/audit/context_memory.h"
#include "judge/search/contexts.h"

#include <functional>
#include <optional>
#include <vector>

namespace panoplon {

struct MeasuredContexts {
    std::vector<MeasuredContext> contexts; ///< of the scope; fewer where the work was stopped
    std::size_t recalled = 0;              ///< of these, known from before
    bool partial = false;
};

/// In parallel; the result does not depend on the number of threads, nor on what was known from
/// before. Progress counts contexts.
[[nodiscard]] MeasuredContexts measure_contexts(const Armoury& armoury,
                                                const std::vector<ItemId>& groups,
                                                const ContextScope& scope, const Watch& watch,
                                                const Recall& recall);

} // namespace panoplon
