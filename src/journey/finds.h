// What a win finds: which items a drop table gives at a level, and how often each.
#pragma once

#include "model/armoury.h"

#include <vector>

namespace panoplon {

/// A drop table for a finder of a level and a luck. A find draws a tier by its `drop_weight`,
/// times (1 + luck) once for each tier below it that the table has, then one of the tier's items,
/// all alike. Items without a tier are a tier of weight 1 below all others.
class FindTable {
  public:
    /// `luck` > −1; what is at or under that counts as if it left the lowest tier only.
    FindTable(const Armoury& armoury, const Drops& drops, int level, double luck);

    struct Entry {
        ItemId item;
        double share = 0; ///< of all finds; they add up to 1
    };
    [[nodiscard]] const std::vector<Entry>& entries() const { return entries_; }
    [[nodiscard]] bool empty() const { return entries_.empty(); }
    /// The item that a draw in [0, 1) finds. Not for an empty table.
    [[nodiscard]] ItemId pick(double draw) const;

  private:
    std::vector<Entry> entries_;
};

/// Whether an item is among what the drops can find, at any level.
[[nodiscard]] bool can_drop(const Drops& drops, const Armoury& armoury, ItemId item);

/// How many finds a win gives, of which `rolls` is the mean: the whole part, and one more with the
/// chance that is left.
[[nodiscard]] int count_finds(double rolls, double draw);
/// Units of one find of an item.
[[nodiscard]] std::int64_t units_of_find(const Drops& drops, ItemId item);

} // namespace panoplon
