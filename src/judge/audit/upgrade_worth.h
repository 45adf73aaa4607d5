// Upgrades: what each level of one adds to the best of every context, and what that costs (M84).
#pragma once

#include "base/watch.h"
#include "judge/audit/audit.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

struct UpgradeWorth {
    UpgradeId upgrade;
    int level = 1;              ///< the level bought, from 1 to its max
    std::optional<double> cost; ///< coin, at the audit's middle level; none where it has no formula
    double gain = 0;            ///< mean share that it adds to the margin over the level before
    double least = 0, most = 0; ///< of a context
    std::size_t contexts = 0;

    /// Of the margin, for a hundred coin; none without a cost.
    [[nodiscard]] std::optional<double> per_hundred() const;
};

/// By upgrade, then by level. Each upgrade is bought alone, in the best loadout of each context.
/// The same for any number of threads. Stopped, it has nothing.
[[nodiscard]] std::vector<UpgradeWorth>
judge_upgrades(const Armoury& armoury, const AuditResult& result, const Watch& watch = {});

} // namespace panoplon
