// Writes tables of a report into sheets of a workbook.
#pragma once

#include "report/report.h"

#include <map>
#include <set>
#include <string>
#include <xlsxwriter.h>

namespace panoplon {

/// A table that stands in a workbook: headers in its first row.
struct WrittenSheet {
    lxw_worksheet* sheet = nullptr;
    std::string name;
};

class WorkbookSheets {
  public:
    /// The workbook outlives this.
    explicit WorkbookSheets(lxw_workbook* workbook);

    /// A new sheet: headers frozen and with filters, numbers as numbers in their column's format,
    /// texts as texts, tiers in their colours.
    WrittenSheet add(const Table& table);
    [[nodiscard]] lxw_workbook* workbook() const { return workbook_; }

  private:
    [[nodiscard]] std::string free_name(const std::string& caption);
    void write_headers(lxw_worksheet* sheet, const Table& table);
    void write_cell(lxw_worksheet* sheet, std::size_t row, std::size_t column, const Cell& cell,
                    const Column& kind);
    [[nodiscard]] lxw_format* number_format(const Column& column);
    [[nodiscard]] lxw_format* ink_format(const Ink& ink);

    lxw_workbook* workbook_;
    lxw_format* header_;
    lxw_format* words_;
    std::map<std::string, lxw_format*> numbers_; ///< by the format's text
    std::map<Ink, lxw_format*> inks_;
    std::set<std::string> names_; ///< taken, in lower case
};

} // namespace panoplon
