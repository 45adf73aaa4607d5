#include "cli/fight_sides.h"
#include "show/fight/show_why.h"
#include "show/loadout/show_equip.h"
#include "show/written_files.h"

#include <algorithm>
#include <charconv>

namespace panoplon {

namespace {

Result<double> precision_option(const Invocation& invocation) {
    if (!invocation.has("precision")) return 0.0;
    const std::string text = invocation.value("precision");
    double number = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    constexpr double least = 0.0002;
    constexpr double most = 0.5;
    if (error == std::errc() && end == text.data() + text.size() && number >= least &&
        number <= most)
        return number;
    return Failure{
        Cause::usage,
        fmt::format("--precision is '{}'; allowed: a share from {} to {}", text, least, most),
        "0.01 goes on until the share of wins is known within ± 1 %"};
}

FightRequest read_arguments(const Invocation& invocation, const Armoury& armoury,
                            FirstFailure& take) {
    FightRequest asked;
    asked.loadout = take(look_up<LoadoutId>("loadout", armoury.loadouts, invocation.operands()[1]));
    asked.encounter =
        take(look_up<EncounterId>("encounter", armoury.encounters, invocation.operands()[2]));
    asked.trials = take(whole_option(invocation, "trials", 1, most_trials, 1000));
    asked.seed = take(seed_option(invocation));
    asked.precision = take(precision_option(invocation));
    asked.told = take(whole_option(invocation, "trial", 0, most_trials, 0));
    if (take.failure()) return asked;
    asked.level = take(level_option(invocation, armoury, armoury.at(asked.loadout)));
    if (invocation.has("even-luck")) asked.trials = 0;
    return asked;
}

/// What is asked about has to be there.
Result<std::vector<std::string>> things_asked(const Invocation& invocation,
                                              const Armoury& armoury) {
    const std::vector<std::string> known = askable(armoury);
    for (const std::string& asked : invocation.values("why")) {
        if (std::find(known.begin(), known.end(), asked) != known.end()) continue;
        const auto near = nearest_name(asked, known);
        return Failure{Cause::refused,
                       fmt::format("--why: the armoury has no '{}'{}", asked,
                                   near ? fmt::format("; did you mean '{}'?", *near) : ""),
                       near ? ""
                            : "it takes the id of an item, action, effect, loadout, set, foe, "
                              "stat, pool or damage type"};
    }
    return invocation.values("why");
}

} // namespace

int run_fight(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    FirstFailure take;
    FightRequest asked = read_arguments(invocation, armoury, take);
    asked.margins = invocation.has("margin");
    asked.why = take(things_asked(invocation, armoury));
    if (take.failure()) return report_failure(*take.failure());
    if (asked.trials == 0 && asked.margins)
        return report_failure({Cause::usage,
                               "--margin finds the margin of each trial; --even-luck has none",
                               "the margin by even luck is told anyway"});
    if (invocation.has("other") || invocation.has("other-set"))
        return run_fight_two(invocation, opened, asked);

    const auto side = fight_side(armoury, asked.loadout, asked.encounter, asked.level);
    if (!side) return Exit::refused;
    WatchedStages stages(invocation);
    auto [answer, error] = find_answer(*opened.read, *side, asked, stages);
    if (error) return report_fight_error(*opened.read, *error);
    if (answer.trials && answer.trials->trials == 0) return Exit::interrupted;
    if (invocation.has("timeline")) {
        const Result<std::string> written =
            write_whole(invocation.value("timeline"), csv_text(timeline_table(answer.told)));
        if (!written.ok()) return report_failure(written.failure());
    }
    answer.log = invocation.has("log");
    const int exit = answer.fault ? report_fight_error(*opened.read, *answer.fault) : Exit::done;
    return show(invocation, armoury, show_fight(armoury, answer), answer.seed, exit);
}

} // namespace panoplon
