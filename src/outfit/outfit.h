// A character at a level with what it wears and carries: what may be worn, and what it weighs.
#pragma once

#include "model/armoury.h"
#include "outfit/derive.h"
#include "outfit/load.h"

#include <algorithm>
#include <string>
#include <vector>

namespace panoplon {

struct Outfit {
    CharacterId character;
    int level = 1;
    std::vector<WornItem> worn;
    std::vector<PackedItem> pack;
    std::vector<UseRule> uses;
};

[[nodiscard]] Outfit outfit_of(const Loadout& loadout, int level);

/// What is refused and every reason why (M42).
struct Refusal {
    std::string thing; ///< id of an item, or `pack`, `load`
    std::vector<std::string> reasons;
};

[[nodiscard]] std::vector<Refusal> refusals(Deriver& deriver, const Outfit& outfit);

/// Modifiers in the fixed order of bearers: the character's own, then worn items sorted by id, each
/// followed by its tier. Calls visit(bearer, kind word, factor of its add amounts).
template <class Visit>
void for_each_bearer(const Armoury& armoury, const Outfit& outfit, Visit visit) {
    visit(static_cast<const Bearer&>(armoury.at(outfit.character)), "character", 1.0);
    std::vector<ItemId> order;
    for (const WornItem& worn : outfit.worn) order.push_back(worn.item);
    std::sort(order.begin(), order.end(), [&](ItemId a, ItemId b) {
        return armoury.item_rank[a.index()] < armoury.item_rank[b.index()];
    });
    for (const ItemId id : order) {
        const Item& item = armoury.at(id);
        const Tier* tier = item.tier.given() ? &armoury.at(item.tier) : nullptr;
        visit(static_cast<const Bearer&>(item), "item", tier ? tier->stat_factor : 1.0);
        if (tier) visit(static_cast<const Bearer&>(*tier), "tier", 1.0);
    }
}

[[nodiscard]] StatSums worn_sums(const Armoury& armoury, const Outfit& outfit);

[[nodiscard]] Thousandths worn_weight(const Armoury& armoury, const Outfit& outfit);
[[nodiscard]] Thousandths pack_weight(const Armoury& armoury, const Outfit& outfit);
[[nodiscard]] std::int64_t pack_stacks(const Armoury& armoury, const Outfit& outfit);

/// The value of every stat under a load band (no_band: under none).
[[nodiscard]] std::vector<double> outfit_stats(Deriver& deriver, const Outfit& outfit, int band);

/// The load with the stats that the outfit has without any band (M50).
[[nodiscard]] Load outfit_load(Deriver& deriver, const Outfit& outfit);

} // namespace panoplon
