// All contexts of a scope, each by itself, or taken from what is known from before.
#pragma once

#include "base/watch.h"
#include "judge/audit/audit.h"
#include "judge/audit/measured_context.h"
#include "judge/search/recall.h"

#include <optional>
#include <vector>

namespace panoplon {

class EarlierAudit;

struct MeasuredContexts {
    /// Of the scope, those that judge anything that is asked for; fewer where the work was stopped.
    std::vector<MeasuredContext> contexts;
    bool partial = false;
};

/// In parallel, and on all ranks. The result does not depend on the number of threads or ranks, nor
/// on what was known from before. Progress counts contexts.
[[nodiscard]] MeasuredContexts measure_contexts(const Judging& judging, const AuditOptions& options,
                                                const Watch& watch, const Recall& recall);

/// The outfits that an audit found in the context which a search has entered; none where none
/// looked at it.
[[nodiscard]] std::optional<SeenOutfits> seen_by_audit(const Judging& judging, const Recall& recall,
                                                       Search& search);

/// After a change, at a glance: where it touches nothing, what is known from before; elsewhere the
/// outfits that the earlier audit found. `recall` is for this armoury. Contexts that were not
/// looked at before are left out. In parallel, and on all ranks.
[[nodiscard]] MeasuredContexts measure_again(const Judging& judging, const AuditOptions& options,
                                             const EarlierAudit& earlier, const Watch& watch,
                                             const Recall& recall);

} // namespace panoplon
