// The picture of a context, for the parts of the search that paint it and look for what it shows.
#pragma once

#include "judge/search/search.h"

#include "outfit/load.h"

#include <string>
#include <vector>

namespace panoplon {

/// Weight past the upper edge of a load band, short of its lower edge, stacks past the bag, value;
/// and how many places and consumables are otherwise than the centre's.
enum Limited : std::size_t { over_edge, under_edge, stack_amount, value_amount, changes };

/// What fights for a picture hold.
struct Search::Held {
    double share = 0;        ///< of the load at the start
    std::vector<int> pieces; ///< by set
};

/// What a place, or the pack of one consumable, may hold.
struct Search::PictureGroup {
    struct Option {
        Placed placed;          ///< of a place
        std::int64_t count = 0; ///< of a consumable
        Outfit outfit;          ///< the centre with it
        ChoiceOption choice;
        std::vector<std::size_t> pushed_out; ///< places that it empties
    };

    std::size_t place = 0;
    int packed = -1;   ///< index of a consumable; -1: of a place
    ItemId consumable; ///< then
    std::vector<Option> options;
};

struct Search::Picture {
    Candidate centre;
    Candidate dressed; ///< what options of places were measured on: the centre, or that with a pack
    int band = no_band;
    double strength = 1;     ///< at which its fights are: the margin that gains are measured from
    double level = 0;        ///< gain of the centre itself
    double up = 1, down = 1; ///< gain for what remains of a won fight, of a lost one
    std::vector<PictureGroup> groups;
    ChoiceAmounts room = {};               ///< for what options use together
    std::vector<std::vector<double>> sets; ///< by set: gain with so many pieces
    ChoiceAmounts prices = {};             ///< of what is limited, where nothing is asked for
};

} // namespace panoplon
