// Words that several outputs share.
#pragma once

#include "judge/verdict.h"
#include "model/armoury.h"

#include <string>
#include <vector>

namespace panoplon {

[[nodiscard]] std::vector<std::string> ids_of(const Armoury& armoury,
                                              const std::vector<ItemId>& items);

/// "+14", "-2 %", "× 0.95": how much a modifier of a kind (add, percent, times) changes.
[[nodiscard]] std::string change_words(Change change, double amount);

/// "+5.6 %", "-2 %": what a factor changes.
[[nodiscard]] std::string gain_words(double factor);

/// What asks for the designer's hand first has the lower number; over `calls_for_nothing` are those
/// that ask for none.
[[nodiscard]] int urgency(const ItemVerdict& verdict);
inline constexpr int calls_for_nothing = 100;

/// The verdict's name, and "overstays" beside it where it does.
[[nodiscard]] std::string verdict_words(const ItemVerdict& verdict);

} // namespace panoplon
