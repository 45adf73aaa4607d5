#include "base/text.h"
#include "show/text_table.h"
#include "store/history.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string command_words(const HistoryRuns& series) {
    return series.arguments.empty() ? series.command : series.command + " " + series.arguments;
}

std::string moved_words(const CurvePath& path, std::size_t run) {
    if (path.level[run] == 0) return "—";
    return fmt::format("{} at {}", signed_percent(path.ratio[run] - 1), path.level[run]);
}

/// One column a run, headed by its number in the list of runs.
std::vector<TextTable::Column> run_columns(const char* thing, const HistoryRuns& series) {
    std::vector<TextTable::Column> columns = {{thing}};
    for (const KeptRun& run : series.runs) columns.push_back({fmt::format("run {}", run.id)});
    return columns;
}

std::string verdicts_text(const HistorySeries& series) {
    TextTable table(run_columns("item", series.runs));
    for (const VerdictPath& path : series.verdicts) {
        std::vector<std::string> cells = {path.item};
        for (const std::string& verdict : path.verdicts)
            cells.push_back(verdict.empty() ? "not there" : verdict);
        table.row(std::move(cells));
    }
    return fmt::format("\nVerdicts that moved: {}\n", command_words(series.runs)) +
           (table.empty() ? "  none\n" : table.text());
}

std::string curves_text(const HistorySeries& series) {
    constexpr std::size_t most_shown = 20;
    TextTable table(run_columns("curve", series.runs));
    for (std::size_t i = 0; i < series.curves.size() && i < most_shown; ++i) {
        std::vector<std::string> cells = {series.curves[i].name};
        for (std::size_t r = 0; r < series.runs.runs.size(); ++r)
            cells.push_back(moved_words(series.curves[i], r));
        table.row(std::move(cells));
    }
    std::string text = fmt::format("\nCurves that moved, most against the run before: {}\n",
                                   command_words(series.runs));
    text += table.empty() ? "  none\n" : table.text();
    if (series.curves.size() > most_shown)
        text +=
            fmt::format("  … and {} more, in the files of -o\n", series.curves.size() - most_shown);
    return text;
}

Table runs_table(const std::vector<HistorySeries>& history) {
    Table table{"history-runs",
                {as::whole("run", "run"), as::text("time", "when (UTC)"),
                 as::text("hash", "armoury"), as::text("command"), as::text("", "command"),
                 as::text("arguments"), as::whole("seed"), as::text("version"),
                 as::text("partial")}};
    for (const HistorySeries& series : history)
        for (const KeptRun& run : series.runs.runs)
            table.row({run.id, run.time, run.hash, run.command,
                       command_words(series.runs) + (run.partial ? " (partial)" : ""),
                       run.arguments, Cell::of(run.seed), run.version, run.partial});
    return table;
}

void add_verdicts(const HistorySeries& series, Table& table) {
    for (const VerdictPath& path : series.verdicts)
        for (std::size_t r = 0; r < path.verdicts.size(); ++r)
            table.row({path.item, series.runs.runs[r].id,
                       path.verdicts[r].empty() ? Cell() : Cell(path.verdicts[r])});
}

void add_curves(const HistorySeries& series, Table& table) {
    for (const CurvePath& path : series.curves)
        for (std::size_t r = 0; r < path.ratio.size(); ++r)
            if (path.level[r] != 0)
                table.row({path.name, series.runs.runs[r].id, path.level[r], path.ratio[r]});
}

} // namespace

Document show_history(const std::string& armoury, const std::vector<HistorySeries>& history) {
    Document document;
    document.text = printable(armoury) + "\n";
    if (history.empty()) document.text += "  no run of it is kept there\n";
    Table runs = runs_table(history);
    Table verdicts{"history-verdicts",
                   {as::item("item").json("id"), as::whole("run"), as::text("verdict")}};
    Table curves{"history-curves",
                 {as::text("curve").json("name"), as::whole("run"), as::whole("level"),
                  as::number("ratio", 5)}};
    document.text += terminal_text(runs);
    bool compared = false;
    for (const HistorySeries& series : history) {
        compared = compared || series.audits > 1 || series.drawn > 1;
        if (series.audits > 1) document.text += verdicts_text(series);
        if (series.drawn > 1) document.text += curves_text(series);
        add_verdicts(series, verdicts);
        add_curves(series, curves);
    }
    if (!compared && !history.empty())
        document.text +=
            "\nNothing to compare yet: it takes two runs of `audit`, `curve` or `report` "
            "with the same arguments, of different states of the armoury.\n";
    document.json = {{"runs", rows_json(runs)},
                     {"verdicts", rows_json(verdicts)},
                     {"curves", rows_json(curves)}};
    document.tables = {std::move(runs), std::move(verdicts), std::move(curves)};
    return document;
}

} // namespace panoplon
