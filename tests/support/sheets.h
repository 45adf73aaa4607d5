// Sheets of loadouts, looked up by ids.
#pragma once

#include "outfit/sheet.h"
#include "support/armouries.h"

#include <string>

namespace panoplon::test {

[[nodiscard]] Sheet sheet_of(const Armoury& armoury, const std::string& loadout = "l",
                             int level = 1);
[[nodiscard]] double stat(const Armoury& armoury, const Sheet& sheet, const std::string& id);
/// Every refusal, one reason a line: "thing: reason".
[[nodiscard]] std::string refused(const Sheet& sheet);

} // namespace panoplon::test
