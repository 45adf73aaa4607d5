#include "armoury/cells.h"
#include "armoury/table_layout.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr std::size_t most_columns = 1000;

struct Column {
    std::vector<std::string> path; ///< empty: the column is left out
    std::string plain;             ///< the path without the places in lists
    const KeyRow* row = nullptr;
    bool has_suffix = false;
    std::string kind;
};

/// How the key of a header is written, as `add.guard`: as it stands, or as a plain word; with
/// `add.` where it is a stat's id, or its name.
std::string path_of_header(const std::string& header, const std::string& kind,
                           const TableNames& names) {
    const auto path_of = [&](const std::string& text) {
        const bool bare_stat =
            std::find(names.stats.begin(), names.stats.end(), text) != names.stats.end();
        return bare_stat && !find_key(kind, text) && find_key(kind, "add") ? "add." + text : text;
    };
    const std::string as_written = path_of(header);
    if (locate_key(kind, as_written)) return as_written;
    const std::string plain = path_of(plain_word(header));
    if (locate_key(kind, plain)) return plain;
    for (const auto& [name, id] : names.stat_names)
        if (name == plain_word(header)) return path_of(id);
    return plain;
}

bool is_left_out(const std::string& header, const TableNames& names) {
    return header.empty() || header.starts_with('#') ||
           std::any_of(names.ignored.begin(), names.ignored.end(), [&](const std::string& one) {
               return plain_word(one) == plain_word(header);
           });
}

Column understand_header(const RawTable::Cell& header, const std::string& kind,
                         const TableNames& names, Sink& sink) {
    if (is_left_out(header.text, names)) return {};
    const std::string path = path_of_header(header.text, kind, names);
    const auto located = locate_key(kind, path);
    if (!located && !names.all_known) return {};
    if (!located) {
        std::vector<std::string> known = keys_under(kind, "");
        known.insert(known.end(), names.stats.begin(), names.stats.end());
        const auto near = nearest_name(plain_word(header.text), known);
        sink.mistake(header.span,
                     fmt::format("unknown header '{}' in a table of {}s{}", header.text, kind,
                                 near ? fmt::format("; did you mean '{}'?", *near) : ""),
                     near ? ""
                          : "headers: " + join(known, ", ") +
                                "; to leave the column out, begin its header with #, or list "
                                "it under ignore in [armoury]");
        return {};
    }
    if (const std::string placed = with_places(kind, path); placed != path) {
        sink.mistake(header.span, fmt::format("'{}' is in a list, and names no place in it", path),
                     fmt::format("the first is {}", placed));
        return {};
    }
    const Type type = located->row->type;
    const bool needs_more =
        located->suffix.empty() && type != Type::text && locate_key(kind, path + ".x");
    if (needs_more || type == Type::tables || type == Type::table || type == Type::worn) {
        sink.mistake(header.span,
                     fmt::format("'{}' is {}: a cell can't hold it", path, type_words(type)),
                     needs_more             ? fmt::format("name one of them: {}.NAME", path)
                     : type == Type::tables ? fmt::format("name a key of one: {}.1.KEY", path)
                     : type == Type::table  ? fmt::format("name a key of it: {}.KEY", path)
                                            : "write it in a .toml file");
        return {};
    }
    return {split(path, '.'), without_places(kind, path), located->row, !located->suffix.empty(),
            kind};
}

Node& inner_node(Node& table, const std::string& key, Node::Kind kind, const Span& span) {
    for (Entry& entry : table.entries)
        if (entry.key == key) return entry.value;
    Node inner;
    inner.kind = kind;
    inner.span = span;
    table.entries.push_back({key, span, std::move(inner), {}});
    return table.entries.back().value;
}

/// The table at a place, from 1, of a list of tables; places that no cell fills go again later.
Node& place_in(Node& list, std::size_t place, const Span& span) {
    while (list.items.size() < place) {
        Node table;
        table.kind = Node::Kind::table;
        table.span = span;
        list.items.push_back(std::move(table));
    }
    return list.items[place - 1];
}

void place_cell(Node& body, const Column& column, Node value) {
    Node* table = &body;
    std::string plain;
    for (std::size_t i = 0; i + 1 < column.path.size(); ++i) {
        plain += (plain.empty() ? "" : ".") + column.path[i];
        const KeyRow* row = find_key(column.kind, plain);
        const bool list = row && row->type == Type::tables;
        Node& inner = inner_node(*table, column.path[i],
                                 list ? Node::Kind::list : Node::Kind::table, value.span);
        table = list ? &place_in(inner, std::stoul(column.path[++i]), value.span) : &inner;
    }
    const Span span = value.span;
    table->entries.push_back({column.path.back(), span, std::move(value), {}});
}

/// A row may fill fewer places of a list than the headers name.
void drop_empty_places(Node& body) {
    for (Entry& entry : body.entries)
        std::erase_if(entry.value.items, [](const Node& item) {
            return item.kind == Node::Kind::table && item.entries.empty();
        });
}

/// Whether some number of the table has a decimal comma for certain.
bool has_decimal_commas(const RawTable& table, const std::vector<Column>& columns) {
    for (const auto& row : table.rows)
        for (std::size_t i = 1; i < row.size() && i <= columns.size(); ++i) {
            const Column& column = columns[i - 1];
            if (column.row && holds_numbers(column.row->type, column.has_suffix) &&
                is_decimal_comma(row[i].text))
                return true;
        }
    return false;
}

/// One row, cell by cell.
Node body_of(const RawTable& table, const std::vector<RawTable::Cell>& row,
             const std::vector<Column>& columns, bool decimal_commas, Sink& sink) {
    Node body;
    body.kind = Node::Kind::table;
    body.span = row.front().span;
    for (std::size_t i = 1; i < row.size(); ++i) {
        if (row[i].text.empty()) continue;
        if (i > columns.size()) {
            sink.mistake(row[i].span,
                         fmt::format("the cell '{}' has no header above it", row[i].text));
            continue;
        }
        const Column& column = columns[i - 1];
        if (column.path.empty()) continue;
        Node value = cell_node(row[i], *column.row, column.has_suffix, decimal_commas, sink);
        if (value.given()) place_cell(body, column, std::move(value));
    }
    if (const auto named = table.names.find(row.front().text); named != table.names.end()) {
        Node name;
        name.kind = Node::Kind::text;
        name.text = named->second.text;
        name.span = named->second.span;
        body.entries.push_back({"name", name.span, std::move(name), {}});
    }
    drop_empty_places(body);
    return body;
}

} // namespace

std::optional<std::string> key_of_header(const std::string& header, const std::string& kind,
                                         const TableNames& names) {
    if (is_left_out(header, names)) return std::nullopt;
    std::string path = path_of_header(header, kind, names);
    if (!locate_key(kind, path)) return std::nullopt;
    return path;
}

void understand_table(const RawTable& table, const TableNames& names,
                      std::vector<RawDefinition>& into, Sink& sink) {
    std::vector<Column> columns;
    if (table.headers.size() > most_columns) {
        sink.mistake(table.headers[most_columns].span,
                     fmt::format("a table of {} columns; at most {} are read",
                                 table.headers.size() + 1, most_columns));
        return;
    }
    for (const RawTable::Cell& header : table.headers) {
        Column column = understand_header(header, table.kind, names, sink);
        for (const Column& earlier : columns)
            if (!column.path.empty() && column.path == earlier.path)
                sink.mistake(header.span, fmt::format("the header '{}' stands twice", header.text));
        columns.push_back(std::move(column));
    }
    const bool decimal_commas = has_decimal_commas(table, columns);
    for (const auto& row : table.rows) {
        const RawTable::Cell& id = row.front();
        if (!is_id(id.text)) {
            sink.mistake(id.span,
                         id.text.empty() ? "a row without an id"
                                         : fmt::format("'{}' is not an id", id.text),
                         id_words);
            continue;
        }
        into.push_back(
            {table.kind, id.text, id.span, body_of(table, row, columns, decimal_commas, sink)});
    }
}

} // namespace panoplon
