// What a save of the armoury did, in a few lines.
#pragma once

#include "armoury/read.h"
#include "judge/tune/comparison.h"
#include "show/document.h"

#include <string>

namespace panoplon {

/// How things stand: how many call for a hand, and which; how many curves keep to their corridor.
[[nodiscard]] std::string standing_text(const Armoury& armoury, const AuditResult& audit,
                                        const Comparison::Corridors& corridors);
/// The same for programs: {"contexts", "calls": [{"id", "verdict"}], "in_corridor": {…}}.
[[nodiscard]] Json standing_json(const Armoury& armoury, const AuditResult& audit,
                                 const Comparison::Corridors& corridors);
/// "item.deep_clapper percent.attack: 12 → 8; and 2 more": what was saved.
[[nodiscard]] std::string saved_words(const Comparison& comparison);
/// Whether it is better now, what newly calls for a hand and what no longer does, what the changed
/// items are, and which loadouts moved most.
[[nodiscard]] std::string round_text(const Comparison& comparison);
/// What a glance can't be sure of: what the whole search has yet to tell; empty where there is
/// none.
[[nodiscard]] std::string unsure_text(const std::vector<VerdictShift>& shifts);
/// Doubts that `before` had none of, a line each; empty where there is none.
[[nodiscard]] std::string new_doubts_text(const ReadArmoury& before, const ReadArmoury& now);

} // namespace panoplon
