// Power: the margin against the yardstick, by even luck.
#pragma once

#include "fight/margin.h"
#include "outfit/outfit.h"

#include <optional>

namespace panoplon {

/// None without a yardstick, for an outfit that is refused, and where the margin is out of reach.
[[nodiscard]] std::optional<double> power_of(Engine& engine, const Armoury& armoury,
                                             const Outfit& outfit);

} // namespace panoplon
