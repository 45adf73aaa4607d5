#include "output/document.h"

#include <csv.h>

namespace panoplon {

namespace {

void append_cell(std::string& line, const std::string& cell) {
    const bool plain = cell.find_first_of(",\"\r\n") == std::string::npos;
    if (plain) {
        line += cell;
        return;
    }
    std::string quoted(csv_write(nullptr, 0, cell.data(), cell.size()), '\0');
    csv_write(quoted.data(), quoted.size(), cell.data(), cell.size());
    line += quoted;
}

void append_row(std::string& text, const std::vector<std::string>& cells) {
    for (std::size_t i = 0; i < cells.size(); ++i) {
        if (i > 0) text += ',';
        append_cell(text, cells[i]);
    }
    text += '\n';
}

} // namespace

std::string csv_text(const CsvTable& table) {
    std::string text;
    append_row(text, table.headers);
    for (const auto& row : table.rows) append_row(text, row);
    return text;
}

} // namespace panoplon
