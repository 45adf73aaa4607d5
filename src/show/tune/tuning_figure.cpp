#include "show/plot.h"
#include "show/tune/show_tuning.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <utility>

namespace panoplon {

namespace {

constexpr Frame tuning_frame{.left = 90, .right = 1080};
constexpr std::uint32_t weak_colour = 0x8fa9bf;
constexpr std::uint32_t fair_colour = 0xb9cf9a;
constexpr std::uint32_t dominant_colour = 0xdf9f63;

std::uint32_t colour_of(Fit fit) {
    switch (fit) {
    case Fit::weak: return weak_colour;
    case Fit::fair: return fair_colour;
    case Fit::dominant: return dominant_colour;
    case Fit::unjudged: break;
    }
    return ink::rule;
}

/// The points worth drawing: far past the ends nothing changes any more.
std::vector<const TunePoint*> shown_points(const Tuning& tuning) {
    double low = tuning.number.now;
    double high = tuning.number.now;
    for (const auto& end : {tuning.low, tuning.high})
        if (end) {
            low = std::min(low, end->value);
            high = std::max(high, end->value);
        }
    const double room = std::max((high - low) * 0.6, std::abs(tuning.number.now) * 0.4);
    std::vector<const TunePoint*> points;
    for (const TunePoint& point : tuning.points)
        if (point.refused.empty() && point.value >= low - room && point.value <= high + room)
            points.push_back(&point);
    return points;
}

void draw_strip(Plot& plot, const std::vector<const TunePoint*>& points, const Axis& x, double low,
                double high) {
    for (std::size_t i = 0; i < points.size();) {
        std::size_t last = i;
        while (last + 1 < points.size() &&
               points[last + 1]->verdict.verdict == points[i]->verdict.verdict)
            ++last;
        const auto edge = [&](std::size_t a, std::size_t b) {
            return x.pixel((points[a]->value + points[b]->value) / 2);
        };
        const double from = i == 0 ? x.from : edge(i - 1, i);
        const double to = last + 1 == points.size() ? x.to : edge(last, last + 1);
        const std::uint32_t colour = colour_of(points[i]->fit());
        plot.box(from, low, to, high, colour);
        plot.line({{to, low}, {to, high}}, ink::ground, 1);
        const char* name = verdict_name(points[i]->verdict.verdict);
        constexpr double letter = 7.5;
        if (to - from > letter * static_cast<double>(std::string_view(name).size()))
            plot.text((from + to) / 2, (low + high) / 2, name, Plot::Anchor::centre, 10,
                      ink_on(colour));
        i = last + 1;
    }
}

template <class Number>
void draw_line(Plot& plot, const std::vector<const TunePoint*>& points, const Axis& x,
               const Axis& y, std::size_t look, const std::string& label,
               std::vector<Plot::EndLabel>& labels, const Number& number) {
    Plot::Points line;
    for (const TunePoint* point : points)
        if (point->verdict.contexts > 0)
            line.emplace_back(x.pixel(point->value),
                              y.pixel(std::clamp(number(point->verdict), y.low, y.high)));
    if (line.empty()) return;
    plot.line(line, line_look(look).colour, 2.5, line_look(look).dash);
    labels.push_back({line.back().second, label, line_look(look).colour});
}

void draw_threshold(Plot& plot, const Axis& x, const Axis& y, double value,
                    const std::string& words) {
    if (value > y.high) return;
    plot.line({{x.from, y.pixel(value)}, {x.to, y.pixel(value)}}, ink::quiet, 1, 2);
    plot.text(x.to - 4, y.pixel(value) + 9, words, Plot::Anchor::right, 9, ink::quiet);
}

/// A line through all of it but what is written over the panels, named above on the side away from
/// the other mark.
void draw_mark(Plot& plot, const Axis& x, double value, const std::string& words, bool to_left) {
    constexpr std::pair<double, double> pieces[] = {{84, 394}, {418, 672}, {702, 720}};
    for (const auto& [low, high] : pieces)
        plot.line({{x.pixel(value), low}, {x.pixel(value), high}}, ink::dark, 1.5, 3);
    plot.text(x.pixel(value) + (to_left ? -5 : 5), 712, words + " " + shortest(value),
              to_left ? Plot::Anchor::right : Plot::Anchor::left, 10, ink::dark, true);
}

} // namespace

Figure tuning_figure(const Armoury& armoury, const Tuning& tuning) {
    const std::vector<const TunePoint*> points = shown_points(tuning);
    const AuditRules& rules = armoury.audit;
    Plot plot(fmt::format("{}: what {} makes of it", armoury.at(tuning.number.item).name,
                          tuning.number.name()),
              fmt::format("{} · {} of its time, by even luck", armoury.name,
                          counted(tuning.now().verdict.contexts, "context")));
    const double room = points.front()->value == points.back()->value ? 1 : 0;
    const Axis x{tuning_frame.left, tuning_frame.right, points.front()->value - room,
                 points.back()->value + room, false};
    const Axis lost{450, 670, 0, 1.2, false};
    const Axis share{150, 390, 0, 1, false};
    draw_strip(plot, points, x, 84, 112);
    plot.y_axis(x, lost, "lost with it, of what its place is worth", 5);
    plot.y_axis(x, share,
                "lost without it, of what its place is worth · best in: share of contexts", 5);
    plot.x_axis(x, {84, 112, 0, 1, false}, tuning.number.name());
    draw_threshold(plot, x, lost, rules.useless_shortfall, "useless, where even the least is over");
    draw_threshold(plot, x, share, rules.dominant_share, "dominant: best in so many");
    draw_threshold(plot, x, share, rules.dominant_grip, "dominant: so much lost without it");
    std::vector<Plot::EndLabel> above, below;
    draw_line(plot, points, x, lost, 0, "least", above,
              [](const ItemVerdict& v) { return v.shortfall.min; });
    draw_line(plot, points, x, lost, 1, "mean", above,
              [](const ItemVerdict& v) { return v.shortfall.mean; });
    draw_line(plot, points, x, share, 2, "best in", below,
              [](const ItemVerdict& v) { return v.pick_share; });
    draw_line(plot, points, x, share, 3, "lost without", below,
              [](const ItemVerdict& v) { return v.grip.mean; });
    plot.end_labels(tuning_frame.right + 12, above, lost.from, lost.to);
    plot.end_labels(tuning_frame.right + 12, below, share.from, share.to);
    const bool lower = tuning.proposal && *tuning.proposal < tuning.number.now;
    draw_mark(plot, x, tuning.number.now, "now", tuning.proposal && !lower);
    if (tuning.proposal) draw_mark(plot, x, *tuning.proposal, "proposed", lower);
    Table data{"tune-range",
               {as::number("value", in_full), as::text("verdict"), as::number("pick_share", 4),
                as::number("grip", 4), as::number("shortfall", 4), as::number("shortfall_min", 4)}};
    for (const TunePoint* point : points) {
        const ItemVerdict& v = point->verdict;
        data.row({point->value, verdict_name(v.verdict), v.pick_share, v.grip.mean,
                  v.shortfall.mean, v.shortfall.min});
    }
    return plot.figure("tune-range", std::move(data));
}

} // namespace panoplon
