#include "model/armoury.h"

#include <algorithm>
#include <unordered_map>
#include <unordered_set>

namespace panoplon {

bool EffectGroup::has(EffectId effect, bool is_hostile) const {
    return (hostile && is_hostile) || std::binary_search(effects.begin(), effects.end(), effect);
}

std::vector<EncounterId> encounters_that_count(const Armoury& armoury) {
    std::vector<EncounterId> list;
    if (armoury.yardstick.given()) list.push_back(armoury.yardstick);
    for (std::size_t i = 0; i < armoury.encounters.size(); ++i)
        if (EncounterId(i) != armoury.yardstick && armoury.encounters[i].weight > 0)
            list.emplace_back(i);
    return list;
}

namespace {

/// Lists an item after all that it comes with, each once.
void list_contents(const Armoury& armoury, ItemId item, std::unordered_set<std::size_t>& seen,
                   std::vector<ItemId>& into) {
    const std::vector<PackedItem>& contains = armoury.at(item).contains;
    for (auto inner = contains.rbegin(); inner != contains.rend(); ++inner)
        if (seen.insert(inner->item.index()).second)
            list_contents(armoury, inner->item, seen, into);
    into.push_back(item);
}

} // namespace

std::vector<PackedItem> contents_of(const Armoury& armoury, ItemId item) {
    if (armoury.at(item).contains.empty()) return {};
    std::vector<ItemId> order;
    std::unordered_set<std::size_t> seen;
    list_contents(armoury, item, seen, order);
    std::reverse(order.begin(), order.end()); // whatever comes with something stands before it
    std::unordered_map<std::size_t, std::int64_t> units{{item.index(), 1}};
    std::vector<PackedItem> contents;
    for (const ItemId one : order) {
        const std::int64_t of_it = units[one.index()];
        if (one != item) contents.push_back({one, of_it, {}});
        for (const PackedItem& inner : armoury.at(one).contains) {
            std::int64_t& sum = units[inner.item.index()];
            sum = bounded_sum(sum, bounded_product(of_it, inner.count));
        }
    }
    return contents;
}

bool can_drop(const Drops& drops, const Armoury& armoury, ItemId item) {
    if (!drops.items.empty())
        return std::find(drops.items.begin(), drops.items.end(), item) != drops.items.end();
    const Item& one = armoury.at(item);
    if (one.source != Source::none && one.source != Source::drop) return false;
    const auto& tags = drops.tags;
    return tags.empty() || std::find_first_of(one.tags.begin(), one.tags.end(), tags.begin(),
                                              tags.end()) != one.tags.end();
}

} // namespace panoplon
