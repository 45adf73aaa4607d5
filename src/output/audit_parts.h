// The parts of an audit that are about more than one item: sets and tiers; and what shows a
// verdict.
#pragma once

#include "judge/set_worth.h"
#include "judge/tier_summary.h"
#include "output/document.h"

#include <string>
#include <vector>

namespace panoplon {

/// What an audit tells beside its verdicts.
struct AuditExtras {
    std::vector<StepWorth> sets;
    std::vector<TierSummary> tiers;
};

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
