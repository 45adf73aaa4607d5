// A candidate of the search: what each place holds, with what sockets hold, and what is packed.
#pragma once

#include "model/armoury.h"
#include "outfit/outfit.h"

#include <string>
#include <utility>
#include <vector>

namespace panoplon {

/// An item in a place and what its sockets hold: one for each of the item's sockets, in its order.
struct Placed {
    ItemId item; ///< none: the place is empty
    std::vector<Placed> sockets;

    bool operator==(const Placed&) const = default;
};

/// What is worn in each place (a slot with a count of 2 has two) and how many of each consumable
/// are packed. Places and consumables are those of the Wardrobe that made it.
struct Candidate {
    std::vector<Placed> places;
    std::vector<std::int64_t> counts;
    std::vector<int> points = {}; ///< levels of each upgrade that takes points (M45)

    bool operator==(const Candidate&) const = default;
};

/// A place of a candidate: on the character, and from there into sockets of sockets.
struct Position {
    SlotId slot;
    std::size_t place = 0;
    std::vector<std::size_t> path; ///< empty: the place itself

    bool operator==(const Position&) const = default;
};

/// Slots, each with how many of its places: what an item takes. Sorted by slot.
using Footprint = std::vector<std::pair<SlotId, int>>;

/// The places of an armoury's characters and what changing one of them brings with it.
class Wardrobe {
  public:
    explicit Wardrobe(const Armoury& armoury);

    [[nodiscard]] const std::vector<SlotId>& places() const { return places_; }
    /// Every item that is used or spent, so that a candidate of another level fits.
    [[nodiscard]] const std::vector<ItemId>& consumables() const { return consumables_; }
    [[nodiscard]] Candidate bare() const;
    /// Upgrades that take points, and how they are spent where nothing else is said: evenly.
    [[nodiscard]] const std::vector<UpgradeId>& for_points() const { return for_points_; }
    /// `bare`: stats with nothing worn and nothing spent, where gear asks for any.
    void spend_evenly(int points, std::vector<double> bare_stats);
    /// Every place of the candidate, filled or not: those of the character first.
    [[nodiscard]] std::vector<Position> positions(const Candidate& candidate) const;
    [[nodiscard]] static const Placed& at(const Candidate& candidate, const Position& position);
    /// Puts an item into a place (none: empties it). What stands in its way goes: what is in places
    /// that it takes besides, what takes its own, and others of its unique group. Sockets of the
    /// new item take over what fits from the old. What its actions spend is packed with it, and
    /// points are spent on what it needs.
    void put(Candidate& candidate, const Position& position, ItemId item) const;
    /// Puts a filling into every empty socket for it of what stands there, one by one.
    void fill(Candidate& candidate, const Position& host, ItemId filling) const;
    /// Items of each slot that are worn or socketed and, for places, what takes them; by slot.
    [[nodiscard]] std::vector<int> occupied(const Candidate& candidate) const;
    /// What of a loadout's worn items and pack the character can have here.
    template <class Allowed>
    [[nodiscard]] Candidate from_loadout(const Loadout& loadout, const Allowed& allowed) const;
    [[nodiscard]] std::vector<WornItem> worn(const Candidate& candidate) const;
    [[nodiscard]] std::vector<PackedItem> packed(const Candidate& candidate) const;
    /// Whether no slot holds more than it can and each unique group is there once.
    [[nodiscard]] bool goes_together(const Candidate& candidate) const;
    [[nodiscard]] Footprint footprint(const Item& item, int times = 1) const;

  private:
    void list_sockets(const Placed& host, Position at, std::vector<Position>& into) const;
    void meet_needs_of(Candidate& candidate, const Item& item) const;
    void pack_some(Candidate& candidate, const PackedItem& spent) const;
    void make_room(Candidate& candidate, std::size_t kept) const;
    void part_unique(Placed& placed, const std::string& group, const Placed* kept) const;

    const Armoury& armoury_;
    std::vector<SlotId> places_; ///< slot of each place
    std::vector<ItemId> consumables_;
    std::vector<UpgradeId> for_points_;
    std::vector<int> even_points_; ///< levels of each
    std::vector<double> bare_stats_;
    std::vector<std::vector<PackedItem>> spent_; ///< by item: by the actions that it gives
};

/// For tables of candidates of one wardrobe.
struct CandidateHash {
    [[nodiscard]] std::size_t operator()(const Candidate& candidate) const;
};

/// Calls visit(item) for every item in it.
template <class Visit>
void for_each_item(const Placed& placed, const Visit& visit) {
    if (!placed.item.given()) return;
    visit(placed.item);
    for (const Placed& inner : placed.sockets) for_each_item(inner, visit);
}
template <class Visit>
void for_each_item(const Candidate& candidate, const Visit& visit) {
    for (const Placed& placed : candidate.places) for_each_item(placed, visit);
}

template <class Allowed>
Candidate Wardrobe::from_loadout(const Loadout& loadout, const Allowed& allowed) const {
    Candidate candidate = bare();
    for (const WornItem& worn : loadout.worn) {
        if (!allowed(worn.item) || armoury_.at(worn.item).slot != worn.slot) continue;
        for (std::size_t p = 0; p < places_.size(); ++p) {
            if (places_[p] != worn.slot || candidate.places[p].item.given()) continue;
            put(candidate, {places_[p], p, {}}, worn.item);
            for (const WornItem& inner : worn.socketed)
                for (const Position& socket : positions(candidate))
                    if (socket.place == p && socket.path.size() == 1 && socket.slot == inner.slot &&
                        !at(candidate, socket).item.given() && allowed(inner.item)) {
                        put(candidate, socket, inner.item);
                        break;
                    }
            break;
        }
    }
    for (const PackedItem& packed : loadout.pack)
        for (std::size_t c = 0; c < consumables_.size(); ++c)
            if (consumables_[c] == packed.item && allowed(packed.item))
                candidate.counts[c] = packed.count;
    return candidate;
}

} // namespace panoplon
