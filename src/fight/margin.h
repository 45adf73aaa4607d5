// Margins: the strength at which a fight is an even match (M69, M70).
#pragma once

#include "fight/engine.h"

#include <optional>

namespace panoplon {

/// Strengths that are looked at.
inline constexpr double weakest = 1.0 / 64;
inline constexpr double strongest = 64;

enum class Reach {
    within, ///< value is the margin
    below,  ///< lost even at the weakest strength; value is `weakest`
    above,  ///< won even at the strongest; value is `strongest`
};

struct Margin {
    double value = 1;
    Reach reach = Reach::within;
    std::optional<FightError> error;
};

/// The margin of the prepared fight by even luck, to 0.01 %. `guess` > 0 only saves time.
[[nodiscard]] Margin even_margin(Engine& engine, double guess = 1);

/// The margin of one trial, to 0.5 %: bisection on log strength (M70).
[[nodiscard]] Margin trial_margin(Engine& engine, const Luck& luck, double guess = 1);

} // namespace panoplon
