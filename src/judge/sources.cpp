#include "judge/sources.h"

#include "journey/finds.h"
#include "outfit/outfit.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

bool comes_with_another(const Armoury& armoury, ItemId item) {
    return std::any_of(armoury.items.begin(), armoury.items.end(), [&](const Item& other) {
        return std::any_of(other.contains.begin(), other.contains.end(),
                           [&](const PackedItem& inner) { return inner.item == item; });
    });
}

bool in_a_loadout(const Armoury& armoury, ItemId item) {
    return std::any_of(armoury.loadouts.begin(), armoury.loadouts.end(), [&](const Loadout& l) {
        bool there = std::any_of(l.pack.begin(), l.pack.end(),
                                 [&](const PackedItem& packed) { return packed.item == item; });
        for_each_worn(l.worn, [&](const WornItem& worn) { there = there || worn.item == item; });
        return there;
    });
}

bool drops_anywhere(const Armoury& armoury, ItemId item) {
    return std::any_of(armoury.drops.begin(), armoury.drops.end(),
                       [&](const Drops& drops) { return can_drop(drops, armoury, item); });
}

} // namespace

bool says_how_gear_is_had(const Armoury& armoury) {
    return std::any_of(armoury.items.begin(), armoury.items.end(),
                       [](const Item& item) { return item.source != Source::none; });
}

std::string why_not_had(const Armoury& armoury, ItemId item) {
    const Source source = armoury.at(item).source;
    if (!says_how_gear_is_had(armoury) || source > Source::drop) return {};
    if (drops_anywhere(armoury, item) || comes_with_another(armoury, item)) return {};
    if (source == Source::drop)
        return armoury.drops.empty() ? std::string() : "it drops, and no drops have it";
    return in_a_loadout(armoury, item) ? std::string()
                                       : "nothing says how it is had: no source, no drops, no "
                                         "loadout";
}

} // namespace panoplon
