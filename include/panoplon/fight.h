// Fights of saved loadouts, as other programs see them.
#pragma once

#include "panoplon/armoury.h"

#include <cstdint>
#include <string>

namespace panoplon::core {

struct FightQuery {
    std::string loadout, encounter; ///< ids
    int level = 0;                  ///< the character's; 0: the last that the loadout is meant for
    std::uint64_t trials = 1000;    ///< 0: by even luck only
    std::uint64_t seed = 1;
};

struct FightOutcome {
    std::uint64_t trials = 0;
    double win_share = 0, win_low = 0, win_high = 0; ///< of the trials, with the 95 % interval
    double mean_time = 0;                            ///< of the trials, in the armoury's unit
    bool even_won = false;                           ///< by even luck (M68)
    double even_time = 0;
    double margin = 0; ///< by even luck (M70), from 1/64 to 64
};

/// The same numbers as `panoplon fight`. Throws std::invalid_argument for an id or a level that the
/// armoury does not have, std::runtime_error where the loadout is refused or a formula gives no
/// number; what() says which.
[[nodiscard]] PANOPLON_VISIBLE FightOutcome fight(const Armoury& armoury, const FightQuery& query);

} // namespace panoplon::core
