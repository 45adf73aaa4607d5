#include "base/text.h"
#include "show/armoury/show_export.h"

#include <algorithm>
#include <map>

namespace panoplon {

namespace {

using Cells = std::map<std::string, std::string>; ///< by column

std::string cell_of(const Json& value) {
    if (value.is_string()) return value.get<std::string>();
    if (value.is_number_float()) return shortest(value.get<double>());
    if (value.is_null()) return {};
    return value.dump(-1, ' ', false, Json::error_handler_t::replace);
}

void flatten(const Json& value, const std::string& path, Cells& cells,
             std::vector<std::string>& columns) {
    if (value.is_object() && !value.empty()) {
        for (const auto& [key, inner] : value.items())
            flatten(inner, path.empty() ? key : path + "." + key, cells, columns);
        return;
    }
    if (value.is_object()) return;
    if (std::find(columns.begin(), columns.end(), path) == columns.end()) columns.push_back(path);
    cells[path] = cell_of(value);
}

/// Definitions of one kind; the only one of its kind has no id.
CsvTable kind_table(const std::string& kind, const Json& definitions) {
    const bool single = std::any_of(definitions.begin(), definitions.end(),
                                    [](const Json& one) { return !one.is_object(); });
    CsvTable table{kind, {}, {}};
    std::vector<std::pair<std::string, Cells>> rows;
    if (single) {
        rows.push_back({});
        flatten(definitions, "", rows.back().second, table.headers);
    } else {
        for (const auto& [id, definition] : definitions.items()) {
            rows.push_back({id, {}});
            flatten(definition, "", rows.back().second, table.headers);
        }
        table.headers.insert(table.headers.begin(), "id");
    }
    for (auto& [id, cells] : rows) {
        if (!single) cells["id"] = id;
        std::vector<std::string> row;
        for (const std::string& column : table.headers) row.push_back(cells[column]);
        table.rows.push_back(std::move(row));
    }
    return table;
}

} // namespace

std::vector<CsvTable> kind_tables(const Json& resolved) {
    std::vector<CsvTable> tables;
    for (const auto& [kind, definitions] : resolved.items())
        if (definitions.is_object() && !definitions.empty())
            tables.push_back(kind_table(kind, definitions));
    return tables;
}

} // namespace panoplon
