// Native charts beside the tables that they draw.
#pragma once

#include "report/workbook_sheets.h"

namespace panoplon {

/// Beside a table of curves (name, encounter, level, even_luck): margins over level, a chart for
/// each encounter, a line for each curve. Beside stages of a journey: power at the end of each.
/// Nothing beside any other.
void add_charts(lxw_workbook* workbook, const WrittenSheet& sheet, const Table& table);

} // namespace panoplon
