// The best legal outfits of a character against an encounter at a level, over tiers (M80).
#pragma once

#include "fight/trials.h"
#include "judge/search/recall.h"

namespace panoplon {

/// The levels that are looked at: the first, the last, every `step`, and where the character can
/// wear or use something new.
[[nodiscard]] std::vector<int> levels_that_matter(const Armoury& armoury, CharacterId character,
                                                  const LevelRange& levels, int step);

/// For each rung the best of items of a rank up to it (without a tier: always); none where nothing
/// legal was found. `groups`: twin_groups(); `ranks` ascend. Fewer where the search ended in an
/// error, or because nobody waits any more.
[[nodiscard]] std::vector<std::optional<Outfit>>
find_ladder(const Armoury& armoury, const std::vector<ItemId>& groups, const Context& context,
            const std::vector<int>& ranks, const Recall& recall, Search& search);

/// Whether find_ladder() needs no search: every rung is known.
[[nodiscard]] bool is_ladder_known(const Armoury& armoury, const std::vector<ItemId>& groups,
                                   const Context& context, const std::vector<int>& ranks,
                                   const Recall& recall, Search& search);

} // namespace panoplon
