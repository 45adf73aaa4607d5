// An audit with all that is told beside its verdicts.
#pragma once

#include "base/stages.h"
#include "judge/audit/audit.h"
#include "judge/audit/confirming.h"
#include "judge/audit/lift.h"
#include "show/audit/audit_tables.h"

#include <optional>

namespace panoplon {

struct AuditRequest {
    AuditOptions options;
    ConfirmOptions confirm; ///< without trials nothing is confirmed,
    LiftOptions lift;       ///< and nothing is worn in random loadouts
    std::optional<GroupBy> groups;
    std::optional<PairOptions> pairs;
};

struct AuditFound {
    AuditResult result;
    AuditExtras extras;
};

/// `recall`: what is known of contexts from before.
[[nodiscard]] AuditFound find_audit(const Judging& judging, const AuditRequest& request,
                                    const Recall& recall, Stages& stages);

/// The first error of a fight in any context.
[[nodiscard]] std::optional<FightError> first_error(const AuditResult& result);

} // namespace panoplon
