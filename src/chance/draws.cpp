#include "chance/draws.h"

#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wpedantic"
#pragma GCC diagnostic ignored "-Wconversion"
#include <Random123/philox.h>
#pragma GCC diagnostic pop

namespace panoplon {

namespace {

/// What a counter is addressed for; a new kind of draw gets a number of its own.
enum class DrawKind : std::uint64_t { blow = 0, trigger = 1 };

/// The upper 53 bits as a double in [0, 1).
double unit(std::uint64_t word) {
    return static_cast<double>(word >> 11) * 0x1.0p-53;
}

} // namespace

BlowDraws blow_draws(const Luck& luck, std::uint64_t actor, std::uint64_t ordinal) {
    const r123::Philox4x64::key_type key = {{luck.seed, luck.trial}};
    const r123::Philox4x64::ctr_type counter = {
        {actor, static_cast<std::uint64_t>(DrawKind::blow), ordinal, 0}};
    const auto words = r123::Philox4x64()(counter, key);
    return {unit(words[0]), unit(words[1]), unit(words[2]), unit(words[3])};
}

double trigger_draw(const Luck& luck, std::uint64_t actor, std::uint64_t key,
                    std::uint64_t ordinal) {
    const r123::Philox4x64::key_type luck_key = {{luck.seed, luck.trial}};
    const r123::Philox4x64::ctr_type counter = {
        {actor, static_cast<std::uint64_t>(DrawKind::trigger), ordinal, key}};
    return unit(r123::Philox4x64()(counter, luck_key)[0]);
}

} // namespace panoplon
