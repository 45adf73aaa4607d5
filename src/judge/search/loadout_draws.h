// Draws for a loadout that is put together at random.
#pragma once

#include "chance/draws.h"

namespace panoplon {

/// A loadout that can't be carried is drawn anew, this often at most for each that is wanted.
inline constexpr std::uint64_t most_loadout_draws = 10;

/// Numbers in [0, 1) of one loadout: the same whoever asks for them, and when.
class LoadoutDraws {
  public:
    LoadoutDraws(std::uint64_t seed, std::uint64_t context, std::uint64_t loadout)
        : luck_{seed, context},
          loadout_(loadout) {}
    double operator()() { return loadout_draw(luck_, loadout_, next_++); }

  private:
    Luck luck_;
    std::uint64_t loadout_;
    std::uint64_t next_ = 0;
};

} // namespace panoplon
