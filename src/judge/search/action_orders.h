// The orders in which actions of gear and a character's own may be done.
#pragma once

#include "model/ids.h"

#include <vector>

namespace panoplon {

/// Each action of gear comes before the character's own, after them, or not at all. Of two each is
/// tried with each, either before the other; of more one is moved at a time, and the others come
/// first. Orders without any action are left out. The first has all of gear first, as without any
/// order (M61). What is there twice stands together.
[[nodiscard]] std::vector<std::vector<ActionId>> action_orders(const std::vector<ActionId>& of_gear,
                                                               const std::vector<ActionId>& own);

} // namespace panoplon
