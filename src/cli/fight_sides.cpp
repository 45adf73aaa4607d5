#include "cli/fight_sides.h"

#include "show/loadout/show_equip.h"

namespace panoplon {

std::optional<FightSide> fight_side(const Armoury& armoury, LoadoutId loadout,
                                    EncounterId encounter, int level) {
    FightSide side = make_side(armoury, loadout, encounter, level);
    if (side.ready()) return side;
    if (!side.sheet.refused.empty())
        outlet().complain(
            fmt::format("panoplon: '{}' can't be worn at level {}, so nothing is fought\n{}",
                        armoury.at(loadout).id, level, refusals_text(side.sheet.refused)));
    else
        report_failure({Cause::refused,
                        fmt::format("'{}' can't fight '{}': {}", armoury.at(loadout).id,
                                    armoury.at(encounter).id, join(side.missing, "; ")),
                        {}});
    return std::nullopt;
}

} // namespace panoplon
