// What holds several: lists, tables of names, and what is worn.
#include "armoury/checker.h"

#include "armoury/cells.h"
#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

Node list_of(Node item) {
    Node list;
    list.kind = Node::Kind::list;
    list.span = item.span;
    list.items.push_back(std::move(item));
    return list;
}

} // namespace

bool Checker::check_list(Node& value, const KeyRow& row) {
    if (value.kind == Node::Kind::text) value = list_of(std::move(value)); // one is a list of one
    if (value.kind != Node::Kind::list) return wrong_type(value, row);
    std::vector<Node> sound;
    for (Node& item : value.items) {
        if (item.kind != Node::Kind::text) {
            wrong_type(item, row);
        } else if (row.names.empty() || check_name(item.text, item.span, row.names)) {
            sound.push_back(std::move(item));
        }
    }
    value.items = std::move(sound);
    return true;
}

bool Checker::check_two(const Node& value, const KeyRow& row) {
    if (value.kind != Node::Kind::list || value.items.size() != 2) return wrong_type(value, row);
    for (const Node& end : value.items)
        if (!(row.type == Type::levels ? check_whole(end, row) : check_number(end, row)))
            return false;
    if (value.items[0].number <= value.items[1].number) return true;
    sink_.mistake(value.span,
                  fmt::format("'{}' runs from {} down to {}", row.path,
                              shortest(value.items[0].number), shortest(value.items[1].number)),
                  fmt::format("write [{}, {}]", shortest(value.items[1].number),
                              shortest(value.items[0].number)));
    return false;
}

bool Checker::check_tables(Node& value, const KeyRow& row) {
    if (value.kind != Node::Kind::list) return wrong_type(value, row);
    for (Node& item : value.items) {
        if (item.kind != Node::Kind::table) return wrong_type(item, row);
        check_table(item, std::string(row.path), item.span);
    }
    return true;
}

bool Checker::check_named(Node& value, const KeyRow& row, std::string_view kind) {
    if (value.kind != Node::Kind::table) return wrong_type(value, row);
    std::vector<Entry> sound;
    for (Entry& entry : value.entries) {
        if (!check_name(entry.key, entry.key_span, kind)) continue;
        const bool formula = row.type == Type::pool_formulas || row.type == Type::damage_formulas ||
                             (row.type == Type::growths && entry.value.kind == Node::Kind::text);
        const bool right =
            formula && entry.value.kind == Node::Kind::text ? true
            : row.type == Type::counts                      ? check_whole(entry.value, row)
            : row.type == Type::pool_quantities             ? check_quantity(entry.value, row)
            : formula ? entry.value.kind == Node::Kind::number || wrong_type(entry.value, row)
                      : check_number(entry.value, row);
        if (!right) continue;
        if (formula && row.type != Type::growths) tidy_formula(entry.value);
        sound.push_back(std::move(entry));
    }
    value.entries = std::move(sound);
    return true;
}

bool Checker::check_wanted(Node& value, const KeyRow& row) {
    if (value.kind == Node::Kind::list) return check_list(value, row);
    if (value.kind != Node::Kind::table) return wrong_type(value, row);
    check_table(value, std::string(row.path), value.span);
    return true;
}

bool Checker::check_worn(Node& value, const KeyRow& row) {
    if (value.kind != Node::Kind::table) return wrong_type(value, row);
    check_slots(value.entries, row);
    return true;
}

/// Slots (or sockets), each with an item or a list of items; afterwards each holds a list of tables
/// with `item`.
void Checker::check_slots(std::vector<Entry>& entries, const KeyRow& row) {
    std::vector<Entry> sound;
    for (Entry& entry : entries) {
        if (!check_name(entry.key, entry.key_span, "slot")) continue;
        if (entry.value.kind != Node::Kind::list) entry.value = list_of(std::move(entry.value));
        std::vector<Node> items;
        for (Node& item : entry.value.items)
            if (check_worn_item(item, row)) items.push_back(std::move(item));
        entry.value.items = std::move(items);
        sound.push_back(std::move(entry));
    }
    entries = std::move(sound);
}

bool Checker::check_worn_item(Node& value, const KeyRow& row) {
    if (value.kind == Node::Kind::text) {
        Node table;
        table.kind = Node::Kind::table;
        table.span = value.span;
        const Span span = value.span;
        table.entries.push_back({"item", span, std::move(value), {}});
        value = std::move(table);
    }
    if (value.kind != Node::Kind::table) return wrong_type(value, row);
    const auto at = std::find_if(value.entries.begin(), value.entries.end(),
                                 [](const Entry& entry) { return entry.key == "item"; });
    if (at == value.entries.end()) {
        sink_.mistake(value.span, fmt::format("'{}' has a table without an 'item'", row.path),
                      "as in { item = \"reed_coat\", inlay = [\"amber_bead\"] }");
        return false;
    }
    if (at->value.kind != Node::Kind::text) return wrong_type(at->value, row);
    if (!check_name(at->value.text, at->value.span, "item")) return false;
    const auto slots =
        std::stable_partition(value.entries.begin(), value.entries.end(),
                              [](const Entry& entry) { return is_key_of_worn(entry.key); });
    std::vector<Entry> sockets(std::make_move_iterator(slots),
                               std::make_move_iterator(value.entries.end()));
    value.entries.erase(slots, value.entries.end());
    std::erase_if(value.entries, [&](Entry& entry) {
        return entry.key != "item" &&
               !check_value(entry.value, *find_key(kind_, fmt::format("worn.{}", entry.key)));
    });
    check_slots(sockets, row);
    std::move(sockets.begin(), sockets.end(), std::back_inserter(value.entries));
    return true;
}

} // namespace panoplon
