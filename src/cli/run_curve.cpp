#include "cli/earlier_runs.h"
#include "show/curve/show_curve.h"

namespace panoplon {

namespace {

Result<CurveBy> by_option(const Invocation& invocation) {
    if (!invocation.has("by")) return CurveBy::loadout;
    const std::string by = invocation.value("by");
    for (std::size_t i = 0; i < std::size(curve_by_names); ++i)
        if (by == curve_by_names[i]) return static_cast<CurveBy>(i);
    const std::vector<std::string> known(std::begin(curve_by_names), std::end(curve_by_names));
    return Failure{
        Cause::usage, fmt::format("--by is '{}'; allowed: {}", by, join(known, ", ")), {}};
}

} // namespace

int run_curve(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    CurveOptions options;
    FirstFailure take;
    narrow(invocation, armoury, take, options);
    options.loadouts =
        take(look_up_all<LoadoutId>("loadout", armoury.loadouts, invocation.values("loadout")));
    options.by = take(by_option(invocation));
    options.linear = invocation.has("linear");
    options.trials = take(whole_option(invocation, "trials", 1, 1'000'000, 100));
    options.seed = take(seed_option(invocation));
    if (take.failure()) return report_failure(*take.failure());
    if (invocation.has("even-luck")) options.trials = 0;
    if (options.by == CurveBy::loadout && armoury.loadouts.empty())
        return report_failure({Cause::refused, "the armoury has no loadout to draw a curve of",
                               "[loadout.ID] with character, worn and pack"});
    if (options.by == CurveBy::tier && armoury.tiers.empty())
        return report_failure({Cause::refused, "the armoury has no tier to make a ladder of",
                               "[tier.ID] with a rank, and tier = \"ID\" in items"});
    EarlierRuns earlier(invocation);
    const CurveResult result = watched(invocation, "points", [&](const Watch& watch) {
        return draw_curves(armoury, options, watch, earlier.recall(*opened.read));
    });
    earlier.tell();
    int exit = Exit::done;
    for (const Curve& curve : result.curves)
        if (curve.error && exit == Exit::done)
            exit = report_fight_error(*opened.read, *curve.error);
    return show(invocation, armoury, show_curves(armoury, options, result), options.seed, exit);
}

} // namespace panoplon
