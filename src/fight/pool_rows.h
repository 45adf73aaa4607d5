// What the pools of all actors hold and how they move by even luck, in rows: by actor, then pool.
// Not for others.
#pragma once

#include "model/units.h"

#include <cstddef>
#include <vector>

namespace panoplon {

/// Amounts of a pool within which no use rule of its actor can come to anything by that pool but
/// what it came to when it was last looked at.
struct Calm {
    double from = -never, below = never;
    [[nodiscard]] bool has(double amount) const { return amount >= from && amount < below; }
};
inline constexpr Calm no_calm{never, never};

/// An actor's part of the rows, each by pool. Rates are in points per tick of the clock.
struct PoolPart {
    double *pools = nullptr, *ceilings = nullptr;
    Calm* calm = nullptr;
    double *own_gain = nullptr, *own_loss = nullptr; ///< by regen and effects,
    double *gain = nullptr, *loss = nullptr;         ///< and by flows too;
    double* net = nullptr;                           ///< the one less the other
};

class PoolRows {
  public:
    void resize(std::size_t actors, std::size_t pools);
    [[nodiscard]] PoolPart of(std::size_t actor);
    /// Nothing moves the pools of an actor, or of anybody.
    void rest(const PoolPart& part) const;
    void rest_all();

    /// Begins to sum up what moves each pool: what regen and effects do.
    void begin_rates();
    void end_rates();
    /// Moves every pool along its net rate, between nothing and its ceiling.
    void move(Ticks passed);

  private:
    [[nodiscard]] double* row(std::size_t kind) { return rows_.data() + kind * size_; }

    std::size_t pools_ = 0; ///< of an actor
    std::size_t size_ = 0;  ///< of a row
    std::vector<double> rows_;
    std::vector<Calm> calm_;
};

} // namespace panoplon
