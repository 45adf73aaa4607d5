#include "output/plot.h"
#include "output/show_curve.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

struct Frame {
    Axis x, y;
};

/// Axes around every band of the curves and the corridor, margins on a logarithmic scale.
Frame frame_for(const std::vector<const Curve*>& curves,
                const std::optional<std::pair<double, double>>& corridor) {
    double low = 1;
    double high = 1;
    int first = curves.front()->points.front().level;
    int last = first;
    for (const Curve* curve : curves)
        for (const CurvePoint& point : curve->points) {
            low = std::min(low, point.p10);
            high = std::max(high, point.p90);
            first = std::min(first, point.level);
            last = std::max(last, point.level);
        }
    if (corridor && corridor->first > 0) {
        low = std::min(low, corridor->first);
        high = std::max(high, corridor->second);
    }
    return {Axis{90, 1050, static_cast<double>(first),
                 static_cast<double>(std::max(last, first + 1)), false},
            Axis{90, 690, low / 1.12, high * 1.12, true}};
}

Plot::Points band_outline(const Curve& curve, const Frame& frame) {
    Plot::Points outline;
    for (const CurvePoint& p : curve.points)
        outline.emplace_back(frame.x.pixel(p.level), frame.y.pixel(p.p10));
    for (auto p = curve.points.rbegin(); p != curve.points.rend(); ++p)
        outline.emplace_back(frame.x.pixel(p->level), frame.y.pixel(p->p90));
    return outline;
}

CsvTable figure_data(const Armoury& armoury, const std::string& name,
                     const std::vector<const Curve*>& curves) {
    CsvTable table{name, {"loadout", "level", "p10", "p50", "p90", "even_luck"}, {}};
    for (const Curve* curve : curves)
        for (const CurvePoint& p : curve->points)
            table.rows.push_back({armoury.at(curve->loadout).id, std::to_string(p.level),
                                  rounded(p.p10, 5), rounded(p.p50, 5), rounded(p.p90, 5),
                                  rounded(p.even.value, 5)});
    return table;
}

Figure draw(const Armoury& armoury, const CurveOptions& options,
            const std::vector<const Curve*>& curves) {
    const bool power = curves.front()->power;
    const Encounter& encounter = armoury.at(curves.front()->encounter);
    const std::string name = power ? "curve-power" : "curve-" + encounter.id;
    const Frame frame = frame_for(curves, encounter.wanted_margin);
    const std::string luck = options.trials > 0
                                 ? fmt::format("median of {} trials a level, band p10–p90, seed {}",
                                               options.trials, options.seed)
                                 : "by even luck";
    Plot plot(power ? "Power over level"
                    : fmt::format("Margin over level against {}", encounter.name),
              fmt::format("{} · {} · {}", armoury.name,
                          power ? fmt::format("margin against the yardstick, {}", encounter.name)
                                : "1 is an even match",
                          luck));
    if (encounter.wanted_margin && encounter.wanted_margin->first > 0) {
        const auto& [low, high] = *encounter.wanted_margin;
        plot.box(frame.x.from, frame.y.pixel(low), frame.x.to, frame.y.pixel(high), ink::tint);
    }
    plot.y_axis(frame.x, frame.y, "margin (log scale)");
    plot.x_axis(frame.x, frame.y, "level");
    plot.line({{frame.x.from, frame.y.pixel(1)}, {frame.x.to, frame.y.pixel(1)}}, ink::quiet, 1);
    for (std::size_t i = 0; i < curves.size(); ++i)
        plot.area(band_outline(*curves[i], frame), mixed(line_look(i).colour, 0.18));
    std::vector<Plot::EndLabel> labels;
    for (std::size_t i = 0; i < curves.size(); ++i) {
        Plot::Points middle;
        for (const CurvePoint& p : curves[i]->points)
            middle.emplace_back(frame.x.pixel(p.level), frame.y.pixel(p.p50));
        const LineLook look = line_look(i);
        plot.line(middle, look.colour, 2.5, look.dash);
        if (middle.size() == 1)
            plot.dot(middle.front().first, middle.front().second, 1, look.colour);
        labels.push_back({middle.back().second, armoury.at(curves[i]->loadout).name, look.colour});
        if (middle.back().first < frame.x.to - 1)
            plot.line({middle.back(), {frame.x.to, middle.back().second}}, mixed(look.colour, 0.35),
                      1, 3);
    }
    if (encounter.wanted_margin)
        plot.text(frame.x.to - 8, frame.y.pixel(encounter.wanted_margin->second) - 11, "wanted",
                  Plot::Anchor::right, 10, ink::quiet);
    plot.end_labels(frame.x.to + 12, labels, frame.y.from, frame.y.to);
    return {name, plot.script(name), figure_data(armoury, name, curves)};
}

} // namespace

std::vector<Figure> curve_figures(const Armoury& armoury, const CurveOptions& options,
                                  const CurveResult& result) {
    std::vector<EncounterId> encounters;
    for (const Curve& curve : result.curves)
        if (std::find(encounters.begin(), encounters.end(), curve.encounter) == encounters.end())
            encounters.push_back(curve.encounter);
    std::vector<Figure> figures;
    for (const EncounterId encounter : encounters) {
        std::vector<const Curve*> curves;
        for (const Curve& curve : result.curves)
            if (curve.encounter == encounter && !curve.points.empty()) curves.push_back(&curve);
        if (!curves.empty()) figures.push_back(draw(armoury, options, curves));
    }
    return figures;
}

} // namespace panoplon
