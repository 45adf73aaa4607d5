// The contexts that show what a verdict says.
#pragma once

#include "judge/audit/verdict.h"

#include <optional>
#include <span>
#include <vector>

namespace panoplon {

/// A context of an item's window, and what the best wears in its place there (itself, where that is
/// the best).
struct Witness {
    std::size_t context = 0; ///< index into the contexts of the audit, which have the loadout
    double shortfall = 0;
    std::vector<ItemId> instead;
};

struct Witnesses {
    std::optional<Witness> best, worst; ///< none where no context of the window judges it
};

/// `rows` are the item's own.
[[nodiscard]] Witnesses find_witnesses(const Armoury& armoury, ItemId item,
                                       std::span<const ItemContextRow> rows,
                                       const std::vector<ContextRow>& contexts);

} // namespace panoplon
