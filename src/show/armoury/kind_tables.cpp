#include "base/text.h"
#include "show/armoury/show_export.h"

#include <algorithm>
#include <map>

namespace panoplon {

namespace {

using Cells = std::map<std::string, Cell>; ///< by column

Cell cell_of(const Json& value) {
    if (value.is_string()) return value.get<std::string>();
    if (value.is_boolean()) return value.get<bool>();
    if (value.is_number_integer()) return value.get<std::int64_t>();
    if (value.is_number()) return value.get<double>();
    if (value.is_null()) return {};
    return value.dump(-1, ' ', false, Json::error_handler_t::replace);
}

void flatten(const Json& value, const std::string& path, Cells& cells,
             std::vector<Column>& columns) {
    if (value.is_object()) {
        for (const auto& [key, inner] : value.items())
            flatten(inner, path.empty() ? key : path + "." + key, cells, columns);
        return;
    }
    if (std::none_of(columns.begin(), columns.end(),
                     [&](const Column& column) { return column.key == path; }))
        columns.push_back(as::text(path));
    cells[path] = cell_of(value);
}

/// Definitions of one kind; the only one of its kind has no id.
Table kind_table(const std::string& kind, const Json& definitions) {
    const bool single = std::any_of(definitions.begin(), definitions.end(),
                                    [](const Json& one) { return !one.is_object(); });
    Table table{kind, {}, {}};
    std::vector<Cells> rows;
    if (single) {
        flatten(definitions, "", rows.emplace_back(), table.columns);
    } else {
        table.columns.push_back(as::text("id"));
        for (const auto& [id, definition] : definitions.items()) {
            rows.push_back({{"id", id}});
            flatten(definition, "", rows.back(), table.columns);
        }
    }
    for (Cells& cells : rows) {
        std::vector<Cell> row;
        for (const Column& column : table.columns) row.push_back(std::move(cells[column.key]));
        table.row(std::move(row));
    }
    return table;
}

} // namespace

std::vector<Table> kind_tables(const Json& resolved) {
    std::vector<Table> tables;
    for (const auto& [kind, definitions] : resolved.items())
        if (definitions.is_object() && !definitions.empty())
            tables.push_back(kind_table(kind, definitions));
    return tables;
}

} // namespace panoplon
