// The one table of the file format: kinds of definitions and every key that each has. Reading,
// the format reference and the tests come from it. A new key is a row in key_table.cpp.
#pragma once

#include <limits>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

/// What a key's value is.
enum class Type {
    text,
    texts,   ///< a list of texts; where `names` says so, of words that are in use (words_of)
    id_name, ///< a free name that groups things
    number,  ///< bounded; a double
    whole,   ///< bounded; a whole number
    unlimited_whole, ///< whole, or "unlimited"
    time,            ///< number ≥ 0 in the armoury's unit
    timed,           ///< number > 0, or "always"
    choice,          ///< one of `names`
    colour,          ///< "#rrggbb"
    formula,         ///< text, or a number
    reference,       ///< an id of the kind `names`
    references,      ///< a list of them
    amounts,         ///< stat = number
    growths,         ///< stat = number or formula
    quantity,        ///< bounded; a number, or a formula
    pool_quantities, ///< pool = number or formula
    pool_formulas,   ///< pool = formula
    damage_formulas, ///< damage type = formula
    levels,          ///< [first, last]
    pair,            ///< [low, high]
    targets,         ///< "front", "all" or a whole number
    worn,            ///< slot = item, or list of items
    counts,          ///< id of the kind `names` = whole number
    wanted_items,    ///< a list of items, or a table with keys of its own
    truth,           ///< true or false
    bearer,          ///< a place in the table for the keys that every bearer has
    table,           ///< has keys of its own, `parent.key`
    tables,          ///< a list of such
};

/// A word for the type in messages: "a number", "a list of texts".
[[nodiscard]] const char* type_words(Type type);

struct KindRow {
    std::string_view name;
    bool single;              ///< `[carry]`, of which there is one; others are `[kind.id]`
    std::string_view keys_of; ///< another kind whose keys it has; empty: its own
    std::string_view meaning;
};

inline constexpr double no_bound = std::numeric_limits<double>::infinity();

struct KeyRow {
    std::string_view kind;
    std::string_view path; ///< `use.cooldown`; for a list of tables `band.from`
    Type type;
    std::string_view names; ///< kind (or kind of word) referred to, or choices separated by `|`
    double low, high;       ///< both belong to it
    std::string_view unit;
    std::string_view fallback; ///< value when the key is absent; empty: none
    bool required;
    std::string_view meaning;
};

[[nodiscard]] std::span<const KindRow> kind_rows();
/// Every key of every kind, what bearers and all definitions have written out for each.
[[nodiscard]] std::span<const KeyRow> key_rows();

// The parts that key_rows() is made of (key_table.cpp).
[[nodiscard]] std::span<const KeyRow> written_rows();
[[nodiscard]] std::span<const KeyRow> bearer_rows();
[[nodiscard]] std::span<const KeyRow> common_rows();

[[nodiscard]] const KindRow* find_kind(std::string_view name);
[[nodiscard]] const KeyRow* find_key(std::string_view kind, std::string_view path);
/// In a table of something worn: not a socket, but `item`, or what its find has (`worn.rolled`).
[[nodiscard]] bool is_key_of_worn(std::string_view key);
/// True when `path` is `parent.x`, or `x` with an empty parent.
[[nodiscard]] bool directly_under(std::string_view path, std::string_view parent);
[[nodiscard]] std::string_view last_part(std::string_view path);
/// The last parts of the keys of a kind that stand directly under `parent` (empty: the top).
[[nodiscard]] std::vector<std::string> keys_under(std::string_view kind, std::string_view parent);
[[nodiscard]] std::vector<std::string> kind_names();

/// A path without the places in lists: `trigger.2.on` is `trigger.on`. A place is 1 to 999.
[[nodiscard]] std::string without_places(std::string_view kind, const std::string& path);
/// A path with the first place wherever it names none: `trigger.on` is `trigger.1.on`.
[[nodiscard]] std::string with_places(std::string_view kind, const std::string& path);

/// A key by its dotted path, and what follows it: `add.guard` is `add` and `guard`. In a list of
/// tables a path may name the place, from 1: `trigger.2.on`.
struct LocatedKey {
    const KeyRow* row;
    std::string suffix;
};
[[nodiscard]] std::optional<LocatedKey> locate_key(std::string_view kind, const std::string& path);

} // namespace panoplon
