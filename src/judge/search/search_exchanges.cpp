// What is exchanged in one go: one thing for another, or what only pays together. From one kind of
// bead in all sockets to another, from a weapon for two hands to one and a shield, from one draught
// to another no way leads by single changes, each for the better.
#include "judge/search/search.h"

#include <algorithm>

namespace panoplon {

namespace {

/// What loses more than this share of the margin by itself is left out of searches under a
/// condition, where that has not opened its slot.
constexpr double lively_loss = 0.02;

/// So many fillings of each socket are remembered: one may be forbidden, another not help here.
constexpr std::size_t most_fillings = 3;

} // namespace

const std::vector<ItemId>& Search::options_in(SlotId slot, const Condition& condition) const {
    const bool open =
        !condition.lively_only ||
        std::find(condition.open.begin(), condition.open.end(), slot) != condition.open.end();
    return open ? options_[slot.index()] : lively_[slot.index()];
}

/// What each slot could hold without falling far below the best (M86: one fight each tells). A
/// socket that the best does not have is open to everything.
void Search::find_lively() {
    lively_.assign(options_.size(), {});
    std::vector<bool> seen(options_.size(), false);
    for (const Position& position : wardrobe_.positions(best_.candidate)) {
        std::vector<ItemId>& lively = lively_[position.slot.index()];
        seen[position.slot.index()] = true;
        for (const ItemId option : options_[position.slot.index()]) {
            if (std::find(lively.begin(), lively.end(), option) != lively.end()) continue;
            Candidate candidate = best_.candidate;
            wardrobe_.put(candidate, position, option);
            if (Wardrobe::at(best_.candidate, position).item == option ||
                !hopeless(candidate, {}, best_.margin.value, lively_loss))
                lively.push_back(option);
        }
    }
    for (std::size_t s = 0; s < seen.size(); ++s)
        if (!seen[s]) lively_[s] = options_[s];
    std::vector<Exchange> packs;
    list_packs(best_.candidate, {}, packs);
    lively_packs_.clear();
    for (Exchange& exchange : packs)
        if (!hopeless(after(best_.candidate, exchange), {}, best_.margin.value, lively_loss))
            lively_packs_.push_back(std::move(exchange));
}

/// What shows what a socket can be worth: the best fillings of each, in something that has it worn
/// with the best so far. Something with empty sockets would be judged by less than it is.
void Search::find_fillings() {
    for (const ItemId host : wearable_)
        for (const SlotId socket : armoury_.at(host).sockets) {
            std::vector<ItemId>& best = fillings_[socket.index()];
            if (!best.empty()) continue;
            std::vector<std::pair<double, ItemId>> tried;
            for (const Candidate& start : starts_with(host))
                for (const ItemId filling : options_[socket.index()]) {
                    Candidate candidate = start;
                    for (const Position& position : wardrobe_.positions(start))
                        if (Wardrobe::at(start, position).item == host)
                            wardrobe_.fill(candidate, position, filling);
                    const auto margin = margin_of(candidate, {}, best_.margin.value);
                    if (margin) tried.emplace_back(-margin->value, filling);
                }
            std::sort(tried.begin(), tried.end());
            for (const auto& [margin, filling] : tried)
                if (best.size() < most_fillings &&
                    std::find(best.begin(), best.end(), filling) == best.end())
                    best.push_back(filling);
        }
}

/// What the empty sockets of something may be filled with when it is put on: nothing where it has
/// none, or nothing to fill them.
std::vector<ItemId> Search::fillings_of(ItemId host, const Condition& condition) const {
    std::vector<ItemId> list;
    for (const SlotId socket : armoury_.at(host).sockets)
        for (const ItemId filling : fillings_[socket.index()])
            if (condition.banned.empty() || !condition.banned[filling.index()])
                list.push_back(filling);
    if (list.empty()) list.emplace_back();
    return list;
}

/// What a place holds is another thing, or nothing. Where it has sockets, the first filling goes
/// into what the old one leaves empty, the others into all.
void Search::list_things(const Candidate& from, const Condition& condition,
                         std::vector<Exchange>& list) const {
    for (const Position& position : wardrobe_.positions(from)) {
        const ItemId there = Wardrobe::at(from, position).item;
        for (const ItemId option : options_in(position.slot, condition)) {
            if (option == there) continue;
            if (armoury_.at(option).sockets.empty()) {
                list.push_back({worn_edit(position, option)});
                continue;
            }
            const std::vector<ItemId> fillings = fillings_of(option, condition);
            list.push_back({worn_edit(position, option, fillings.front())});
            for (std::size_t f = 1; f < fillings.size(); ++f)
                list.push_back({worn_edit(position, {}), worn_edit(position, option, fillings[f])});
        }
        if (there.given()) list.push_back({worn_edit(position, {})});
    }
}

/// Every socket of a kind holds the same.
void Search::list_sockets(const Candidate& from, const Condition& condition,
                          std::vector<Exchange>& list) const {
    for (std::size_t s = 0; s < armoury_.slots.size(); ++s) {
        if (!armoury_.slots[s].socket) continue;
        std::vector<Position> sockets;
        for (const Position& position : wardrobe_.positions(from))
            if (position.slot == SlotId(s)) sockets.push_back(position);
        if (sockets.size() < 2) continue;
        for (const ItemId option : options_in(SlotId(s), condition)) {
            Exchange exchange;
            for (const Position& position : sockets)
                exchange.push_back(worn_edit(position, option));
            list.push_back(std::move(exchange));
        }
    }
}

/// In place of what takes several places: one thing in its own and one in another of them.
void Search::list_parted(const Candidate& from, const Condition& condition,
                         std::vector<Exchange>& list) const {
    const std::vector<Position> positions = wardrobe_.positions(from);
    for (const Position& position : positions) {
        const ItemId there = Wardrobe::at(from, position).item;
        if (!there.given() || armoury_.at(there).takes.size() < 2) continue;
        const auto& takes = armoury_.at(there).takes;
        for (const Position& other : positions) {
            if (other.slot == position.slot || Wardrobe::at(from, other).item.given() ||
                std::find(takes.begin(), takes.end(), other.slot) == takes.end())
                continue;
            for (const ItemId option : options_in(position.slot, condition)) {
                if (armoury_.at(option).takes.size() > 1) continue;
                for (const ItemId second : options_in(other.slot, condition))
                    list.push_back(
                        {worn_edit(position, option, fillings_of(option, condition).front()),
                         worn_edit(other, second, fillings_of(second, condition).front())});
            }
        }
    }
}

/// More or less of a consumable, or of it in place of another.
void Search::list_packs(const Candidate& from, const Condition& condition,
                        std::vector<Exchange>& list) const {
    for (std::size_t c = 0; c < usable_.size(); ++c) {
        const ItemId item = wardrobe_.consumables()[c];
        const bool banned = !condition.banned.empty() && condition.banned[item.index()];
        if (!usable_[c] || banned) continue;
        const std::int64_t stack = one_stack(item);
        const std::int64_t now = from.counts[c];
        for (const std::int64_t count : {now + stack, now + 1, now - 1, std::int64_t{0}})
            if (count >= 0 && count != now) list.push_back({packed_edit(c, count)});
        for (std::size_t other = 0; other < usable_.size(); ++other) {
            if (other == c || from.counts[other] == 0) continue;
            for (const std::int64_t count : {now + stack, now + from.counts[other]})
                list.push_back({packed_edit(c, count), packed_edit(other, 0)});
        }
    }
}

/// All levels of one upgrade that takes points, half of them or one go to another, with what was
/// not spent.
void Search::list_points(const Candidate& from, std::vector<Exchange>& list) const {
    int unspent = points_;
    const std::vector<UpgradeId>& upgrades = wardrobe_.for_points();
    for (std::size_t i = 0; i < from.points.size(); ++i)
        unspent -= from.points[i] * armoury_.at(upgrades[i]).points;
    for (std::size_t to = 0; to < from.points.size(); ++to)
        for (std::size_t i = 0; i < from.points.size(); ++i) {
            const int has = from.points[i];
            for (const int moved : {has, (has + 1) / 2, 1}) {
                if (i == to || has == 0 || points_ == 0) continue;
                std::vector<int> points = from.points;
                const int cost = armoury_.at(upgrades[to]).points;
                const int free = unspent + moved * armoury_.at(upgrades[i]).points;
                const int gained =
                    std::min(free / cost, armoury_.at(upgrades[to]).max - points[to]);
                points[i] -= moved;
                points[to] += gained;
                if (gained > 0) list.push_back({points_edit(std::move(points))});
            }
        }
}

std::vector<Search::Exchange> Search::exchanges(const Candidate& from,
                                                const Condition& condition) const {
    std::vector<Exchange> list;
    if (!condition.packs_only) {
        list_things(from, condition, list);
        list_sockets(from, condition, list);
        list_parted(from, condition, list);
        list_points(from, list);
    }
    if (condition.lively_only && from.counts == best_.candidate.counts)
        list.insert(list.end(), lively_packs_.begin(), lively_packs_.end());
    else
        list_packs(from, condition, list);
    return list;
}

Candidate Search::after(Candidate candidate, const Exchange& exchange) const {
    for (const Edit& edit : exchange) {
        if (!edit.points.empty()) {
            candidate.points = edit.points;
            continue;
        }
        if (edit.packed >= 0) {
            candidate.counts[static_cast<std::size_t>(edit.packed)] = edit.count;
            continue;
        }
        wardrobe_.put(candidate, edit.position, edit.item);
        if (edit.filling.given()) wardrobe_.fill(candidate, edit.position, edit.filling);
    }
    return candidate;
}

} // namespace panoplon
