// Checks a raw definition against the table of keys: unknown keys, wrong types, numbers out of
// bounds, names that nothing has, keys that are missing. What is wrong is taken out, so that what
// is left can be built without looking back.
#pragma once

#include "armoury/keys.h"
#include "armoury/names.h"
#include "armoury/node.h"
#include "diagnostic/diagnostic.h"

#include <string>

namespace panoplon {

class Checker {
  public:
    /// `names_whole` is false when a file could not be read to its end: then a name that is not
    /// found is no mistake of its own.
    Checker(const Names& names, bool names_whole, Sink& sink)
        : names_(names),
          names_whole_(names_whole),
          sink_(sink) {}

    void check(RawDefinition& definition);

  private:
    void check_table(Node& table, const std::string& parent, const Span& at);
    void check_entry(Entry& entry, const std::string& parent);
    [[nodiscard]] bool check_value(Node& value, const KeyRow& row);
    [[nodiscard]] bool check_number(const Node& value, const KeyRow& row);
    [[nodiscard]] bool check_quantity(Node& value, const KeyRow& row);
    [[nodiscard]] bool check_whole(const Node& value, const KeyRow& row);
    [[nodiscard]] bool check_word(const Node& value, const KeyRow& row, std::string_view word);
    [[nodiscard]] bool check_choice(const Node& value, const KeyRow& row);
    [[nodiscard]] bool check_text(const Node& value, const KeyRow& row);
    [[nodiscard]] bool check_list(Node& value, const KeyRow& row);
    [[nodiscard]] bool check_two(const Node& value, const KeyRow& row);
    [[nodiscard]] bool check_tables(Node& value, const KeyRow& row);
    [[nodiscard]] bool check_named(Node& value, const KeyRow& row, std::string_view kind);
    [[nodiscard]] bool check_wanted(Node& value, const KeyRow& row);
    [[nodiscard]] bool check_worn(Node& value, const KeyRow& row);
    void check_slots(std::vector<Entry>& entries, const KeyRow& row);
    [[nodiscard]] bool check_worn_item(Node& value, const KeyRow& row);
    [[nodiscard]] bool check_name(const std::string& id, const Span& span, std::string_view kind);
    bool wrong_type(const Node& value, const KeyRow& row);
    void unknown_key(const Entry& entry, const std::string& parent);

    const Names& names_;
    bool names_whole_;
    Sink& sink_;
    std::string kind_;
};

/// 0xRRGGBB of "#rrggbb", or -1.
[[nodiscard]] std::int32_t parse_colour(std::string_view text);

} // namespace panoplon
