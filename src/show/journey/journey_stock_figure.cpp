#include "show/journey/journey_progress.h"
#include "show/journey/show_journey.h"
#include "show/plot.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// As many lines as a figure can tell apart.
constexpr std::size_t most_lines = 8;

/// A moment at which packs are looked at: the start, or the end of a stage that any trial passed.
struct Moment {
    std::string name; ///< "start", or the number of the stage
    std::string encounter;
    double time;
    std::optional<std::size_t> stage;

    [[nodiscard]] double units(const Stock& stock) const {
        return stage ? stock.after[*stage] : stock.at_start;
    }
};

std::vector<Moment> moments_of(const Armoury& armoury, const Journey& journey,
                               const JourneySummary& summary) {
    std::vector<Moment> moments{{"start", "", 0, std::nullopt}};
    for (std::size_t s = 0; s < summary.stages.size(); ++s)
        if (summary.stages[s].passed > 0)
            moments.push_back({std::to_string(s + 1), armoury.at(journey.stages[s].encounter).id,
                               summary.stages[s].time.mean(), s});
    return moments;
}

/// Each moment as an upright line with its name, where there is room for it.
void draw_moments(Plot& plot, const std::vector<Moment>& moments, const Axis& x, const Axis& y) {
    double name_end = 0;
    for (std::size_t m = 0; m < moments.size(); ++m) {
        const double px = x.pixel(static_cast<double>(m));
        const double half = text_width(moments[m].name, 10) / 2;
        plot.line({{px, y.from}, {px, y.to}}, ink::rule, 1);
        if (px - half < name_end + 4) continue;
        plot.text(px, y.from - 16, moments[m].name, Plot::Anchor::centre, 10, ink::quiet);
        name_end = px + half;
    }
    plot.text(x.to, y.from - 38, "at the end of stage", Plot::Anchor::right, 10, ink::quiet);
}

} // namespace

std::optional<Figure> journey_stock_figure(const Armoury& armoury, const Journey& journey,
                                           const JourneyOptions& options,
                                           const JourneySummary& summary) {
    const std::vector<Stock> stocks = stocks_of(armoury, journey, summary);
    const std::vector<Moment> moments = moments_of(armoury, journey, summary);
    if (stocks.empty() || moments.size() < 2) return std::nullopt;
    const std::size_t shown = std::min(stocks.size(), most_lines);
    Plot plot(fmt::format("{}: what is in the pack", journey.name),
              fmt::format("{} · {} · seed {} · mean units at the end of each stage, of the trials "
                          "that passed it{}",
                          armoury.name, counted(summary.trials, "trial"), options.seed,
                          stocks.size() > shown
                              ? fmt::format(" · {} with less are left out",
                                            counted(stocks.size() - shown, "item"))
                              : ""));
    double most = 1;
    for (const Moment& moment : moments) most = std::max(most, moment.units(stocks.front()));
    const Axis x{90, 1030, 0, static_cast<double>(moments.size() - 1), false};
    const Axis y{110, 680, 0, most * 1.08, false};
    plot.y_axis(x, y, "units in the pack");
    draw_moments(plot, moments, x, y);
    Table data{"journey-stocks",
               {as::item("item"), as::text("stage"), as::text("encounter"), as::number("time", 3),
                as::number("units", 4)}};
    std::vector<Plot::EndLabel> labels;
    for (std::size_t i = 0; i < stocks.size(); ++i) {
        const Item& item = armoury.items[stocks[i].item];
        Plot::Points points;
        for (std::size_t m = 0; m < moments.size(); ++m) {
            const Moment& moment = moments[m];
            const double units = moment.units(stocks[i]);
            points.emplace_back(x.pixel(static_cast<double>(m)), y.pixel(units));
            data.row({item.id, moment.name, moment.encounter, moment.time, units});
        }
        if (i >= shown) continue;
        const LineLook look = line_look(i);
        plot.line(points, look.colour, 2.5, look.dash);
        for (const auto& [px, py] : points) plot.dot(px, py, 0.8, look.colour);
        labels.push_back({points.back().second, item.name, look.colour, look.dash});
    }
    plot.end_labels(x.to + 12, labels, y.from, y.to);
    return plot.figure("journey-stocks", std::move(data));
}

} // namespace panoplon
