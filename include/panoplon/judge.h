// The search and the verdicts, as other programs see them.
#pragma once

#include "panoplon/armoury.h"

#include <string>
#include <utility>
#include <vector>

namespace panoplon::core {

struct BestQuery {
    std::string character, encounter; ///< ids
    int level = 1;
};

struct BestOutfit {
    bool any = false;    ///< false: nothing legal was found
    double margin = 0;   ///< by even luck (M70)
    bool proven = false; ///< whether nothing legal is better (M80)
    std::vector<std::pair<std::string, std::string>> worn; ///< slot and item, sockets after hosts
    std::vector<std::pair<std::string, long long>> packed; ///< item and units
};

/// The best legal loadout of one context, as `panoplon best` finds it. Throws as fight() does.
[[nodiscard]] PANOPLON_VISIBLE BestOutfit best(const Armoury& armoury, const BestQuery& query);

struct AuditQuery {
    std::vector<std::string> characters, encounters; ///< ids; empty: all that count
    int first_level = 0, last_level = 0;             ///< 0: those of the armoury
    int step = 0;                                    ///< levels; 0: that of the armoury
};

struct ItemVerdict {
    std::string item, verdict, sentence;
    bool overstays = false;
    double picks = 0, grip = 0, shortfall = 0; ///< means over its contexts (M81, M83)
};

/// The verdicts of worn items, in the armoury's order, as `panoplon audit` finds them without
/// trials. Throws as fight() does.
[[nodiscard]] PANOPLON_VISIBLE std::vector<ItemVerdict> audit(const Armoury& armoury,
                                                              const AuditQuery& query = {});

} // namespace panoplon::core
