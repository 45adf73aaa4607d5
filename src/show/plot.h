// Builds gnuplot scripts in the house style. Text from an armoury enters only as data (never as a
// quoted command), with every enhancement off; places are in pixels of a 1280 × 800 canvas with the
// origin at the lower left.
#pragma once

#include "show/document.h"

#include <cstdint>
#include <string>
#include <vector>

namespace panoplon {

inline constexpr double canvas_width = 1280;
inline constexpr double canvas_height = 800;

namespace ink {
inline constexpr std::uint32_t ground = 0xfbfaf6;
inline constexpr std::uint32_t dark = 0x2b2a28;
inline constexpr std::uint32_t quiet = 0x6b6862;
inline constexpr std::uint32_t rule = 0xe3dfd6;
inline constexpr std::uint32_t tint = 0xeef0e4; ///< the wanted corridor
} // namespace ink

/// A colour and a dash for the n-th line: told apart by the colour-blind, and in grey by the dash.
struct LineLook {
    std::uint32_t colour;
    int dash; ///< gnuplot dashtype
};
[[nodiscard]] LineLook line_look(std::size_t n);
/// The colour mixed with the ground: 0 is the ground, 1 the colour.
[[nodiscard]] std::uint32_t mixed(std::uint32_t colour, double share);
/// Dark or light ink, whichever reads better on the colour.
[[nodiscard]] std::uint32_t ink_on(std::uint32_t colour);
[[nodiscard]] std::string hex(std::uint32_t colour); ///< "#rrggbb"

/// Where an axis runs and how its values lie on it.
struct Axis {
    double from = 0; ///< pixel
    double to = 1;
    double low = 0; ///< value at `from`
    double high = 1;
    bool log = false;

    [[nodiscard]] double pixel(double value) const;
};

/// Round values within an axis, about `wanted` of them.
[[nodiscard]] std::vector<double> round_ticks(const Axis& axis, int wanted);

/// What a figure's panels lie within, in pixels. Where there are several, one above the other, each
/// has its own top and bottom.
struct Frame {
    double left = 0, right = 0, top = 0, bottom = 0;
};

/// About how many pixels a text takes.
[[nodiscard]] double text_width(const std::string& words, double size);
/// A text that takes no more than so many pixels: one that is too long loses its middle.
[[nodiscard]] std::string shortened(const std::string& words, double pixels, double size);
/// The same of names that stand together. Those that would be alike without their middles lose
/// their ends in place of them, or what they begin with in common as well, or their beginnings:
/// whichever tells most of them apart.
[[nodiscard]] std::vector<std::string> shortened_apart(const std::vector<std::string>& names,
                                                       double pixels, double size);

class Plot {
  public:
    enum class Anchor { left, centre, right };
    using Points = std::vector<std::pair<double, double>>;

    Plot(const std::string& title, const std::string& subtitle);

    void text(double x, double y, const std::string& words, Anchor anchor, double size,
              std::uint32_t colour, bool bold = false);
    static constexpr double rise = 0.698; ///< radians: 40°
    /// A text that rises so to its end, which is at the place: for names below narrow columns.
    void rising_text(double x, double y, const std::string& words, double size,
                     std::uint32_t colour);
    void line(const Points& points, std::uint32_t colour, double width, int dash = 1);
    void area(const Points& outline, std::uint32_t colour);
    void box(double x0, double y0, double x1, double y1, std::uint32_t colour);
    void dot(double x, double y, double size, std::uint32_t colour);
    void cross(double x, double y, double size, std::uint32_t colour);

    /// Horizontal rules with values on the left, and values below; `label` names each axis.
    void y_axis(const Axis& x, const Axis& y, const std::string& label, int wanted = 6);
    void x_axis(const Axis& x, const Axis& y, const std::string& label, int wanted = 8);

    /// Labels at the ends of lines, moved apart so that none overlaps, and shortened to the edge of
    /// the canvas. With a dash a piece of the line stands before the words.
    struct EndLabel {
        double y;
        std::string words;
        std::uint32_t colour;
        int dash = 0; ///< 0: none
    };
    void end_labels(double x, std::vector<EndLabel> labels, double low, double high,
                    double size = 11);

    /// What a page says when one points at what is drawn from here on; empty: nothing.
    void about(std::string words) { about_ = std::move(words); }

    /// The figure: its script writes NAME.png and NAME.svg into the folder where it runs.
    [[nodiscard]] Figure figure(const std::string& name, Table data) const;

  private:
    struct Layer {
        std::string data;    ///< lines of a data block
        std::string drawing; ///< plot clause, with `$` for the block
        std::string about;
    };
    void add(std::string data, std::string drawing);
    [[nodiscard]] std::string script(const std::string& name) const;

    std::string title_;
    std::string about_;
    std::vector<Layer> layers_;
};

/// Text that is safe as one cell of a data block and that the font has: no tabs or control
/// characters, backslashes doubled, and a box for a letter that the font lacks.
[[nodiscard]] std::string plot_text(const std::string& text);

} // namespace panoplon
