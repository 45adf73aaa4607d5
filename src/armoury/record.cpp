#include "armoury/record.h"

#include "base/text.h"

#include <algorithm>
#include <cassert>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

double number_of(std::string_view text) {
    double number = 0;
    std::from_chars(text.data(), text.data() + text.size(), number);
    return number;
}

} // namespace

const KeyRow& Record::row(std::string_view key) const {
    const std::string path = parent_.empty() ? std::string(key) : parent_ + "." + std::string(key);
    const KeyRow* found = find_key(kind_, path);
    assert(found && "the builder reads a key that is not in the table");
    return *found;
}

const Node* Record::value(std::string_view key) const {
    const Node* node = table_.find(key);
    return node && node->kind != Node::Kind::nothing ? node : nullptr;
}

Span Record::span(std::string_view key) const {
    const Node* node = table_.find(key);
    return node ? node->span : table_.span;
}

std::string Record::text(std::string_view key) const {
    const Node* node = value(key);
    return node ? node->text : std::string(row(key).fallback);
}

double Record::number(std::string_view key) const {
    const Node* node = value(key);
    return node ? node->number : number_of(row(key).fallback);
}

std::int64_t Record::whole_or_unlimited(std::string_view key) const {
    const Node* node = value(key);
    const std::string_view word = node ? std::string_view(node->text) : row(key).fallback;
    if (word == "unlimited") return unlimited;
    return static_cast<std::int64_t>(number(key));
}

Ticks Record::timed(std::string_view key) const {
    const Node* node = value(key);
    if (!node) return row(key).fallback == "always" ? never : 0;
    return node->kind == Node::Kind::text ? never : to_ticks(node->number);
}

int Record::choice(std::string_view key) const {
    const std::vector<std::string> choices = split(row(key).names, '|');
    const auto at = std::find(choices.begin(), choices.end(), text(key));
    assert(at != choices.end());
    return static_cast<int>(at - choices.begin());
}

bool Record::truth(std::string_view key) const {
    const Node* node = value(key);
    return node && node->truth;
}

int Record::targets(std::string_view key) const {
    const Node* node = value(key);
    if (!node || node->text == "front") return 1;
    return node->kind == Node::Kind::text ? all_targets : static_cast<int>(node->number);
}

Formula Record::formula(std::string_view key, const Scope& scope) const {
    const Node* node = value(key);
    if (node) return formula_of(*node, scope);
    const std::string_view fallback = row(key).fallback;
    if (fallback.empty()) return {};
    return parse_formula(fallback, table_.span, scope).formula;
}

Formula Record::formula_of(const Node& node, const Scope& scope) const {
    const std::string text = node.kind == Node::Kind::number ? shortest(node.number) : node.text;
    ParsedFormula parsed = parse_formula(text, node.span, scope);
    const std::string_view line = building_.sources.line(node.span);
    const auto start = static_cast<std::size_t>(std::max(node.span.column - 1, 0));
    const bool quoted = start < line.size() && (line[start] == '"' || line[start] == '\'');
    for (const FormulaMistake& mistake : parsed.mistakes) {
        Span at = node.span;
        at.column += static_cast<std::int32_t>(mistake.offset) + (quoted ? 1 : 0);
        at.length = static_cast<std::int32_t>(mistake.length);
        building_.sink.mistake(at, mistake.message, mistake.hint);
    }
    if (!parsed.mistakes.empty()) return {};
    if (parsed.formula.variables.empty()) {
        const double constant = Evaluator(parsed.formula)({});
        if (std::isnan(constant) || std::isinf(constant)) {
            building_.sink.mistake(
                node.span, fmt::format("the formula '{}' gives {}", text, shortest(constant)),
                "does it divide by zero?");
            return {};
        }
    }
    return parsed.formula;
}

Quantity Record::quantity(std::string_view key, const Scope& scope) const {
    const Node* node = value(key);
    return node ? quantity_of(*node, scope) : Quantity(number_of(row(key).fallback));
}

Quantity Record::quantity_of(const Node& node, const Scope& scope) const {
    if (node.kind == Node::Kind::number) return node.number;
    return Quantity(formula_of(node, scope));
}

std::vector<std::string> Record::texts(std::string_view key) const {
    std::vector<std::string> list;
    if (const Node* node = value(key))
        for (const Node& item : node->items) list.push_back(item.text);
    return list;
}

LevelRange Record::levels(std::string_view key, LevelRange otherwise) const {
    if (!value(key)) return otherwise;
    const auto [first, last] = two(key);
    return {static_cast<int>(first), static_cast<int>(last)};
}

std::pair<double, double> Record::two(std::string_view key) const {
    const Node* node = value(key);
    if (!node) return {};
    return {node->items[0].number, node->items[1].number};
}

std::vector<Growth> Record::growths(std::string_view key) const {
    std::vector<Growth> list;
    const Node* node = value(key);
    if (!node) return list;
    const Scope scope{{}, {}, {}, false, false, false, false};
    for (const Entry& entry : node->entries) {
        Growth growth;
        growth.stat = named<StatId>("stat", entry.key);
        if (entry.value.kind == Node::Kind::text)
            growth.formula = formula_of(entry.value, scope);
        else
            growth.per_level = entry.value.number;
        list.push_back(std::move(growth));
    }
    return list;
}

std::vector<Amount> Record::amounts(std::string_view key) const {
    std::vector<Amount> list;
    for (const auto& [stat, amount] : numbers_by<StatId>("stat", key))
        list.push_back({stat, amount});
    std::sort(list.begin(), list.end(),
              [](const Amount& a, const Amount& b) { return a.stat < b.stat; });
    return list;
}

Modifiers Record::modifiers() const {
    return {amounts("add"), amounts("percent"), amounts("times")};
}

Record Record::table(std::string_view key) const {
    const Node* node = value(key);
    assert(node);
    return {building_, kind_, *node, std::string(row(key).path)};
}

std::vector<Record> Record::tables(std::string_view key) const {
    std::vector<Record> list;
    if (const Node* node = value(key))
        for (const Node& item : node->items)
            list.emplace_back(building_, kind_, item, std::string(row(key).path));
    return list;
}

} // namespace panoplon
