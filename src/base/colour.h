// Colours as people see them: contrast, distance, and what the colour-blind see.
#pragma once

#include <compare>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// 0xRRGGBB.
using Colour = std::uint32_t;

/// A colour, and the ground that it stands on where it has one of its own.
struct Ink {
    Colour colour = 0;
    std::optional<Colour> ground;

    auto operator<=>(const Ink&) const = default;
};

/// Ratio of the relative luminances of two colours, from 1 to 21 (WCAG 2).
[[nodiscard]] double contrast(Colour a, Colour b);

enum class Sight { full, no_red, no_green, no_blue };
inline constexpr Sight all_sights[] = {Sight::full, Sight::no_red, Sight::no_green, Sight::no_blue};
[[nodiscard]] const char* sight_words(Sight sight);

/// How far apart two colours look to such eyes: distance in OKLab, 0 equal, 1 black and white.
[[nodiscard]] double distance(Colour a, Colour b, Sight sight);

inline constexpr Colour light_ground = 0xfbfaf6;
inline constexpr Colour dark_ground = 0x1b1a18;
/// Least contrast of a colour with a light and with a dark ground (WCAG 2, large text and figures):
/// no colour has 4.5 with both.
inline constexpr double least_contrast = 3;
/// Least contrast of a colour with a ground of its own (WCAG 2, text).
inline constexpr double least_contrast_of_text = 4.5;
/// Colours closer than this are taken for one another.
inline constexpr double least_distance = 0.055;

/// Whether a colour can be read on both grounds and told from all others with any sight.
[[nodiscard]] bool is_clear(Colour colour, const std::vector<Colour>& others);

/// The colour nearest to `wanted` that can be read on both grounds and told from all `others` with
/// any sight; none where there is none.
[[nodiscard]] std::optional<Colour> nearest_clear(Colour wanted, const std::vector<Colour>& others);

/// Of a colour and its ground the one that lines on a light ground are drawn in: the darker.
[[nodiscard]] Colour line_colour(const Ink& ink);
/// The ground nearest to `wanted` on which a colour can be read as text.
[[nodiscard]] Colour nearest_ground(Colour wanted, Colour colour);

[[nodiscard]] std::string colour_text(Colour colour); ///< "#rrggbb"

} // namespace panoplon
