#include "judge/paper/gear_sources.h"

#include "journey/finds.h"
#include "outfit/outfit.h"

#include <algorithm>

namespace panoplon {

GearSources::GearSources(const Armoury& armoury)
    : armoury_(armoury),
      comes_along_(armoury.items.size(), false),
      in_a_loadout_(armoury.items.size(), false) {
    for (const Item& item : armoury.items) {
        says_ = says_ || item.source != Source::none;
        for (const PackedItem& inner : item.contains) comes_along_[inner.item.index()] = true;
    }
    for (const Journey& journey : armoury.journeys)
        for (const Stage& stage : journey.stages)
            for (const auto* list : {&stage.gives, &stage.shop.stock})
                for (const PackedItem& one : *list) comes_along_[one.item.index()] = true;
    for (const Loadout& loadout : armoury.loadouts) {
        for (const PackedItem& packed : loadout.pack) in_a_loadout_[packed.item.index()] = true;
        for_each_worn(loadout.worn,
                      [&](const WornItem& worn) { in_a_loadout_[worn.item.index()] = true; });
    }
}

bool GearSources::drops_anywhere(ItemId item) const {
    return std::any_of(armoury_.drops.begin(), armoury_.drops.end(),
                       [&](const Drops& drops) { return can_drop(drops, armoury_, item); });
}

std::string GearSources::why_not_had(ItemId item) const {
    const Source source = armoury_.at(item).source;
    if (!says_ || source > Source::drop) return {};
    if (drops_anywhere(item) || comes_along_[item.index()]) return {};
    if (source == Source::drop)
        return armoury_.drops.empty() ? std::string() : "it drops, and no drops have it";
    return in_a_loadout_[item.index()] ? std::string()
                                       : "nothing says how it is had: no source, no drops, no "
                                         "loadout";
}

} // namespace panoplon
