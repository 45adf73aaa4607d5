// Two loadouts of one level, side by side: what differs, and what each difference gives alone.
#pragma once

#include "fight/margin.h"
#include "outfit/sheet.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// One place of a character in both outfits; a slot with a count of 2 has two.
struct PlaceInBoth {
    SlotId slot;
    int number = 1; ///< among the slot's places
    ItemId first, second;
};

/// A stat in both. `better` is 1 where the second is better by the stat's own direction, -1 where
/// it is worse, 0 where neither can be said (M5).
struct StatInBoth {
    StatId stat;
    double first = 0, second = 0;
    int better = 0;
};

/// A single difference, taken over into the first outfit.
struct SingleChange {
    std::string what;
    std::vector<Refusal> refused;  ///< the first outfit with only this changed
    std::vector<StatInBoth> stats; ///< that it changes
    std::optional<double> power;   ///< by even luck against the yardstick
};

struct OutfitComparison {
    std::vector<PlaceInBoth> places;
    std::vector<StatInBoth> stats; ///< all, in the order of the stats
    std::vector<SingleChange> changes;
    std::optional<double> first_power, second_power; ///< none without a yardstick, or refused
};

[[nodiscard]] OutfitComparison compare_outfits(const Armoury& armoury, const Outfit& first,
                                               const Outfit& second);

} // namespace panoplon
