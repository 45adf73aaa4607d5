// Small armouries in which trying everything tells the truth of a search, and what is asked of it.
#pragma once

#include "judge/search/search.h"

#include <cstdint>
#include <string>
#include <vector>

namespace panoplon::test {

/// What binds in an armoury of a kind.
struct TruthKind {
    const char* name;
    bool limit = false, bands = false, bag = false, rings = false, hands = false, sets = false;
    int items = 5; ///< a slot
};

[[nodiscard]] const std::vector<TruthKind>& truth_kinds();

/// One character, one encounter, one level.
[[nodiscard]] std::string truth_armoury(const TruthKind& kind, std::uint32_t seed);

/// The log margins of the best, and for each item of the best with it, without it, and with its
/// place empty; of a consumable with nothing of its group. Minus infinity: nothing legal.
[[nodiscard]] std::vector<double> truth_answers(Search& search);

} // namespace panoplon::test
