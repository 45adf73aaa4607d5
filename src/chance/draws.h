// Counter-based draws: a function of where a draw is taken, never of what was drawn before (M67).
#pragma once

#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wpedantic"
#pragma GCC diagnostic ignored "-Wconversion"
#include <Random123/philox.h>
#pragma GCC diagnostic pop

#include <cstdint>

namespace panoplon {

/// A fight's luck: the same pair gives the same draws, on any thread, in any order.
struct Luck {
    std::uint64_t seed = 1;
    std::uint64_t trial = 0;
};

/// What a counter is addressed for; a new kind of draw gets a number of its own.
enum class DrawKind : std::uint64_t {
    blow = 0,
    trigger = 1,
    find = 2,
    loadout = 3,
    application = 4,
    choice = 5,
    group = 6,
    roll = 7,
};

/// The words of one address: `last` tells apart what `ordinal` does not.
[[nodiscard]] inline r123::Philox4x64::ctr_type draw_words(const Luck& luck, std::uint64_t actor,
                                                           DrawKind kind, std::uint64_t ordinal,
                                                           std::uint64_t last) {
    const r123::Philox4x64::key_type key = {{luck.seed, luck.trial}};
    const r123::Philox4x64::ctr_type counter = {
        {actor, static_cast<std::uint64_t>(kind), ordinal, last}};
    return r123::Philox4x64()(counter, key);
}

/// The upper 53 bits as a double in [0, 1).
[[nodiscard]] inline double unit_draw(std::uint64_t word) {
    return static_cast<double>(static_cast<std::int64_t>(word >> 11)) * 0x1.0p-53;
}

/// The draws of one blow, each uniform in [0, 1).
struct BlowDraws {
    double hit, crit, spread, apply;
};

/// The draws of the `ordinal`-th blow of an actor: the same whatever it wears.
[[nodiscard]] inline BlowDraws blow_draws(const Luck& luck, std::uint64_t actor,
                                          std::uint64_t ordinal) {
    const auto words = draw_words(luck, actor, DrawKind::blow, ordinal, 0);
    return {unit_draw(words[0]), unit_draw(words[1]), unit_draw(words[2]), unit_draw(words[3])};
}

/// The draw of the `nth` further effect that a blow applies, from 1, uniform in [0, 1).
[[nodiscard]] inline double application_draw(const Luck& luck, std::uint64_t actor,
                                             std::uint64_t blow, std::uint64_t nth) {
    return unit_draw(draw_words(luck, actor, DrawKind::application, blow, nth)[0]);
}

/// The draw of an actor's `ordinal`-th choice of what to do, uniform in [0, 1).
[[nodiscard]] inline double choice_draw(const Luck& luck, std::uint64_t actor,
                                        std::uint64_t ordinal) {
    return unit_draw(draw_words(luck, actor, DrawKind::choice, ordinal, 0)[0]);
}

/// The draw of how many of an encounter's `nth` group come, uniform in [0, 1).
[[nodiscard]] inline double group_draw(const Luck& luck, std::uint64_t nth) {
    return unit_draw(draw_words(luck, nth, DrawKind::group, 0, 0)[0]);
}

/// The draw of a trigger's `ordinal`-th occasion, uniform in [0, 1). `key` tells triggers apart by
/// what they do, so that it is the same whatever else an actor wears.
[[nodiscard]] inline double trigger_draw(const Luck& luck, std::uint64_t actor, std::uint64_t key,
                                         std::uint64_t ordinal) {
    return unit_draw(draw_words(luck, actor, DrawKind::trigger, ordinal, key)[0]);
}

/// The `ordinal`-th draw of what the win of a fight finds, uniform in [0, 1).
[[nodiscard]] inline double find_draw(const Luck& luck, std::uint64_t fight,
                                      std::uint64_t ordinal) {
    return unit_draw(draw_words(luck, fight, DrawKind::find, ordinal, 0)[0]);
}

/// The draw of the `nth` number of what the `ordinal`-th find of a win rolls, uniform in [0, 1).
[[nodiscard]] inline double roll_draw(const Luck& luck, std::uint64_t fight, std::uint64_t ordinal,
                                      std::uint64_t nth) {
    return unit_draw(draw_words(luck, fight, DrawKind::roll, ordinal, nth)[0]);
}

/// The `ordinal`-th draw of a loadout that is put together at random, uniform in [0, 1).
[[nodiscard]] inline double loadout_draw(const Luck& luck, std::uint64_t loadout,
                                         std::uint64_t ordinal) {
    return unit_draw(draw_words(luck, loadout, DrawKind::loadout, ordinal, 0)[0]);
}

/// u < p, with p clamped to [0, 1]: 0 never happens and 1 always does (M63).
[[nodiscard]] inline bool happens(double chance, double draw) {
    return draw < chance;
}

} // namespace panoplon
