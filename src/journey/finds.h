// What a win finds: which items a drop table gives at a level, and how often each.
#pragma once

#include "chance/draws.h"
#include "model/armoury.h"

#include <optional>
#include <vector>

namespace panoplon {

/// A drop table for a finder of a level. A find draws a tier by its `drop_weight`, times
/// (1 + luck) once for each tier below it that the table has, then one of the tier's items, all
/// alike. Items without a tier are a tier of weight 1 below all others. Luck at or under −1 leaves
/// the lowest tier only. Where the drops have weights by entry, a tier weighs what its entries do,
/// and an entry is drawn by its own.
class FindTable {
  public:
    FindTable(const Armoury& armoury, const Drops& drops, int level);

    struct Entry {
        ItemId item;
        double share = 0; ///< of all finds; they add up to 1
    };
    [[nodiscard]] std::vector<Entry> entries(double luck) const;
    /// The item that a draw in [0, 1) finds; none where nothing has a weight.
    [[nodiscard]] std::optional<ItemId> pick(double luck, double draw) const;

  private:
    /// The items of one tier.
    struct Rung {
        double weight = 0;
        std::vector<ItemId> items;
        std::vector<double> shares; ///< of the rung, by item
    };
    /// Calls visit(rung, its share of all finds), lowest first.
    template <class Visit>
    void for_each_share(double luck, const Visit& visit) const;

    std::vector<Rung> rungs_; ///< lowest first
};

/// How many finds a win gives, of which `rolls` is the mean: the whole part, and one more with the
/// chance that is left.
[[nodiscard]] int count_finds(double rolls, double draw);
/// What is drawn for one find of an item (M44a, M44b).
[[nodiscard]] Drawn draw_of_find(const Item& item, const Luck& luck, std::uint64_t fight,
                                 std::uint64_t ordinal);
/// Units of one find of an item.
[[nodiscard]] std::int64_t units_of_find(const Drops& drops, ItemId item);

} // namespace panoplon
