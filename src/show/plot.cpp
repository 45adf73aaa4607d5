#include "show/plot.h"

#include "base/text.h"
#include "diagnostic/source.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <functional>
#include <map>
#include <set>

namespace panoplon {

namespace {

constexpr LineLook looks[] = {{0x1f5a8c, 1}, {0xb3541e, 1}, {0x2b7a4b, 1}, {0x7b3f8f, 1},
                              {0x8a6d14, 1}, {0xa12c55, 1}, {0x1f5a8c, 2}, {0xb3541e, 2},
                              {0x2b7a4b, 2}, {0x7b3f8f, 2}, {0x8a6d14, 2}, {0xa12c55, 2}};

double channel(std::uint32_t colour, int shift) {
    return static_cast<double>((colour >> shift) & 0xff);
}

double luminance(std::uint32_t colour) {
    const auto linear = [](double c) {
        c /= 255;
        return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
    };
    return 0.2126 * linear(channel(colour, 16)) + 0.7152 * linear(channel(colour, 8)) +
           0.0722 * linear(channel(colour, 0));
}

struct LetterRange {
    std::uint32_t first, last;
};

/// What the figures' font has, as far as names need it.
constexpr LetterRange letters[] = {
    {0x20, 0x7e},     {0xa0, 0x148},    {0x14a, 0x1c3},   {0x1c5, 0x2ff},   {0x384, 0x38a},
    {0x38e, 0x3a1},   {0x3a3, 0x3e1},   {0x3f0, 0x49d},   {0x4a0, 0x4ff},   {0x2010, 0x2027},
    {0x202f, 0x205f}, {0x20a0, 0x20bf}, {0x2190, 0x2199}, {0x2212, 0x2212}, {0x2248, 0x2248},
    {0x2260, 0x2260}, {0x2264, 0x2265}, {0x25a0, 0x25a2}, {0x25cf, 0x25cf}};

bool font_has(std::uint32_t letter) {
    return std::any_of(std::begin(letters), std::end(letters), [&](const LetterRange& range) {
        return letter >= range.first && letter <= range.last;
    });
}

/// The code point that begins at `at` of well-formed UTF-8, and its length in bytes.
std::pair<std::uint32_t, std::size_t> letter_at(const std::string& text, std::size_t at) {
    const auto byte = [&](std::size_t i) {
        return static_cast<std::uint32_t>(static_cast<unsigned char>(text[i]));
    };
    const std::uint32_t lead = byte(at);
    const std::size_t length = lead < 0x80 ? 1 : lead < 0xe0 ? 2 : lead < 0xf0 ? 3 : 4;
    if (length == 1) return {lead, 1};
    std::uint32_t letter = lead & (0xffu >> (length + 1));
    for (std::size_t i = 1; i < length && at + i < text.size(); ++i)
        letter = (letter << 6) | (byte(at + i) & 0x3f);
    return {letter, length};
}

const char* anchor_word(Plot::Anchor anchor) {
    return anchor == Plot::Anchor::left    ? "left"
           : anchor == Plot::Anchor::right ? "right"
                                           : "center";
}

std::string number(double value) {
    return fmt::format("{:.2f}", value);
}

std::string lines_of(const Plot::Points& points) {
    std::string data;
    for (const auto& [x, y] : points) data += number(x) + "\t" + number(y) + "\n";
    return data;
}

} // namespace

LineLook line_look(std::size_t n) {
    return looks[n % std::size(looks)];
}

std::uint32_t mixed(std::uint32_t colour, double share) {
    std::uint32_t result = 0;
    for (const int shift : {16, 8, 0}) {
        const double value = channel(ink::ground, shift) +
                             (channel(colour, shift) - channel(ink::ground, shift)) * share;
        result |= static_cast<std::uint32_t>(std::lround(value)) << shift;
    }
    return result;
}

std::uint32_t ink_on(std::uint32_t colour) {
    return luminance(colour) > 0.3 ? ink::dark : 0xffffff;
}

std::string hex(std::uint32_t colour) {
    return fmt::format("#{:06x}", colour);
}

std::string plot_text(const std::string& text) {
    const std::string clean = printable(text);
    std::string result;
    for (std::size_t at = 0; at < clean.size();) {
        const auto [letter, length] = letter_at(clean, at);
        if (letter == '\\')
            result += "\\\\";
        else if (font_has(letter))
            result += clean.substr(at, length);
        else
            result += "□";
        at += length;
    }
    return result;
}

double text_width(const std::string& words, double size) {
    constexpr double letter = 0.69; // of the font's size, on average
    return letter * size * static_cast<double>(characters(words));
}

namespace {

/// A text of so many letters with an ellipsis for what is left out behind its first `head`.
std::string cut(const std::string& words, std::int32_t head, std::int32_t most) {
    const auto all = static_cast<std::int32_t>(characters(words));
    const std::int32_t tail = std::max(0, most - 1 - head);
    return std::string(trim(words.substr(0, byte_of(words, head + 1)))) + "…" +
           std::string(trim(words.substr(byte_of(words, all - tail + 1))));
}

/// How many letters all of them begin with, up to the last word that they share.
std::int32_t shared_beginning(const std::set<std::string>& names) {
    const std::string& first = *names.begin();
    const std::string& last = *names.rbegin();
    const auto differs = std::mismatch(first.begin(), first.end(), last.begin(), last.end()).first;
    const std::string same(first.begin(), differs);
    const std::size_t space = same.rfind(' ');
    return space == std::string::npos
               ? 0
               : static_cast<std::int32_t>(characters(same.substr(0, space + 1)));
}

/// Names that are alike without their middles, each shortened to so many letters, and as far as may
/// be to none that others have.
std::map<std::string, std::string> told_apart(const std::set<std::string>& names, std::int32_t most,
                                              const std::set<std::string>& others) {
    const std::int32_t shared = shared_beginning(names);
    const auto without_ends = [&](const std::string& name) {
        const std::string rest = name.substr(byte_of(name, shared + 1));
        const bool fits = static_cast<std::int32_t>(characters(rest)) < most;
        return "…" + (fits ? rest : cut(rest, most - 2, most - 1));
    };
    const std::function<std::string(const std::string&)> ways[] = {
        [&](const std::string& name) { return cut(name, (most - 1) * 3 / 5, most); },
        [&](const std::string& name) { return cut(name, most - 1, most); },
        without_ends,
        [&](const std::string& name) { return cut(name, 0, most); },
    };
    std::map<std::string, std::string> best;
    std::size_t most_apart = 0;
    for (const auto& way : ways) {
        std::map<std::string, std::string> found;
        std::set<std::string> apart;
        for (const std::string& name : names)
            if (!others.contains(found[name] = way(name))) apart.insert(found[name]);
        if (!best.empty() && apart.size() <= most_apart) continue;
        most_apart = apart.size();
        best = std::move(found);
    }
    return best;
}

std::int32_t letters_in(double pixels, double size) {
    return std::max(2, static_cast<std::int32_t>(pixels / text_width("n", size)));
}

} // namespace

std::string shortened(const std::string& words, double pixels, double size) {
    const std::int32_t most = letters_in(pixels, size);
    return text_width(words, size) <= pixels ? words : cut(words, (most - 1) * 3 / 5, most);
}

std::vector<std::string> shortened_apart(const std::vector<std::string>& names, double pixels,
                                         double size) {
    const std::int32_t most = letters_in(pixels, size);
    std::map<std::string, std::set<std::string>> alike; ///< names by how they are shortened
    for (const std::string& name : names) alike[shortened(name, pixels, size)].insert(name);
    std::map<std::string, std::string> labels; ///< by name
    std::set<std::string> taken;
    for (const auto& [label, group] : alike)
        if (group.size() == 1) taken.insert(labels[*group.begin()] = label);
    for (const auto& [label, group] : alike)
        if (group.size() > 1)
            for (const auto& [name, own] : told_apart(group, most, taken))
                taken.insert(labels[name] = own);
    std::vector<std::string> list;
    for (const std::string& name : names) list.push_back(labels.at(name));
    return list;
}

double Axis::pixel(double value) const {
    const double share =
        log ? std::log(value / low) / std::log(high / low) : (value - low) / (high - low);
    return from + share * (to - from);
}

std::vector<double> round_ticks(const Axis& axis, int wanted) {
    std::vector<double> ticks;
    if (axis.log) {
        const bool wide = axis.high / axis.low > 30;
        for (double decade = std::pow(10, std::floor(std::log10(axis.low))); decade <= axis.high;
             decade *= 10)
            for (const double step : {1.0, 1.5, 2.0, 3.0, 5.0, 7.0}) {
                if (wide && (step == 1.5 || step == 3.0 || step == 7.0)) continue;
                if (decade * step >= axis.low * 0.999 && decade * step <= axis.high * 1.001)
                    ticks.push_back(decade * step);
            }
        return ticks;
    }
    const double rough = (axis.high - axis.low) / wanted;
    const double decade = std::pow(10, std::floor(std::log10(rough)));
    double step = decade * 10;
    for (const double nice : {5.0, 2.0, 1.0})
        if (decade * nice >= rough) step = decade * nice;
    for (double at = std::ceil(axis.low / step) * step; at <= axis.high + step * 1e-9; at += step)
        ticks.push_back(std::abs(at) < step * 1e-9 ? 0 : at);
    return ticks;
}

Plot::Plot(const std::string& title, const std::string& subtitle) : title_(title) {
    text(40, 764, title, Anchor::left, 17, ink::dark, true);
    text(40, 738, subtitle, Anchor::left, 11, ink::quiet);
}

void Plot::add(std::string data, std::string drawing) {
    // What is drawn the same way one after the other shares a block; a blank line parts lines.
    if (!layers_.empty() && layers_.back().drawing == drawing && layers_.back().about == about_) {
        layers_.back().data += "\n" + data;
        return;
    }
    layers_.push_back({std::move(data), std::move(drawing), about_});
}

void Plot::text(double x, double y, const std::string& words, Anchor anchor, double size,
                std::uint32_t colour, bool bold) {
    if (words.empty()) return;
    add(fmt::format("{}\t{}\t{}\n", number(x), number(y), plot_text(words)),
        fmt::format(
            "$ using 1:2:3 with labels {} font \"Inter{},{}\" textcolor rgb \"{}\" noenhanced",
            anchor_word(anchor), bold ? ":Bold" : "", size, hex(colour)));
}

void Plot::rising_text(double x, double y, const std::string& words, double size,
                       std::uint32_t colour) {
    if (words.empty()) return;
    add(fmt::format("{}\t{}\t{}\n", number(x), number(y), plot_text(words)),
        fmt::format("$ using 1:2:3 with labels right rotate by 40 font \"Inter,{}\" textcolor rgb "
                    "\"{}\" noenhanced",
                    size, hex(colour)));
}

void Plot::line(const Points& points, std::uint32_t colour, double width, int dash) {
    if (points.size() < 2) return;
    add(lines_of(points),
        fmt::format("$ using 1:2 with lines lc rgb \"{}\" lw {} dt {}", hex(colour), width, dash));
}

void Plot::area(const Points& outline, std::uint32_t colour) {
    if (outline.size() < 3) return;
    add(lines_of(outline),
        fmt::format("$ using 1:2 with filledcurves closed fc rgb \"{}\" fs solid 1 noborder",
                    hex(colour)));
}

void Plot::box(double x0, double y0, double x1, double y1, std::uint32_t colour) {
    area({{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}, colour);
}

void Plot::dot(double x, double y, double size, std::uint32_t colour) {
    add(fmt::format("{}\t{}\n", number(x), number(y)),
        fmt::format("$ using 1:2 with points pt 7 ps {} lc rgb \"{}\"", size, hex(colour)));
}

void Plot::cross(double x, double y, double size, std::uint32_t colour) {
    line({{x - size, y - size}, {x + size, y + size}}, colour, 2);
    line({{x - size, y + size}, {x + size, y - size}}, colour, 2);
}

void Plot::y_axis(const Axis& x, const Axis& y, const std::string& label, int wanted) {
    for (const double value : round_ticks(y, wanted)) {
        line({{x.from, y.pixel(value)}, {x.to, y.pixel(value)}}, ink::rule, 1);
        text(x.from - 10, y.pixel(value), rounded(value, 3), Anchor::right, 10, ink::quiet);
    }
    text(x.from, y.to + 16, label, Anchor::left, 10, ink::quiet);
}

void Plot::x_axis(const Axis& x, const Axis& y, const std::string& label, int wanted) {
    for (const double value : round_ticks(x, wanted))
        text(x.pixel(value), y.from - 16, rounded(value, 3), Anchor::centre, 10, ink::quiet);
    text(x.to, y.from - 38, label, Anchor::right, 10, ink::quiet);
}

void Plot::end_labels(double x, std::vector<EndLabel> labels, double low, double high,
                      double size) {
    std::stable_sort(labels.begin(), labels.end(),
                     [](const EndLabel& a, const EndLabel& b) { return a.y < b.y; });
    const double room = (high - low) / std::max(static_cast<double>(labels.size()) - 1, 1.0);
    const double apart = std::min(size * 1.75, room);
    for (std::size_t i = 1; i < labels.size(); ++i)
        labels[i].y = std::max(labels[i].y, labels[i - 1].y + apart);
    // Pushed past the top? Push back down from there.
    double ceiling = high;
    for (std::size_t i = labels.size(); i-- > 0;) {
        labels[i].y = std::max(low, std::min(labels[i].y, ceiling));
        ceiling = labels[i].y - apart;
    }
    constexpr double sample = 30; // pixels
    constexpr double bold = 1.1;  // wider by so much
    std::vector<std::string> names;
    const bool any_dash = std::any_of(labels.begin(), labels.end(),
                                      [](const EndLabel& label) { return label.dash > 0; });
    const double from = any_dash ? x + sample + 6 : x;
    for (const EndLabel& label : labels) names.push_back(label.words);
    names = shortened_apart(names, canvas_width - 8 - from, size * bold);
    for (std::size_t i = 0; i < labels.size(); ++i) {
        if (labels[i].dash > 0)
            line({{x, labels[i].y}, {x + sample, labels[i].y}}, labels[i].colour, 2.5,
                 labels[i].dash);
        text(from, labels[i].y, names[i], Anchor::left, size, labels[i].colour, true);
    }
}

Figure Plot::figure(const std::string& name, Table data) const {
    Figure figure{name, title_, script(name), std::move(data), {}};
    for (const Layer& layer : layers_) figure.hovers.push_back(layer.about);
    return figure;
}

std::string Plot::script(const std::string& name) const {
    std::string script =
        "# Draws " + name + ".png and " + name + ".svg. Run: gnuplot -d " + name +
        ".gp\n"
        "set encoding utf8\nset datafile separator \"\\t\"\nset datafile commentschars \"\"\n";
    for (std::size_t i = 0; i < layers_.size(); ++i)
        script += fmt::format("$layer{} << END_OF_LAYER\n{}END_OF_LAYER\n", i, layers_[i].data);
    script +=
        fmt::format("do for [kind in \"png svg\"] {{\n"
                    "  if (kind eq \"png\") {{ set terminal pngcairo size {0:.0f},{1:.0f} "
                    "noenhanced font \"Inter,11\" background rgb \"{2}\" }}\n"
                    // A size is points to the one and pixels to the other: 96 of these are 72.
                    "  if (kind eq \"svg\") {{ set terminal svg size {0:.0f},{1:.0f} noenhanced "
                    "font \"Inter,Helvetica,Arial,sans-serif,11\" fontscale 1.333 background rgb "
                    "\"{2}\" }}\n"
                    "  set output \"{3}.\".kind\n"
                    "  unset border; unset tics; unset key\n"
                    "  set lmargin at screen 0; set rmargin at screen 1; set bmargin at screen 0; "
                    "set tmargin at screen 1\n"
                    "  set xrange [0:{0:.0f}]; set yrange [0:{1:.0f}]\n"
                    "  plot \\\n",
                    canvas_width, canvas_height, hex(ink::ground), name);
    for (std::size_t i = 0; i < layers_.size(); ++i) {
        const std::string& drawing = layers_[i].drawing;
        script += fmt::format("    $layer{}{}{}\n", i, drawing.substr(1),
                              i + 1 < layers_.size() ? ", \\" : "");
    }
    script += "  unset output\n}\n";
    return script;
}

} // namespace panoplon
