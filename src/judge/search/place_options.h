// What a place can hold, sockets filled or not, as numbers: what bounds are put together from.
#pragma once

#include "judge/search/ideal.h"
#include "judge/search/wardrobe.h"

#include <optional>
#include <vector>

namespace panoplon {

/// Numbers that add up over places, the more the better: of every stat the add, percent and times
/// (its logarithm) in the stat's own direction; last, how little it weighs (a thousandth each).
class Columns {
  public:
    explicit Columns(const Armoury& armoury) : armoury_(armoury) {}

    [[nodiscard]] std::size_t count() const { return 3 * armoury_.stats.size() + 1; }
    [[nodiscard]] std::size_t weight() const { return 3 * armoury_.stats.size(); }
    void add(const Modifiers& modifiers, double add_factor, std::vector<double>& into) const;
    /// Adds what columns say to sums of a character.
    void add_up(const std::vector<double>& columns, StatSums& sums) const;

  private:
    [[nodiscard]] double direction(std::size_t stat) const {
        return armoury_.stats[stat].better == Better::lower ? -1 : 1;
    }
    const Armoury& armoury_;
};

/// Something that a place can hold, with what its sockets hold; or nothing.
struct PlaceOption {
    Placed placed;
    std::vector<double> columns;
    std::vector<const Bearer*> triggers; ///< of the ideal armoury
    std::vector<SetId> pieces;           ///< the set of each item that is of one
    Thousandths capacity = 0;
    double value = 0;
    std::int64_t bag = 0;
    /// It has what can't be added up with others': triggers, actions, contents, or a change of a
    /// stat that is better neither way.
    bool alone = false;
};

/// What may be put where: by slot, as the search's own.
struct PlaceChoice {
    const std::vector<std::vector<ItemId>>& options;
    const std::vector<ItemId>& required; ///< never left out
    bool value_matters = false;
};

/// Nothing first, then every option with every filling of its sockets, less what another of them
/// outclasses on paper (M82) whatever else is worn: not what is of a set, unique, required or takes
/// several places. None where they are too many to be listed.
[[nodiscard]] std::optional<std::vector<PlaceOption>>
place_options(const Ideal& ideal, const PlaceChoice& choice, SlotId slot);

/// Whether every change is of a stat that is better one way.
[[nodiscard]] bool has_direction(const Armoury& armoury, const Modifiers& modifiers);

} // namespace panoplon
