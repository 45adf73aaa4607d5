// Draws for a loadout that is put together at random.
#pragma once

#include "chance/draws.h"
#include "judge/search/contexts.h"

namespace panoplon {

/// A loadout that can't be carried is drawn anew, this often at most for each that is wanted.
inline constexpr std::uint64_t most_loadout_draws = 10;

/// Numbers in [0, 1) of one loadout of a context: the same whoever asks for them, when, and
/// whatever other contexts are looked at.
class LoadoutDraws {
  public:
    LoadoutDraws(std::uint64_t seed, const Context& context, std::uint64_t loadout)
        : luck_{seed, number_of(context)},
          loadout_(loadout) {}
    double operator()() { return loadout_draw(luck_, loadout_, next_++); }

  private:
    [[nodiscard]] static std::uint64_t number_of(const Context& context) {
        constexpr std::uint64_t most = 1'000'003; // of encounters, and of levels
        return (context.character.index() * most + context.encounter.index()) * most +
               static_cast<std::uint64_t>(context.level);
    }

    Luck luck_;
    std::uint64_t loadout_;
    std::uint64_t next_ = 0;
};

} // namespace panoplon
