// Measures in words and in JSON: estimates, shares, margins, units of time.
#pragma once

#include "chance/estimate.h"
#include "fight/margin.h"
#include "show/document.h"

namespace panoplon {

[[nodiscard]] Json estimate_json(const Estimate& estimate);
/// "18.6 (18.5–18.7)".
[[nodiscard]] std::string estimate_words(const Estimate& estimate, int places = 1);
/// "97.4 % (96.2–98.2 %)".
[[nodiscard]] std::string share_words(const Estimate& estimate);
/// "1.118", or what it means to be out of bounds (M70).
[[nodiscard]] std::string margin_words(const Margin& margin);
/// "s" or "rounds".
[[nodiscard]] const char* unit_of(const Armoury& armoury);

} // namespace panoplon
