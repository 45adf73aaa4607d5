// Comparing items on paper: what outclasses what, and twins (M82).
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

struct PaperVerdict {
    std::vector<ItemId> outclassed_by;
    std::vector<ItemId> twins; ///< equal in everything that paper shows
};

/// By item; empty for what is not worn. A outclasses B when A is worn in the same slot, no later,
/// weighs no more, gives every action of B, is no worse in any modifier by the stat's own direction
/// (absent: changes nothing, M6) and is better in at least one of these. Tiers count in.
[[nodiscard]] std::vector<PaperVerdict> compare_on_paper(const Armoury& armoury);

/// By item: the first of its twins, which is itself where it has none; twins are judged as one.
[[nodiscard]] std::vector<ItemId> twin_groups(const std::vector<PaperVerdict>& verdicts);

} // namespace panoplon
