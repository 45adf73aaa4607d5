// How gear is had: by drops, by what it comes with, or as its `source` says.
#pragma once

#include "model/armoury.h"

#include <string>

namespace panoplon {

/// True when the armoury says of any item how it is had.
[[nodiscard]] bool says_how_gear_is_had(const Armoury& armoury);

/// Why nothing gives the item, in an armoury that says how gear is had; empty: something does.
[[nodiscard]] std::string why_not_had(const Armoury& armoury, ItemId item);

} // namespace panoplon
