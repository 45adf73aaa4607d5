// Workbooks of OpenDocument: rows and cells that are repeated, texts of several paragraphs.
#include "armoury/workbook_parts.h"

#include <string_view>

namespace panoplon {

namespace {

/// The text of a paragraph, with what its spans say; runs of spaces are written as an element.
std::string paragraph_text(const pugi::xml_node& node) {
    std::string text;
    for (const pugi::xml_node part : node) {
        const std::string_view name = part.name();
        if (part.type() == pugi::node_pcdata)
            text += part.value();
        else if (name == "text:s")
            text.append(part.attribute("text:c").as_uint(1), ' ');
        else if (name == "text:tab" || name == "text:line-break")
            text += ' ';
        else
            text += paragraph_text(part);
    }
    return text;
}

std::string said(const pugi::xml_node& cell) {
    const std::string_view type = cell.attribute("office:value-type").value();
    const double value = cell.attribute("office:value").as_double();
    if (type == "float" || type == "currency") return shown_number(value, false);
    if (type == "percentage") return shown_number(value, true);
    if (type == "boolean") return cell.attribute("office:boolean-value").value();
    if (type == "date") return cell.attribute("office:date-value").value();
    std::string text;
    for (const pugi::xml_node paragraph : cell.children("text:p"))
        text += (text.empty() ? "" : " ") + paragraph_text(paragraph);
    return text;
}

class TableReader {
  public:
    explicit TableReader(WorkbookSheet& into) : filler_(into) {}

    /// Rows may stand in groups.
    void read(const pugi::xml_node& table) {
        for (const pugi::xml_node part : table) {
            const std::string_view name = part.name();
            if (name == "table:table-row")
                read_row(part);
            else if (name == "table:table-row-group" || name == "table:table-header-rows" ||
                     name == "table:table-rows")
                read(part);
        }
    }

  private:
    void read_row(const pugi::xml_node& row) {
        const std::size_t repeated = row.attribute("table:number-rows-repeated").as_uint(1);
        std::size_t column = 0;

        for (const pugi::xml_node cell : row) {
            const std::string_view name = cell.name();
            if (name != "table:table-cell" && name != "table:covered-table-cell") continue;
            const std::size_t times = cell.attribute("table:number-columns-repeated").as_uint(1);
            const std::string text = said(cell);
            if (!text.empty()) {

                for (std::size_t r = 0; r < repeated; ++r)
                    for (std::size_t c = 0; c < times; ++c) filler_.put(row_ + r, column + c, text);
            }
            column += times;
        }
        row_ += repeated;
    }

    SheetFiller filler_;
    std::size_t row_ = 0;
};

} // namespace

std::vector<WorkbookSheet> read_open_document(const Archive& archive) {
    pugi::xml_document document;
    archive.load("content.xml", document);
    const pugi::xml_node book =
        document.child("office:document-content").child("office:body").child("office:spreadsheet");
    if (!book) throw UnreadableWorkbook{"it is a document, but no workbook"};
    std::vector<WorkbookSheet> sheets;
    for (const pugi::xml_node table : book.children("table:table")) {
        sheets.push_back({table.attribute("table:name").value(), {}});
        TableReader(sheets.back()).read(table);
    }
    return sheets;
}

} // namespace panoplon
