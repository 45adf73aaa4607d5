// How verdicts are named, and which of them come first.
#pragma once

#include "judge/audit/verdict.h"

#include <string>

namespace panoplon {

/// What asks for the designer's hand first has the lower number; over `calls_for_nothing` are those
/// that ask for none.
[[nodiscard]] int urgency(const ItemVerdict& verdict);
inline constexpr int calls_for_nothing = 100;

/// The verdict's name, and "overstays" beside it where it does.
[[nodiscard]] std::string verdict_words(const ItemVerdict& verdict);

} // namespace panoplon
