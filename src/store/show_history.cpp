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

void add_runs(const std::vector<HistorySeries>& history, Document& document) {
    TextTable table({{"run", Align::right}, {"when (UTC)"}, {"armoury"}, {"command"}});
    CsvTable csv{"history-runs",
                 {"run", "time", "hash", "command", "arguments", "seed", "version", "partial"},
                 {}};
    document.json["runs"] = Json::array();
    for (const HistorySeries& series : history)
        for (const KeptRun& run : series.runs.runs) {
            table.row({std::to_string(run.id), run.time, run.hash,
                       command_words(series.runs) + (run.partial ? " (partial)" : "")});
            csv.rows.push_back({std::to_string(run.id), run.time, run.hash, run.command,
                                run.arguments, std::to_string(run.seed), run.version,
                                run.partial ? "true" : "false"});
            document.json["runs"].push_back({{"run", run.id},
                                             {"time", run.time},
                                             {"hash", run.hash},
                                             {"command", run.command},
                                             {"arguments", run.arguments},
                                             {"seed", run.seed},
                                             {"version", run.version},
                                             {"partial", run.partial}});
        }
    document.text += table.text();
    document.tables.push_back(std::move(csv));
}

void add_verdicts(const HistorySeries& series, CsvTable& csv, Json& json) {
    for (const VerdictPath& path : series.verdicts)
        for (std::size_t r = 0; r < path.verdicts.size(); ++r) {
            const std::string run = std::to_string(series.runs.runs[r].id);
            csv.rows.push_back({path.item, run, path.verdicts[r]});
            json.push_back(
                {{"id", path.item},
                 {"run", series.runs.runs[r].id},
                 {"verdict", path.verdicts[r].empty() ? Json(nullptr) : Json(path.verdicts[r])}});
        }
}

void add_curves(const HistorySeries& series, CsvTable& csv, Json& json) {
    for (const CurvePath& path : series.curves)
        for (std::size_t r = 0; r < path.ratio.size(); ++r) {
            if (path.level[r] == 0) continue;
            const std::int64_t run = series.runs.runs[r].id;
            csv.rows.push_back({path.name, std::to_string(run), std::to_string(path.level[r]),
                                rounded(path.ratio[r], 5)});
            json.push_back({{"name", path.name},
                            {"run", run},
                            {"level", path.level[r]},
                            {"ratio", path.ratio[r]}});
        }
}

} // namespace

Document show_history(const std::string& armoury, const std::vector<HistorySeries>& history) {
    Document document;
    document.text = printable(armoury) + "\n";
    if (history.empty()) document.text += "  no run of it is kept there\n";
    add_runs(history, document);
    CsvTable verdicts{"history-verdicts", {"item", "run", "verdict"}, {}};
    CsvTable curves{"history-curves", {"curve", "run", "level", "ratio"}, {}};
    document.json["verdicts"] = Json::array();
    document.json["curves"] = Json::array();
    bool compared = false;
    for (const HistorySeries& series : history) {
        compared = compared || series.audits > 1 || series.drawn > 1;
        if (series.audits > 1) document.text += verdicts_text(series);
        if (series.drawn > 1) document.text += curves_text(series);
        add_verdicts(series, verdicts, document.json["verdicts"]);
        add_curves(series, curves, document.json["curves"]);
    }
    if (!compared && !history.empty())
        document.text +=
            "\nNothing to compare yet: it takes two runs of `audit`, `curve` or `report` "
            "with the same arguments, of different states of the armoury.\n";
    document.tables.push_back(std::move(verdicts));
    document.tables.push_back(std::move(curves));
    return document;
}

} // namespace panoplon
