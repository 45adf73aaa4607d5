#include "fight/paired.h"

#include "fight/trial_blocks.h"
#include "fight/trial_bytes.h"
#include "fight/trial_sums.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace panoplon {

namespace {

/// What a trial comes to in every measure.
using Measured = std::array<double, measure_count>;

struct Engines {
    Engine first, second;
};

double used(const FightResult& result) {
    return std::accumulate(result.uses.begin(), result.uses.end(), 0.0,
                           [](double sum, const UseCount& use) { return sum + use.used; });
}

/// Fights one side of a trial and adds it to its summary; its margin too.
Measured measure(Engine& engine, const Luck& luck, double guess, TrialsSummary& summary,
                 std::vector<double>& margins, bool& bounded) {
    const FightResult& result = engine.run(1, luck);
    add_trial(summary, result);
    Measured measured{};
    const auto set = [&](Measure which, double value) {
        measured[static_cast<std::size_t>(which)] = value;
    };
    set(Measure::wins, result.won ? 1 : 0);
    set(Measure::left, result.remainder);
    set(Measure::time, result.time);
    set(Measure::dealt, result.all_dealt());
    set(Measure::taken, result.all_taken());
    set(Measure::used, used(result));
    const Margin margin = trial_margin(engine, luck, guess);
    if (margin.error && !summary.error) summary.error = margin.error;
    margins.push_back(margin.value);
    bounded = bounded || margin.reach != Reach::within;
    set(Measure::log_margin, std::log(margin.value));
    return measured;
}

void merge_into(PairedTrials& whole, const PairedTrials& block) {
    merge(whole.first, block.first);
    merge(whole.second, block.second);
    for (std::size_t m = 0; m < measure_count; ++m)
        whole.differences[m].merge(block.differences[m]);
    const auto append = [](std::vector<double>& into, const std::vector<double>& more) {
        into.insert(into.end(), more.begin(), more.end());
    };
    append(whole.first_margins, block.first_margins);
    append(whole.second_margins, block.second_margins);
    whole.bounded += block.bounded;
    whole.partial = block.partial;
}

PairedTrials empty_pair(const Contender& first, const Contender& second) {
    PairedTrials pair;
    pair.first = empty_summary(ledger_shape(first.armoury, first.setup.actors.front()));
    pair.second = empty_summary(ledger_shape(second.armoury, second.setup.actors.front()));
    return pair;
}

void sort_all(PairedTrials& pair) {
    sort_times(pair.first);
    sort_times(pair.second);
    std::sort(pair.first_margins.begin(), pair.first_margins.end());
    std::sort(pair.second_margins.begin(), pair.second_margins.end());
}

/// Trials in their order; nothing is sorted yet.
PairedTrials run_some(const Contender& first, const Contender& second, const TrialsOptions& options,
                      const Watch& watch) {
    PairedTrials whole = empty_pair(first, second);
    const bool stopped = run_blocks(
        whole, options.trials, watch,
        [&] {
            return Engines{engine_for(first.armoury, first.setup),
                           engine_for(second.armoury, second.setup)};
        },
        [&](Engines& engines, std::uint64_t from, std::uint64_t to) {
            PairedTrials block = empty_pair(first, second);
            for (std::uint64_t trial = from; trial < to; ++trial) {
                const Luck luck{options.seed, options.first + trial};
                bool bounded = false;
                const Measured one = measure(engines.first, luck, first.guess, block.first,
                                             block.first_margins, bounded);
                const Measured other = measure(engines.second, luck, second.guess, block.second,
                                               block.second_margins, bounded);
                for (std::size_t m = 0; m < measure_count; ++m)
                    block.differences[m].add(other[m] - one[m]);
                block.bounded += bounded;
            }
            return block;
        },
        merge_into);
    whole.partial = whole.first.partial = whole.second.partial = stopped;
    return whole;
}

} // namespace

PairedTrials run_paired(const Contender& first, const Contender& second,
                        const TrialsOptions& options, const Watch& watch) {
    PairedTrials pair = run_some(first, second, options, watch);
    sort_all(pair);
    return pair;
}

PairedTrials run_paired_within(const Contender& first, const Contender& second,
                               TrialsOptions options, double precision, std::uint64_t most,
                               const Watch& watch) {
    PairedTrials whole = empty_pair(first, second);
    const auto run = [&](const TrialsOptions& some) {
        merge_into(whole, run_some(first, second, some, watch));
        return !whole.partial && !whole.first.error && !whole.second.error;
    };
    const auto close = [&] {
        const Estimate wins = estimate_mean(whole.of(Measure::wins));
        return wins.high - wins.mean <= precision;
    };
    double_until(options, most, run, close);
    sort_all(whole);
    return whole;
}

} // namespace panoplon
