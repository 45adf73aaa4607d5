#include "judge/appraise/standing.h"

#include "outfit/refusals.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

std::optional<Margin> margin_there(Engine& engine, const Armoury& armoury, const Outfit& outfit,
                                   EncounterId encounter) {
    if (!missing_for(engine.deriver(), outfit, armoury.at(encounter)).empty()) return std::nullopt;
    const FightSetup setup = set_up_fight(armoury, outfit, encounter);
    engine.prepare(setup);
    const Margin margin = even_margin(engine);
    if (margin.error) return std::nullopt;
    return margin;
}

Standing stand(Engine& engine, const Armoury& armoury, LoadoutId id,
               const std::vector<EncounterId>& encounters) {
    const Loadout& loadout = armoury.at(id);
    Standing standing;
    standing.loadout = id;
    standing.level = std::clamp(loadout.levels.last, armoury.levels.first, armoury.levels.last);
    const Outfit outfit = outfit_of(armoury, loadout, standing.level);
    standing.sheet = make_sheet(engine.deriver(), outfit);
    standing.refused = reasons_in_a_line(standing.sheet.refused);
    standing.margins.resize(encounters.size());
    if (!standing.refused.empty()) return standing;
    double least = never;
    for (std::size_t e = 0; e < encounters.size(); ++e) {
        standing.margins[e] = margin_there(engine, armoury, outfit, encounters[e]);
        if (!standing.margins[e] || encounters[e] == armoury.yardstick) continue;
        const double distance = std::abs(std::log(standing.margins[e]->value));
        if (distance >= least) continue;
        least = distance;
        standing.closest = encounters[e];
    }
    return standing;
}

} // namespace

std::vector<Standing> find_standings(const Armoury& armoury, const Watch& watch) {
    const std::vector<EncounterId> encounters = encounters_that_count(armoury);
    Engine engine(armoury);
    std::vector<Standing> standings;
    for (std::size_t i = 0; i < armoury.loadouts.size() && !watch.stopped(); ++i) {
        standings.push_back(stand(engine, armoury, LoadoutId(i), encounters));
        if (watch.progress) watch.progress(i + 1, armoury.loadouts.size());
    }
    return standings;
}

} // namespace panoplon
