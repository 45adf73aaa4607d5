// Finds and reads an armoury's files, and takes them apart into raw definitions.
#pragma once

#include "armoury/node.h"
#include "base/result.h"
#include "diagnostic/diagnostic.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// A folder that holds a file of this name holds results, not gear.
inline constexpr const char* results_mark = "panoplon-results.txt";

/// Texts that stand in place of what is on the disk, by path relative to the armoury's folder: what
/// an editor has open and has not saved.
using OpenTexts = std::map<std::string, std::string>;

/// Reads every *.toml, *.csv and *.tsv below the folder, and each sheet of every *.xlsx and *.ods,
/// sorted by path, into `sources`; folders of results are left out. What can't be read becomes a
/// mistake; a folder that can't be is a Failure (Cause::file).
[[nodiscard]] Result<Sources> read_folder(const std::string& folder, Sink& sink,
                                          const OpenTexts& open = {});

/// A table before its columns are understood.
struct RawTable {
    struct Cell {
        std::string text;
        Span span;
    };
    std::string kind;                    ///< empty: a sheet without a table
    std::vector<Cell> headers;           ///< without that of the ids
    std::vector<std::vector<Cell>> rows; ///< the first cell is the id
    bool cut_short = false;              ///< the rest could not be read
    char separator = ',';
    std::int32_t header_line = 1;
    std::string made_id;               ///< the first id that was made from a name; empty: none was
    std::map<std::string, Cell> names; ///< by id: of those whose column of ids holds their name
};

struct RawArmoury {
    std::vector<RawDefinition> definitions;
    std::vector<RawTable> tables;
    bool cut_short = false; ///< something could not be read: names may be missing through no fault
};

void read_toml(const Sources& sources, std::int32_t file, RawArmoury& into, Sink& sink);
/// A table of text, between commas, semicolons or tabs (RFC 4180 otherwise); none where the file
/// has none, and a mistake says why.
[[nodiscard]] std::optional<RawTable> read_csv(const Sources& sources, std::int32_t file,
                                               Sink& sink);

/// What is known of the armoury before its tables are understood.
struct TableNames {
    std::vector<std::string> stats; ///< ids; a header that is one means `add.STAT`
    /// Plain words of names that stats have, with their ids: as good a header.
    std::vector<std::pair<std::string, std::string>> stat_names;
    std::vector<std::string> ignored; ///< headers that are left out everywhere
    bool all_known = true;            ///< otherwise a header that means nothing is no mistake
};

/// The key that a header means, as `add.guard` or `trigger.1.on`; none where it means nothing, or
/// is left out.
[[nodiscard]] std::optional<std::string>
key_of_header(const std::string& header, const std::string& kind, const TableNames& names);

/// Turns the rows of a table into raw definitions. A header that means nothing is one mistake, not
/// one a row.
void understand_table(const RawTable& table, const TableNames& names,
                      std::vector<RawDefinition>& into, Sink& sink);

} // namespace panoplon
