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

bool applies(const Band& band, Thousandths carried, double capacity) {
    const Thousandths edge = edge_weight(band.edge, capacity);
    return band.includes ? carried >= edge : carried > edge;
}

bool weighs(const Carry& carry) {
    return carry.capacity.given();
}

} // namespace

int band_at(const Carry& carry, Thousandths carried, double capacity) {
    if (!weighs(carry)) return no_band;
    int highest = no_band;
    for (std::size_t i = 0; i < carry.bands.size(); ++i)
        if (applies(carry.bands[i], carried, capacity)) highest = static_cast<int>(i);
    return highest;
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
