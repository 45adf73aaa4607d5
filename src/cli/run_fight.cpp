#include "cli/fight_side.h"
#include "output/folder.h"
#include "output/show_equip.h"
#include "output/show_fight.h"
#include "output/show_why.h"

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

FightAsked read_arguments(const Invocation& invocation, const Armoury& armoury,
                          FirstFailure& take) {
    FightAsked asked;
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

/// Why things were so, in the first of the trials: more would tell no more.
void inquire(Engine& engine, const FightAsked& asked, FightReport& report) {
    constexpr std::uint64_t enough = 200;
    report.inquired = std::min(asked.trials, enough);
    for (std::uint64_t trial = 0; trial < report.inquired; ++trial)
        engine.inquire(1, Luck{asked.seed, trial}, report.inquiry);
    if (asked.trials == 0) engine.inquire(1, std::nullopt, report.inquiry);
}

std::optional<FightError> run_many(const Armoury& armoury, const FightSetup& setup,
                                   const Watch& watch, const FightAsked& asked, bool margins,
                                   FightReport& report) {
    const TrialsOptions options{asked.trials, asked.seed, 1};
    report.trials = asked.precision > 0 ? run_trials_within(armoury, setup, options,
                                                            asked.precision, most_trials, watch)
                                        : run_trials(armoury, setup, options, watch);
    if (report.trials->error) return report.trials->error;
    if (!margins) return std::nullopt;
    report.margins = run_margin_trials(armoury, setup, {report.trials->trials, asked.seed, 1},
                                       report.even_margin.value, watch);
    for (const Margin& margin : report.margins->margins)
        if (margin.error) return margin.error;
    return std::nullopt;
}

/// Runs what the report needs; the first error of any of it.
std::optional<FightError> fill(const Armoury& armoury, const FightSetup& setup, const Watch& watch,
                               const FightAsked& asked, bool margins, FightReport& report) {
    Engine engine(armoury);
    engine.prepare(setup);
    report.even = engine.run(1, std::nullopt);
    if (report.even.error) return report.even.error;
    report.even_margin = even_margin(engine);
    if (report.even_margin.error) return report.even_margin.error;
    report.blows = engine.blows();
    std::optional<Luck> told;
    if (asked.trials > 0) {
        if (auto error = run_many(armoury, setup, watch, asked, margins, report)) return error;
        told = Luck{asked.seed, asked.told};
        report.told_trial = asked.told;
    }
    if (!report.why.empty()) inquire(engine, asked, report);
    report.told = engine.tell(1, told);
    return std::nullopt;
}

} // namespace

int run_fight(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    FirstFailure take;
    const FightAsked asked = read_arguments(invocation, armoury, take);
    FightReport report;
    report.why = take(things_asked(invocation, armoury));
    if (take.failure()) return report_failure(*take.failure());
    if (asked.trials == 0 && invocation.has("margin"))
        return report_failure({Cause::usage,
                               "--margin finds the margin of each trial; --even-luck has none",
                               "the margin by even luck is told anyway"});
    if (invocation.has("other") || invocation.has("other-set"))
        return run_fight_two(invocation, opened, asked);

    const auto side = fight_side(armoury, asked.loadout, asked.encounter, asked.level);
    if (!side) return Exit::refused;
    report.loadout = asked.loadout;
    report.encounter = asked.encounter;
    report.level = asked.level;
    report.seed = asked.seed;
    report.asked = asked.trials;
    report.load = load_words(armoury, side->sheet);
    report.sheet = side->sheet;
    report.sources = &opened.read->sources;
    report.pack = side->outfit.pack;
    const auto error = watched(invocation, "trials", [&](const Watch& watch) {
        return fill(armoury, side->setup, watch, asked, invocation.has("margin"), report);
    });
    if (error) return report_fight_error(*opened.read, *error);
    if (report.trials && report.trials->trials == 0) return Exit::interrupted;
    if (invocation.has("timeline")) {
        const Result<std::string> written =
            write_whole(invocation.value("timeline"), csv_text(timeline_table(report.told)));
        if (!written.ok()) return report_failure(written.failure());
    }
    report.log = invocation.has("log");
    return show(invocation, armoury, show_fight(armoury, report), report.seed);
}

} // namespace panoplon
