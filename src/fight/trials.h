// Many trials of one fight, in parallel, summed in one fixed order.
#pragma once

#include "base/watch.h"
#include "chance/estimate.h"
#include "fight/engine.h"
#include "fight/margin.h"

#include <vector>

namespace panoplon {

struct TrialsOptions {
    std::uint64_t trials = 1000; ///< ≥ 1
    std::uint64_t seed = 1;
    double strength = 1;
    std::uint64_t first = 0; ///< number of the first trial
};

/// Sums over trials. What has an interval is kept in Moments, all else as a sum.
struct TrialsSummary {
    std::uint64_t trials = 0; ///< finished; fewer than asked when stopped
    bool partial = false;
    std::uint64_t won = 0;
    std::uint64_t timed_out = 0;
    Moments time, dealt, taken, overkill, events;
    Moments health_left; ///< of won trials: the share that is left
    Moments foes_left;   ///< of lost trials: the share of all the foes' health
    std::vector<double> times_won, times_lost; ///< sorted; the time limit counts as lost
    std::vector<Moments> dealt_by_type, taken_by_type, restored, wasted;
    std::vector<Moments> uptime; ///< by effect, as a share of the fight
    Ledger sums;
    std::optional<FightError> error; ///< of the first trial that had one

    /// A number of `sums` as it is in a trial.
    [[nodiscard]] double per_trial(double sum) const {
        return trials > 0 ? sum / static_cast<double>(trials) : 0;
    }
    [[nodiscard]] std::vector<double> times() const; ///< of all trials, sorted
};

/// The summary of one fight, as if that were all trials: by even luck there is one only.
[[nodiscard]] TrialsSummary summary_of(const FightResult& result);

/// The same for any number of threads. The setup's fights are those of `armoury`.
[[nodiscard]] TrialsSummary run_trials(const Armoury& armoury, const FightSetup& setup,
                                       const TrialsOptions& options, const Watch& watch = {});

/// Goes on, from `options.trials` and doubling, until the 95 % interval of the share of wins
/// reaches no further than `precision` to either side, or `most` trials are done. It is the summary
/// that so many trials at once would have given.
[[nodiscard]] TrialsSummary run_trials_within(const Armoury& armoury, const FightSetup& setup,
                                              TrialsOptions options, double precision,
                                              std::uint64_t most, const Watch& watch = {});

/// Margins of trials 0 … trials − 1, in that order; fewer when stopped.
struct MarginTrials {
    std::vector<Margin> margins;
    bool partial = false;
};
[[nodiscard]] MarginTrials run_margin_trials(const Armoury& armoury, const FightSetup& setup,
                                             const TrialsOptions& options, double guess,
                                             const Watch& watch = {});

} // namespace panoplon
