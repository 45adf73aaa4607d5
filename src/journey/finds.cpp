#include "journey/finds.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace panoplon {

bool can_drop(const Drops& drops, const Armoury& armoury, ItemId item) {
    if (!drops.items.empty())
        return std::find(drops.items.begin(), drops.items.end(), item) != drops.items.end();
    const Item& one = armoury.at(item);
    if (one.source != Source::none && one.source != Source::drop) return false;
    const auto& tags = drops.tags;
    return tags.empty() || std::find_first_of(one.tags.begin(), one.tags.end(), tags.begin(),
                                              tags.end()) != one.tags.end();
}

FindTable::FindTable(const Armoury& armoury, const Drops& drops, int level, double luck) {
    std::map<int, std::vector<ItemId>> by_rank; // lowest first
    std::map<int, double> weights;
    constexpr int below_all = -1'000'000;
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        const Item& item = armoury.items[i];
        if (!can_drop(drops, armoury, ItemId(i))) continue;
        if (drops.items.empty() && std::abs(item.level - level) > drops.level_band) continue;
        const int rank = item.tier.given() ? armoury.at(item.tier).rank : below_all;
        by_rank[rank].emplace_back(i);
        weights[rank] = item.tier.given() ? armoury.at(item.tier).drop_weight : 1;
    }
    double factor = 1;
    double sum = 0;
    for (auto& [rank, weight] : weights) {
        weight *= factor;
        factor *= std::max(0.0, 1 + luck);
        sum += weight;
    }
    if (sum <= 0) return;
    for (const auto& [rank, items] : by_rank)
        for (const ItemId item : items)
            entries_.push_back({item, weights[rank] / sum / static_cast<double>(items.size())});
}

ItemId FindTable::pick(double draw) const {
    double below = 0;
    for (const Entry& entry : entries_) {
        below += entry.share;
        if (draw < below) return entry.item;
    }
    return entries_.back().item; // the sum may end a hair under 1
}

int count_finds(double rolls, double draw) {
    const double whole = std::floor(rolls);
    return static_cast<int>(whole) + (draw < rolls - whole ? 1 : 0);
}

std::int64_t units_of_find(const Drops& drops, ItemId item) {
    for (const PackedItem& counted : drops.counts)
        if (counted.item == item) return counted.count;
    return 1;
}

} // namespace panoplon
