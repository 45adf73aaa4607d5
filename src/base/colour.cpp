#include "base/colour.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

using Triple = std::array<double, 3>;
using Matrix = std::array<Triple, 3>;

Triple linear(Colour colour) {
    Triple rgb{};
    for (std::size_t i = 0; i < 3; ++i) {
        const double c = static_cast<double>((colour >> (16 - 8 * i)) & 0xff) / 255;
        rgb[i] = c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
    }
    return rgb;
}

Triple operator*(const Matrix& matrix, const Triple& v) {
    Triple result{};
    for (std::size_t i = 0; i < 3; ++i)
        result[i] = matrix[i][0] * v[0] + matrix[i][1] * v[1] + matrix[i][2] * v[2];
    return result;
}

double luminance(Colour colour) {
    const Triple rgb = linear(colour);
    return 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
}

/// Machado, Oliveira and Fernandes 2009, full severity, in linear RGB; by Sight.
constexpr Matrix simulation[] = {{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}},
                                 {{{0.152286, 1.052583, -0.204868},
                                   {0.114503, 0.786281, 0.099216},
                                   {-0.003882, -0.048116, 1.051998}}},
                                 {{{0.367322, 0.860646, -0.227968},
                                   {0.280085, 0.672501, 0.047413},
                                   {-0.011820, 0.042940, 0.968881}}},
                                 {{{1.255528, -0.076749, -0.178779},
                                   {-0.078411, 0.930809, 0.147602},
                                   {0.004733, 0.691367, 0.303900}}}};

constexpr Matrix to_cones = {{{0.4122214708, 0.5363325363, 0.0514459929},
                              {0.2119034982, 0.6806995451, 0.1073969566},
                              {0.0883024619, 0.2817188376, 0.6299787005}}};
constexpr Matrix to_lab = {{{0.2104542553, 0.7936177850, -0.0040720468},
                            {1.9779984951, -2.4285922050, 0.4505937099},
                            {0.0259040371, 0.7827717662, -0.8086757660}}};

Triple seen(Colour colour, Sight sight) {
    Triple rgb = simulation[static_cast<std::size_t>(sight)] * linear(colour);
    for (double& c : rgb) c = std::clamp(c, 0.0, 1.0);
    Triple cones = to_cones * rgb;
    for (double& c : cones) c = std::cbrt(c);
    return to_lab * cones;
}

bool readable(Colour colour) {
    return contrast(colour, light_ground) >= least_contrast &&
           contrast(colour, dark_ground) >= least_contrast;
}

/// The colour nearest to `wanted` of those that do.
template <class Does>
std::optional<Colour> nearest(Colour wanted, const Does& does) {
    std::optional<Colour> best;
    double least = 1e9;
    constexpr Colour grid = 8; // steps of a channel: fine enough to stay near what was wanted
    for (Colour r = 0; r < 256; r += grid)
        for (Colour g = 0; g < 256; g += grid)
            for (Colour b = 0; b < 256; b += grid) {
                const Colour colour = r << 16 | g << 8 | b;
                const double away = distance(colour, wanted, Sight::full);
                if (away >= least || !does(colour)) continue;
                best = colour;
                least = away;
            }
    return best;
}

} // namespace

double contrast(Colour a, Colour b) {
    const double x = luminance(a) + 0.05;
    const double y = luminance(b) + 0.05;
    return std::max(x, y) / std::min(x, y);
}

const char* sight_words(Sight sight) {
    switch (sight) {
    case Sight::full: return "full sight";
    case Sight::no_red: return "no red sight";
    case Sight::no_green: return "no green sight";
    case Sight::no_blue: return "no blue sight";
    }
    return "";
}

double distance(Colour a, Colour b, Sight sight) {
    const Triple x = seen(a, sight);
    const Triple y = seen(b, sight);
    return std::sqrt((x[0] - y[0]) * (x[0] - y[0]) + (x[1] - y[1]) * (x[1] - y[1]) +
                     (x[2] - y[2]) * (x[2] - y[2]));
}

bool is_clear(Colour colour, const std::vector<Colour>& others) {
    return readable(colour) && std::all_of(others.begin(), others.end(), [&](Colour other) {
               return std::all_of(std::begin(all_sights), std::end(all_sights), [&](Sight sight) {
                   return distance(colour, other, sight) >= least_distance;
               });
           });
}

std::optional<Colour> nearest_clear(Colour wanted, const std::vector<Colour>& others) {
    return nearest(wanted, [&](Colour colour) { return is_clear(colour, others); });
}

Colour nearest_ground(Colour wanted, Colour colour) {
    const auto carries = [&](Colour ground) {
        return contrast(colour, ground) >= least_contrast_of_text;
    };
    return nearest(wanted, carries).value_or(carries(0) ? 0 : 0xffffff);
}

Colour line_colour(const Ink& ink) {
    const Colour ground = ink.ground.value_or(ink.colour);
    return contrast(ink.colour, light_ground) < contrast(ground, light_ground) ? ground
                                                                               : ink.colour;
}

std::string colour_text(Colour colour) {
    return fmt::format("#{:06x}", colour);
}

} // namespace panoplon
