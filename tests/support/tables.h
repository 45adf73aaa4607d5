// Tables for tests: made from texts, and read as files have them.
#pragma once

#include "show/table.h"

namespace panoplon::test {

using Texts = std::vector<std::string>;

inline Table table_of_texts(std::string name, const Texts& keys, const std::vector<Texts>& rows) {
    Table table{std::move(name), {}};
    for (const std::string& key : keys) table.columns.push_back(as::text(key));
    for (const Texts& row : rows) table.row({row.begin(), row.end()});
    return table;
}

/// The headers of its file.
inline Texts keys_of(const Table& table) {
    Texts keys;
    for (const Column& column : table.columns)
        if (!column.key.empty()) keys.push_back(column.key);
    return keys;
}

/// A row as a file has it.
inline Texts row_texts(const Table& table, std::size_t row) {
    Texts texts;
    for (std::size_t c = 0; c < table.columns.size(); ++c)
        if (!table.columns[c].key.empty())
            texts.push_back(file_text_of(table.columns[c], table.rows[row][c]));
    return texts;
}

} // namespace panoplon::test
