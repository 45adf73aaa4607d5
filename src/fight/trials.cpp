#include "fight/trials.h"

#include "fight/trial_blocks.h"
#include "fight/trial_bytes.h"
#include "fight/trial_sums.h"

#include <algorithm>

namespace panoplon {

TrialsSummary run_trials(const Armoury& armoury, const FightSetup& setup,
                         const TrialsOptions& options, const Watch& watch) {
    const LedgerShape shape = ledger_shape(armoury, setup.actors.front());
    TrialsSummary whole = empty_summary(shape);
    whole.partial = run_blocks(
        whole, options.trials, watch, [&] { return engine_for(armoury, setup); },
        [&](Engine& engine, std::uint64_t first, std::uint64_t last) {
            TrialsSummary block = empty_summary(shape);
            for (std::uint64_t trial = first; trial < last; ++trial)
                add_trial(block,
                          engine.run(options.strength, Luck{options.seed, options.first + trial}));
            return block;
        },
        merge);
    sort_times(whole);
    return whole;
}

TrialsSummary run_trials_within(const Armoury& armoury, const FightSetup& setup,
                                TrialsOptions options, double precision, std::uint64_t most,
                                const Watch& watch) {
    TrialsSummary whole = empty_summary(ledger_shape(armoury, setup.actors.front()));
    const auto run = [&](const TrialsOptions& some) {
        const TrialsSummary more = run_trials(armoury, setup, some, watch);
        merge(whole, more);
        whole.partial = more.partial;
        return !whole.partial && !whole.error;
    };
    const auto close = [&] {
        const Estimate wins =
            estimate_share(static_cast<double>(whole.won), static_cast<double>(whole.trials));
        return std::max(wins.high - wins.mean, wins.mean - wins.low) <= precision;
    };
    double_until(options, most, run, close);
    sort_times(whole);
    return whole;
}

MarginTrials run_margin_trials(const Armoury& armoury, const FightSetup& setup,
                               const TrialsOptions& options, double guess, const Watch& watch) {
    MarginTrials result;
    result.partial = run_blocks(
        result.margins, options.trials, watch, [&] { return engine_for(armoury, setup); },
        [&](Engine& engine, std::uint64_t first, std::uint64_t last) {
            std::vector<Margin> margins;
            for (std::uint64_t trial = first; trial < last; ++trial)
                margins.push_back(
                    trial_margin(engine, Luck{options.seed, options.first + trial}, guess));
            return margins;
        },
        [](std::vector<Margin>& all, const std::vector<Margin>& block) {
            all.insert(all.end(), block.begin(), block.end());
        });
    return result;
}

} // namespace panoplon
