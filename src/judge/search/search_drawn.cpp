// Loadouts drawn at random.
#include "judge/search/search.h"

namespace panoplon {

namespace {

/// One of a list, by a number in [0, 1).
template <class List>
const auto& one_of(const List& list, double draw) {
    return list[static_cast<std::size_t>(draw * static_cast<double>(list.size()))];
}

} // namespace

Candidate Search::drawn(const Draw& draw) const {
    constexpr double empty_share = 0.1;
    constexpr double packed_share = 0.5;
    Candidate candidate = wardrobe_.bare();
    for (std::size_t p = 0; p < wardrobe_.places().size(); ++p) {
        const SlotId slot = wardrobe_.places()[p];
        const double which = draw();
        if (draw() < empty_share || options_[slot.index()].empty()) continue;
        const ItemId item = one_of(options_[slot.index()], which);
        wardrobe_.put(candidate, {slot, p, {}}, item);
    }
    for (std::size_t c = 0; c < usable_.size(); ++c)
        if (draw() < packed_share && usable_[c])
            candidate.counts[c] = one_stack(wardrobe_.consumables()[c]);
    wear_required(candidate);
    return candidate;
}

std::optional<Candidate> Search::wearing(Candidate candidate, ItemId item, const Draw& draw) const {
    std::vector<Position> places;
    for (const Position& position : wardrobe_.positions(candidate))
        if (position.slot == armoury_.at(item).slot) places.push_back(position);
    if (places.empty()) return std::nullopt;
    wardrobe_.put(candidate, one_of(places, draw()), item);
    return candidate;
}

} // namespace panoplon
