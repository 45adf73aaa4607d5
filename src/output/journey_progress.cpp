#include "output/journey_progress.h"

#include "base/text.h"
#include "journey/progress.h"
#include "output/fight_words.h"
#include "output/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

Json spread_json(const Spread& spread) {
    return {{"p10", spread.p10}, {"p50", spread.p50}, {"p90", spread.p90}};
}

std::vector<std::string> cells(const Spread& spread, int digits) {
    std::vector<std::string> list;
    for (const double value : {spread.p10, spread.p50, spread.p90})
        list.push_back(fmt::format("{:.{}f}", value, digits));
    return list;
}

void append(std::vector<std::string>& row, const std::vector<std::string>& more) {
    row.insert(row.end(), more.begin(), more.end());
}

void add_levels(const Armoury& armoury, const JourneySummary& summary,
                const std::vector<LevelProgress>& levels, Document& document) {
    TextTable table({{"level", Align::right},
                     {"reached", Align::right},
                     {fmt::format("after {} p10", unit_of(armoury)), Align::right},
                     {"p50", Align::right},
                     {"p90", Align::right},
                     {"power p10", Align::right},
                     {"p50", Align::right},
                     {"p90", Align::right}});
    CsvTable csv{"journey-levels",
                 {"level", "reached", "time_p10", "time_p50", "time_p90", "power_p10", "power_p50",
                  "power_p90"},
                 {}};
    document.json["levels"] = Json::array();
    for (const LevelProgress& level : levels) {
        const double reached =
            static_cast<double>(level.reached) / static_cast<double>(summary.trials);
        std::vector<std::string> row{std::to_string(level.level), percent(reached)};
        std::vector<std::string> data{std::to_string(level.level), rounded(reached, 5)};
        append(row, cells(level.time, 0));
        append(data, cells(level.time, 3));
        const std::vector<std::string> none(3);
        append(row, level.power ? cells(*level.power, 2) : none);
        append(data, level.power ? cells(*level.power, 5) : none);
        table.row(row);
        csv.rows.push_back(data);
        document.json["levels"].push_back(
            {{"level", level.level},
             {"reached", reached},
             {"time", spread_json(level.time)},
             {"power", level.power ? spread_json(*level.power) : Json()}});
    }
    document.text += "\n" + table.text();
    document.tables.push_back(std::move(csv));
}

void add_straying(const Armoury& armoury, const std::vector<LevelProgress>& levels,
                  Document& document) {
    document.json["straying"] = Json::array();
    for (const Straying& one : find_straying(armoury, levels)) {
        document.text +=
            fmt::format("At level {} the median power of {} is {} the wanted {}–{}.\n", one.level,
                        rounded(one.power), one.side < 0 ? "below" : "above", rounded(one.low),
                        rounded(one.high));
        document.json["straying"].push_back({{"level", one.level},
                                             {"side", one.side < 0 ? "below" : "above"},
                                             {"power", one.power},
                                             {"wanted", {one.low, one.high}}});
    }
}

void add_times(const JourneySummary& summary, Document& document) {
    CsvTable csv{"journey-time", {"time", "under_way", "power_p10", "power_p50", "power_p90"}, {}};
    document.json["over_time"] = Json::array();
    for (const TimeProgress& moment : progress_over_time(summary, journey_moments)) {
        const double under_way =
            static_cast<double>(moment.under_way) / static_cast<double>(summary.trials);
        std::vector<std::string> data{rounded(moment.time, 3), rounded(under_way, 5)};
        append(data, cells(moment.power, 5));
        csv.rows.push_back(data);
        document.json["over_time"].push_back({{"time", moment.time},
                                              {"under_way", under_way},
                                              {"power", spread_json(moment.power)}});
    }
    if (!csv.rows.empty()) document.tables.push_back(std::move(csv));
}

} // namespace

void add_progress(const Armoury& armoury, const JourneySummary& summary, Document& document) {
    const std::vector<LevelProgress> levels = progress_by_level(summary);
    add_levels(armoury, summary, levels, document);
    add_straying(armoury, levels, document);
    add_times(summary, document);
}

double mean_stock(const StageSummary& stage, std::size_t item) {
    return stage.passed > 0 ? stage.stock[item] / static_cast<double>(stage.passed) : 0;
}

std::vector<std::size_t> stocked_items(const JourneySummary& summary) {
    const auto most = [&](std::size_t item) {
        double units = 0;
        for (const StageSummary& stage : summary.stages)
            units = std::max(units, mean_stock(stage, item));
        return units;
    };
    std::vector<std::size_t> items;
    for (std::size_t i = 0; i < summary.items.size(); ++i)
        if (most(i) > 0) items.push_back(i);
    std::stable_sort(items.begin(), items.end(),
                     [&](std::size_t a, std::size_t b) { return most(a) > most(b); });
    return items;
}

void add_stocks(const Armoury& armoury, const JourneySummary& summary, Document& document) {
    const std::vector<std::size_t> items = stocked_items(summary);
    std::vector<TextTable::Column> columns{{"in the pack after stage"}};
    for (std::size_t s = 0; s < summary.stages.size(); ++s)
        columns.push_back({std::to_string(s + 1), Align::right});
    TextTable table(columns);
    document.json["stocks"] = Json::array();
    for (const std::size_t item : items) {
        std::vector<std::string> row{armoury.items[item].id};
        for (std::size_t s = 0; s < summary.stages.size(); ++s) {
            const StageSummary& stage = summary.stages[s];
            const double units = mean_stock(stage, item);
            row.push_back(stage.passed > 0 ? rounded(units, 1) : "");
            if (stage.passed == 0) continue;
            document.json["stocks"].push_back({{"item", armoury.items[item].id},
                                               {"stage", s + 1},
                                               {"time", stage.time.mean()},
                                               {"units", units}});
        }
        table.row(row);
    }
    if (!table.empty()) document.text += "\n" + table.text();
}

} // namespace panoplon
