// Colours as people see them: contrast, distance, and what the colour-blind see.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// 0xRRGGBB.
using Colour = std::uint32_t;

/// Ratio of the relative luminances of two colours, from 1 to 21 (WCAG 2).
[[nodiscard]] double contrast(Colour a, Colour b);

enum class Sight { full, no_red, no_green, no_blue };
inline constexpr Sight sights[] = {Sight::full, Sight::no_red, Sight::no_green, Sight::no_blue};
[[nodiscard]] const char* sight_words(Sight sight);

/// How far apart two colours look to such eyes: distance in OKLab, 0 equal, 1 black and white.
[[nodiscard]] double distance(Colour a, Colour b, Sight sight);

inline constexpr Colour light_ground = 0xfbfaf6;
inline constexpr Colour dark_ground = 0x1b1a18;
/// Least contrast of a colour with a ground that it is written on (WCAG 2, large text).
inline constexpr double least_contrast = 3;
/// Colours closer than this are taken for one another.
inline constexpr double least_distance = 0.055;

/// Whether a colour can be read on both grounds and told from all others with any sight.
[[nodiscard]] bool is_clear(Colour colour, const std::vector<Colour>& others);

/// The colour nearest to `wanted` that can be read on both grounds and told from all `others` with
/// any sight; none where there is none.
[[nodiscard]] std::optional<Colour> nearest_clear(Colour wanted, const std::vector<Colour>& others);

[[nodiscard]] std::string colour_text(Colour colour); ///< "#rrggbb"

} // namespace panoplon
