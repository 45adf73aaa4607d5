// Every worn item over all contexts (M80-M83).
#pragma once

#include "fight/trials.h"
#include "judge/verdict.h"

#include <string>
#include <vector>

namespace panoplon {

struct AuditOptions {
    std::vector<CharacterId> characters; ///< empty: all
    std::vector<EncounterId> encounters; ///< empty: all that have a weight, but for the yardstick's
    LevelRange levels;                   ///< within the armoury's
    int step = 1;                        ///< levels; ≥ 1
};

struct AuditResult {
    std::vector<ContextRow> contexts;
    std::vector<ItemContextRow>
        rows; ///< by item, then by context; `context` is an index into contexts
    std::vector<ItemVerdict> items; ///< worn items, in the armoury's order
    bool partial = false;
    std::vector<std::string> remarks; ///< what could not be judged, and why
};

/// Contexts are searched in chains over level, one for each character and encounter, in parallel;
/// the result does not depend on the number of threads. Progress counts contexts.
[[nodiscard]] AuditResult audit(const Armoury& armoury, const AuditOptions& options,
                                const Watch& watch = {});

} // namespace panoplon
