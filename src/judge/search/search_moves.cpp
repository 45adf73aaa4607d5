#include "judge/search/search.h"

#include <algorithm>

namespace panoplon {

namespace {

/// What loses more than this share of the margin by itself is left out of searches under a
/// condition, where that has not opened its slot.
constexpr double lively_loss = 0.05;

/// So many fillings of each socket are remembered: one may be forbidden.
constexpr std::size_t most_fillings = 2;

} // namespace

/// In each place the item of the highest level; among equals the first.
Candidate Search::dressed_by_level() const {
    Candidate candidate = wardrobe_.bare();
    for (std::size_t p = 0; p < wardrobe_.places().size(); ++p) {
        const SlotId slot = wardrobe_.places()[p];
        const auto& options = options_[slot.index()];
        const auto at = std::max_element(options.begin(), options.end(), [&](ItemId a, ItemId b) {
            return armoury_.at(a).level < armoury_.at(b).level;
        });
        if (at != options.end()) wardrobe_.put(candidate, {slot, p, {}}, *at);
    }
    return candidate;
}

std::vector<Candidate> Search::starts() const {
    std::vector<Candidate> list;
    const auto allowed = [&](ItemId id) {
        const auto in = [&](const std::vector<ItemId>& items) {
            return std::find(items.begin(), items.end(), id) != items.end();
        };
        if (armoury_.at(id).worn()) return in(options_[armoury_.at(id).slot.index()]);
        const auto& consumables = wardrobe_.consumables();
        const auto at = std::find(consumables.begin(), consumables.end(), id);
        return at != consumables.end() &&
               usable_[static_cast<std::size_t>(at - consumables.begin())];
    };
    list.insert(list.end(), hints_.begin(), hints_.end());
    list.push_back(dressed_by_level());
    for (const Loadout& loadout : armoury_.loadouts)
        if (loadout.character == context_.character)
            list.push_back(wardrobe_.from_loadout(loadout, allowed));
    list.push_back(wardrobe_.bare());
    for (Candidate& start : list) wear_required(start);
    return list;
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

/// What no single exchange leads to: each whole set put on, and each piece that takes several
/// places, over the best so far.
std::vector<Candidate> Search::starts_from_best() const {
    std::vector<Candidate> list;
    for (std::size_t s = 0; s < armoury_.sets.size(); ++s) {
        Candidate candidate = best_.candidate;
        for (const ItemId item : wearable_) {
            if (armoury_.at(item).set != SetId(s) || wears(candidate, item)) continue;
            for (const Position& position : wardrobe_.positions(candidate)) {
                const ItemId there = Wardrobe::at(candidate, position).item;
                const bool free = !there.given() || armoury_.at(there).set != SetId(s);
                if (position.slot != armoury_.at(item).slot || !free) continue;
                wardrobe_.put(candidate, position, item);
                break;
            }
        }
        if (candidate != best_.candidate) list.push_back(std::move(candidate));
    }
    Candidate single = best_.candidate;
    for (std::size_t p = 0; p < single.places.size(); ++p) {
        const ItemId worn = single.places[p].item;
        if (worn.given() && armoury_.at(worn).takes.size() > 1) single.places[p] = {};
    }
    // Emptied of what takes several places, filled by level, one place each.
    for (std::size_t p = 0; p < single.places.size(); ++p) {
        if (single.places[p].item.given()) continue;
        const SlotId slot = wardrobe_.places()[p];
        ItemId pick;
        for (const ItemId item : options_[slot.index()])
            if (armoury_.at(item).takes.size() == 1 &&
                (!pick.given() || armoury_.at(item).level > armoury_.at(pick).level))
                pick = item;
        if (pick.given()) wardrobe_.put(single, {slot, p, {}}, pick);
    }
    if (single != best_.candidate) list.push_back(std::move(single));
    for (const ItemId item : wearable_)
        if (armoury_.at(item).takes.size() > 1)
            for (Candidate& candidate : starts_with(item)) list.push_back(std::move(candidate));
    return list;
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

/// What the empty sockets of something are filled with when it is put on; none where it has none.
ItemId Search::filling_of(ItemId host, const Condition& condition) const {
    for (const SlotId socket : armoury_.at(host).sockets)
        for (const ItemId filling : fillings_[socket.index()])
            if (condition.banned.empty() || !condition.banned[filling.index()]) return filling;
    return {};
}

/// Every exchange of one thing: what a place holds, or how many of a consumable are packed.
std::vector<Search::Move> Search::moves(const Candidate& from, const Condition& condition) const {
    std::vector<Move> list;
    for (const Position& position : wardrobe_.positions(from)) {
        const ItemId there = Wardrobe::at(from, position).item;
        for (const ItemId option : options_in(position.slot, condition))
            if (option != there)
                list.push_back({position, -1, option, 0, filling_of(option, condition)});
        if (there.given()) list.push_back({position, -1, {}, 0, {}});
    }
    for (std::size_t c = 0; c < usable_.size(); ++c) {
        const ItemId item = wardrobe_.consumables()[c];
        const bool banned = !condition.banned.empty() && condition.banned[item.index()];
        if (!usable_[c] || banned) continue;
        const std::int64_t stack = one_stack(item);
        const std::int64_t now = from.counts[c];
        for (const std::int64_t count : {now + stack, now + 1, now - 1, std::int64_t{0}})
            if (count >= 0 && count != now)
                list.push_back({{}, static_cast<int>(c), {}, count, {}});
    }
    return list;
}

Candidate Search::moved(Candidate candidate, const Move& move) const {
    if (move.packed < 0) {
        wardrobe_.put(candidate, move.position, move.item);
        if (move.filling.given()) wardrobe_.fill(candidate, move.position, move.filling);
    } else {
        candidate.counts[static_cast<std::size_t>(move.packed)] = move.count;
    }
    return candidate;
}

} // namespace panoplon
