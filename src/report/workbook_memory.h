// A workbook that is made in memory.
#pragma once

#include "base/result.h"

#include <functional>
#include <string>
#include <xlsxwriter.h>

namespace panoplon {

/// The bytes of a workbook that `fill` fills. A Failure (Cause::file) when it can't be put
/// together.
[[nodiscard]] Result<std::string>
workbook_in_memory(const std::function<void(lxw_workbook*)>& fill);

} // namespace panoplon
