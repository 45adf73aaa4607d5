#include "cli/fight_answer.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Why things were so, in the first of the trials: more would tell no more.
void inquire(Engine& engine, const FightAsked& asked, FightAnswer& answer) {
    constexpr std::uint64_t enough = 200;
    answer.inquired = std::min(asked.trials, enough);
    for (std::uint64_t trial = 0; trial < answer.inquired; ++trial)
        engine.inquire(1, Luck{asked.seed, trial}, answer.inquiry);
    if (asked.trials == 0) engine.inquire(1, std::nullopt, answer.inquiry);
}

std::optional<FightError> run_many(const Armoury& armoury, const FightSetup& setup,
                                   const Watch& watch, const FightAsked& asked, bool margins,
                                   FightAnswer& answer) {
    const TrialsOptions options{asked.trials, asked.seed, 1};
    answer.trials = asked.precision > 0 ? run_trials_within(armoury, setup, options,
                                                            asked.precision, most_trials, watch)
                                        : run_trials(armoury, setup, options, watch);
    if (answer.trials->error) return answer.trials->error;
    if (!margins) return std::nullopt;
    answer.margins = run_margin_trials(armoury, setup, {answer.trials->trials, asked.seed, 1},
                                       answer.even_margin.value, watch);
    for (const Margin& margin : answer.margins->margins)
        if (margin.error && !answer.fault) answer.fault = margin.error;
    if (answer.fault) answer.margins.reset();
    return std::nullopt;
}

} // namespace

std::optional<FightError> find_answer(const Armoury& armoury, const FightSetup& setup,
                                      const Watch& watch, const FightAsked& asked, bool margins,
                                      FightAnswer& answer) {
    Engine engine(armoury);
    engine.prepare(setup);
    answer.even = engine.run(1, std::nullopt);
    answer.fault = answer.even.error;
    if (answer.fault && asked.trials == 0) return answer.fault;
    if (!answer.fault) {
        answer.even_margin = even_margin(engine);
        answer.fault = answer.even_margin.error;
    }
    answer.blows = engine.blows();
    std::optional<Luck> told;
    if (asked.trials > 0) {
        if (auto error = run_many(armoury, setup, watch, asked, margins, answer)) return error;
        told = Luck{asked.seed, asked.told};
        answer.told_trial = asked.told;
    }
    if (!answer.why.empty()) inquire(engine, asked, answer);
    answer.told = engine.tell(1, told);
    return std::nullopt;
}

} // namespace panoplon
