// Every worn item and every consumable over all contexts (M80-M84).
#pragma once

#include "base/watch.h"
#include "judge/audit/consumable_worth.h"
#include "judge/audit/verdict.h"
#include "judge/search/contexts.h"
#include "judge/search/recall.h"
#include "judge/search/seen_outfits.h"

#include <string>
#include <vector>

namespace panoplon {

struct AuditOptions : ContextScope {
    std::vector<bool> judged = {}; ///< by item: whether it is; empty: all are
};

/// A consumable: what it gives over what a pack may hold (M84).
struct ConsumableVerdict {
    ItemVerdict judged;
    ConsumableWorth worth;
};

struct AuditResult {
    std::vector<ContextRow> contexts;
    std::vector<Candidate> bests;  ///< by context
    std::vector<SeenOutfits> seen; ///< likewise: what its numbers rest on
    /// Of worn items, and of consumables: by item, then by context; `context` is an index into
    /// contexts.
    std::vector<ItemContextRow> rows, packed_rows;
    std::vector<ItemVerdict> items;             ///< worn items, in the armoury's order
    std::vector<ConsumableVerdict> consumables; ///< likewise
    bool partial = false;

    /// Contexts in which everything may be worn: as many as were looked at.
    [[nodiscard]] std::size_t whole_contexts() const {
        return static_cast<std::size_t>(std::count_if(
            contexts.begin(), contexts.end(), [](const ContextRow& row) { return row.whole(); }));
    }
    std::vector<std::string> remarks; ///< what could not be judged, and why
};

/// Contexts are searched in parallel; the result does not depend on the number of threads, nor on
/// what was known from before. Progress counts contexts.
[[nodiscard]] AuditResult audit(const Judging& judging, const AuditOptions& options,
                                const Watch& watch = {}, const Recall& recall = {});

class EarlierAudit;
/// After a change, at a glance: of each context that the change touches the outfits that the
/// earlier audit rests on, fought as they are now, and the changed things tried in the best of
/// them. Each of its margins is that of a legal outfit, so a search finds no lower best; what is
/// best in outfits that nobody had thought of is found by audit() alone. Contexts that were not
/// looked at before are left out.
[[nodiscard]] AuditResult audit_again(const Judging& judging, const AuditOptions& options,
                                      const EarlierAudit& earlier, const Watch& watch,
                                      const Recall& recall);

} // namespace panoplon
