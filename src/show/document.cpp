#include "show/document.h"

namespace panoplon {

void add_table(Document& document, const char* name, Table table) {
    const std::string text = terminal_text(table);
    if (!text.empty()) document.text += "\n" + text;
    document.json[name] = rows_json(table);
    if (!table.name.empty()) document.tables.push_back(std::move(table));
}

} // namespace panoplon
