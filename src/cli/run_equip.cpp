#include "cli/session.h"
#include "output/show_equip.h"

namespace panoplon {

int run_equip(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    FirstFailure take;
    const LoadoutId id =
        take(look_up<LoadoutId>("loadout", armoury.loadouts, invocation.operands()[1]));
    if (take.failure()) return report_failure(*take.failure());
    const Loadout& loadout = armoury.at(id);
    const int level = take(level_option(invocation, armoury, loadout));
    if (take.failure()) return report_failure(*take.failure());
    Deriver deriver(armoury);
    const Outfit outfit = outfit_of(loadout, level);
    const Sheet sheet = make_sheet(deriver, outfit);
    return show(invocation, armoury, show_equip(armoury, loadout, outfit, sheet), 0,
                sheet.refused.empty() ? Exit::done : Exit::refused);
}

} // namespace panoplon
