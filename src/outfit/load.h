// Weight, load, its bands, and the bag (M50-M55).
#pragma once

#include "model/armoury.h"

#include <limits>
#include <optional>

namespace panoplon {

/// No band applies.
inline constexpr int no_band = -1;

/// The load at which something changes, and on which side of it one stands.
struct Edge {
    double load = 0;        ///< share at which it lies
    bool includes = true;   ///< at the edge itself the band applies (`from`)
    double weight_away = 0; ///< weight between here and there; ≥ 0
    int band = no_band;     ///< what applies beyond it; no_band going down out of the first
    bool limit = false;     ///< it is the limit: beyond it nothing can be carried (M52)
};

struct Load {
    Thousandths carried = 0; ///< worn (× worn_factor) and packed
    double capacity = 0;
    double share = 0;   ///< infinite when something is carried and the capacity is not above 0
    int band = no_band; ///< index into Carry::bands
    bool over_limit = false;
    std::optional<Edge> above, below; ///< the nearest on either side
};

/// The highest band that applies (M51). Edges are compared in whole thousandths of weight, so that
/// a load that stands on an edge does so whatever the rounding of its quotient.
[[nodiscard]] int band_at(const Carry& carry, Thousandths carried, double capacity);
/// The same, and the weights around at which it is the same.
struct BandReach {
    int band = no_band;
    Thousandths from = std::numeric_limits<Thousandths>::min(); ///< the least of them
    Thousandths to = std::numeric_limits<Thousandths>::max();   ///< and the most
    [[nodiscard]] bool has(Thousandths carried) const { return carried >= from && carried <= to; }
};
[[nodiscard]] BandReach band_around(const Carry& carry, Thousandths carried, double capacity);
[[nodiscard]] Load weigh(const Carry& carry, Thousandths worn, Thousandths packed, double capacity);
[[nodiscard]] Thousandths worn_share(const Carry& carry, Thousandths worn);

/// Stacks that `count` units of an item take in a pack.
[[nodiscard]] std::int64_t stacks_of(const Item& item, std::int64_t count);

} // namespace panoplon
