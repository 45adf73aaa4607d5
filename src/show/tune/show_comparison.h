// Before and after a change: the tables, the JSON, the dumbbells.
#pragma once

#include "judge/tune/comparison.h"
#include "show/document.h"

namespace panoplon {

/// `before` and `after` name the two for people.
[[nodiscard]] Document show_comparison(const Reading& before, const Reading& after,
                                       const std::string& before_name,
                                       const std::string& after_name, const Comparison& comparison);

/// What a comparison adds to the document of a command.
void add_comparison_json(Json& json, const Comparison& comparison);
/// Stats of loadouts that moved.
[[nodiscard]] Table sheets_table(const Comparison& comparison);
[[nodiscard]] std::vector<Table> comparison_tables(const Comparison& comparison);

/// Margins before and after, the furthest moved first; none where nothing moved.
[[nodiscard]] std::optional<Figure>
comparison_figure(const Armoury& armoury, const std::string& what, const Comparison& comparison);

/// Verdicts that moved from fair to fair, in one sentence: they lie close to one another.
[[nodiscard]] std::string fair_moves_text(const std::vector<VerdictShift>& shifts);

} // namespace panoplon
