#include "support/sheets.h"

#include <catch2/catch.hpp>

namespace panoplon::test {

Sheet sheet_of(const Armoury& armoury, const std::string& loadout, int level) {
    Deriver deriver(armoury);
    const auto id = find_id<LoadoutKind>(armoury.loadouts, loadout);
    REQUIRE(id.given());
    return make_sheet(deriver, outfit_of(armoury, armoury.at(id), level));
}

double stat(const Armoury& armoury, const Sheet& sheet, const std::string& id) {
    return sheet.stats[find_id<StatKind>(armoury.stats, id).index()].value;
}

std::string refused(const Sheet& sheet) {
    std::string text;
    for (const Refusal& refusal : sheet.refused)
        for (const std::string& reason : refusal.reasons)
            text += refusal.thing + ": " + reason + "\n";
    return text;
}

} // namespace panoplon::test
