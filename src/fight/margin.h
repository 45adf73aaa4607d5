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
///
/// By even luck a fight may be won, lost and won again as foes grow stronger: where whole uses hang
/// on moments. So strengths are looked at on a grid, 1 % apart, and the margin is the lowest place
/// where the outcome turns from won to lost: in the 10 % below it the fight is won at every
/// strength of the grid (M69a). It is found within its cell of the grid from the cell's two ends,
/// so that it is the same number from every guess.
[[nodiscard]] Margin even_margin(Engine& engine, double guess = 1);

/// A strength near the guess at which the outcome by even luck turns, to 0.01 %: the margin, unless
/// the outcome turns several times. For a search, which looks at many; what it tells is the margin.
[[nodiscard]] Margin turn_near(Engine& engine, double guess);

/// The margin of one trial, to 0.5 %: bisection on log strength (M70).
[[nodiscard]] Margin trial_margin(Engine& engine, const Luck& luck, double guess = 1);

} // namespace panoplon
