// Whole-number units, so that ties are ties and an edge is an edge.
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>

namespace panoplon {

/// A moment or a span of time, in whole millionths of the armoury's unit (M60a). Kept in a double:
/// whole up to 2^53, and able to hold the fractional moment at which a health ends by even luck.
using Ticks = double;

inline constexpr double ticks_per_unit = 1e6;
inline constexpr Ticks never = std::numeric_limits<double>::infinity();

/// From the armoury's unit to the nearest whole millionth.
[[nodiscard]] inline Ticks to_ticks(double units) {
    return std::nearbyint(units * ticks_per_unit);
}
[[nodiscard]] inline double to_units(Ticks ticks) {
    return ticks / ticks_per_unit;
}

/// A weight in whole thousandths (M50).
using Thousandths = std::int64_t;

[[nodiscard]] inline Thousandths to_thousandths(double weight) {
    return std::llround(weight * 1000);
}
[[nodiscard]] inline double to_weight(Thousandths weight) {
    return static_cast<double>(weight) / 1000;
}

/// Counts and weights in whole thousandths stop at this: sums and products of what lies below it
/// never overflow. `check` refuses an armoury whose things come to as much.
inline constexpr std::int64_t most_counted = 1'000'000'000'000'000;

[[nodiscard]] inline std::int64_t bounded_sum(std::int64_t a, std::int64_t b) {
    return std::min(a + b, most_counted);
}
/// Neither is below 0.
[[nodiscard]] inline std::int64_t bounded_product(std::int64_t a, std::int64_t b) {
    std::int64_t product = 0;
    return __builtin_mul_overflow(a, b, &product) ? most_counted : std::min(product, most_counted);
}

/// "No limit" for a stack.
inline constexpr std::int64_t unlimited = std::numeric_limits<std::int64_t>::max();

} // namespace panoplon
