// One context of an audit, of all or in the world of a tier: its best, and what each item comes to
// there (M81, M81c, M84).
#pragma once

#include "judge/audit/verdict.h"
#include "judge/search/seen_outfits.h"

#include <vector>

namespace panoplon {

struct MeasuredContext {
    ContextRow context;
    Candidate best; ///< bare where nothing legal was found
    /// Of worn items and of consumables.
    std::vector<ItemContextRow> rows, packed_rows;
    SeenOutfits seen; ///< every outfit that any of it rests on
};

/// Whether an item can have its time at a level: it has arrived, and a worn one is not older than
/// the window (M81b). A successor may have ended it.
[[nodiscard]] bool may_have_its_time(const Armoury& armoury, ItemId item, int level);
/// The highest rank of what it is judged among then (M81c): a consumable that is older than the
/// window is judged among all.
[[nodiscard]] int world_of(const Judging& judging, ItemId item, CharacterId character, int level);

/// What an item is in the context and the world that a search has entered: judged, for it is in
/// its time; looked at, for it may overstay; or nothing.
enum class Age { in_time, after, neither };
[[nodiscard]] Age age_in(const Judging& judging, const Search& search, ItemId item);

/// The numbers of one item where `search` has looked for them; sound contexts only. `context` is
/// for who gathers the rows.
[[nodiscard]] ItemContextRow measure_item(const Judging& judging, Search& search, double roughness,
                                          ItemId item);
/// `roughness`: of the best (M69b).
[[nodiscard]] ContextRow context_row(const Armoury& armoury, const Search& search,
                                     double roughness);

/// Whether any of the items has its verdict from this context; `judged` as below.
[[nodiscard]] bool judges_any(const Judging& judging, const std::vector<bool>& judged,
                              const Search& search);

/// Once the best of the context is found: searches for, and measures, every item in its time, and
/// those that may overstay.
/// `judged`: by item, whether it is to be; empty: all are.
[[nodiscard]] MeasuredContext measure_context(const Judging& judging,
                                              const std::vector<bool>& judged, Search& search);

} // namespace panoplon
