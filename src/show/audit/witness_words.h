// The contexts that show a verdict, in words and as JSON.
#pragma once

#include "judge/audit/audit.h"
#include "show/table.h"

#include <string>

namespace panoplon {

/// Where an item is at its best and at its worst, with what the best wears there.
[[nodiscard]] Json witness_json(const Armoury& armoury, const AuditResult& result,
                                const ItemVerdict& verdict);
/// "worst: ringer, level 19, ford: 0.88 of its place lost to tin_bell": the context that shows the
/// verdict; empty where there is none. Says whether trials bear it out.
[[nodiscard]] std::string witness_text(const Armoury& armoury, const AuditResult& result,
                                       const ItemVerdict& verdict);

} // namespace panoplon
