#include "armoury/cells.h"

#include "base/text.h"

#include <algorithm>
#include <charconv>
#include <csv.h>

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

bool is_list(Type type) {
    return type == Type::texts || type == Type::references || type == Type::wanted_items ||
           is_pair(type);
}

bool never_number(Type type) {
    return type == Type::text || type == Type::id_name || type == Type::colour ||
           type == Type::reference || type == Type::choice;
}

Node list_node(const RawTable::Cell& cell, Type type) {
    Node node;
    node.kind = Node::Kind::list;
    node.span = cell.span;
    for (const std::string& part : split(cell.text, ';')) {
        const RawTable::Cell inner{std::string(trim(part)), cell.span};
        node.items.push_back(is_pair(type) ? cell_node(inner, Type::number, false)
                                           : text_node(inner.text, cell.span));
    }
    return node;
}

bool is_formula(Type type) {
    return type == Type::formula || type == Type::pool_formulas || type == Type::damage_formulas;
}

std::optional<double> number_in(const std::string& text) {
    double number = 0;
    const char* end = text.data() + text.size();
    const auto [stopped, error] = std::from_chars(text.data(), end, number);
    if (error != std::errc() || stopped != end) return std::nullopt;
    return number;
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

Node cell_node(const RawTable::Cell& cell, Type type, bool has_suffix) {
    if (is_list(type)) return list_node(cell, type);
    if (!has_suffix && never_number(type)) return text_node(cell.text, cell.span);
    Node node;
    node.span = cell.span;
    if (type == Type::truth && (cell.text == "true" || cell.text == "false")) {
        node.kind = Node::Kind::truth;
        node.truth = cell.text == "true";
        return node;
    }
    const auto number = number_in(cell.text);
    if (!number) return text_node(cell.text, cell.span);
    node.kind = Node::Kind::number;
    node.number = *number;
    return node;
}

void tidy_formula(Node& value) {
    const auto number = value.kind == Node::Kind::number ? std::optional(value.number)
                        : value.kind == Node::Kind::text ? number_in(value.text)
                                                         : std::nullopt;
    if (!number) return;
    value.kind = Node::Kind::text;
    value.text = shortest(*number);
    value.number = 0;
}

std::optional<std::string> cell_text(const Node& value, Type type, bool has_suffix) {
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
    Node back = cell_node(cell, type, has_suffix);
    if (is_formula(type)) tidy_formula(back);
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
           (quotes > 0 || !number_in(std::string(rest)));
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
