#include "cli/session.h"
#include "output/show_curve.h"

namespace panoplon {

int run_curve(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    CurveOptions options;
    const auto loadouts =
        look_up_all<LoadoutId>("loadout", armoury.loadouts, invocation.values("loadout"));
    const auto characters =
        look_up_all<CharacterId>("character", armoury.characters, invocation.values("character"));
    const auto encounters =
        look_up_all<EncounterId>("encounter", armoury.encounters, invocation.values("encounter"));
    const auto levels = levels_option(invocation, armoury, armoury.levels);
    const auto trials = whole_option(invocation, "trials", 1, 1'000'000, 100);
    const auto seed = whole_option(invocation, "seed", 0, ~std::uint64_t{0}, 1);
    if (!loadouts.ok()) return report_failure(loadouts.failure());
    if (!characters.ok()) return report_failure(characters.failure());
    if (!encounters.ok()) return report_failure(encounters.failure());
    if (!levels.ok()) return report_failure(levels.failure());
    if (!trials.ok()) return report_failure(trials.failure());
    if (!seed.ok()) return report_failure(seed.failure());
    options.loadouts = loadouts.value();
    options.characters = characters.value();
    options.encounters = encounters.value();
    options.levels = levels.value();
    options.trials = invocation.has("even-luck") ? 0 : trials.value();
    options.seed = seed.value();
    if (armoury.loadouts.empty())
        return report_failure({Cause::refused, "the armoury has no loadout to draw a curve of",
                               "[loadout.ID] with character, worn and pack"});
    const CurveResult result = watched(invocation, "points", [&](const Watch& watch) {
        return draw_curves(armoury, options, watch);
    });
    int exit = Exit::done;
    for (const Curve& curve : result.curves)
        if (curve.error && exit == Exit::done)
            exit = report_fight_error(*opened.read, *curve.error);
    return show(invocation, armoury, show_curves(armoury, options, result), options.seed, exit);
}

} // namespace panoplon
