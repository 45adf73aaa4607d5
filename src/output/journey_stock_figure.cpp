#include "output/fight_words.h"
#include "output/journey_progress.h"
#include "output/plot.h"
#include "output/show_journey.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// As many lines as a figure can tell apart.
constexpr std::size_t most_lines = 8;

std::vector<std::size_t> passed_stages(const JourneySummary& summary) {
    std::vector<std::size_t> stages;
    for (std::size_t s = 0; s < summary.stages.size(); ++s)
        if (summary.stages[s].passed > 0) stages.push_back(s);
    return stages;
}

} // namespace

std::optional<Figure> journey_stock_figure(const Armoury& armoury, const Journey& journey,
                                           const JourneyOptions& options,
                                           const JourneySummary& summary) {
    const std::vector<std::size_t> items = stocked_items(summary);
    const std::vector<std::size_t> stages = passed_stages(summary);
    if (items.empty() || stages.empty()) return std::nullopt;
    const std::size_t shown = std::min(items.size(), most_lines);
    Plot plot(fmt::format("{}: what is in the pack", journey.name),
              fmt::format("{} · {} · seed {} · mean units at the end of each stage, of the trials "
                          "that passed it{}",
                          armoury.name, counted(summary.trials, "trial"), options.seed,
                          items.size() > shown ? fmt::format(" · {} with less are left out",
                                                             counted(items.size() - shown, "item"))
                                               : ""));
    double most = 1;
    for (const std::size_t s : stages)
        most = std::max(most, mean_stock(summary.stages[s], items.front()));
    const double end = summary.stages[stages.back()].time.mean();
    const Axis x{90, 1030, 0, std::max(end, 1e-3), false};
    const Axis y{110, 660, 0, most * 1.08, false};
    plot.y_axis(x, y, "");
    plot.x_axis(x, y, fmt::format("mean time fought, {}", unit_of(armoury)));
    double label_end = -1e9;
    for (const std::size_t s : stages) {
        const double px = x.pixel(summary.stages[s].time.mean());
        plot.line({{px, y.from}, {px, y.to}}, ink::rule, 1);
        if (px < label_end + 20) continue;
        plot.text(px, y.to + 14, std::to_string(s + 1), Plot::Anchor::centre, 10, ink::quiet);
        label_end = px;
    }
    plot.text(x.from, y.to + 36, "units in the pack, at the end of stage", Plot::Anchor::left, 10,
              ink::quiet);
    CsvTable data{"journey-stocks", {"item", "stage", "encounter", "time", "units"}, {}};
    std::vector<Plot::EndLabel> labels;
    for (std::size_t i = 0; i < items.size(); ++i) {
        Plot::Points points;
        for (const std::size_t s : stages) {
            const StageSummary& stage = summary.stages[s];
            const double units = mean_stock(stage, items[i]);
            points.emplace_back(x.pixel(stage.time.mean()), y.pixel(units));
            data.rows.push_back({armoury.items[items[i]].id, std::to_string(s + 1),
                                 armoury.at(journey.stages[s].encounter).id,
                                 rounded(stage.time.mean(), 3), rounded(units, 4)});
        }
        if (i >= shown) continue;
        const LineLook look = line_look(i);
        plot.line(points, look.colour, 2.5, look.dash);
        for (const auto& [px, py] : points) plot.dot(px, py, 0.8, look.colour);
        labels.push_back({points.back().second, armoury.items[items[i]].name, look.colour});
    }
    plot.end_labels(x.to + 12, labels, y.from, y.to);
    return Figure{"journey-stocks", plot.script("journey-stocks"), std::move(data)};
}

} // namespace panoplon
