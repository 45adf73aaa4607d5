// An armoury's tables as a workbook (Office Open XML): a sheet for each kind.
#pragma once

#include "armoury/write.h"
#include "base/result.h"

#include <string>

namespace panoplon {

/// The bytes of the workbook: headers frozen, numbers as numbers, and in columns that hold an id or
/// one of a few words a list to choose from. Read as an armoury's file it says what the tables say.
/// A Failure (Cause::file) when it can't be put together.
[[nodiscard]] Result<std::string> armoury_workbook(const WrittenTables& written);

} // namespace panoplon
