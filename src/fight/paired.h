// Two fights under the same luck, and what the difference between them is (M67, M94).
#pragma once

#include "fight/trials.h"

#include <array>

namespace panoplon {

/// One side of a comparison; the two may be fought in different armouries.
struct Contender {
    const Armoury& armoury;
    const FightSetup& setup;
    double guess = 1; ///< of its margin; only saves time
};

/// What is compared, trial by trial.
enum class Measure {
    wins,
    log_margin, ///< of the trial: its difference is the logarithm of a ratio
    left,       ///< won: the share of health left; lost: minus the share of all the foes'
    time,
    dealt,
    taken,
    used, ///< consumables of all kinds
};
inline constexpr std::size_t measure_count = 7;

struct PairedTrials {
    TrialsSummary first, second;
    std::array<Moments, measure_count> differences;    ///< second − first, by Measure
    std::vector<double> first_margins, second_margins; ///< sorted
    std::uint64_t bounded = 0; ///< trials of which a margin is not between 1/64 and 64
    bool partial = false;

    [[nodiscard]] const Moments& of(Measure measure) const {
        return differences[static_cast<std::size_t>(measure)];
    }
};

/// The same for any number of threads.
[[nodiscard]] PairedTrials run_paired(const Contender& first, const Contender& second,
                                      const TrialsOptions& options, const Watch& watch = {});
/// Goes on, from `options.trials` and doubling, until the 95 % interval of the difference of the
/// shares of wins reaches no further than `precision` to either side, or `most` trials are done.
[[nodiscard]] PairedTrials run_paired_within(const Contender& first, const Contender& second,
                                             TrialsOptions options, double precision,
                                             std::uint64_t most, const Watch& watch = {});

} // namespace panoplon
