// Where climbs start.
#include "judge/search/search.h"

#include <algorithm>

namespace panoplon {

bool Search::takes_several(ItemId item) const {
    return armoury_.at(item).takes.size() > 1;
}

/// Whether a place may hold it now.
bool Search::is_option(ItemId item) const {
    const std::vector<ItemId>& options = options_[armoury_.at(item).slot.index()];
    return std::binary_search(options.begin(), options.end(), item);
}

/// In each place the item of the highest level, among equals the first; before all others what
/// takes several places, or nothing of that kind. None where there is nothing of it.
std::optional<Candidate> Search::dressed_by_level(bool several) const {
    const auto highest = [&](const std::vector<ItemId>& items, bool wanted) {
        ItemId pick;
        for (const ItemId item : items)
            if (takes_several(item) == wanted && is_option(item) &&
                (!pick.given() || armoury_.at(item).level > armoury_.at(pick).level))
                pick = item;
        return pick;
    };
    Candidate candidate = wardrobe_.bare();
    const auto dress = [&](ItemId item) {
        for (const Position& position : wardrobe_.positions(candidate))
            if (position.slot == armoury_.at(item).slot)
                return wardrobe_.put(candidate, position, item);
    };
    if (several) {
        const ItemId first = highest(wearable_, true);
        if (!first.given() || armoury_.at(armoury_.at(first).slot).socket) return std::nullopt;
        dress(first);
    }
    for (std::size_t p = 0; p < wardrobe_.places().size(); ++p) {
        const SlotId slot = wardrobe_.places()[p];
        const ItemId pick = highest(options_[slot.index()], false);
        const bool full = wardrobe_.occupied(candidate)[slot.index()] >= armoury_.at(slot).count;
        if (pick.given() && !full) wardrobe_.put(candidate, {slot, p, {}}, pick);
    }
    wear_required(candidate);
    return candidate;
}

Candidate Search::bare_as_required() const {
    Candidate candidate = wardrobe_.bare();
    wear_required(candidate);
    return candidate;
}

/// Puts what the encounter asks to be worn into the first place for it.
void Search::wear_required(Candidate& candidate) const {
    for (const ItemId item : required_worn_) {
        if (wears(candidate, item) ||
            std::find(wearable_.begin(), wearable_.end(), item) == wearable_.end())
            continue;
        for (const Position& position : wardrobe_.positions(candidate))
            if (position.slot == armoury_.at(item).slot) {
                wardrobe_.put(candidate, position, item);
                break;
            }
    }
}

/// The best with each set put on whole.
std::vector<Candidate> Search::starts_of_sets() const {
    std::vector<Candidate> list;
    for (std::size_t s = 0; s < armoury_.sets.size(); ++s) {
        Candidate candidate = with_set(best_.candidate, SetId(s));
        if (candidate != best_.candidate) list.push_back(std::move(candidate));
    }
    return list;
}

/// With every piece of a set that can be worn beside the others.
Candidate Search::with_set(Candidate candidate, SetId set) const {
    for (const ItemId item : wearable_) {
        if (armoury_.at(item).set != set || wears(candidate, item) || !is_option(item)) continue;
        for (const Position& position : wardrobe_.positions(candidate)) {
            const ItemId there = Wardrobe::at(candidate, position).item;
            const bool free = !there.given() || armoury_.at(there).set != set;
            if (position.slot != armoury_.at(item).slot || !free) continue;
            wardrobe_.put(candidate, position, item);
            break;
        }
    }
    return candidate;
}

/// The best with the item in each place that it could have in turn; where it needs a socket that
/// the best has not, in something with such a socket.
std::vector<Candidate> Search::starts_with(ItemId item) const {
    const SlotId slot = armoury_.at(item).slot;
    std::vector<Candidate> list;
    const auto put_everywhere = [&](const Candidate& candidate) {
        for (const Position& position : wardrobe_.positions(candidate)) {
            if (position.slot != slot) continue;
            list.push_back(candidate);
            wardrobe_.put(list.back(), position, item);
        }
    };
    put_everywhere(best_.candidate);
    if (!list.empty()) return list;
    for (const Position& position : wardrobe_.positions(best_.candidate))
        for (const ItemId host : options_[position.slot.index()]) {
            const auto& sockets = armoury_.at(host).sockets;
            if (std::find(sockets.begin(), sockets.end(), slot) == sockets.end()) continue;
            Candidate candidate = best_.candidate;
            wardrobe_.put(candidate, position, host);
            put_everywhere(candidate);
        }
    return list;
}

/// A stack, or several where it has no end.
std::int64_t Search::one_stack(ItemId item) const {
    constexpr std::int64_t several = 5;
    const std::int64_t stack = armoury_.at(item).stack;
    return stack == unlimited ? several : stack;
}

/// The best with units of the consumable in place of its group: as many as the best packs of the
/// group, one, or a stack.
std::vector<Candidate> Search::starts_packing(ItemId item) const {
    const std::size_t own = consumable_index(item);
    const std::vector<bool> others = others_of_group(item);
    std::int64_t of_group = best_.candidate.counts[own];
    for (std::size_t c = 0; c < others.size() && c < best_.candidate.counts.size(); ++c)
        if (others[wardrobe_.consumables()[c].index()]) of_group += best_.candidate.counts[c];
    std::vector<Candidate> list;
    for (const std::int64_t count : {of_group, std::int64_t{1}, one_stack(item)}) {
        if (count == 0) continue;
        list.push_back(unpacked(best_.candidate, others));
        list.back().counts[own] = count;
    }
    return list;
}

/// The best with these places empty. Which of a slot's places stay so does not matter but for what
/// is left in the others, so each run of neighbours is tried.
std::vector<Candidate> Search::starts_without(const Footprint& places) const {
    std::vector<Candidate> list = {best_.candidate};
    for (const auto& [slot, count] : places) {
        std::vector<Candidate> next;
        for (const Candidate& candidate : list) {
            std::vector<Position> taken;
            for (const Position& position : wardrobe_.positions(candidate)) {
                const ItemId there = Wardrobe::at(candidate, position).item;
                if (!there.given()) continue;
                const auto& takes = armoury_.at(there).takes;
                if (std::find(takes.begin(), takes.end(), slot) != takes.end())
                    taken.push_back(position);
            }
            const bool socket = armoury_.at(slot).socket;
            const int held = static_cast<int>(taken.size());
            const int room = socket ? held : armoury_.at(slot).count;
            const int leave = std::max(0, room - count);
            const int clear = std::max(0, held - leave);
            for (int first = 0; first + clear <= held; ++first) {
                next.push_back(candidate);
                for (int i = first; i < first + clear; ++i)
                    wardrobe_.put(next.back(), taken[static_cast<std::size_t>(i)], {});
                if (clear == 0) break;
            }
        }
        list = std::move(next);
    }
    return list;
}

} // namespace panoplon
