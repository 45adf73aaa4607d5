// Tiers as an audit sees their items: what they are worth, and where a higher one is worth less.
#pragma once

#include "judge/audit/audit.h"

#include <vector>

namespace panoplon {

struct TierSummary {
    TierId tier;
    std::size_t items = 0;      ///< worn ones that were judged
    double pick_share = 0;      ///< mean over them
    double shortfall = 0;       ///< likewise
    double budget_share = 0;    ///< mean of what they spend of their budget; 0 without a budget
    std::size_t off_budget = 0; ///< over or under by more than the tolerance
    /// An item of this tier, and one of a lower tier that is worn in the same place, is no younger
    /// and is worth clearly more in the item's own window.
    struct Inversion {
        ItemId item, better;
        double shortfall = 0, better_shortfall = 0; ///< means over the contexts that have both
    };
    std::vector<Inversion> inversions; ///< those of an item side by side

    /// The items that are inverted, each once.
    [[nodiscard]] std::vector<ItemId> inverted() const;
};

/// By rank, lowest first; tiers without a judged item too.
[[nodiscard]] std::vector<TierSummary> judge_tiers(const Armoury& armoury,
                                                   const AuditResult& result);

} // namespace panoplon
