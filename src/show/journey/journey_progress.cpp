#include "show/journey/journey_progress.h"

#include "base/text.h"
#include "journey/progress.h"
#include "show/measures.h"
#include "show/text_table.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

Json percentiles_json(const Percentiles& spread) {
    return {{"p10", spread.p10}, {"p50", spread.p50}, {"p90", spread.p90}};
}

std::vector<std::string> cells(const Percentiles& spread, int digits) {
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
             {"time", percentiles_json(level.time)},
             {"power", level.power ? percentiles_json(*level.power) : Json()}});
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
                                              {"power", percentiles_json(moment.power)}});
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

std::vector<Stock> stocks_of(const Armoury& armoury, const Journey& journey,
                             const JourneySummary& summary) {
    std::vector<Stock> list(armoury.items.size());
    for (std::size_t i = 0; i < list.size(); ++i) {
        list[i].item = i;
        for (const StageSummary& stage : summary.stages)
            list[i].after.push_back(
                stage.passed > 0 ? stage.stock[i] / static_cast<double>(stage.passed) : 0);
    }
    for (const PackedItem& packed : journey_start(armoury, journey).pack)
        if (!armoury.at(packed.item).worn())
            list[packed.item.index()].at_start += static_cast<double>(packed.count);
    const auto most = [](const Stock& stock) {
        const auto peak = std::max_element(stock.after.begin(), stock.after.end());
        return peak == stock.after.end() ? stock.at_start : std::max(stock.at_start, *peak);
    };
    std::erase_if(list, [&](const Stock& stock) { return most(stock) == 0; });
    std::stable_sort(list.begin(), list.end(),
                     [&](const Stock& a, const Stock& b) { return most(a) > most(b); });
    return list;
}

void add_stocks(const Armoury& armoury, const Journey& journey, const JourneySummary& summary,
                Document& document) {
    std::vector<TextTable::Column> columns{{"in the pack"}, {"start", Align::right}};
    for (std::size_t s = 0; s < summary.stages.size(); ++s)
        columns.push_back({fmt::format("after {}", s + 1), Align::right});
    TextTable table(columns);
    document.json["stocks"] = Json::array();
    for (const Stock& stock : stocks_of(armoury, journey, summary)) {
        const std::string& id = armoury.items[stock.item].id;
        std::vector<std::string> row{id, rounded(stock.at_start, 1)};
        document.json["stocks"].push_back(
            {{"item", id}, {"stage", 0}, {"time", 0.0}, {"units", stock.at_start}});
        for (std::size_t s = 0; s < summary.stages.size(); ++s) {
            const StageSummary& stage = summary.stages[s];
            row.push_back(stage.passed > 0 ? rounded(stock.after[s], 1) : "");
            if (stage.passed > 0)
                document.json["stocks"].push_back({{"item", id},
                                                   {"stage", s + 1},
                                                   {"time", stage.time.mean()},
                                                   {"units", stock.after[s]}});
        }
        table.row(row);
    }
    if (!table.empty()) document.text += "\n" + table.text();
}

} // namespace panoplon
