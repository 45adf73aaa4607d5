#include "fight/trial_sums.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

void add_all(std::vector<Moments>& into, const std::vector<double>& values) {
    for (std::size_t i = 0; i < values.size(); ++i) into[i].add(values[i]);
}

void merge_all(std::vector<Moments>& into, const std::vector<Moments>& other) {
    for (std::size_t i = 0; i < other.size(); ++i) into[i].merge(other[i]);
}

/// The lists of sums, so that what is done to all is written once.
constexpr std::vector<Moments> TrialsSummary::*lists[] = {
    &TrialsSummary::dealt_by_type, &TrialsSummary::taken_by_type, &TrialsSummary::restored,
    &TrialsSummary::wasted, &TrialsSummary::uptime};
constexpr Moments TrialsSummary::*singles[] = {
    &TrialsSummary::time,     &TrialsSummary::dealt,  &TrialsSummary::taken,
    &TrialsSummary::overkill, &TrialsSummary::events, &TrialsSummary::health_left,
    &TrialsSummary::foes_left};
constexpr std::vector<double> TrialsSummary::*times[] = {&TrialsSummary::times_won,
                                                         &TrialsSummary::times_lost};

} // namespace

TrialsSummary empty_summary(const LedgerShape& shape) {
    TrialsSummary summary;
    summary.dealt_by_type.resize(shape.damages);
    summary.taken_by_type.resize(shape.damages);
    summary.restored.resize(shape.pools);
    summary.wasted.resize(shape.pools);
    summary.uptime.resize(shape.effects);
    summary.sums.reset(shape);
    return summary;
}

void add_trial(TrialsSummary& summary, const FightResult& result) {
    summary.trials += 1;
    summary.won += result.won;
    summary.timed_out += result.timed_out;
    summary.time.add(result.time);
    (result.won ? summary.times_won : summary.times_lost).push_back(result.time);
    (result.won ? summary.health_left : summary.foes_left).add(std::abs(result.remainder));
    summary.dealt.add(result.all_dealt());
    summary.taken.add(result.all_taken());
    summary.overkill.add(result.overkill);
    summary.events.add(result.events);
    add_all(summary.dealt_by_type, result.dealt);
    add_all(summary.taken_by_type, result.taken);
    add_all(summary.restored, result.restored);
    add_all(summary.wasted, result.wasted);
    for (std::size_t i = 0; i < result.effects.size(); ++i)
        summary.uptime[i].add(result.time > 0 ? result.effects[i].uptime / result.time : 0);
    summary.sums.add(result);
    if (result.error && !summary.error) summary.error = result.error;
}

TrialsSummary summary_of(const FightResult& result) {
    TrialsSummary summary = empty_summary(result.shape);
    add_trial(summary, result);
    return summary;
}

void merge(TrialsSummary& into, const TrialsSummary& block) {
    into.trials += block.trials;
    into.won += block.won;
    into.timed_out += block.timed_out;
    for (const auto list : lists) merge_all(into.*list, block.*list);
    for (const auto single : singles) (into.*single).merge(block.*single);
    for (const auto list : times)
        (into.*list).insert((into.*list).end(), (block.*list).begin(), (block.*list).end());
    into.sums.add(block.sums);
    if (!into.error) into.error = block.error;
}

void sort_times(TrialsSummary& summary) {
    for (const auto list : times) std::sort((summary.*list).begin(), (summary.*list).end());
}

std::vector<double> TrialsSummary::times() const {
    std::vector<double> all(times_won.size() + times_lost.size());
    std::merge(times_won.begin(), times_won.end(), times_lost.begin(), times_lost.end(),
               all.begin());
    return all;
}

Engine engine_for(const Armoury& armoury, const FightSetup& setup) {
    Engine engine(armoury);
    engine.prepare(setup);
    return engine;
}

} // namespace panoplon
