#include "cli/session.h"
#include "output/folder.h"
#include "output/show_equip.h"
#include "output/show_fight.h"

#include <charconv>

namespace panoplon {

namespace {

constexpr std::uint64_t most_trials = 10'000'000;

/// What was asked for on the command line.
struct Asked {
    LoadoutId loadout;
    EncounterId encounter;
    int level = 1;
    std::uint64_t trials = 0; ///< 0: even luck only
    std::uint64_t seed = 1;
    std::uint64_t told = 0;
    double precision = 0; ///< of the share of wins; 0: whatever so many trials give
};

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

Asked read_arguments(const Invocation& invocation, const Armoury& armoury, FirstFailure& take) {
    Asked asked;
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

/// Runs what the report needs; the first error of any of it.
std::optional<FightError> fill(const Armoury& armoury, const FightSetup& setup, const Watch& watch,
                               const Asked& asked, FightReport& report) {
    Engine engine(armoury);
    engine.prepare(setup);
    report.even = engine.run(1, std::nullopt);
    if (report.even.error) return report.even.error;
    report.even_margin = even_margin(engine);
    if (report.even_margin.error) return report.even_margin.error;
    std::optional<Luck> told;
    if (asked.trials > 0) {
        const TrialsOptions options{asked.trials, asked.seed, 1};
        report.trials = asked.precision > 0 ? run_trials_within(armoury, setup, options,
                                                                asked.precision, most_trials, watch)
                                            : run_trials(armoury, setup, options, watch);
        if (report.trials->error) return report.trials->error;
        told = Luck{asked.seed, asked.told};
        report.told_trial = asked.told;
    }
    report.told = engine.tell(1, told);
    return std::nullopt;
}

} // namespace

int run_fight(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    FirstFailure take;
    const Asked asked = read_arguments(invocation, armoury, take);
    if (take.failure()) return report_failure(*take.failure());

    Deriver deriver(armoury);
    const Outfit outfit = outfit_of(armoury, armoury.at(asked.loadout), asked.level);
    const Sheet sheet = make_sheet(deriver, outfit);
    if (!sheet.refused.empty()) {
        fmt::print(stderr, "panoplon: '{}' can't be worn at level {}, so nothing is fought\n{}",
                   armoury.at(asked.loadout).id, asked.level, refusals_text(sheet.refused));
        return Exit::refused;
    }
    const auto missing = missing_for(deriver, outfit, armoury.at(asked.encounter));
    if (!missing.empty())
        return report_failure(
            {Cause::refused,
             fmt::format("'{}' can't fight '{}': {}", armoury.at(asked.loadout).id,
                         armoury.at(asked.encounter).id, join(missing, "; ")),
             {}});
    FightReport report;
    report.loadout = asked.loadout;
    report.encounter = asked.encounter;
    report.level = asked.level;
    report.seed = asked.seed;
    report.asked = asked.trials;
    report.load = load_words(armoury, sheet);
    report.pack = outfit.pack;
    const FightSetup setup = set_up_fight(armoury, outfit, asked.encounter);
    const auto error = watched(invocation, "trials", [&](const Watch& watch) {
        return fill(armoury, setup, watch, asked, report);
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
