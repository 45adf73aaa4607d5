// What a tier is worth in levels: how much later the best of the tiers below is as strong.
#pragma once

#include "judge/curve/curve.h"

#include <string>
#include <vector>

namespace panoplon {

struct TierStep {
    CharacterId character;
    TierId tier;       ///< over those below
    double levels = 0; ///< the median over the levels at which it is better; 0: it never is
    int from = 1;      ///< the first of those levels
    std::string sentence;
};

/// By character, then by rank, against the yardstick and by even luck, as the curve of power has
/// it (CurveBy::tier). None without a yardstick, or with fewer than two tiers. The same for any
/// number of threads; stopped, what is there so far.
[[nodiscard]] std::vector<TierStep> find_tier_steps(const Armoury& armoury, LevelRange levels,
                                                    const std::vector<CharacterId>& characters,
                                                    const Watch& watch = {},
                                                    const Recall& recall = {});

} // namespace panoplon
