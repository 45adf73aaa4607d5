#include "fight/pool_rows.h"

#include <algorithm>

namespace panoplon {

namespace {

enum Row : std::size_t { pools, ceilings, own_gain, own_loss, gain, loss, net, row_count };

} // namespace

void PoolRows::resize(std::size_t actors, std::size_t pools_each) {
    pools_ = pools_each;
    size_ = actors * pools_each;
    rows_.assign(row_count * size_, 0.0);
    calm_.assign(size_, Calm());
}

PoolPart PoolRows::of(std::size_t actor) {
    const auto part = [&](Row kind) { return row(kind) + actor * pools_; };
    return {part(pools),    part(ceilings), calm_.data() + actor * pools_,
            part(own_gain), part(own_loss), part(gain),
            part(loss),     part(net)};
}

void PoolRows::rest(const PoolPart& part) const {
    for (double* row : {part.own_gain, part.own_loss, part.gain, part.loss, part.net})
        std::fill(row, row + pools_, 0.0);
}

void PoolRows::rest_all() {
    std::fill(row(own_gain), row(row_count), 0.0);
}

void PoolRows::begin_rates() {
    std::copy(row(own_gain), row(own_gain) + 2 * size_, row(gain)); // and losses after it
}

void PoolRows::end_rates() {
    const double *gains = row(gain), *losses = row(loss);
    double* nets = row(net);
    for (std::size_t i = 0; i < size_; ++i) nets[i] = gains[i] - losses[i];
}

void PoolRows::move(Ticks passed) {
    double* amounts = row(pools);
    const double *limits = row(ceilings), *nets = row(net);
    for (std::size_t i = 0; i < size_; ++i)
        amounts[i] = std::clamp(amounts[i] + nets[i] * passed, 0.0, limits[i]);
}

} // namespace panoplon
