// Finds and reads an armoury's files, and takes them apart into raw definitions.
#pragma once

#include "armoury/node.h"
#include "base/result.h"
#include "diagnostic/diagnostic.h"

#include <span>
#include <string>
#include <vector>

namespace panoplon {

/// Larger files are a mistake: no table of gear is this long.
inline constexpr std::size_t largest_file = 32u << 20;

/// A folder that holds a file of this name holds results, not gear.
inline constexpr const char* results_mark = "panoplon-results.txt";

/// Reads every *.toml and *.csv below the folder, sorted by path, into `sources`; folders of
/// results are left out. What is not a readable text becomes a mistake; a folder that can't be read
/// is a Failure (Cause::file).
[[nodiscard]] Result<Sources> read_folder(const std::string& folder, Sink& sink);

/// A table of a CSV file before its columns are understood.
struct RawTable {
    struct Cell {
        std::string text;
        Span span;
    };
    std::string kind;
    std::vector<Cell> headers;           ///< without the first, which names the kind
    std::vector<std::vector<Cell>> rows; ///< the first cell is the id
};

struct RawArmoury {
    std::vector<RawDefinition> definitions;
    std::vector<RawTable> tables;
    bool cut_short = false; ///< something could not be read: names may be missing through no fault
};

void read_toml(const Sources& sources, std::int32_t file, RawArmoury& into, Sink& sink);
void read_csv(const Sources& sources, std::int32_t file, RawArmoury& into, Sink& sink);

/// Turns the rows of a table into raw definitions, now that the stats are known: a header that is
/// a stat's id means `add.STAT`. A header that means nothing is one mistake, not one a row; none
/// where not all names are known.
void understand_table(const RawTable& table, std::span<const std::string> stats,
                      bool names_are_known, std::vector<RawDefinition>& into, Sink& sink);

} // namespace panoplon
