#include "show/loadout/show_weighing.h"
#include "show/plot.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr Frame weighing_frame{.left = 90, .right = 1030};
constexpr std::size_t most_lines = 8;

struct Range {
    double low, high;
    void include(double value) {
        low = std::min(low, value);
        high = std::max(high, value);
    }
    /// An axis a little wider than the values.
    [[nodiscard]] Axis axis(double from, double to) const {
        const double room = std::max((high - low) * 0.1, high * 0.01);
        return {from, to, low - room, high + room, false};
    }
};

/// A band as it stands in the figure.
struct Strip {
    const Band* band;
    double from, to;
    std::uint32_t colour;
};

/// How far a consumable moves the margin.
double span_of(const ConsumableCurve& curve) {
    Range range{curve.points.front().margin, curve.points.front().margin};
    for (const UnitPoint& point : curve.points) range.include(point.margin);
    return range.high - range.low;
}

std::vector<Strip> strips_of(const Armoury& armoury, const std::vector<CapacityPoint>& points,
                             const Axis& x) {
    std::vector<Strip> strips;
    for (std::size_t i = 0; i < points.size();) {
        std::size_t last = i;
        while (last + 1 < points.size() && points[last + 1].load.band == points[i].load.band)
            ++last;
        const double from = x.pixel(points[i].capacity);
        const double to = last + 1 < points.size() ? x.pixel(points[last + 1].capacity) : x.to;
        const int band = points[i].load.band;
        if (const Band* one = armoury.carry.band(band))
            strips.push_back({one, from, to, mixed(ink::quiet, 0.08 + 0.08 * band)});
        i = last + 1;
    }
    return strips;
}

/// Over whatever lines are there.
void draw_name(Plot& plot, const Strip& strip, double y) {
    constexpr double letter = 8;
    const double centre = (strip.from + strip.to) / 2;
    const double half = letter * static_cast<double>(characters(strip.band->name)) / 2;
    if (2 * half > strip.to - strip.from) return;
    plot.box(centre - half, y - 8, centre + half, y + 8, strip.colour);
    plot.text(centre, y, strip.band->name, Plot::Anchor::centre, 10, ink::quiet);
}

void draw_capacities(Plot& plot, const Armoury& armoury, const Weighing& weighing, const Axis& y) {
    const auto& points = weighing.capacities;
    const Axis x{weighing_frame.left, weighing_frame.right, points.front().capacity,
                 points.back().capacity, false};
    const std::vector<Strip> strips = strips_of(armoury, points, x);
    for (const Strip& strip : strips) plot.box(strip.from, y.from, strip.to, y.to, strip.colour);
    plot.y_axis(x, y, "margin, with another capacity", 4);
    plot.x_axis(x, y, "capacity");
    for (const Strip& strip : strips) draw_name(plot, strip, y.to - 12);
    Plot::Points line;
    for (const CapacityPoint& point : points) {
        const double px = x.pixel(point.capacity);
        if (!line.empty()) line.emplace_back(px, line.back().second);
        line.emplace_back(px, y.pixel(point.margin));
    }
    plot.line(line, line_look(0).colour, 2.5);
    const double capacity = weighing.load.capacity;
    if (capacity < x.low || capacity > x.high) return;
    plot.dot(x.pixel(capacity), y.pixel(weighing.margin.value), 1.2, ink::dark);
    plot.text(x.pixel(capacity), y.pixel(weighing.margin.value) - 16, "now", Plot::Anchor::centre,
              10, ink::dark);
}

void draw_units(Plot& plot, const Armoury& armoury, const Weighing& weighing, const Axis& y,
                const std::vector<const ConsumableCurve*>& curves) {
    std::size_t most = 2;
    for (const ConsumableCurve* curve : curves) most = std::max(most, curve->points.size());
    const Axis x{weighing_frame.left, weighing_frame.right, 0, static_cast<double>(most - 1),
                 false};
    plot.y_axis(x, y, "margin, with another number of one consumable (dot: now)", 4);
    plot.x_axis(x, y, "units packed");
    std::vector<Plot::EndLabel> labels;
    for (std::size_t i = 0; i < curves.size(); ++i) {
        const LineLook look = line_look(i);
        Plot::Points line;
        for (const UnitPoint& point : curves[i]->points)
            line.emplace_back(x.pixel(static_cast<double>(point.count)), y.pixel(point.margin));
        plot.line(line, look.colour, 2.5, look.dash);
        plot.dot(x.pixel(static_cast<double>(curves[i]->now)), y.pixel(weighing.margin.value), 1,
                 look.colour);
        if (line.back().first < x.to - 1)
            plot.line({line.back(), {x.to, line.back().second}}, mixed(look.colour, 0.35), 1, 3);
        labels.push_back(
            {line.back().second, armoury.at(curves[i]->item).name, look.colour, look.dash});
    }
    plot.end_labels(x.to + 12, labels, y.from, y.to);
}

} // namespace

std::optional<Figure> weighing_figure(const Armoury& armoury, LoadoutId loadout,
                                      EncounterId encounter, const Weighing& weighing) {
    std::vector<const ConsumableCurve*> curves;
    for (const ConsumableCurve& curve : weighing.consumables)
        if (curve.points.size() > 1) curves.push_back(&curve);
    std::stable_sort(curves.begin(), curves.end(),
                     [](const ConsumableCurve* a, const ConsumableCurve* b) {
                         return span_of(*a) > span_of(*b);
                     });
    const std::size_t others = curves.size() - std::min(curves.size(), most_lines);
    curves.resize(curves.size() - others);
    if (weighing.capacities.empty() && curves.empty()) return std::nullopt;
    Plot plot(fmt::format("{}: the price of weight", armoury.at(loadout).name),
              fmt::format("{} · level {} · against {} · by even luck", armoury.name,
                          weighing.outfit.level, armoury.at(encounter).name));
    Table data{"weigh", {as::text("by"), as::number("at", 4), as::number("margin", 5)}};
    Range capacities{weighing.margin.value, weighing.margin.value};
    for (const CapacityPoint& point : weighing.capacities) {
        capacities.include(point.margin);
        data.row({"capacity", point.capacity, point.margin});
    }
    Range units{weighing.margin.value, weighing.margin.value};
    for (const ConsumableCurve* curve : curves)
        for (const UnitPoint& point : curve->points) {
            units.include(point.margin);
            data.row({armoury.at(curve->item).id, point.count, point.margin});
        }
    const bool both = !weighing.capacities.empty() && !curves.empty();
    if (!weighing.capacities.empty())
        draw_capacities(plot, armoury, weighing, capacities.axis(both ? 440 : 90, 690));
    if (!curves.empty())
        draw_units(plot, armoury, weighing, units.axis(90, both ? 330 : 690), curves);
    if (others > 0)
        plot.text(weighing_frame.left, 52,
                  fmt::format("and {} that {} the margin less", counted(others, "consumable"),
                              others == 1 ? "moves" : "move"),
                  Plot::Anchor::left, 10, ink::quiet);
    return plot.figure("weigh", std::move(data));
}

} // namespace panoplon
