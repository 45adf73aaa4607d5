// Checked definitions back into text that reads to the same armoury: one TOML file, or CSV tables
// with a TOML file for what no table holds.
#pragma once

#include "armoury/node.h"

#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

struct WrittenFile {
    std::string path; ///< relative; slashes between folders
    std::string text;
    /// Of a table: those of its kind that are in armoury.toml, since their names (pools that they
    /// restore, say) stand in an order that its columns can't keep.
    std::vector<const RawDefinition*> elsewhere = {};
};

/// All of them as one TOML file, kind after kind, keys in their order. What came from patterns is
/// written out.
[[nodiscard]] std::string toml_text(const std::vector<RawDefinition>& definitions);

/// One value, as it stands after `=`.
[[nodiscard]] std::string toml_value(const Node& value);
/// One of them.
[[nodiscard]] std::string toml_text(const RawDefinition& definition);
/// Those of one kind, in their order.
[[nodiscard]] std::vector<const RawDefinition*>
of_kind(const std::vector<RawDefinition>& definitions, std::string_view kind);

/// Definitions of one kind in rows of cells.
struct WrittenTable {
    std::string kind;
    std::vector<std::string> headers; ///< the first is the kind, and names the column of ids
    std::vector<std::vector<std::string>> rows;
    std::vector<const RawDefinition*>
        elsewhere; ///< of the kind, in the TOML text; as in WrittenFile
};
struct WrittenTables {
    std::vector<WrittenTable> tables;
    std::string rest; ///< in TOML: what no table holds
};

/// A table for each kind all of whose definitions fit into cells; the other kinds, and what is
/// `elsewhere`, in TOML. Columns are in the order of the table of keys, amounts in that of the
/// stats.
[[nodiscard]] WrittenTables written_tables(const std::vector<RawDefinition>& definitions);

/// The same as files: KIND.csv, and armoury.toml with the rest.
[[nodiscard]] std::vector<WrittenFile> csv_files(const std::vector<RawDefinition>& definitions);

} // namespace panoplon
