#include "armoury/checker.h"

#include "armoury/cells.h"
#include "base/text.h"
#include "model/units.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

const char* kind_words(const Node& value) {
    switch (value.kind) {
    case Node::Kind::number: return "a number";
    case Node::Kind::text: return "a text";
    case Node::Kind::truth: return "true or false";
    case Node::Kind::list: return "a list";
    case Node::Kind::table: return "a table";
    case Node::Kind::date: return "a date";
    case Node::Kind::nothing: break;
    }
    return "nothing";
}

std::string found(const Node& value) {
    if (value.kind == Node::Kind::text) return fmt::format("'{}'", value.text);
    if (value.kind == Node::Kind::number) return shortest(value.number);
    return kind_words(value);
}

/// Bounds that nobody meets by design are told only to who goes past them.
std::string bounds_words(const KeyRow& row, double number) {
    constexpr double as_good_as_endless = 1e9;
    if (std::abs(number) < as_good_as_endless && row.high >= as_good_as_endless)
        return row.low <= -as_good_as_endless ? "any finite number"
                                              : fmt::format("{} or more", shortest(row.low));
    return fmt::format("{} to {}", shortest(row.low), shortest(row.high));
}

std::string path_of(const std::string& parent, const std::string& key) {
    return parent.empty() ? key : parent + "." + key;
}

} // namespace

std::int32_t parse_colour(std::string_view text) {
    if (text.size() != 7 || text.front() != '#') return -1;
    std::int32_t value = 0;
    const auto [end, error] =
        std::from_chars(text.data() + 1, text.data() + text.size(), value, 16);
    return error == std::errc() && end == text.data() + text.size() && value >= 0 ? value : -1;
}

void Checker::check(RawDefinition& definition) {
    kind_ = definition.kind;
    check_table(definition.body, "", definition.span);
}

void Checker::check_table(Node& table, const std::string& parent, const Span& at) {
    for (Entry& entry : table.entries) check_entry(entry, parent);
    for (const KeyRow& row : key_rows()) {
        if (!row.required || row.kind != kind_ || !directly_under(row.path, parent)) continue;
        const std::string_view key = last_part(row.path);
        if (table.find_entry(key)) continue;
        sink_.mistake(
            at, fmt::format("{} has no '{}', which it needs", parent.empty() ? kind_ : parent, key),
            fmt::format("{}: {}, {}", key, type_words(row.type), row.meaning));
    }
}

void Checker::check_entry(Entry& entry, const std::string& parent) {
    if (entry.value.kind == Node::Kind::nothing) return; // taken out already
    const KeyRow* row = find_key(kind_, path_of(parent, entry.key));
    if (!row) {
        unknown_key(entry, parent);
        entry.value.kind = Node::Kind::nothing;
    } else if (!check_value(entry.value, *row)) {
        entry.value.kind = Node::Kind::nothing;
    }
}

void Checker::unknown_key(const Entry& entry, const std::string& parent) {
    const std::vector<std::string> known = keys_under(kind_, parent);
    const bool stat =
        parent.empty() && names_.find("stat", entry.key) >= 0 && find_key(kind_, "add");
    const auto near = nearest_name(entry.key, known);
    std::string hint;
    if (stat)
        hint = fmt::format("{0} is a stat: add = {{ {0} = … }}", entry.key);
    else if (!near)
        hint = "keys: " + join(known, ", ");
    sink_.mistake(entry.key_span,
                  fmt::format("unknown key '{}' in {}{}", entry.key,
                              parent.empty() ? kind_ : parent,
                              near && !stat ? fmt::format("; did you mean '{}'?", *near) : ""),
                  std::move(hint));
}

bool Checker::wrong_type(const Node& value, const KeyRow& row) {
    sink_.mistake(value.span, fmt::format("'{}' is {}; here stands {}", row.path,
                                          type_words(row.type), found(value)));
    return false;
}

bool Checker::check_number(const Node& value, const KeyRow& row) {
    if (value.kind != Node::Kind::number) {
        const bool comma =
            value.kind == Node::Kind::text && value.text.find(',') != std::string::npos;
        if (!comma) return wrong_type(value, row);
        sink_.mistake(
            value.span,
            fmt::format("'{}' is {}; here stands {}", row.path, type_words(row.type), found(value)),
            "write the decimals after a point");
        return false;
    }
    if (std::isnan(value.number) || std::isinf(value.number)) {
        sink_.mistake(
            value.span,
            fmt::format("'{}' is {}, which is no amount", row.path, shortest(value.number)),
            "allowed: " + bounds_words(row, 0));
        return false;
    }
    if (value.number < row.low || value.number > row.high) {
        sink_.mistake(value.span,
                      fmt::format("'{}' is {}; allowed: {}", row.path, shortest(value.number),
                                  bounds_words(row, value.number)));
        return false;
    }
    const bool in_thousandths =
        row.unit == "weight" && row.type == Type::number && row.path == "weight";
    if (in_thousandths && std::abs(value.number * 1000 - std::round(value.number * 1000)) > 1e-6) {
        sink_.mistake(value.span,
                      fmt::format("'{}' is {}; weights are whole thousandths", row.path,
                                  shortest(value.number)),
                      fmt::format("write {}", rounded(value.number, 3)));
        return false;
    }
    return true;
}

bool Checker::check_quantity(Node& value, const KeyRow& row) {
    if (value.kind == Node::Kind::text) {
        const auto number = plain_number(value.text);
        if (!number) return true; // its names are looked at when it is built
        value.kind = Node::Kind::number;
        value.number = *number;
        value.text.clear();
    }
    return check_number(value, row);
}

bool Checker::check_whole(const Node& value, const KeyRow& row) {
    if (!check_number(value, row)) return false;
    if (value.number == std::floor(value.number)) return true;
    sink_.mistake(value.span, fmt::format("'{}' is {}; it is a whole number", row.path,
                                          shortest(value.number)));
    return false;
}

/// A text that is `word`, where a number is the other possibility.
bool Checker::check_word(const Node& value, const KeyRow& row, std::string_view word) {
    if (value.kind != Node::Kind::text) return false;
    if (value.text == word) return true;
    wrong_type(value, row);
    return false;
}

bool Checker::check_choice(const Node& value, const KeyRow& row) {
    if (value.kind != Node::Kind::text) return wrong_type(value, row);
    const std::vector<std::string> choices = split(row.names, '|');
    if (std::find(choices.begin(), choices.end(), value.text) != choices.end()) return true;
    const auto near = nearest_name(value.text, choices);
    sink_.mistake(value.span,
                  fmt::format("'{}' is '{}'{}", row.path, value.text,
                              near ? fmt::format("; did you mean '{}'?", *near) : ""),
                  "allowed: " + join(choices, ", "));
    return false;
}

bool Checker::check_text(const Node& value, const KeyRow& row) {
    if (value.kind != Node::Kind::text) return wrong_type(value, row);
    if (row.type != Type::colour || parse_colour(value.text) >= 0) return true;
    return wrong_type(value, row);
}

bool Checker::check_name(const std::string& id, const Span& span, std::string_view kind) {
    if (names_.find(kind, id) >= 0) return true;
    if (!names_whole_) return false;
    const std::vector<std::string>& known = names_.all(kind);
    const auto near = nearest_name(id, known);
    std::string hint;
    if (known.empty() && find_kind(kind))
        hint = fmt::format("there is no {} at all yet: [{}.{}]", kind, kind, is_id(id) ? id : "ID");
    else if (known.empty())
        hint = fmt::format("nothing has a {} yet", kind);
    else if (!near && known.size() <= 30)
        hint = fmt::format("there is: {}", join(known, ", "));
    sink_.mistake(span,
                  fmt::format("unknown {} '{}'{}", kind, id,
                              near ? fmt::format("; did you mean '{}'?", *near) : ""),
                  std::move(hint));
    return false;
}

bool Checker::check_value(Node& value, const KeyRow& row) {
    const bool number = value.kind == Node::Kind::number;
    switch (row.type) {
    case Type::text:
    case Type::id_name:
    case Type::colour: return check_text(value, row);
    case Type::number:
    case Type::time: return check_number(value, row);
    case Type::whole: return check_whole(value, row);
    case Type::unlimited_whole:
        return value.kind == Node::Kind::text ? check_word(value, row, "unlimited")
                                              : check_whole(value, row);
    case Type::timed:
        if (value.kind == Node::Kind::text) return check_word(value, row, "always");
        if (!check_number(value, row)) return false;
        if (value.number > 0) return true;
        sink_.mistake(value.span, fmt::format("'{}' is 0: the effect would never act", row.path),
                      "write how long it lasts, or \"always\" for one that does not end (M22)");
        return false;
    case Type::choice: return check_choice(value, row);
    case Type::formula:
        if (!number && value.kind != Node::Kind::text) return wrong_type(value, row);
        tidy_formula(value);
        return true;
    case Type::reference:
        return value.kind == Node::Kind::text ? check_name(value.text, value.span, row.names)
                                              : wrong_type(value, row);
    case Type::texts:
    case Type::references: return check_list(value, row);
    case Type::amounts:
    case Type::growths: return check_named(value, row, "stat");
    case Type::quantity: return check_quantity(value, row);
    case Type::pool_quantities:
    case Type::pool_formulas: return check_named(value, row, "pool");
    case Type::damage_formulas: return check_named(value, row, "damage");
    case Type::counts: return check_named(value, row, row.names);
    case Type::wanted_items: return check_wanted(value, row);
    case Type::truth: return value.kind == Node::Kind::truth || wrong_type(value, row);
    case Type::bearer: return false; // not a key by itself
    case Type::levels:
    case Type::pair: return check_two(value, row);
    case Type::targets:
        if (number) return check_whole(value, row);
        return (value.kind == Node::Kind::text && (value.text == "front" || value.text == "all")) ||
               wrong_type(value, row);
    case Type::worn: return check_worn(value, row);
    case Type::table:
        if (value.kind != Node::Kind::table) return wrong_type(value, row);
        check_table(value, std::string(row.path), value.span);
        return true;
    case Type::tables: return check_tables(value, row);
    }
    return false;
}

} // namespace panoplon
