#include "cli/fight_side.h"

#include "show/loadout/show_equip.h"

namespace panoplon {

std::optional<FightSide> fight_side(const Armoury& armoury, LoadoutId loadout,
                                    EncounterId encounter, int level) {
    Deriver deriver(armoury);
    FightSide side;
    side.outfit = outfit_of(armoury, armoury.at(loadout), level);
    side.sheet = make_sheet(deriver, side.outfit);
    if (!side.sheet.refused.empty()) {
        outlet().complain(
            fmt::format("panoplon: '{}' can't be worn at level {}, so nothing is fought\n{}",
                        armoury.at(loadout).id, level, refusals_text(side.sheet.refused)));
        return std::nullopt;
    }
    const auto missing = missing_for(deriver, side.outfit, armoury.at(encounter));
    if (!missing.empty()) {
        report_failure({Cause::refused,
                        fmt::format("'{}' can't fight '{}': {}", armoury.at(loadout).id,
                                    armoury.at(encounter).id, join(missing, "; ")),
                        {}});
        return std::nullopt;
    }
    side.setup = set_up_fight(armoury, side.outfit, encounter);
    return side;
}

} // namespace panoplon
