// Verdicts: the table, the JSON, the map.
#pragma once

#include "show/audit/audit_tables.h"

namespace panoplon {

/// What a terminal shows; files and JSON have all.
enum class Listed { what_calls, every_row };

[[nodiscard]] Document show_audit(const Armoury& armoury, const AuditOptions& options,
                                  const AuditResult& result, const AuditExtras& extras = {},
                                  Listed listed = Listed::what_calls);
/// Items by slot as rows, levels as columns, shortfall as shade, the best marked. Splits into
/// several figures where there are more rows than one can show.
[[nodiscard]] std::vector<Figure> audit_figures(const Armoury& armoury, const AuditOptions& options,
                                                const AuditResult& result);

/// Grip against shortfall: a dot for each judged item, the thresholds as lines, what is not fair
/// named.
[[nodiscard]] Figure grip_figure(const Armoury& armoury, const AuditResult& result);

} // namespace panoplon
