#include "judge/search/wardrobe.h"

#include "outfit/points.h"

#include <algorithm>

namespace panoplon {

namespace {

Placed& within(Candidate& candidate, const Position& position) {
    Placed* placed = &candidate.places[position.place];
    for (const std::size_t step : position.path) placed = &placed->sockets[step];
    return *placed;
}

/// What an upgrade adds to a stat, by level.
double added_by(const Upgrade& upgrade, StatId stat) {
    for (const Amount& amount : upgrade.modifiers.add)
        if (amount.stat == stat) return amount.amount;
    return 0;
}

} // namespace

std::size_t CandidateHash::operator()(const Candidate& candidate) const {
    std::uint64_t hash = 0;
    const auto add = [&](std::int64_t value) {
        constexpr std::uint64_t odd = 0x9e3779b97f4a7c15; // spreads every bit over the word
        hash = (hash ^ static_cast<std::uint64_t>(value + 1)) * odd;
        hash ^= hash >> 32;
    };
    const auto add_placed = [&](const auto& self, const Placed& placed) -> void {
        add(placed.item.value);
        for (const Placed& inner : placed.sockets) self(self, inner);
    };
    for (const Placed& placed : candidate.places) add_placed(add_placed, placed);
    for (const std::int64_t count : candidate.counts) add(count);
    for (const int levels : candidate.points) add(levels);
    return hash;
}

Wardrobe::Wardrobe(const Armoury& armoury)
    : armoury_(armoury),
      for_points_(upgrades_for_points(armoury)),
      even_points_(for_points_.size(), 0) {
    for (std::size_t s = 0; s < armoury.slots.size(); ++s)
        if (!armoury.slots[s].socket)
            for (int i = 0; i < armoury.slots[s].count; ++i) places_.emplace_back(s);
    for (std::size_t i = 0; i < armoury.items.size(); ++i)
        if (armoury.items[i].consumed()) consumables_.emplace_back(i);
    for (const Item& item : armoury.items) {
        std::vector<PackedItem>& spent = spent_.emplace_back();
        for (const ActionId action : item.actions)
            for (const PackedItem& one : armoury.at(action).spends) spent.push_back(one);
    }
}

Candidate Wardrobe::bare() const {
    return {std::vector<Placed>(places_.size()), std::vector<std::int64_t>(consumables_.size(), 0),
            even_points_};
}

void Wardrobe::spend_evenly(int points, std::vector<double> bare_stats) {
    bare_stats_ = std::move(bare_stats);
    std::vector<BoughtUpgrade> parts;
    for (const UpgradeId upgrade : for_points_) parts.push_back({upgrade, 1, {}});
    even_points_.clear();
    for (const BoughtUpgrade& spent : spread_points(armoury_, points, parts))
        even_points_.push_back(spent.levels);
}

const Placed& Wardrobe::at(const Candidate& candidate, const Position& position) {
    const Placed* placed = &candidate.places[position.place];
    for (const std::size_t step : position.path) placed = &placed->sockets[step];
    return *placed;
}

void Wardrobe::list_sockets(const Placed& host, Position at, std::vector<Position>& into) const {
    if (!host.item.given()) return;
    const std::vector<SlotId>& sockets = armoury_.at(host.item).sockets;
    at.path.push_back(0);
    for (std::size_t i = 0; i < sockets.size(); ++i) {
        at.path.back() = i;
        at.slot = sockets[i];
        into.push_back(at);
        list_sockets(host.sockets[i], at, into);
    }
}

std::vector<Position> Wardrobe::positions(const Candidate& candidate) const {
    std::vector<Position> list;
    for (std::size_t p = 0; p < places_.size(); ++p) list.push_back({places_[p], p, {}});
    for (std::size_t p = 0; p < places_.size(); ++p)
        list_sockets(candidate.places[p], {places_[p], p, {}}, list);
    return list;
}

std::vector<int> Wardrobe::occupied(const Candidate& candidate) const {
    std::vector<int> held(armoury_.slots.size(), 0);
    for_each_item(candidate, [&](ItemId id) {
        for (const SlotId slot : armoury_.at(id).takes) ++held[slot.index()];
    });
    return held;
}

bool Wardrobe::goes_together(const Candidate& candidate) const {
    const std::vector<int> held = occupied(candidate);
    for (std::size_t s = 0; s < held.size(); ++s)
        if (!armoury_.slots[s].socket && held[s] > armoury_.slots[s].count) return false;
    std::vector<std::string> groups;
    for_each_item(candidate, [&](ItemId id) {
        if (!armoury_.at(id).unique.empty()) groups.push_back(armoury_.at(id).unique);
    });
    std::sort(groups.begin(), groups.end());
    return std::adjacent_find(groups.begin(), groups.end()) == groups.end();
}

/// Empties places until every slot holds what it can; the item in `kept` stays.
void Wardrobe::make_room(Candidate& candidate, std::size_t kept) const {
    std::vector<int> held = occupied(candidate);
    for (const SlotId slot : armoury_.at(candidate.places[kept].item).takes)
        for (std::size_t p = places_.size();
             p-- > 0 && held[slot.index()] > armoury_.at(slot).count;) {
            const ItemId item = candidate.places[p].item;
            if (p == kept || !item.given()) continue;
            const auto& takes = armoury_.at(item).takes;
            if (std::find(takes.begin(), takes.end(), slot) == takes.end()) continue;
            candidate.places[p] = {};
            held = occupied(candidate);
        }
}

/// Takes others of a unique group out.
void Wardrobe::part_unique(Placed& placed, const std::string& group, const Placed* kept) const {
    if (!placed.item.given()) return;
    if (&placed != kept && armoury_.at(placed.item).unique == group) placed = {};
    for (Placed& inner : placed.sockets) part_unique(inner, group, kept);
}

void Wardrobe::put(Candidate& candidate, const Position& position, ItemId item) const {
    Placed& placed = within(candidate, position);
    const Placed old = std::move(placed);
    placed = {item, {}};
    if (!item.given()) return;
    const Item& fresh = armoury_.at(item);
    placed.sockets.resize(fresh.sockets.size());
    if (old.item.given()) {
        const std::vector<SlotId>& before = armoury_.at(old.item).sockets;
        for (std::size_t i = 0; i < std::min(before.size(), fresh.sockets.size()); ++i)
            if (before[i] == fresh.sockets[i]) placed.sockets[i] = old.sockets[i];
    }
    if (!fresh.unique.empty())
        for (Placed& other : candidate.places) part_unique(other, fresh.unique, &placed);
    for (const PackedItem& spent : spent_[item.index()]) pack_some(candidate, spent);
    if (!bare_stats_.empty() && !candidate.points.empty()) meet_needs_of(candidate, fresh);
    if (position.path.empty()) make_room(candidate, position.place);
}

/// Where points that add to a stat can make up what an item needs of it, they are taken, level by
/// level, from what most are spent on; whether that is enough, who looks at the candidate asks.
void Wardrobe::meet_needs_of(Candidate& candidate, const Item& item) const {
    for (const Amount& need : item.needs.stats) {
        double has = bare_stats_[need.stat.index()];
        std::size_t helps = for_points_.size();
        for (std::size_t i = 0; i < for_points_.size(); ++i) {
            const double added = added_by(armoury_.at(for_points_[i]), need.stat);
            has += added * candidate.points[i];
            if (added > 0) helps = i;
        }
        if (helps == for_points_.size()) continue;
        const Upgrade& upgrade = armoury_.at(for_points_[helps]);
        int free = 0;
        while (has < need.amount && candidate.points[helps] < upgrade.max) {
            std::size_t most = for_points_.size();
            for (std::size_t i = 0; i < for_points_.size(); ++i)
                if (i != helps && candidate.points[i] > 0 &&
                    (most == for_points_.size() || candidate.points[i] > candidate.points[most]))
                    most = i;
            if (free < upgrade.points && most == for_points_.size()) break;
            if (free < upgrade.points) {
                free += armoury_.at(for_points_[most]).points;
                candidate.points[most] -= 1;
                continue;
            }
            free -= upgrade.points;
            candidate.points[helps] += 1;
            has += added_by(upgrade, need.stat);
        }
    }
}

/// A stack of what is not packed yet, but what is endless in one.
void Wardrobe::pack_some(Candidate& candidate, const PackedItem& spent) const {
    constexpr std::int64_t plenty = 20;
    const auto at = std::find(consumables_.begin(), consumables_.end(), spent.item);
    std::int64_t& count = candidate.counts[static_cast<std::size_t>(at - consumables_.begin())];
    if (count > 0) return;
    const std::int64_t stack = armoury_.at(spent.item).stack;
    count = std::max(spent.count, stack == unlimited ? plenty * spent.count : stack);
}

void Wardrobe::fill(Candidate& candidate, const Position& host, ItemId filling) const {
    for (const Position& position : positions(candidate)) {
        const bool inside = position.place == host.place && position.path.size() > host.path.size();
        if (inside && position.slot == armoury_.at(filling).slot &&
            !at(candidate, position).item.given())
            put(candidate, position, filling);
    }
}

namespace {

std::vector<WornItem> socketed_in(const Armoury& armoury, const Placed& host) {
    std::vector<WornItem> list;
    for (std::size_t i = 0; i < host.sockets.size(); ++i)
        if (host.sockets[i].item.given())
            list.push_back({armoury.at(host.item).sockets[i],
                            host.sockets[i].item,
                            {},
                            socketed_in(armoury, host.sockets[i])});
    return list;
}

} // namespace

std::vector<WornItem> Wardrobe::worn(const Candidate& candidate) const {
    std::vector<WornItem> list;
    for (std::size_t p = 0; p < places_.size(); ++p)
        if (candidate.places[p].item.given())
            list.push_back({places_[p],
                            candidate.places[p].item,
                            {},
                            socketed_in(armoury_, candidate.places[p])});
    return list;
}

std::vector<PackedItem> Wardrobe::packed(const Candidate& candidate) const {
    std::vector<PackedItem> list;
    for (std::size_t c = 0; c < consumables_.size(); ++c)
        if (candidate.counts[c] > 0) list.push_back({consumables_[c], candidate.counts[c], {}});
    return list;
}

Footprint Wardrobe::footprint(const Item& item, int times) const {
    Footprint list;
    for (const SlotId slot : item.takes) {
        if (list.empty() || list.back().first != slot) list.emplace_back(slot, 0);
        list.back().second += times;
    }
    for (auto& [slot, places] : list)
        if (!armoury_.at(slot).socket) places = std::min(places, armoury_.at(slot).count);
    return list;
}

} // namespace panoplon
