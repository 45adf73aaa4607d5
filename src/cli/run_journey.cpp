#include "cli/session.h"

#include "show/journey/show_journey.h"
#include "show/loadout/show_equip.h"
#include "work/fight_work.h"
#include "work/journey_work.h"

namespace panoplon {

int run_journey(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    FirstFailure take;
    const JourneyId id =
        take(look_up<JourneyId>("journey", armoury.journeys, invocation.operands()[1]));
    JourneyOptions options;
    options.trials = take(whole_option(invocation, "trials", 1, most_trials, 1000));
    options.seed = take(seed_option(invocation));
    if (take.failure()) return report_failure(*take.failure());
    const Journey& journey = armoury.at(id);
    const JourneyStart start = find_start(armoury, journey);
    if (!start.refused.empty()) {
        outlet().complain(fmt::format(
            "panoplon: '{}' can't set out: '{}' can't be worn at level {}\n{}", journey.id,
            armoury.at(journey.start).id, start.outfit.level, refusals_text(start.refused)));
        return Exit::refused;
    }
    if (!start.missing.empty())
        return report_failure(
            {Cause::refused,
             fmt::format("'{}' can't set out: {}", journey.id, join(start.missing, "; ")),
             {}});
    const JourneySummary summary = watched(invocation, "trials", [&](const Watch& watch) {
        return run_journey(armoury, journey, options, watch);
    });
    if (summary.error) return report_fight_error(*opened.read, *summary.error);
    if (summary.trials == 0) return Exit::interrupted;
    return show(invocation, armoury, show_journey(armoury, journey, options, summary),
                options.seed);
}

} // namespace panoplon
