// Words that several outputs share.
#pragma once

#include "model/armoury.h"

#include <string>
#include <vector>

namespace panoplon {

[[nodiscard]] std::vector<std::string> ids_of(const Armoury& armoury,
                                              const std::vector<ItemId>& items);

/// "+14", "-2 %", "× 0.95": how much a modifier of a kind (add, percent, times) changes.
[[nodiscard]] std::string change_words(Change change, double amount);

} // namespace panoplon
