#include "cli/fight_report.h"

#include <algorithm>

namespace panoplon {

namespace {

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
        if (margin.error && !report.fault) report.fault = margin.error;
    if (report.fault) report.margins.reset();
    return std::nullopt;
}

} // namespace

std::optional<FightError> fill_report(const Armoury& armoury, const FightSetup& setup,
                                      const Watch& watch, const FightAsked& asked, bool margins,
                                      FightReport& report) {
    Engine engine(armoury);
    engine.prepare(setup);
    report.even = engine.run(1, std::nullopt);
    report.fault = report.even.error;
    if (report.fault && asked.trials == 0) return report.fault;
    if (!report.fault) {
        report.even_margin = even_margin(engine);
        report.fault = report.even_margin.error;
    }
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

} // namespace panoplon
