// Every candidate of a context, one after another, where they are few enough.
#include "judge/search/search.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace panoplon {

/// In how many ways a place can be filled or left empty, with what goes into sockets.
double Search::ways_to_fill(SlotId slot, int depth) const {
    constexpr int deepest = 8; // sockets within sockets
    if (depth > deepest) return HUGE_VAL;
    double ways = 1;
    for (const ItemId option : options_[slot.index()]) {
        double filled = 1;
        for (const SlotId socket : armoury_.at(option).sockets)
            filled *= ways_to_fill(socket, depth + 1);
        ways += filled;
    }
    return ways;
}

std::int64_t Search::most_units(ItemId consumable) const {
    const Item& item = armoury_.at(consumable);
    std::int64_t stacks = item.max_stacks;
    if (armoury_.carry.bag != unlimited) {
        std::int64_t bag = armoury_.carry.bag;
        for (const ItemId worn : wearable_)
            bag += std::max(std::int64_t{0}, armoury_.at(worn).grants.bag);
        stacks = stacks == unlimited ? bag : std::min(stacks, bag);
    }
    return item.stack == unlimited || stacks == unlimited ? unlimited : item.stack * stacks;
}

double Search::count_candidates() const {
    if (points_ > 0 && !wardrobe_.for_points().empty()) return HUGE_VAL;
    double count = 1;
    for (const SlotId slot : wardrobe_.places()) count *= ways_to_fill(slot, 0);
    for (const ItemId consumable : usable()) {
        const std::int64_t most = most_units(consumable);
        count *= most == unlimited ? HUGE_VAL : static_cast<double>(most) + 1;
    }
    return count;
}

void Search::prove() {
    exact_ = true;
    try_places(wardrobe_.bare(), 0);
    proven_ = !ended();
}

/// What is put into a place may push others out: those candidates come up by themselves.
bool Search::same_before(const Candidate& a, const Candidate& b, std::size_t place) const {
    return std::equal(a.places.begin(), a.places.begin() + static_cast<std::ptrdiff_t>(place),
                      b.places.begin());
}

void Search::try_places(const Candidate& candidate, std::size_t place) {
    if (ended()) return;
    if (place == wardrobe_.places().size()) {
        Candidate packing = candidate;
        try_pack(packing, 0);
        return;
    }
    try_places(candidate, place + 1);
    const SlotId slot = wardrobe_.places()[place];
    for (const ItemId option : options_[slot.index()]) {
        Candidate next = candidate;
        wardrobe_.put(next, {slot, place, {}}, option);
        if (same_before(next, candidate, place)) try_sockets(next, place, 0);
    }
}

/// The sockets of what is in a place, from one on; those within what fills a socket come after it.
void Search::try_sockets(const Candidate& candidate, std::size_t place, std::size_t socket) {
    std::vector<Position> sockets;
    for (const Position& position : wardrobe_.positions(candidate))
        if (position.place == place && !position.path.empty()) sockets.push_back(position);
    if (socket == sockets.size()) return try_places(candidate, place + 1);
    try_sockets(candidate, place, socket + 1);
    for (const ItemId option : options_[sockets[socket].slot.index()]) {
        Candidate next = candidate;
        wardrobe_.put(next, sockets[socket], option);
        bool same = same_before(next, candidate, place);
        for (std::size_t s = 0; s < socket && same; ++s)
            same = Wardrobe::at(next, sockets[s]).item == Wardrobe::at(candidate, sockets[s]).item;
        if (same) try_sockets(next, place, socket + 1);
    }
}

void Search::try_pack(Candidate& candidate, std::size_t consumable) {
    if (ended()) return;
    if (consumable == usable_.size()) {
        static_cast<void>(margin_of(candidate, {}, best_.margin.value));
        return;
    }
    const std::int64_t most =
        usable_[consumable] ? most_units(wardrobe_.consumables()[consumable]) : 0;
    for (std::int64_t count = 0; count <= most; ++count) {
        candidate.counts[consumable] = count;
        try_pack(candidate, consumable + 1);
    }
    candidate.counts[consumable] = 0;
}

std::optional<Bounded> Search::find_bound(int most_fights) {
    if (error_ || !best_.any || best_.margin.reach != Reach::within) return std::nullopt;
    if (points_ > 0 && !wardrobe_.for_points().empty()) return std::nullopt; // of any spending
    if (!upper_bound_) upper_bound_ = std::make_unique<UpperBound>(armoury_);
    BoundTask task{context_.character,
                   context_.level,
                   context_.encounter,
                   wardrobe_,
                   {options_, required_worn_, limits_.value.has_value()},
                   {},
                   required_carried_,
                   limits_.value,
                   best_.candidate,
                   best_.margin.value,
                   most_fights,
                   {}};
    for (std::size_t c = 0; c < usable_.size(); ++c)
        task.most_units.push_back(usable_[c] ? most_units(wardrobe_.consumables()[c]) : 0);
    Found best = best_;
    closed_ = false;
    const bool was_exact = std::exchange(exact_, true);
    task.try_it = [&](const Candidate& candidate) {
        static_cast<void>(try_candidate(best, candidate, {}));
    };
    auto bounded = upper_bound_->find(task);
    close_best();
    exact_ = was_exact;
    if (bounded) bounded->bound = std::max(bounded->bound, best_.margin.value);
    return bounded;
}

} // namespace panoplon
