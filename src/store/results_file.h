// The file of results: what every run found, in SQLite, beside the files of -o. docs/results.md has
// its schema.
#pragma once

#include "base/result.h"
#include "show/document.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace panoplon {

inline constexpr const char* results_file_name = "results.sqlite";

/// What tells one run from another, and when it was.
struct Run {
    std::string command;
    std::string arguments; ///< what was asked for beside the armoury
    std::string armoury;   ///< its name
    std::string hash;      ///< of its files
    std::string version;   ///< of the program
    std::uint64_t seed = 0;
    std::string time; ///< ISO 8601, UTC
    bool partial = false;
};

/// Adds a run and the tables of its document, in one transaction: all of it is kept, or nothing.
/// A run of the same command, arguments and armoury (by hash) takes the place of the former one.
/// Returns the path. A Failure (Cause::file) when the file can't be written or is none of ours.
[[nodiscard]] Result<std::string> keep_run(const std::string& path, const Run& run,
                                           const std::vector<Table>& tables);

/// A run that is kept, with a number that tables refer to.
struct KeptRun : Run {
    std::int64_t id = 0;
};

/// Runs of an armoury by name, the earliest first. A Failure (Cause::file) when there is no such
/// file.
[[nodiscard]] Result<std::vector<KeptRun>> kept_runs(const std::string& path,
                                                     const std::string& armoury);

/// Rows of one run's table: cells by column, as text; empty where the table or a column is not
/// there.
[[nodiscard]] Result<std::vector<std::vector<std::string>>>
kept_rows(const std::string& path, std::int64_t run, const std::string& table,
          const std::vector<std::string>& columns);

/// Writes tables into a new SQLite file, whole or not at all, in place of a former one.
[[nodiscard]] Result<std::string> write_sqlite(const std::string& path,
                                               const std::vector<Table>& tables);

} // namespace panoplon
