#include "report/workbook_sheets.h"

#include "base/text.h"
#include "show/plot.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr std::size_t most_letters = 32767; ///< of a cell
constexpr std::size_t most_of_name = 31;    ///< letters of a sheet's name

/// The first `most` characters of well-formed UTF-8.
std::string shortened(const std::string& text, std::size_t most) {
    std::size_t count = 0;
    for (std::size_t at = 0; at < text.size(); ++at) {
        const bool begins = (static_cast<unsigned char>(text[at]) & 0xC0) != 0x80;
        if (begins && count++ == most) return text.substr(0, at);
    }
    return text;
}

std::string lower(std::string text) {
    for (char& c : text)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    return text;
}

std::string format_text(const Column& column) {
    const auto places = static_cast<std::size_t>(column.places);
    const std::string number =
        places == 0 || column.kind == CellKind::whole ? "0" : "0." + std::string(places, '0');
    if (column.kind == CellKind::gain) return fmt::format("+{0} %;-{0} %;{0} %", number);
    return column.kind == CellKind::share ? number + " %" : number;
}

lxw_row_t row_number(std::size_t row) {
    return static_cast<lxw_row_t>(row);
}
lxw_col_t column_number(std::size_t column) {
    return static_cast<lxw_col_t>(column);
}

double width_of(const Table& table, std::size_t column) {
    std::size_t letters = characters(table.columns[column].header) + 3; // and the filter's arrow
    for (const auto& row : table.rows)
        letters = std::max(letters, characters(words_of(table.columns[column], row[column], "—")));
    constexpr std::size_t widest = 70;
    constexpr double of_a_letter = 1.15; // letters are wider than digits
    return static_cast<double>(std::min(letters, widest)) * of_a_letter + 1;
}

} // namespace

WorkbookSheets::WorkbookSheets(lxw_workbook* workbook)
    : workbook_(workbook),
      header_(workbook_add_format(workbook)),
      words_(workbook_add_format(workbook)) {
    format_set_bold(header_);
    format_set_bottom(header_, LXW_BORDER_THIN);
    format_set_align(words_, LXW_ALIGN_VERTICAL_TOP);
    format_set_text_wrap(words_);
}

std::string WorkbookSheets::free_name(const std::string& caption) {
    std::string clean = printable(caption);
    for (char& c : clean)
        if (std::string_view("[]:*?/\\'").find(c) != std::string_view::npos) c = ' ';
    std::string name = shortened(clean, most_of_name);
    for (int number = 2; names_.contains(lower(name)); ++number) {
        const std::string suffix = fmt::format(" {}", number);
        name = shortened(clean, most_of_name - suffix.size()) + suffix;
    }
    names_.insert(lower(name));
    return name;
}

void WorkbookSheets::write_headers(lxw_worksheet* sheet, const Table& table) {
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
        worksheet_set_column(sheet, column_number(c), column_number(c), width_of(table, c),
                             nullptr);
        worksheet_write_string(sheet, 0, column_number(c),
                               printable(table.columns[c].header).c_str(), header_);
        if (!table.columns[c].about.empty())
            worksheet_write_comment(sheet, 0, column_number(c),
                                    printable(table.columns[c].about).c_str());
    }
}

void WorkbookSheets::write_cell(lxw_worksheet* sheet, std::size_t row, std::size_t column,
                                const Cell& cell, const Column& kind) {
    const auto number = cell.number();
    if (number && std::isfinite(*number) && !cell.words()) {
        worksheet_write_number(sheet, row_number(row), column_number(column), *number,
                               number_format(kind));
        return;
    }
    const std::string words = words_of(kind, cell, {});
    if (words.empty()) return;
    worksheet_write_string(sheet, row_number(row), column_number(column),
                           shortened(printable(words), most_letters).c_str(),
                           cell.ink() ? ink_format(*cell.ink()) : words_);
}

lxw_format* WorkbookSheets::number_format(const Column& column) {
    const std::string text = format_text(column);
    lxw_format*& format = numbers_[text];
    if (!format) {
        format = workbook_add_format(workbook_);
        format_set_num_format(format, text.c_str());
        format_set_align(format, LXW_ALIGN_VERTICAL_TOP);
    }
    return format;
}

lxw_format* WorkbookSheets::ink_format(const Ink& ink) {
    lxw_format*& format = inks_[ink];
    if (!format) {
        format = workbook_add_format(workbook_);
        format_set_bg_color(format, ink.ground.value_or(ink.colour));
        format_set_font_color(format, ink.ground ? ink.colour : ink_on(ink.colour));
        format_set_align(format, LXW_ALIGN_VERTICAL_TOP);
    }
    return format;
}

WrittenSheet WorkbookSheets::add(const Table& table) {
    WrittenSheet written;
    written.name = free_name(table.caption);
    written.sheet = workbook_add_worksheet(workbook_, written.name.c_str());
    write_headers(written.sheet, table);
    for (std::size_t r = 0; r < table.rows.size(); ++r)
        for (std::size_t c = 0; c < table.rows[r].size(); ++c)
            write_cell(written.sheet, r + 1, c, table.rows[r][c], table.columns[c]);
    worksheet_set_landscape(written.sheet);
    worksheet_fit_to_pages(written.sheet, 1, 0);
    worksheet_freeze_panes(written.sheet, 1, 1);
    if (!table.rows.empty())
        worksheet_autofilter(written.sheet, 0, 0, row_number(table.rows.size()),
                             column_number(table.columns.size() - 1));
    return written;
}

} // namespace panoplon
