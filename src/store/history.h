// How verdicts and curves moved from run to run, from the file of results.
#pragma once

#include "show/document.h"
#include "store/results_file.h"

namespace panoplon {

/// A series of runs that can be compared: the same command with the same arguments.
struct HistoryRuns {
    std::string command, arguments;
    std::vector<KeptRun> runs; ///< the earliest first
};

/// An item whose verdict moved.
struct VerdictPath {
    std::string item;
    std::vector<std::string> verdicts; ///< by run; empty: not there
};
/// A curve whose margins moved.
struct CurvePath {
    std::string name;
    std::vector<int> level;    ///< by run: where it moved most against the run before; 0: nowhere
    std::vector<double> ratio; ///< by run: of the margin there to the one before; 1: as before
    /// How far from 1 the ratios get, as a logarithm.
    [[nodiscard]] double furthest() const;
};

struct HistorySeries {
    HistoryRuns runs;
    std::size_t audits = 0;            ///< runs of it that have verdicts
    std::size_t drawn = 0;             ///< runs of it that have curves
    std::vector<VerdictPath> verdicts; ///< those that moved, what asks for a hand first
    std::vector<CurvePath> curves;     ///< those that moved, the furthest first
};

/// Of an armoury by name. A Failure (Cause::file)
/// when the file can't be read.
[[nodiscard]] Result<std::vector<HistorySeries>> find_history(const std::string& path,
                                                              const std::string& armoury);

[[nodiscard]] Document show_history(const std::string& armoury,
                                    const std::vector<HistorySeries>& history);

} // namespace panoplon
