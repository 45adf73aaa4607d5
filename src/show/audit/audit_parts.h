// The parts of an audit that are about more than one item: sets, tiers, upgrades, groups, pairs;
// and what shows a verdict.
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

/// The break-even of a consumable, by its place in the audit's; none where there is none.
[[nodiscard]] const BreakEven* break_even_of(const AuditExtras& extras, std::size_t consumable);
[[nodiscard]] std::string consumables_text(const Armoury& armoury, const AuditResult& result,
                                           const AuditExtras& extras);
[[nodiscard]] CsvTable consumable_table(const Armoury& armoury, const AuditResult& result,
                                        const AuditExtras& extras);

/// One of them in every form.
struct AuditPart {
    std::string text;
    Json json;
    CsvTable table;
};
[[nodiscard]] AuditPart upgrades_part(const Armoury& armoury,
                                      const std::vector<UpgradeWorth>& upgrades);
[[nodiscard]] AuditPart groups_part(const Armoury& armoury, const std::vector<GroupWorth>& groups);
[[nodiscard]] AuditPart tier_steps_part(const Armoury& armoury, const std::vector<TierStep>& steps);
[[nodiscard]] AuditPart pairs_part(const Armoury& armoury, const std::vector<PairWorth>& pairs);
/// What hinders to the left, what helps to the right, each with its interval; none without any.
[[nodiscard]] std::optional<Figure> pairs_figure(const Armoury& armoury,
                                                 const std::vector<PairWorth>& pairs);

[[nodiscard]] std::string sets_text(const Armoury& armoury, const std::vector<StepWorth>& sets);
[[nodiscard]] std::string tiers_text(const Armoury& armoury, const std::vector<TierSummary>& tiers);
[[nodiscard]] Json sets_json(const Armoury& armoury, const std::vector<StepWorth>& sets);
[[nodiscard]] Json tiers_json(const Armoury& armoury, const std::vector<TierSummary>& tiers);
[[nodiscard]] CsvTable sets_table(const Armoury& armoury, const std::vector<StepWorth>& sets);
[[nodiscard]] CsvTable tiers_table(const Armoury& armoury, const std::vector<TierSummary>& tiers);

/// Where an item is at its best and at its worst, with what the best wears there.
[[nodiscard]] Json witness_json(const Armoury& armoury, const AuditResult& result,
                                const ItemVerdict& verdict);
/// "worst: ringer, level 19, ford: 0.88 of its place lost to tin_bell": the context that shows the
/// verdict; empty where there is none. Says whether trials bear it out.
[[nodiscard]] std::string witness_text(const Armoury& armoury, const AuditResult& result,
                                       const ItemVerdict& verdict);

} // namespace panoplon
