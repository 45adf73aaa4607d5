// One context of an audit: its best, and what each item comes to there (M81, M84).
#pragma once

#include "judge/verdict.h"

#include <vector>

namespace panoplon {

struct MeasuredContext {
    ContextRow context;
    Candidate best; ///< bare where nothing legal was found
    /// Of worn items and of consumables; `context` is for who gathers them.
    std::vector<ItemContextRow> rows, packed_rows;
};

/// Searches the context that `search` has entered, and measures what hangs on it: items in their
/// window, and in as many levels after. `groups`: twin_groups().
[[nodiscard]] MeasuredContext measure_context(const Armoury& armoury,
                                              const std::vector<ItemId>& groups, Search& search);

} // namespace panoplon
