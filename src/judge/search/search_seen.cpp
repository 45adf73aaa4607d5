// What a search keeps of the candidates that it has seen, and what that is asked for by.
#include "judge/search/search.h"

#include <algorithm>

namespace panoplon {

/// Keeps what is better than what was seen before, under every condition that it meets (M80).
void Search::note(const Candidate& candidate, const Margin& margin) {
    keep_better(best_, candidate, margin);
    std::vector<bool> worn(armoury_.items.size(), false);
    for_each_item(candidate, [&](ItemId item) { worn[group(item).index()] = true; });
    const auto keep = [&](ItemId item, bool there) {
        keep_better(there ? with_[item.index()] : without_[item.index()], candidate, margin);
    };
    for (const ItemId item : wearable_)
        if (group(item) == item) keep(item, worn[item.index()]);
    std::map<ItemId, int> of_group; // how many different ones are packed
    for (std::size_t c = 0; c < usable_.size(); ++c)
        of_group[first_of_group_[c]] += candidate.counts[c] > 0;
    for (const auto& [first, different] : of_group)
        if (different == 0) keep_better(without_group_[first.index()], candidate, margin);
    for (std::size_t c = 0; c < usable_.size(); ++c) {
        const ItemId item = wardrobe_.consumables()[c];
        if (!usable_[c] || armoury_.at(item).worn()) continue;
        if (candidate.counts[c] == 0)
            keep(item, false);
        else if (of_group[first_of_group_[c]] == 1)
            keep(item, true);
    }
}

std::vector<ItemId> Search::usable() const {
    std::vector<ItemId> list;
    for (std::size_t c = 0; c < usable_.size(); ++c)
        if (usable_[c] && !armoury_.at(wardrobe_.consumables()[c]).worn())
            list.push_back(wardrobe_.consumables()[c]);
    return list;
}

std::size_t Search::consumable_index(ItemId item) const {
    const auto& consumables = wardrobe_.consumables();
    return static_cast<std::size_t>(std::find(consumables.begin(), consumables.end(), item) -
                                    consumables.begin());
}

std::int64_t Search::packed(const Candidate& candidate, ItemId consumable) const {
    const std::size_t c = consumable_index(consumable);
    return c < candidate.counts.size() ? candidate.counts[c] : 0;
}

const Found& Search::empty(const Footprint& places) const {
    static const Found none;
    const auto at = empty_.find(places);
    return at == empty_.end() ? none : at->second;
}

int Search::worn_in_best(ItemId item) const {
    int worn = 0;
    for_each_item(best_.candidate, [&](ItemId one) { worn += group(one) == group(item); });
    return worn;
}

Footprint Search::places_of(ItemId item) const {
    return wardrobe_.footprint(armoury_.at(item), std::max(1, worn_in_best(item)));
}

std::vector<Footprint> Search::footprints() const {
    std::vector<Footprint> list;
    for (const ItemId item : wearable_) {
        list.push_back(one_place_of(item));
        list.push_back(places_of(item));
    }
    std::sort(list.begin(), list.end());
    list.erase(std::unique(list.begin(), list.end()), list.end());
    return list;
}

} // namespace panoplon
