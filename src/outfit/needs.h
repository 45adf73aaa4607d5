// Who can wear or use an item (M41, M32a).
#pragma once

#include "model/armoury.h"

#include <span>
#include <string>
#include <vector>

namespace panoplon {

/// True when the character is one of those, or everybody is.
[[nodiscard]] bool is_among(const Armoury& armoury, const Only& only, CharacterId character);
/// "a warden or a runner": who is meant, for a sentence.
[[nodiscard]] std::string only_words(const Armoury& armoury, const Only& only);

/// Every reason why a character at a level can't wear or use an item; empty: it can. `naked` are
/// its stats with nothing worn (naked_stats).
[[nodiscard]] std::vector<std::string> unmet_needs(const Armoury& armoury, const Item& item,
                                                   CharacterId character, int level,
                                                   std::span<const double> naked);
[[nodiscard]] bool meets_needs(const Armoury& armoury, const Item& item, CharacterId character,
                               int level, std::span<const double> naked);

/// Why no character can ever wear or use an item; empty: one can, or it is cargo. `naked` are
/// their stats with nothing worn and every upgrade at the last level, by character
/// (last_naked_stats).
[[nodiscard]] std::string why_never(const Armoury& armoury, const Item& item,
                                    const std::vector<std::vector<double>>& naked);

/// True when any item of the armoury needs stats: otherwise `naked` is never looked at.
[[nodiscard]] bool stats_are_needed(const Armoury& armoury);

} // namespace panoplon
