// Which stats a fight reads, and which items give nothing that one does (M83).
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

/// By stat: whether it is a pool's ceiling, a need of gear, or read by a formula of a fight:
/// combat's, carrying's, a pool's, a damage type's, an action's, an effect's, a rule's, a growth's,
/// or that of a derived stat that is itself read.
[[nodiscard]] std::vector<bool> stats_read(const Armoury& armoury);
/// By effect: whether some formula asks who has it.
[[nodiscard]] std::vector<bool> effects_read(const Armoury& armoury);

/// The stats that an item changes, with its tier and its set.
[[nodiscard]] std::vector<StatId> stats_given(const Armoury& armoury, const Item& item);

/// What an item gives, where no fight reads any of it; empty where one does, or it gives nothing.
/// `read`: stats_read().
[[nodiscard]] std::vector<StatId> idle_gifts(const Armoury& armoury, const std::vector<bool>& read,
                                             const Item& item);

} // namespace panoplon
