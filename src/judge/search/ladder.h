// The best legal outfits of a character against an encounter, over levels and tiers (M80).
#pragma once

#include "fight/trials.h"
#include "judge/search/search.h"

namespace panoplon {

struct BestPoint {
    int level = 1;
    bool any = false; ///< false: nothing legal was found
    Outfit outfit;
};

struct BestOver {
    std::vector<std::vector<BestPoint>> ladder; ///< by rung, then by level
    std::optional<FightError> error;
    bool stopped = false;
};

/// The levels that are looked at: the first, the last, every `step`, and where the character can
/// wear or use something new.
[[nodiscard]] std::vector<int> levels_that_matter(const Armoury& armoury, CharacterId character,
                                                  const LevelRange& levels, int step);

/// For each rung the best of items of a rank up to it (without a tier: always). `groups`:
/// twin_groups().
[[nodiscard]] BestOver find_best_over(const Armoury& armoury, const std::vector<ItemId>& groups,
                                      CharacterId character, EncounterId encounter,
                                      const std::vector<int>& levels, const std::vector<int>& ranks,
                                      const Watch& watch, const std::function<void()>& done_one);

} // namespace panoplon
