// A report as a workbook (Office Open XML): a sheet for each table.
#pragma once

#include "base/result.h"
#include "report/report.h"

#include <string>

namespace panoplon {

/// The bytes of the workbook. What asks for a hand and the findings come first; then the tables of
/// the sections, with charts of curves. Every cell is a text or a number, never a formula. A
/// Failure (Cause::file) when it can't be put together.
[[nodiscard]] Result<std::string> workbook_bytes(const Report& report);

} // namespace panoplon
