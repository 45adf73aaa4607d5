#include "show/fight/show_fight_two.h"
#include "show/plot.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr Frame margin_frame{.left = 110, .right = 1040};
constexpr std::size_t steps = 200;

/// From 1 at the left to 0 at the right: the share whose margin is at least x.
Plot::Points falling_line(const std::vector<double>& margins, const Axis& x, const Axis& y) {
    Plot::Points points;
    for (std::size_t i = 0; i <= steps; ++i) {
        const double share = static_cast<double>(i) / steps;
        points.emplace_back(x.pixel(quantile(margins, share)), y.pixel(1 - share));
    }
    points.insert(points.begin(), {x.from, y.pixel(1)});
    points.emplace_back(x.to, y.pixel(0));
    return points;
}

/// A name as far as there is room for it.
std::string short_name(const std::string& name) {
    constexpr std::size_t room = 18;
    return characters(name) <= room ? name : name.substr(0, name.find(' ')) + ", changed";
}

double share_at_least(const std::vector<double>& sorted, double strength) {
    const auto from = std::lower_bound(sorted.begin(), sorted.end(), strength);
    return static_cast<double>(sorted.end() - from) / static_cast<double>(sorted.size());
}

} // namespace

Figure margin_figure(const std::string& title, const std::string& subtitle,
                     const std::vector<NamedMargins>& all) {
    double low = 0.95;
    double high = 1.05;
    for (const NamedMargins& one : all) {
        if (one.margins.empty()) continue;
        low = std::min(low, one.margins.front() * 0.95);
        high = std::max(high, one.margins.back() * 1.05);
    }
    constexpr double wide = 8; // strengths this far apart stand on a logarithmic axis
    const Axis x{margin_frame.left, margin_frame.right, low, high, high > wide * low};
    const Axis y{110, 660, 0, 1, false};
    Plot plot(title, subtitle);
    for (const double share : {0.0, 0.25, 0.5, 0.75, 1.0}) {
        plot.line({{x.from, y.pixel(share)}, {x.to, y.pixel(share)}}, ink::rule, 1);
        plot.text(x.from - 10, y.pixel(share), fmt::format("{:.0f} %", share * 100),
                  Plot::Anchor::right, 11, ink::quiet);
    }
    plot.text(x.from, y.to + 22, "share of the trials that are won", Plot::Anchor::left, 12,
              ink::dark, true);
    plot.line({{x.pixel(1), y.from}, {x.pixel(1), y.to}}, ink::quiet, 1.2, 2);
    plot.text(x.pixel(1), y.to + 8, "as they are", Plot::Anchor::centre, 10, ink::quiet);
    Table data{"fight-margins",
               {as::text("name"), as::number("share_won", 4), as::number("strength", 5)}};
    std::vector<Plot::EndLabel> labels;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const NamedMargins& one = all[i];
        if (one.margins.empty()) continue;
        const LineLook look = line_look(i);
        plot.line(falling_line(one.margins, x, y), look.colour, 2.4, look.dash);
        const double won = share_at_least(one.margins, 1);
        plot.dot(x.pixel(1), y.pixel(won), 1.2, look.colour);
        labels.push_back({y.to - 20.0 * static_cast<double>(i),
                          fmt::format("{}: {} won", short_name(one.name), percent(won)),
                          look.colour});
        for (std::size_t k = 0; k <= steps; ++k) {
            const double share = static_cast<double>(k) / steps;
            data.row({one.name, 1 - share, quantile(one.margins, share)});
        }
    }
    plot.end_labels(x.to + 12, labels, y.from, y.to);
    plot.x_axis(x, y, "strength of the foes, × as they are", 8);
    return plot.figure("fight-margins", std::move(data));
}

} // namespace panoplon
