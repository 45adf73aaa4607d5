#include "cli/fight_sides.h"
#include "judge/appraise/weighing.h"
#include "show/loadout/show_weighing.h"

namespace panoplon {

int run_weigh(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    FirstFailure take;
    const auto loadout =
        take(look_up<LoadoutId>("loadout", armoury.loadouts, invocation.operands()[1]));
    const auto encounter =
        take(look_up<EncounterId>("encounter", armoury.encounters, invocation.operands()[2]));
    if (take.failure()) return report_failure(*take.failure());
    const int level = take(level_option(invocation, armoury, armoury.at(loadout)));
    if (take.failure()) return report_failure(*take.failure());
    const std::optional<FightSide> side = fight_side(armoury, loadout, encounter, level);
    if (!side) return Exit::refused;
    const Weighing weighing = find_price_of_weight(armoury, side->outfit, encounter);
    if (weighing.error) return report_fight_error(*opened.read, *weighing.error);
    return show(invocation, armoury, show_weighing(armoury, loadout, encounter, weighing), 0);
}

} // namespace panoplon
