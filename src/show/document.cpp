#include "show/document.h"

#include "armoury/cells.h"

namespace panoplon {

namespace {

void append_row(std::string& text, const std::vector<std::string>& cells) {
    for (std::size_t i = 0; i < cells.size(); ++i) {
        if (i > 0) text += ',';
        text += csv_cell(cells[i]);
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
