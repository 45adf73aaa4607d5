// Counter-based draws: a function of where a draw is taken, never of what was drawn before (M67).
#pragma once

#include <cstdint>

namespace panoplon {

/// A fight's luck: the same pair gives the same draws, on any thread, in any order.
struct Luck {
    std::uint64_t seed = 1;
    std::uint64_t trial = 0;
};

/// The draws of one blow, each uniform in [0, 1).
struct BlowDraws {
    double hit, crit, spread, apply;
};

/// The draws of the `ordinal`-th blow of an actor: the same whatever it wears.
[[nodiscard]] BlowDraws blow_draws(const Luck& luck, std::uint64_t actor, std::uint64_t ordinal);

/// The draw of a trigger's `ordinal`-th occasion, uniform in [0, 1). `key` tells triggers apart by
/// what they do, so that it is the same whatever else an actor wears.
[[nodiscard]] double trigger_draw(const Luck& luck, std::uint64_t actor, std::uint64_t key,
                                  std::uint64_t ordinal);

/// u < p, with p clamped to [0, 1]: 0 never happens and 1 always does (M63).
[[nodiscard]] inline bool happens(double chance, double draw) {
    return draw < chance;
}

} // namespace panoplon
