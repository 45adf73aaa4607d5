#include "model/corridor.h"

namespace panoplon {

namespace {

double at_level(const Formula& formula, int level) {
    Environment environment;
    environment[Scalar::level] = level;
    return Evaluator(formula)(environment);
}

} // namespace

std::optional<Corridor> wanted_corridor(const Armoury& armoury, EncounterId encounter, int level) {
    if (encounter == armoury.yardstick && armoury.wanted_low.given() && armoury.wanted_high.given())
        return Corridor{at_level(armoury.wanted_low, level), at_level(armoury.wanted_high, level)};
    const auto& wanted = armoury.at(encounter).wanted_margin;
    if (!wanted) return std::nullopt;
    return Corridor{wanted->first, wanted->second};
}

} // namespace panoplon
