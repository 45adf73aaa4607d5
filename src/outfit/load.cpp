#include "outfit/load.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// The weight at which an edge lies; the heaviest there is where the capacity has no end.
Thousandths edge_weight(double edge, double capacity) {
    constexpr double heaviest = 9e18;
    const double weight = edge * capacity * 1000;
    return std::isnan(weight) ? 0 : std::llround(std::clamp(weight, -heaviest, heaviest));
}

/// The least weight at which a band applies.
Thousandths least_weight(const Band& band, double capacity) {
    return edge_weight(band.edge, capacity) + (band.includes ? 0 : 1);
}

bool weighs(const Carry& carry) {
    return carry.capacity.given();
}

} // namespace

int band_at(const Carry& carry, Thousandths carried, double capacity) {
    return band_around(carry, carried, capacity).band;
}

BandReach band_around(const Carry& carry, Thousandths carried, double capacity) {
    BandReach reach;
    if (!weighs(carry)) return reach;
    for (std::size_t i = carry.bands.size(); i-- > 0;) {
        const Thousandths least = least_weight(carry.bands[i], capacity);
        if (carried >= least) {
            reach.band = static_cast<int>(i);
            reach.from = least;
            break;
        }
        reach.to = std::min(reach.to, least - 1);
    }
    return reach;
}

Thousandths worn_share(const Carry& carry, Thousandths worn) {
    return std::llround(static_cast<double>(worn) * carry.worn_factor);
}

Load weigh(const Carry& carry, Thousandths worn, Thousandths packed, double capacity) {
    Load load;
    load.carried = worn_share(carry, worn) + packed;
    if (!weighs(carry)) return load;
    load.capacity = capacity;
    const double carried = to_weight(load.carried);
    load.share = capacity > 0 ? carried / capacity : carried > 0 ? HUGE_VAL : 0;
    load.band = band_at(carry, load.carried, capacity);
    load.over_limit = load.carried > edge_weight(carry.limit, capacity);
    const auto away = [&](double edge) {
        return std::abs(to_weight(edge_weight(edge, capacity) - load.carried));
    };
    const int beyond = load.band + 1;
    const auto next = static_cast<std::size_t>(beyond);
    constexpr double limit_in_reach = 1e5;
    if (next < carry.bands.size())
        load.above = Edge{carry.bands[next].edge, carry.bands[next].includes,
                          away(carry.bands[next].edge), beyond, false};
    if (carry.limit < limit_in_reach && (!load.above || carry.limit < load.above->load))
        load.above = Edge{carry.limit, false, away(carry.limit), load.band, true};
    if (const Band* band = carry.band(load.band))
        load.below = Edge{band->edge, band->includes, away(band->edge), load.band - 1, false};
    return load;
}

std::int64_t stacks_of(const Item& item, std::int64_t count) {
    if (count <= 0) return 0;
    return item.stack == unlimited ? 1 : (count - 1) / item.stack + 1;
}

} // namespace panoplon
