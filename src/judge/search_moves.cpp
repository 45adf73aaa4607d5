#include "judge/search.h"

#include <algorithm>

namespace panoplon {

Candidate Search::bare() const {
    return {std::vector<ItemId>(places_.size()), std::vector<std::int64_t>(consumables_.size(), 0)};
}

/// In each place the item of the highest level; among equals the first.
Candidate Search::dressed_by_level() const {
    Candidate candidate = bare();
    for (std::size_t p = 0; p < places_.size(); ++p) {
        const auto& options = options_[places_[p].index()];
        const auto at = std::max_element(options.begin(), options.end(), [&](ItemId a, ItemId b) {
            return armoury_.at(a).level < armoury_.at(b).level;
        });
        if (at != options.end()) candidate.places[p] = *at;
    }
    return candidate;
}

/// What of a defined loadout can be worn and used at this level.
Candidate Search::from_loadout(const Loadout& loadout) const {
    Candidate candidate = bare();
    for (const WornItem& worn : loadout.worn) {
        const Item& item = armoury_.at(worn.item);
        if (item.slot != worn.slot || item.level > context_.level) continue;
        for (std::size_t p = 0; p < places_.size(); ++p)
            if (places_[p] == worn.slot && !candidate.places[p].given()) {
                candidate.places[p] = worn.item;
                break;
            }
    }
    for (const PackedItem& packed : loadout.pack)
        for (std::size_t c = 0; c < consumables_.size(); ++c)
            if (consumables_[c] == packed.item && armoury_.at(packed.item).level <= context_.level)
                candidate.counts[c] = packed.count;
    return candidate;
}

std::vector<Candidate> Search::starts() const {
    std::vector<Candidate> list;
    if (hint_) list.push_back(*hint_);
    list.push_back(dressed_by_level());
    for (const Loadout& loadout : armoury_.loadouts)
        if (loadout.character == context_.character) list.push_back(from_loadout(loadout));
    list.push_back(bare());
    return list;
}

const std::vector<ItemId>& Search::options_in(SlotId slot, const Condition& condition) const {
    return condition.lively_only && slot != condition.open_slot ? lively_[slot.index()]
                                                                : options_[slot.index()];
}

/// What each slot could hold without falling far below the best (M86: one fight each tells).
void Search::find_lively() {
    lively_.assign(options_.size(), {});
    for (std::size_t p = 0; p < places_.size(); ++p) {
        std::vector<ItemId>& lively = lively_[places_[p].index()];
        for (const ItemId option : options_[places_[p].index()]) {
            if (std::find(lively.begin(), lively.end(), option) != lively.end()) continue;
            Candidate candidate = best_.candidate;
            candidate.places[p] = option;
            if (best_.candidate.places[p] == option || !hopeless(candidate, {}, best_.margin.value))
                lively.push_back(option);
        }
    }
}

/// Every exchange of one thing: what a place holds, or how many of a consumable are packed.
std::vector<Search::Move> Search::moves(const Candidate& from, const Condition& condition) const {
    std::vector<Move> list;
    for (std::size_t p = 0; p < places_.size(); ++p) {
        if (std::find(condition.fixed_places.begin(), condition.fixed_places.end(),
                      static_cast<int>(p)) != condition.fixed_places.end())
            continue;
        for (const ItemId option : options_in(places_[p], condition))
            if (option != from.places[p]) list.push_back({static_cast<int>(p), -1, option, 0});
        if (from.places[p].given()) list.push_back({static_cast<int>(p), -1, {}, 0});
    }
    for (std::size_t c = 0; c < consumables_.size(); ++c) {
        const Item& item = armoury_.at(consumables_[c]);
        if (item.level > context_.level) continue;
        constexpr std::int64_t several = 5;
        const std::int64_t stack = item.stack == unlimited ? several : item.stack;
        const std::int64_t now = from.counts[c];
        for (const std::int64_t count : {now + stack, now + 1, now - 1, std::int64_t{0}})
            if (count >= 0 && count != now) list.push_back({-1, static_cast<int>(c), {}, count});
    }
    return list;
}

Candidate Search::moved(Candidate candidate, const Move& move) {
    if (move.place >= 0)
        candidate.places[static_cast<std::size_t>(move.place)] = move.item;
    else
        candidate.counts[static_cast<std::size_t>(move.packed)] = move.count;
    return candidate;
}

} // namespace panoplon
