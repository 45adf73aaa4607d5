#include "fight/trials.h"

#include <algorithm>
#include <tbb/blocked_range.h>
#include <tbb/enumerable_thread_specific.h>
#include <tbb/parallel_for.h>

namespace panoplon {

namespace {

/// Trials in one unit of work. Blocks are merged in their order, so the sums do not depend on who
/// ran which.
constexpr std::uint64_t block_size = 64;

void add_all(std::vector<Moments>& into, const std::vector<double>& values) {
    for (std::size_t i = 0; i < values.size(); ++i) into[i].add(values[i]);
}

void merge_all(std::vector<Moments>& into, const std::vector<Moments>& other) {
    for (std::size_t i = 0; i < other.size(); ++i) into[i].merge(other[i]);
}

/// The lists of sums, so that what is done to all is written once.
constexpr std::vector<Moments> TrialsSummary::*lists[] = {
    &TrialsSummary::dealt_by_type, &TrialsSummary::taken_by_type, &TrialsSummary::restored,
    &TrialsSummary::wasted,        &TrialsSummary::used,          &TrialsSummary::refused,
    &TrialsSummary::left,          &TrialsSummary::action_done,   &TrialsSummary::action_dealt,
    &TrialsSummary::uptime,        &TrialsSummary::effect_cut,    &TrialsSummary::overlap};
constexpr Moments TrialsSummary::*singles[] = {&TrialsSummary::time, &TrialsSummary::dealt,
                                               &TrialsSummary::taken, &TrialsSummary::overkill,
                                               &TrialsSummary::events};

TrialsSummary empty_summary(const Armoury& armoury) {
    TrialsSummary summary;
    summary.dealt_by_type.resize(armoury.damages.size());
    summary.taken_by_type.resize(armoury.damages.size());
    summary.restored.resize(armoury.pools.size());
    summary.wasted.resize(armoury.pools.size());
    summary.used.resize(armoury.items.size());
    summary.refused.resize(armoury.items.size());
    summary.left.resize(armoury.items.size());
    summary.action_done.resize(armoury.actions.size());
    summary.action_dealt.resize(armoury.actions.size());
    summary.uptime.resize(armoury.effects.size());
    summary.effect_cut.resize(armoury.effects.size());
    summary.overlap.resize(armoury.effects.size());
    return summary;
}

void add_trial(TrialsSummary& summary, const FightResult& result) {
    summary.trials += 1;
    summary.won += result.won;
    summary.timed_out += result.timed_out;
    summary.time.add(result.time);
    summary.times.push_back(result.time);
    summary.dealt.add(result.all_dealt());
    summary.taken.add(result.all_taken());
    summary.overkill.add(result.overkill);
    summary.events.add(result.events);
    add_all(summary.dealt_by_type, result.dealt);
    add_all(summary.taken_by_type, result.taken);
    add_all(summary.restored, result.restored);
    add_all(summary.wasted, result.wasted);
    add_all(summary.left, result.left);
    for (std::size_t i = 0; i < result.uses.size(); ++i) {
        summary.used[i].add(result.uses[i].used);
        summary.refused[i].add(result.uses[i].refused);
    }
    for (std::size_t i = 0; i < result.actions.size(); ++i) {
        summary.action_done[i].add(result.actions[i].done);
        summary.action_dealt[i].add(result.actions[i].dealt);
    }
    for (std::size_t i = 0; i < result.effects.size(); ++i) {
        summary.uptime[i].add(result.time > 0 ? result.effects[i].uptime / result.time : 0);
        summary.effect_cut[i].add(result.effects[i].cut);
        summary.overlap[i].add(result.effects[i].overlap);
    }
    if (result.error && !summary.error) summary.error = result.error;
}

void merge(TrialsSummary& into, const TrialsSummary& block) {
    into.trials += block.trials;
    into.won += block.won;
    into.timed_out += block.timed_out;
    for (const auto list : lists) merge_all(into.*list, block.*list);
    for (const auto single : singles) (into.*single).merge(block.*single);
    into.times.insert(into.times.end(), block.times.begin(), block.times.end());
    if (!into.error) into.error = block.error;
}

/// Calls work(engine, trial) for every trial, in blocks, on all threads; returns whether it was
/// stopped before the end.
template <class Work>
bool for_each_trial(const Armoury& armoury, const FightSetup& setup, std::uint64_t trials,
                    const Watch& watch, Work work) {
    const std::uint64_t blocks = (trials + block_size - 1) / block_size;
    tbb::enumerable_thread_specific<Engine> engines([&] {
        Engine engine(armoury);
        engine.prepare(setup);
        return engine;
    });
    std::atomic<std::uint64_t> done = 0;
    std::atomic<bool> stopped = false;
    tbb::parallel_for(tbb::blocked_range<std::uint64_t>(0, blocks, 1),
                      [&](const tbb::blocked_range<std::uint64_t>& range) {
                          Engine& engine = engines.local();
                          for (std::uint64_t block = range.begin(); block != range.end(); ++block) {
                              if (watch.stopped()) {
                                  stopped = true;
                                  return;
                              }
                              const std::uint64_t first = block * block_size;
                              const std::uint64_t last = std::min(trials, first + block_size);
                              for (std::uint64_t trial = first; trial < last; ++trial)
                                  work(engine, block, trial);
                              const std::uint64_t now = done += last - first;
                              if (watch.progress) watch.progress(now, trials);
                          }
                      });
    return stopped;
}

} // namespace

TrialsSummary run_trials(const Armoury& armoury, const FightSetup& setup,
                         const TrialsOptions& options, const Watch& watch) {
    std::vector<TrialsSummary> blocks((options.trials + block_size - 1) / block_size);
    const bool stopped =
        for_each_trial(armoury, setup, options.trials, watch,
                       [&](Engine& engine, std::uint64_t block, std::uint64_t trial) {
                           TrialsSummary& summary = blocks[block];
                           if (summary.trials == 0) summary = empty_summary(armoury);
                           const Luck luck{options.seed, options.first + trial};
                           add_trial(summary, engine.run(options.strength, luck));
                       });
    TrialsSummary whole = empty_summary(armoury);
    for (const TrialsSummary& block : blocks)
        if (block.trials > 0) merge(whole, block);
    whole.partial = stopped;
    std::sort(whole.times.begin(), whole.times.end());
    return whole;
}

TrialsSummary run_trials_within(const Armoury& armoury, const FightSetup& setup,
                                TrialsOptions options, double precision, std::uint64_t most,
                                const Watch& watch) {
    options.trials = std::min(options.trials, most);
    TrialsSummary whole = run_trials(armoury, setup, options, watch);
    const auto close = [&] {
        const Estimate wins =
            estimate_share(static_cast<double>(whole.won), static_cast<double>(whole.trials));
        return std::max(wins.high - wins.mean, wins.mean - wins.low) <= precision;
    };
    while (!whole.partial && !whole.error && whole.trials < most && !close()) {
        options.first = whole.trials;
        options.trials = std::min(whole.trials, most - whole.trials);
        const TrialsSummary more = run_trials(armoury, setup, options, watch);
        merge(whole, more);
        whole.partial = more.partial;
    }
    std::sort(whole.times.begin(), whole.times.end());
    return whole;
}

MarginTrials run_margin_trials(const Armoury& armoury, const FightSetup& setup,
                               const TrialsOptions& options, double guess, const Watch& watch) {
    std::vector<std::optional<Margin>> found(options.trials);
    MarginTrials result;
    result.partial =
        for_each_trial(armoury, setup, options.trials, watch,
                       [&](Engine& engine, std::uint64_t, std::uint64_t trial) {
                           found[trial] = trial_margin(engine, Luck{options.seed, trial}, guess);
                       });
    for (const std::optional<Margin>& margin : found)
        if (margin) result.margins.push_back(*margin);
    return result;
}

} // namespace panoplon
