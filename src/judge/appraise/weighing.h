// The price of weight: what a loadout's margin is worth in capacity and in units of consumables.
#pragma once

#include "fight/engine.h"
#include "fight/margin.h"
#include "fight/setup.h"
#include "outfit/outfit.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// The margin if this were what can be carried, with the same things worn and packed.
struct CapacityPoint {
    double capacity = 0;
    Load load; ///< at the start
    double margin = 0;
};

/// The margin with so many units of a consumable packed.
struct UnitPoint {
    std::int64_t count = 0;
    Load load; ///< at the start
    double margin = 0;
    /// On the very edge of a band: the margin if that were the other side of it.
    std::optional<double> across;
};

struct ConsumableCurve {
    ItemId item;
    std::int64_t now = 0;          ///< units in the loadout
    std::vector<UnitPoint> points; ///< from none up, as long as they fit and may pay; and `now`
    std::string ends;      ///< why there are no more: what is refused; empty: they no longer pay
    std::int64_t best = 0; ///< the fewest with the highest margin

    /// Null where so many were not tried.
    [[nodiscard]] const UnitPoint* at(std::int64_t count) const {
        for (const UnitPoint& point : points)
            if (point.count == count) return &point;
        return nullptr;
    }
};

/// As many more of a consumable as fit under the next edge of load.
struct Filling {
    ItemId item;
    std::int64_t units = 0;
    double margin = 0;
};

struct Weighing {
    Outfit outfit;
    Load load;
    Margin margin;                            ///< by even luck
    std::vector<CapacityPoint> capacities;    ///< rising; empty where nothing is weighed
    std::vector<ConsumableCurve> consumables; ///< those that the character can use, in order
    std::vector<Filling> fillings;            ///< of the room that is left, the best first
    std::optional<FightError> error;
};

/// The outfit is legal and can fight the encounter. By even luck throughout.
[[nodiscard]] Weighing find_price_of_weight(const Armoury& armoury, const Outfit& outfit,
                                            EncounterId encounter);

} // namespace panoplon
