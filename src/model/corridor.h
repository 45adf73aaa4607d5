// The corridor of margins that a designer wants of an encounter.
#pragma once

#include "model/armoury.h"

#include <optional>

namespace panoplon {

/// Margins, low ≤ high.
struct Corridor {
    double low = 0;
    double high = 0;

    [[nodiscard]] bool below(double margin) const { return margin < low; }
    [[nodiscard]] bool above(double margin) const { return margin > high; }
};

/// What is wanted of an encounter at a level of the character: for the yardstick `wanted_low` and
/// `wanted_high`, where it has them; else the encounter's wanted_margin. None where neither is
/// there. Compiles formulas: not for loops of fights.
[[nodiscard]] std::optional<Corridor> wanted_corridor(const Armoury& armoury, EncounterId encounter,
                                                      int level);

} // namespace panoplon
