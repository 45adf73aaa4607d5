// Whom an item stands beside: whose tier counts, who is its rival, who succeeds it (M81b, M81c).
#pragma once

#include "model/armoury.h"

#include <limits>
#include <vector>

namespace panoplon {

/// The highest rank of a world that nothing is left out of.
inline constexpr int every_rank = std::numeric_limits<int>::max();

/// The level from which anybody can wear or use an item.
[[nodiscard]] int arrival_of(const Armoury& armoury, const Item& item);

/// Both are worn, in places that they can't share; or both are used, and are of one group.
[[nodiscard]] bool share_a_place(const Item& one, const Item& other);

/// What gives only what no fight reads is nobody's rival and ends nobody's time.
class Peers {
  public:
    explicit Peers(const Armoury& armoury);

    /// Of its tier. What has no tier ranks with the lowest; where an audit is `among` all, all rank
    /// alike.
    [[nodiscard]] int rank_of(const Item& item) const;
    /// A peer: it shares the item's place, is of its rank, and arrives within the grace before or
    /// after it. Whether it is a twin, and who can wear it, is for the caller to see.
    [[nodiscard]] bool is_rival(ItemId other, ItemId item) const;
    /// What ends an item's time: it stands in the same slot, or group, arrives later than any rival
    /// could, and is of its rank or above.
    [[nodiscard]] bool succeeds(ItemId other, ItemId item) const;

    /// The highest rank of what an item is judged among, by a character at a level: its own; every
    /// rank where nothing higher could be had there. What has no tier is judged among all where
    /// nothing that shares its place has one, and in the lowest tier's world where something has.
    /// What goes into sockets is judged in the first world that has one for it.
    [[nodiscard]] int world_of(ItemId item, CharacterId character, int level) const;
    /// Likewise of the highest rank of a set's pieces.
    [[nodiscard]] int world_of(SetId set, CharacterId character, int level) const;

  private:
    /// The lowest level at which something of a rank can be had.
    struct Arrival {
        int rank, level;
    };
    using Arrivals = std::vector<Arrival>;

    void arrive(Arrivals& list, const Item& item) const;
    [[nodiscard]] int world_up_to(int rank, CharacterId character, int level) const;

    const Armoury& armoury_;
    int lowest_ = 0;                 ///< rank of a tier
    std::vector<bool> idle_;         ///< by item
    std::vector<bool> beside_tiers_; ///< by item: it, or something that shares its place, has one
    std::vector<Arrivals> arrivals_; ///< by character
    std::vector<std::vector<Arrivals>> hosts_; ///< by character, then by socket: what has one
};

} // namespace panoplon
