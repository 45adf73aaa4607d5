// What an item's rolls make of it: the verdicts of its ends (M44a).
#pragma once

#include "judge/audit/verdict.h"

namespace panoplon {

/// Of an item that contexts judge; none where it rolls nothing.
[[nodiscard]] std::optional<RolledVerdicts>
rolled_verdicts(const Judging& judging, const ItemVerdict& verdict,
                std::span<const ItemContextRow> rows, const std::vector<ContextRow>& contexts);

} // namespace panoplon
