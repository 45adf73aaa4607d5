#include "judge/appraise/power.h"

#include "outfit/refusals.h"

namespace panoplon {

std::optional<double> power_of(Engine& engine, const Armoury& armoury, const Outfit& outfit) {
    if (!armoury.yardstick.given() || !refusals(engine.deriver(), outfit).empty())
        return std::nullopt;
    const FightSetup setup = set_up_fight(armoury, outfit, armoury.yardstick);
    engine.prepare(setup);
    const Margin margin = even_margin(engine);
    if (margin.error || margin.reach != Reach::within) return std::nullopt;
    return margin.value;
}

} // namespace panoplon
