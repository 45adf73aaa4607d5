#include "armoury/cells.h"
#include "armoury/table_layout.h"

#include "base/text.h"

#include <algorithm>
#include <csv.h>
#include <fmt/format.h>

namespace panoplon {

namespace {

Node text_node(std::string text, const Span& span) {
    Node node;
    node.kind = Node::Kind::text;
    node.text = std::move(text);
    node.span = span;
    return node;
}

bool is_pair(Type type) {
    return type == Type::levels || type == Type::pair;
}

bool never_number(Type type) {
    return type == Type::text || type == Type::id_name || type == Type::colour ||
           type == Type::reference || type == Type::choice;
}

bool is_formula(Type type) {
    return type == Type::formula || type == Type::pool_formulas || type == Type::damage_formulas;
}

/// What a percentage is in the unit of a key: percent points are as they stand, shares and factors
/// a hundredth of it. None where a percentage says nothing.
std::optional<double> of_percentage(const KeyRow& row, double percentage) {
    if (row.unit == "percent points") return percentage;
    for (const std::string_view unit : {"share", "chance", "factor", "load"})
        if (row.unit == unit) return percentage / 100;
    return std::nullopt;
}

/// A cell that says that there is nothing.
bool says_nothing(const std::string& text) {
    const std::string word = plain_word(text);
    return word == "n/a" || word == "-" || word == "\xe2\x80\x93" || word == "\xe2\x80\x94";
}

/// The word that is meant, in whatever case and with spaces it is written; as it stands where it is
/// none.
std::string meant_word(const std::string& text, const KeyRow& row) {
    const std::string word = plain_word(text);
    switch (row.type) {
    case Type::reference:
    case Type::references:
    case Type::wanted_items: return is_id(text) ? text : id_from_name(text).value_or(text);
    case Type::choice:
        for (const std::string& choice : split(row.names, '|'))
            if (plain_word(choice) == word) return choice;
        return text;
    case Type::unlimited_whole: return word == "unlimited" ? word : text;
    case Type::timed: return word == "always" ? word : text;
    case Type::targets: return word == "front" || word == "all" ? word : text;
    default: return text;
    }
}

/// The number of a cell; its text where it is none, and nothing where it could be two.
Node number_node(const RawTable::Cell& cell, const KeyRow& row, bool decimal_commas, Sink& sink) {
    const CellNumber number = number_of_cell(cell.text, decimal_commas);
    if (!number.value) return text_node(meant_word(cell.text, row), cell.span);
    if (number.other) {
        sink.mistake(
            cell.span,
            fmt::format("'{}' can be {} or {}", cell.text, shortest(*number.value),
                        shortest(*number.other)),
            fmt::format("write {} or {}", shortest(*number.value), shortest(*number.other)));
        return {};
    }
    const auto value = number.percentage ? of_percentage(row, *number.value) : number.value;
    if (!value) {
        sink.mistake(cell.span,
                     fmt::format("'{}' is a percentage, and '{}' is in {}", cell.text, row.path,
                                 row.unit.empty() ? "plain numbers" : row.unit),
                     "write the number itself");
        return {};
    }
    Node node;
    node.kind = Node::Kind::number;
    node.number = *value;
    node.span = cell.span;
    return node;
}

Node list_node(const RawTable::Cell& cell, const KeyRow& row, bool decimal_commas, Sink& sink) {
    Node node;
    node.kind = Node::Kind::list;
    node.span = cell.span;
    for (const std::string& part : split(cell.text, ';')) {
        const RawTable::Cell inner{std::string(trim(part)), cell.span};
        node.items.push_back(is_pair(row.type) ? number_node(inner, row, decimal_commas, sink)
                                               : text_node(meant_word(inner.text, row), cell.span));
    }
    return node;
}

std::optional<std::string> plain_text(const Node& value) {
    switch (value.kind) {
    case Node::Kind::number: return shortest(value.number);
    case Node::Kind::text: return value.text;
    case Node::Kind::truth: return value.truth ? "true" : "false";
    default: return std::nullopt;
    }
}

} // namespace

bool holds_list(Type type) {
    return type == Type::texts || type == Type::references || type == Type::wanted_items ||
           is_pair(type);
}

bool holds_numbers(Type type, bool has_suffix) {
    return type != Type::truth && type != Type::texts && type != Type::references &&
           type != Type::wanted_items && (has_suffix || !never_number(type));
}

Node cell_node(const RawTable::Cell& cell, const KeyRow& row, bool has_suffix, bool decimal_commas,
               Sink& sink) {
    if (row.type != Type::text && says_nothing(cell.text)) return {};
    if (holds_list(row.type)) return list_node(cell, row, decimal_commas, sink);
    if (!has_suffix && never_number(row.type))
        return text_node(meant_word(cell.text, row), cell.span);
    if (row.type != Type::truth) return number_node(cell, row, decimal_commas, sink);
    const std::string word = plain_word(cell.text);
    if (word != "true" && word != "false" && word != "yes" && word != "no")
        return text_node(cell.text, cell.span);
    Node node;
    node.span = cell.span;
    node.kind = Node::Kind::truth;
    node.truth = word == "true" || word == "yes";
    return node;
}

void tidy_formula(Node& value) {
    const auto number = value.kind == Node::Kind::number ? std::optional(value.number)
                        : value.kind == Node::Kind::text ? plain_number(value.text)
                                                         : std::nullopt;
    if (!number) return;
    value.kind = Node::Kind::text;
    value.text = shortest(*number);
    value.number = 0;
}

std::optional<std::string> cell_text(const Node& value, const KeyRow& row, bool has_suffix) {
    std::optional<std::string> text;
    if (value.kind == Node::Kind::list) {
        std::vector<std::string> parts;
        for (const Node& item : value.items) {
            const auto part = plain_text(item);
            if (!part) return std::nullopt;
            parts.push_back(*part);
        }
        text = join(parts, ";");
    } else {
        text = plain_text(value);
    }
    if (!text || text->empty()) return std::nullopt;
    const RawTable::Cell cell{std::string(trim(*text)), value.span};
    Sink sink;
    Node back = cell_node(cell, row, has_suffix, false, sink);
    if (is_formula(row.type)) tidy_formula(back);
    if (!same_value(back, value)) return std::nullopt;
    return text;
}

namespace {

constexpr std::string_view begins_formulas = "=+-@";

/// A text that a spreadsheet would take for a formula, or one that is guarded already.
bool wants_guard(std::string_view text) {
    const std::size_t quotes = std::min(text.find_first_not_of('\''), text.size());
    const std::string_view rest = text.substr(quotes);
    return !rest.empty() && begins_formulas.find(rest.front()) != std::string_view::npos &&
           (quotes > 0 || !plain_number(rest));
}

} // namespace

std::string unguarded(const std::string& cell) {
    return cell.starts_with('\'') && wants_guard(cell) ? cell.substr(1) : cell;
}

std::string csv_cell(const std::string& content) {
    const std::string text = wants_guard(content) ? "'" + content : content;
    if (text.find_first_of(",\"\r\n") == std::string::npos) return text;
    std::string quoted(csv_write(nullptr, 0, text.data(), text.size()), '\0');
    csv_write(quoted.data(), quoted.size(), text.data(), text.size());
    return quoted;
}

bool same_value(const Node& a, const Node& b) {
    return a.kind == b.kind && a.number == b.number && a.truth == b.truth && a.text == b.text &&
           std::equal(a.items.begin(), a.items.end(), b.items.begin(), b.items.end(), same_value) &&
           std::equal(a.entries.begin(), a.entries.end(), b.entries.begin(), b.entries.end(),
                      [](const Entry& x, const Entry& y) {
                          return x.key == y.key && same_value(x.value, y.value);
                      });
}

} // namespace panoplon
