// What an audit found, as tables: verdicts, contexts, sets, tiers, upgrades, groups, pairs.
#pragma once

#include "judge/audit/break_even.h"
#include "judge/audit/group_worth.h"
#include "judge/audit/pairs.h"
#include "judge/audit/set_worth.h"
#include "judge/audit/tier_summary.h"
#include "judge/audit/upgrade_worth.h"
#include "judge/curve/tier_steps.h"
#include "show/document.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// What an audit tells beside its verdicts.
struct AuditExtras {
    std::vector<StepWorth> sets;
    std::vector<TierSummary> tiers;
    std::vector<UpgradeWorth> upgrades;
    std::vector<BreakEven> break_evens; ///< by consumable of the audit; empty: not looked for
    std::vector<GroupWorth> groups;     ///< of --by
    std::vector<TierStep> tier_steps;   ///< of --by tier
    std::vector<PairWorth> pairs;       ///< of --pairs
    bool has_groups = false, has_pairs = false; ///< whether these were asked for
};

/// A row for each of these, in their order.
[[nodiscard]] Table worn_table(const Armoury& armoury, const AuditResult& result,
                               const std::vector<ItemVerdict>& verdicts);
/// The same columns, and what a consumable is worth. Rows as in the audit.
[[nodiscard]] Table consumable_table(const Armoury& armoury, const AuditResult& result,
                                     const AuditExtras& extras);
/// One row per item and context: what the best is with it, without it, and what that means.
[[nodiscard]] Table audit_detail(const Armoury& armoury, const AuditResult& result);

[[nodiscard]] Table sets_table(const Armoury& armoury, const std::vector<StepWorth>& sets);
[[nodiscard]] Table tiers_table(const Armoury& armoury, const std::vector<TierSummary>& tiers);
[[nodiscard]] Table upgrades_table(const Armoury& armoury,
                                   const std::vector<UpgradeWorth>& upgrades);
[[nodiscard]] Table groups_table(const Armoury& armoury, const std::vector<GroupWorth>& groups);
[[nodiscard]] Table tier_steps_table(const Armoury& armoury, const std::vector<TierStep>& steps);
[[nodiscard]] Table pairs_table(const Armoury& armoury, const std::vector<PairWorth>& pairs);
/// What hinders to the left, what helps to the right, each with its interval; none without any.
[[nodiscard]] std::optional<Figure> pairs_figure(const Armoury& armoury,
                                                 const std::vector<PairWorth>& pairs);

} // namespace panoplon
