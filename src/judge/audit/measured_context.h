// One context of an audit: its best, and what each item comes to there (M81, M84).
#pragma once

#include "judge/audit/verdict.h"

#include <vector>

namespace panoplon {

struct MeasuredContext {
    ContextRow context;
    Candidate best; ///< bare where nothing legal was found
    /// Of worn items and of consumables.
    std::vector<ItemContextRow> rows, packed_rows;
};

/// Whether a level is one of those that an item is judged at (M81b).
[[nodiscard]] bool in_window(const Armoury& armoury, ItemId item, int level);

/// The numbers of one item where `search` has looked for them; sound contexts only. `context` is
/// for who gathers the rows. `groups`: twin_groups().
[[nodiscard]] ItemContextRow measure_item(const Armoury& armoury, const std::vector<ItemId>& groups,
                                          const Search& search, double roughness, ItemId item);
/// `roughness`: of the best (M69b).
[[nodiscard]] ContextRow context_row(const Armoury& armoury, const Search& search,
                                     double roughness);

/// Whether any of the items has its verdict from this context; `judged` as below.
[[nodiscard]] bool judges_any(const Armoury& armoury, const std::vector<bool>& judged,
                              const Search& search);

/// Once the best of the context is found: searches for, and measures, every item in its window, and
/// in as many levels after.
/// `judged`: by item, whether it is to be; empty: all are.
[[nodiscard]] MeasuredContext measure_context(const Armoury& armoury,
                                              const std::vector<ItemId>& groups,
                                              const std::vector<bool>& judged, Search& search);

} // namespace panoplon
