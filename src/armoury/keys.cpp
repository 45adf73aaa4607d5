#include "armoury/keys.h"

#include "base/text.h"

#include <algorithm>
#include <deque>
#include <map>
#include <string>
#include <utility>

namespace panoplon {

namespace {

using T = Type;

/// Every key of every kind, the bodies of bearers and what is common written out.
class Table {
  public:
    Table() {
        for (const KindRow& kind : kind_rows()) add_kind(kind);
        for (std::size_t i = 0; i < rows_.size(); ++i)
            index_.emplace(std::pair(rows_[i].kind, rows_[i].path), i);
    }
    [[nodiscard]] std::span<const KeyRow> rows() const { return rows_; }
    [[nodiscard]] const KeyRow* find(std::string_view kind, std::string_view path) const {
        const auto at = index_.find({kind, path});
        return at == index_.end() ? nullptr : &rows_[at->second];
    }

  private:
    void add_kind(const KindRow& kind) {
        const std::string_view keys_of = kind.keys_of.empty() ? kind.name : kind.keys_of;
        for (const KeyRow& row : written_rows()) {
            if (row.kind != keys_of) continue;
            if (row.type == Type::bearer)
                for (const KeyRow& part : bearer_rows()) add(kind, part, row.path);
            else
                add(kind, row, "");
        }
        if (kind.single) return;
        for (const KeyRow& row : common_rows()) add(kind, row, "");
    }

    void add(const KindRow& kind, KeyRow row, std::string_view parent) {
        row.kind = kind.name;
        if (!parent.empty()) {
            paths_.push_back(std::string(parent) + "." + std::string(row.path));
            row.path = paths_.back();
        }
        rows_.push_back(row);
    }

    std::deque<std::string> paths_; ///< of keys below another; rows refer to them
    std::vector<KeyRow> rows_;
    std::map<std::pair<std::string_view, std::string_view>, std::size_t> index_;
};

const Table& table() {
    static const Table whole;
    return whole;
}

bool takes_suffix(Type type) {
    switch (type) {
    case T::amounts:
    case T::growths:
    case T::pool_quantities:
    case T::pool_formulas:
    case T::damage_formulas:
    case T::counts: return true;
    default: return false;
    }
}

/// A number from 1 to 999, as a place in a list is written.
bool is_place(std::string_view part) {
    return !part.empty() && part.size() <= 3 && part.front() != '0' &&
           part.find_first_not_of("0123456789") == std::string_view::npos;
}

} // namespace

const char* type_words(Type type) {
    switch (type) {
    case T::text: return "a text";
    case T::texts: return "a list of texts";
    case T::id_name: return "a name";
    case T::number: return "a number";
    case T::whole: return "a whole number";
    case T::unlimited_whole: return "a whole number or \"unlimited\"";
    case T::time: return "a time, 0 or more";
    case T::timed: return "a time above 0, or \"always\"";
    case T::choice: return "one of a few words";
    case T::colour: return "a colour like \"#7d8597\"";
    case T::formula: return "a formula or a number";
    case T::reference: return "an id";
    case T::references: return "a list of ids";
    case T::amounts: return "a table of stats and numbers";
    case T::growths: return "a table of stats and numbers or formulas";
    case T::quantity: return "a number or a formula";
    case T::pool_quantities: return "a table of pools and numbers or formulas";
    case T::pool_formulas: return "a table of pools and formulas";
    case T::damage_formulas: return "a table of damage types and formulas";
    case T::levels: return "two levels, [first, last]";
    case T::pair: return "two numbers, [low, high]";
    case T::targets: return "\"front\", \"all\" or a whole number";
    case T::worn: return "a table of slots and items";
    case T::counts: return "a table of ids and counts";
    case T::wanted_items: return "a list of items, or a table of what they have in common";
    case T::truth: return "true or false";
    case T::bearer: return "what a bearer has";
    case T::table: return "a table";
    case T::tables: return "a list of tables";
    }
    return "a value";
}

std::span<const KeyRow> key_rows() {
    return table().rows();
}

const KindRow* find_kind(std::string_view name) {
    for (const KindRow& row : kind_rows())
        if (row.name == name) return &row;
    return nullptr;
}

const KeyRow* find_key(std::string_view kind, std::string_view path) {
    return table().find(kind, path);
}

bool is_key_of_worn(std::string_view key) {
    return key == "item" || find_key("loadout", "worn." + std::string(key));
}

bool directly_under(std::string_view path, std::string_view parent) {
    if (parent.empty()) return path.find('.') == std::string_view::npos;
    return path.size() > parent.size() + 1 && path.starts_with(parent) &&
           path[parent.size()] == '.' &&
           path.find('.', parent.size() + 1) == std::string_view::npos;
}

std::string_view last_part(std::string_view path) {
    return path.substr(path.rfind('.') + 1);
}

std::vector<std::string> keys_under(std::string_view kind, std::string_view parent) {
    std::vector<std::string> names;
    for (const KeyRow& row : key_rows())
        if (row.kind == kind && directly_under(row.path, parent))
            names.emplace_back(last_part(row.path));
    return names;
}

std::vector<std::string> kind_names() {
    std::vector<std::string> names;
    for (const KindRow& row : kind_rows()) names.emplace_back(row.name);
    return names;
}

std::string without_places(std::string_view kind, const std::string& path) {
    std::string plain;
    for (const std::string& part : split(path, '.')) {
        const KeyRow* list = is_place(part) ? find_key(kind, plain) : nullptr;
        if (list && list->type == Type::tables) continue;
        plain += (plain.empty() ? "" : ".") + part;
    }
    return plain;
}

std::string with_places(std::string_view kind, const std::string& path) {
    std::string plain;
    std::string full;
    bool in_list = false;
    for (const std::string& part : split(path, '.')) {
        const bool placed = in_list && is_place(part);
        if (in_list && !placed) full += ".1";
        full += (full.empty() ? "" : ".") + part;
        in_list = false;
        if (placed) continue;
        plain += (plain.empty() ? "" : ".") + part;
        const KeyRow* row = find_key(kind, plain);
        in_list = row && row->type == Type::tables;
    }
    return full;
}

std::optional<LocatedKey> locate_key(std::string_view kind, const std::string& path) {
    const std::string plain = without_places(kind, path);
    if (const KeyRow* row = find_key(kind, plain)) return LocatedKey{row, {}};
    const std::size_t dot = plain.rfind('.');
    if (dot == std::string::npos) return std::nullopt;
    const KeyRow* row = find_key(kind, plain.substr(0, dot));
    if (!row || !takes_suffix(row->type)) return std::nullopt;
    return LocatedKey{row, plain.substr(dot + 1)};
}

} // namespace panoplon
