// Workbooks of spreadsheets: Office Open XML (ECMA-376, .xlsx) and OpenDocument (ISO 26300, .ods).
#pragma once

#include "base/result.h"

#include <string>
#include <vector>

namespace panoplon {

struct WorkbookSheet {
    std::string name;
    /// What the cells say, by row, then column; rows may end early. Numbers to 15 digits, as
    /// spreadsheets show them, and what is shown as a percentage with its sign: 0.05 is "5%". Dates
    /// as 2026-01-31; truths as true and false; of a formula its result.
    std::vector<std::vector<std::string>> rows;
};

/// The sheets of a workbook, in order. A Failure (Cause::file) where the bytes are none, are locked
/// by a password, or hold more than can be read.
[[nodiscard]] Result<std::vector<WorkbookSheet>> read_workbook(const std::string& bytes);

} // namespace panoplon
