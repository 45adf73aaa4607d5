#include "judge/paper/peers.h"

#include "judge/paper/stats_read.h"
#include "outfit/needs.h"

#include <algorithm>
#include <cstdlib>
#include <set>
#include <string>

namespace panoplon {

int arrival_of(const Armoury& armoury, const Item& item) {
    return std::max(item.wear_level(), armoury.levels.first);
}

bool share_a_place(const Item& one, const Item& other) {
    if (one.worn() && other.worn())
        return std::find_first_of(one.takes.begin(), one.takes.end(), other.takes.begin(),
                                  other.takes.end()) != one.takes.end();
    return !one.worn() && !other.worn() && !one.group().empty() && one.group() == other.group();
}

Peers::Peers(const Armoury& armoury)
    : armoury_(armoury),
      arrivals_(armoury.characters.size()),
      hosts_(armoury.characters.size()) {
    lowest_ = every_rank;
    for (const Tier& tier : armoury.tiers) lowest_ = std::min(lowest_, tier.rank);
    if (armoury.tiers.empty()) lowest_ = 0;
    const std::vector<bool> read = stats_read(armoury);
    for (const Item& item : armoury.items)
        idle_.push_back(!idle_gifts(armoury, read, item).empty());
    std::set<SlotId> tiered_slots;
    std::set<std::string> tiered_groups;
    for (const Item& item : armoury.items) {
        if (!item.tier.given()) continue;
        tiered_slots.insert(item.takes.begin(), item.takes.end());
        if (!item.group().empty()) tiered_groups.insert(item.group());
    }
    for (const Item& item : armoury.items)
        beside_tiers_.push_back(
            item.tier.given() ||
            std::any_of(item.takes.begin(), item.takes.end(),
                        [&](SlotId slot) { return tiered_slots.contains(slot); }) ||
            tiered_groups.contains(item.group()));
    for (std::size_t c = 0; c < armoury.characters.size(); ++c) {
        hosts_[c].resize(armoury.slots.size());
        for (const Item& item : armoury.items) {
            if ((!item.worn() && !item.consumed()) ||
                !is_among(armoury, item.needs, CharacterId(c)))
                continue;
            arrive(arrivals_[c], item);
            for (const SlotId socket : item.sockets) arrive(hosts_[c][socket.index()], item);
        }
    }
}

void Peers::arrive(Arrivals& list, const Item& item) const {
    const int rank = item.tier.given() ? armoury_.at(item.tier).rank : lowest_;
    const auto same = std::find_if(list.begin(), list.end(),
                                   [&](const Arrival& one) { return one.rank == rank; });
    if (same == list.end())
        list.push_back({rank, item.wear_level()});
    else
        same->level = std::min(same->level, item.wear_level());
}

int Peers::rank_of(const Item& item) const {
    if (armoury_.audit.among == Among::all) return 0;
    return item.tier.given() ? armoury_.at(item.tier).rank : lowest_;
}

bool Peers::is_rival(ItemId other_id, ItemId item_id) const {
    const Item& other = armoury_.at(other_id);
    const Item& item = armoury_.at(item_id);
    const int apart = arrival_of(armoury_, other) - arrival_of(armoury_, item);
    return !idle_[other_id.index()] && share_a_place(other, item) &&
           rank_of(other) == rank_of(item) && std::abs(apart) <= armoury_.audit.grace;
}

bool Peers::succeeds(ItemId other_id, ItemId item_id) const {
    const Item& other = armoury_.at(other_id);
    const Item& item = armoury_.at(item_id);
    return !idle_[other_id.index()] && other.slot == item.slot && share_a_place(other, item) &&
           rank_of(other) >= rank_of(item) &&
           arrival_of(armoury_, other) > arrival_of(armoury_, item) + armoury_.audit.grace;
}

int Peers::world_of(ItemId item, CharacterId character, int level) const {
    if (armoury_.audit.among == Among::all || !beside_tiers_[item.index()]) return every_rank;
    int rank = rank_of(armoury_.at(item));
    const SlotId slot = armoury_.at(item).slot;
    if (slot.given() && armoury_.at(slot).socket) {
        int first_host = every_rank;
        for (const Arrival& host : hosts_[character.index()][slot.index()])
            if (host.level <= level) first_host = std::min(first_host, host.rank);
        rank = std::max(rank, first_host);
    }
    return world_up_to(rank, character, level);
}

int Peers::world_of(SetId set, CharacterId character, int level) const {
    if (armoury_.audit.among == Among::all) return every_rank;
    int rank = lowest_;
    for (const Item& item : armoury_.items)
        if (item.set == set) rank = std::max(rank, rank_of(item));
    return world_up_to(rank, character, level);
}

int Peers::world_up_to(int rank, CharacterId character, int level) const {
    const std::vector<Arrival>& list = arrivals_[character.index()];
    const bool any_higher = std::any_of(list.begin(), list.end(), [&](const Arrival& one) {
        return one.rank > rank && one.level <= level;
    });
    return any_higher ? rank : every_rank;
}

} // namespace panoplon
