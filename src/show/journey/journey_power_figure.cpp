#include "show/journey/journey_progress.h"
#include "show/journey/show_journey.h"
#include "show/measures.h"
#include "show/plot.h"

#include "base/text.h"
#include "journey/progress.h"
#include "model/corridor.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr Frame power_frame{.left = 90, .right = 1200};

/// A band around a line: where along x, and p10, p50, p90.
struct Sample {
    double x;
    Percentiles power;
};

void draw_band(Plot& plot, const std::vector<Sample>& samples, const Axis& x, const Axis& y,
               const LineLook& look, bool dots) {
    Plot::Points band, middle;
    for (const Sample& sample : samples) {
        band.emplace_back(x.pixel(sample.x), y.pixel(sample.power.p10));
        middle.emplace_back(x.pixel(sample.x), y.pixel(sample.power.p50));
    }
    for (auto sample = samples.rbegin(); sample != samples.rend(); ++sample)
        band.emplace_back(x.pixel(sample->x), y.pixel(sample->power.p90));
    if (samples.size() > 1) plot.area(band, mixed(look.colour, 0.25));
    plot.line(middle, look.colour, 2.5, look.dash);
    if (!dots) return;
    for (const auto& [px, py] : middle) plot.dot(px, py, 1, look.colour);
}

struct Range {
    double low = 1, high = 1;
    void include(double from, double to) {
        low = std::min(low, from);
        high = std::max(high, to);
    }
};

void draw_corridor(Plot& plot, const Armoury& armoury, const Axis& x, const Axis& y) {
    Plot::Points outline;
    std::vector<std::pair<double, double>> highs;
    for (int level = static_cast<int>(x.low); level <= static_cast<int>(x.high); ++level) {
        const auto wanted = wanted_corridor(armoury, armoury.yardstick, level);
        if (!wanted) return;
        outline.emplace_back(x.pixel(level), y.pixel(std::max(wanted->low, y.low)));
        highs.emplace_back(x.pixel(level), y.pixel(wanted->high));
    }
    outline.insert(outline.end(), highs.rbegin(), highs.rend());
    plot.area(outline, ink::tint);
}

void name_corridor(Plot& plot, const Armoury& armoury, const Axis& x, const Axis& y) {
    const auto wanted = wanted_corridor(armoury, armoury.yardstick, static_cast<int>(x.high));
    if (wanted)
        plot.text(x.to - 6, y.pixel(wanted->high) - 12, "wanted", Plot::Anchor::right, 10,
                  ink::quiet);
}

/// Levels where the median leaves the corridor, marked.
void mark_straying(Plot& plot, const Armoury& armoury, const std::vector<LevelProgress>& levels,
                   const Axis& x, const Axis& y) {
    for (const Straying& one : find_straying(armoury, levels)) {
        const double px = x.pixel(one.level);
        const double py = y.pixel(one.power);
        plot.cross(px, py, 1.2, ink::dark);
        const bool at_left = px < (power_frame.left + power_frame.right) / 2;
        plot.text(px + (at_left ? 8 : -8), py + (one.side < 0 ? -16 : 16),
                  fmt::format("{} the corridor", one.side < 0 ? "below" : "above"),
                  at_left ? Plot::Anchor::left : Plot::Anchor::right, 10, ink::dark);
    }
}

Table figure_data(const std::vector<LevelProgress>& levels,
                  const std::vector<TimeProgress>& moments) {
    Table data{"journey-power",
               {as::text("by"), as::number("at", 3), as::number("p10", 5), as::number("p50", 5),
                as::number("p90", 5)}};
    const auto row = [&](const char* by, Cell at, const Percentiles& power) {
        data.row({by, std::move(at), power.p10, power.p50, power.p90});
    };
    for (const LevelProgress& level : levels) row("level", level.level, *level.power);
    for (const TimeProgress& moment : moments) row("time", moment.time, moment.power);
    return data;
}

} // namespace

std::optional<Figure> journey_power_figure(const Armoury& armoury, const Journey& journey,
                                           const JourneyOptions& options,
                                           const JourneySummary& summary) {
    const std::vector<LevelProgress> levels = progress_by_level(summary);
    const std::vector<TimeProgress> moments = progress_over_time(summary, journey_moments);
    if (moments.empty()) return std::nullopt;
    Plot plot(
        fmt::format("{}: power of {} on the way", journey.name, armoury.at(journey.character).name),
        fmt::format("{} · {} · seed {} · margin against the yardstick, {} · median and "
                    "p10–p90 (log scale)",
                    armoury.name, counted(summary.trials, "trial"), options.seed,
                    armoury.at(armoury.yardstick).name));
    Range range;
    std::vector<Sample> by_level, by_time;
    for (const LevelProgress& level : levels) {
        by_level.push_back({static_cast<double>(level.level), *level.power});
        if (const auto wanted = wanted_corridor(armoury, armoury.yardstick, level.level))
            range.include(wanted->low > 0 ? wanted->low : 1, wanted->high);
    }
    for (const TimeProgress& moment : moments) by_time.push_back({moment.time, moment.power});
    for (const auto* samples : {&by_level, &by_time})
        for (const Sample& sample : *samples) range.include(sample.power.p10, sample.power.p90);
    const double last = std::max(by_level.back().x, by_level.front().x + 1);
    const Axis level{power_frame.left, power_frame.right, by_level.front().x, last, false};
    const Axis time{power_frame.left, power_frame.right, 0, std::max(by_time.back().x, 1e-3),
                    false};
    const Axis upper{430, 690, range.low / 1.12, range.high * 1.12, true};
    const Axis lower{90, 330, range.low / 1.12, range.high * 1.12, true};
    draw_corridor(plot, armoury, level, upper);
    plot.y_axis(level, upper, "power by level: where a trial last stood at it", 5);
    plot.x_axis(level, upper, "level");
    draw_band(plot, by_level, level, upper, line_look(0), true);
    name_corridor(plot, armoury, level, upper);
    mark_straying(plot, armoury, levels, level, upper);
    plot.y_axis(time, lower,
                "power over the time fought, of those still under way (until a tenth is)", 5);
    plot.x_axis(time, lower, unit_of(armoury));
    draw_band(plot, by_time, time, lower, line_look(1), false);
    return plot.figure("journey-power", figure_data(levels, moments));
}

} // namespace panoplon
