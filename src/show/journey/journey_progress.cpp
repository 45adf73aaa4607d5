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

/// Columns of a spread, whose keys begin with `name`; `first`: header of the first, empty where a
/// terminal shows none.
void add_columns(Table& table, const std::string& name, const std::string& first, int places,
                 int exact) {
    for (const std::string part : {"p10", "p50", "p90"}) {
        const std::string header = part == "p10" || first.empty() ? first : part;
        table.columns.push_back(as::number(name + "_" + part, header, places, exact).json(""));
    }
    table.columns.push_back(as::json(name));
}

void add_cells(std::vector<Cell>& row, const std::optional<Percentiles>& spread) {
    for (double Percentiles::*part : {&Percentiles::p10, &Percentiles::p50, &Percentiles::p90})
        row.push_back(spread ? Cell((*spread).*part) : Cell());
    row.push_back(spread ? Cell::of(percentiles_json(*spread)) : Cell());
}

void add_levels(const Armoury& armoury, const JourneySummary& summary,
                const std::vector<LevelProgress>& levels, Document& document) {
    Table table{"journey-levels",
                {as::whole("level", "level"), as::share("reached", "reached", 1, 5)}};
    add_columns(table, "time", fmt::format("after {} p10", unit_of(armoury)), 0, 3);
    add_columns(table, "power", "power p10", 2, 5);
    table.nothing = "";
    for (const LevelProgress& level : levels) {
        std::vector<Cell> row = {level.level, static_cast<double>(level.reached) /
                                                  static_cast<double>(summary.trials)};
        add_cells(row, level.time);
        add_cells(row, level.power);
        table.row(std::move(row));
    }
    add_table(document, "levels", std::move(table));
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
    Table table{"journey-time", {as::number("time", 3), as::number("under_way", 5)}};
    add_columns(table, "power", "", 0, 5);
    for (const TimeProgress& moment : progress_over_time(summary, journey_moments)) {
        std::vector<Cell> row = {moment.time, static_cast<double>(moment.under_way) /
                                                  static_cast<double>(summary.trials)};
        add_cells(row, moment.power);
        table.row(std::move(row));
    }
    if (table.rows.empty()) table.name.clear();
    add_table(document, "over_time", std::move(table));
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
