// Curves of power and margin: the table, the JSON, a figure for each encounter.
#pragma once

#include "judge/curve/curve.h"
#include "show/document.h"

namespace panoplon {

[[nodiscard]] Document show_curves(const Armoury& armoury, const CurveOptions& options,
                                   const CurveResult& result);
/// What a kind of findings is called over its list.
[[nodiscard]] std::string finding_heading(const std::string& kind);
/// One figure for each encounter that has points: median margins over level with bands p10–p90.
[[nodiscard]] std::vector<Figure> curve_figures(const Armoury& armoury, const CurveOptions& options,
                                                const CurveResult& result);

} // namespace panoplon
