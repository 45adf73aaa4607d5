// Every word of a file that stands in a definition, and what it is there. Found in the text itself,
// so that it is found in a file that is still being written, too.
#pragma once

#include "armoury/files.h"
#include "armoury/keys.h"

#include <compare>
#include <string>
#include <vector>

namespace panoplon {

/// A place in the text of a file, in bytes.
struct TextRange {
    std::int32_t file = 0; ///< as in Sources
    std::size_t offset = 0, length = 0;

    /// Both ends belong to it.
    [[nodiscard]] bool holds(std::size_t place) const {
        return place >= offset && place <= offset + length;
    }
    auto operator<=>(const TextRange&) const = default;
};

struct Mark {
    enum class Role { kind, id, key, value };
    Role role = Role::value;
    TextRange range;  ///< without quotes
    std::string text; ///< as it stands there
    std::string kind; ///< of the definition,
    std::string id; ///< and its id; empty for headers of tables, and where there is one of its kind
    std::string path;    ///< of a key its own, of a value its key's: `use.cooldown`, without places
    bool quoted = false; ///< there is a quote before it
    bool in_header = false; ///< of TOML, as in `[item.reed_coat.use]`; of a table
    bool in_table = false;  ///< a table's, not TOML's
};

/// The words of a text in TOML, in their order. What can't be understood is passed over to the end
/// of its line; a list that is not closed ends where the next key or header begins a line.
[[nodiscard]] std::vector<Mark> marks_of_toml(std::int32_t file, std::string_view text);

/// Those of a table: headers, ids, and cells, each part of a list in a cell for itself.
[[nodiscard]] std::vector<Mark> marks_of_table(const Sources& sources, std::int32_t file,
                                               const TableNames& names);

/// Of a file of either.
[[nodiscard]] std::vector<Mark> marks_of(const Sources& sources, std::int32_t file,
                                         const TableNames& names);

} // namespace panoplon
