// Points that a character has to spend on upgrades, by its level (M45).
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

/// Points to spend by a level, all levels together; whole, 0 where the character has none.
[[nodiscard]] int points_at(const Armoury& armoury, CharacterId character, int level);

/// Upgrades that take points, in the armoury's order.
[[nodiscard]] std::vector<UpgradeId> upgrades_for_points(const Armoury& armoury);

/// All points spent in these parts, level by level to whatever is furthest behind its part, as long
/// as any of them can be paid and has levels left.
[[nodiscard]] std::vector<BoughtUpgrade> spread_points(const Armoury& armoury, int points,
                                                       const std::vector<BoughtUpgrade>& parts);

/// Points that these upgrades take.
[[nodiscard]] int points_spent(const Armoury& armoury, const std::vector<BoughtUpgrade>& upgrades);

} // namespace panoplon
