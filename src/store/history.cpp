#include "store/history.h"

#include "judge/audit/verdict.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <set>
#include <utility>

namespace panoplon {

namespace {

/// Ratios nearer to 1 are the solver's: margins are found to 0.01 %.
constexpr double least_move = 5e-4;

std::vector<HistoryRuns> series_of(std::vector<KeptRun> runs) {
    std::vector<HistoryRuns> list;
    for (KeptRun& run : runs) {
        auto at = std::find_if(list.begin(), list.end(), [&](const HistoryRuns& one) {
            return one.command == run.command && one.arguments == run.arguments;
        });
        if (at == list.end()) at = list.insert(at, {run.command, run.arguments, {}});
        at->runs.push_back(std::move(run));
    }
    return list;
}

bool was_unfair(const std::string& verdict) {
    for (const Verdict one : {Verdict::dominant, Verdict::useless, Verdict::burden,
                              Verdict::outclassed, Verdict::unreachable})
        if (verdict.starts_with(verdict_name(one))) return true;
    return false;
}

/// Fills in the verdicts that moved, those from or to what asks for a hand first.
std::optional<Failure> follow_verdicts(const std::string& path, HistorySeries& series) {
    const std::vector<KeptRun>& runs = series.runs.runs;
    std::vector<VerdictPath>& paths = series.verdicts;
    for (std::size_t r = 0; r < runs.size(); ++r) {
        bool any = false;
        for (const char* table : {"audit", "audit-consumables"}) {
            const auto rows = kept_rows(path, runs[r].id, table, {"item", "verdict", "overstays"});
            if (!rows.ok()) return rows.failure();
            for (const auto& row : rows.value()) {
                any = true;
                auto at = std::find_if(paths.begin(), paths.end(),
                                       [&](const VerdictPath& one) { return one.item == row[0]; });
                if (at == paths.end())
                    at = paths.insert(at, {row[0], std::vector<std::string>(runs.size(), "")});
                at->verdicts[r] = row[1] + (row[2] == "true" ? ", overstays" : "");
            }
        }
        series.audits += any;
    }
    std::erase_if(paths, [](const VerdictPath& one) {
        return std::set<std::string>(one.verdicts.begin(), one.verdicts.end()).size() < 2;
    });
    std::stable_partition(paths.begin(), paths.end(), [](const VerdictPath& one) {
        return std::any_of(one.verdicts.begin(), one.verdicts.end(), was_unfair);
    });
    return std::nullopt;
}

template <class Number>
std::optional<Number> number_in(const std::string& text) {
    Number number{};
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (error != std::errc() || end != text.data() + text.size()) return std::nullopt;
    return number;
}

using Levels = std::map<int, double>; ///< margins by level

Result<std::map<std::string, Levels>> curves_in(const std::string& path, std::int64_t run) {
    const auto rows = kept_rows(path, run, "curve", {"name", "level", "even_luck"});
    if (!rows.ok()) return rows.failure();
    std::map<std::string, Levels> curves;
    for (const auto& row : rows.value()) {
        const auto level = number_in<int>(row[1]);
        const auto margin = number_in<double>(row[2]);
        if (level && margin) curves[row[0]][*level] = *margin;
    }
    return curves;
}

/// Where a curve moved most: the level, and the ratio there.
std::pair<int, double> most_moved(const Levels& before, const Levels& after) {
    std::pair<int, double> most = {0, 1};
    for (const auto& [level, margin] : after) {
        const auto was = before.find(level);
        if (was == before.end() || was->second <= 0 || margin <= 0) continue;
        const double ratio = margin / was->second;
        if (std::abs(std::log(ratio)) > std::max(std::abs(std::log(most.second)), least_move))
            most = {level, ratio};
    }
    return most;
}

/// Fills in the curves that moved.
std::optional<Failure> follow_curves(const std::string& path, HistorySeries& series) {
    std::vector<std::map<std::string, Levels>> by_run;
    std::set<std::string> names;
    for (const KeptRun& run : series.runs.runs) {
        auto curves = curves_in(path, run.id);
        if (!curves.ok()) return curves.failure();
        by_run.push_back(curves.take());
        series.drawn += !by_run.back().empty();
        for (const auto& [name, levels] : by_run.back()) names.insert(name);
    }
    for (const std::string& name : names) {
        CurvePath one{name, {0}, {1}};
        for (std::size_t r = 1; r < by_run.size(); ++r) {
            const auto [level, ratio] = most_moved(by_run[r - 1][name], by_run[r][name]);
            one.level.push_back(level);
            one.ratio.push_back(ratio);
        }
        if (one.furthest() > 0) series.curves.push_back(std::move(one));
    }
    std::stable_sort(
        series.curves.begin(), series.curves.end(),
        [](const CurvePath& a, const CurvePath& b) { return a.furthest() > b.furthest(); });
    return std::nullopt;
}

} // namespace

double CurvePath::furthest() const {
    double most = 0;
    for (const double one : ratio) most = std::max(most, std::abs(std::log(one)));
    return most;
}

Result<std::vector<HistorySeries>> find_history(const std::string& path,
                                                const std::string& armoury) {
    auto runs = kept_runs(path, armoury);
    if (!runs.ok()) return runs.failure();
    std::vector<HistorySeries> history;
    for (HistoryRuns& same : series_of(runs.take())) {
        HistorySeries series;
        series.runs = std::move(same);
        if (const auto failure = follow_verdicts(path, series)) return *failure;
        if (const auto failure = follow_curves(path, series)) return *failure;
        history.push_back(std::move(series));
    }
    return history;
}

} // namespace panoplon
