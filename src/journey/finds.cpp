#include "journey/finds.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

namespace panoplon {

namespace {

/// Of an entry, against the others of its drops.
double weight_of(const Drops& drops, ItemId item) {
    for (const PackedItem& weighed : drops.weights)
        if (weighed.item == item) return static_cast<double>(weighed.count);
    return 1;
}

double rolled_amount(const Roll& roll, double draw) {
    const double way = roll.best - roll.worst;
    if (roll.step <= 0) return roll.worst + way * draw;
    constexpr double hair = 1e-9; // 0.3 is three steps of 0.1
    const double steps = std::floor(std::abs(way) / roll.step + hair);
    return roll.worst + std::copysign(roll.step, way) * std::floor(draw * (steps + 1));
}

AffixId drawn_affix(const AffixDraw& from, double draw) {
    AffixId last;
    for (std::size_t a = 0; a < from.affixes.size(); ++a) {
        if (from.shares[a] <= 0) continue;
        last = from.affixes[a];
        if (draw < from.shares[a]) break;
        draw -= from.shares[a];
    }
    return last; // the shares may end a hair under 1
}

} // namespace

FindTable::FindTable(const Armoury& armoury, const Drops& drops, int level) {
    std::map<int, Rung> by_rank;
    constexpr int below_all = -1'000'000;
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        const Item& item = armoury.items[i];
        if (!can_drop(drops, armoury, ItemId(i))) continue;
        if (drops.items.empty() && std::abs(item.level - level) > drops.level_band) continue;
        const Tier* tier = item.tier.given() ? &armoury.at(item.tier) : nullptr;
        Rung& rung = by_rank[tier ? tier->rank : below_all];
        const double weight = weight_of(drops, ItemId(i));
        if (drops.weights.empty())
            rung.weight = tier ? tier->drop_weight : 1;
        else
            rung.weight += weight;
        rung.items.emplace_back(i);
        rung.shares.push_back(weight);
    }
    for (auto& [rank, rung] : by_rank) {
        const double sum = std::accumulate(rung.shares.begin(), rung.shares.end(), 0.0);
        for (double& share : rung.shares) share = sum > 0 ? share / sum : 0;
    }
    for (auto& [rank, rung] : by_rank) rungs_.push_back(std::move(rung));
}

template <class Visit>
void FindTable::for_each_share(double luck, const Visit& visit) const {
    const double step = std::max(0.0, 1 + luck);
    double sum = 0;
    double factor = 1;
    for (const Rung& rung : rungs_) {
        sum += rung.weight * factor;
        factor *= step;
    }
    if (sum <= 0) return;
    factor = 1;
    for (const Rung& rung : rungs_) {
        visit(rung, rung.weight * factor / sum);
        factor *= step;
    }
}

std::vector<FindTable::Entry> FindTable::entries(double luck) const {
    std::vector<Entry> entries;
    for_each_share(luck, [&](const Rung& rung, double share) {
        for (std::size_t i = 0; i < rung.items.size(); ++i)
            entries.push_back({rung.items[i], share * rung.shares[i]});
    });
    return entries;
}

std::optional<ItemId> FindTable::pick(double luck, double draw) const {
    const Rung* found = nullptr;
    double within = 0; // of the rung
    double below = 0;
    for_each_share(luck, [&](const Rung& rung, double share) {
        if (share <= 0 || draw < below) return;
        found = &rung;
        within = (draw - below) / share;
        below += share;
    });
    if (!found) return std::nullopt;
    std::optional<ItemId> last;
    for (std::size_t i = 0; i < found->items.size(); ++i) {
        if (found->shares[i] <= 0) continue;
        last = found->items[i];
        if (within < found->shares[i]) break;
        within -= found->shares[i];
    }
    return last; // the shares may end a hair under 1
}

int count_finds(double rolls, double draw) {
    const double whole = std::floor(rolls);
    return static_cast<int>(whole) + (draw < rolls - whole ? 1 : 0);
}

Drawn draw_of_find(const Item& item, const Luck& luck, std::uint64_t fight, std::uint64_t ordinal) {
    Drawn drawn;
    std::uint64_t number = 0; // of the draw
    for (const Roll& roll : item.rolls)
        drawn.rolled.push_back(
            {roll.stat, rolled_amount(roll, roll_draw(luck, fight, ordinal, number++))});
    for (const AffixDraw& draw : item.affixes)
        drawn.affixes.push_back(drawn_affix(draw, roll_draw(luck, fight, ordinal, number++)));
    return drawn;
}

std::int64_t units_of_find(const Drops& drops, ItemId item) {
    for (const PackedItem& counted : drops.counts)
        if (counted.item == item) return counted.count;
    return 1;
}

} // namespace panoplon
