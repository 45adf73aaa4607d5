// The engine against the loop by hand, in one process and on the same draws. Wanted on one core:
// a trial within 4 × of the loop, even luck at least 5 × faster than a trial, two threads at least
// 1.8 × one.
#include "bench/checks.h"
#include "bench/reference_fight.h"

#include "armoury/read.h"
#include "fight/margin.h"
#include "fight/trials.h"

#include <benchmark/benchmark.h>
#include <cmath>
#include <cstdio>
#include <tbb/global_control.h>

namespace panoplon::bench {

namespace {

const Armoury& armoury() {
    static const Armoury armoury = [] {
        Sources sources;
        sources.add("armoury.toml", reference_armoury());
        return read_sources(std::move(sources), Sink()).armoury;
    }();
    return armoury;
}

FightSetup setup() {
    return set_up_fight(armoury(), outfit_of(armoury(), armoury().loadouts.front(), 1),
                        EncounterId(0));
}

void by_hand(benchmark::State& state) {
    std::uint64_t trial = 0;
    for (auto _ : state) benchmark::DoNotOptimize(fight_by_hand({1, trial++}));
}
BENCHMARK(by_hand)->Unit(benchmark::kMicrosecond);

void trial(benchmark::State& state) {
    const FightSetup fight = setup();
    Engine engine(armoury());
    engine.prepare(fight);
    std::uint64_t number = 0;
    double events = 0;
    for (auto _ : state) events = engine.run(1, Luck{1, number++}).events;
    state.counters["events"] = events;
}
BENCHMARK(trial)->Unit(benchmark::kMicrosecond);

void even_luck(benchmark::State& state) {
    const FightSetup fight = setup();
    Engine engine(armoury());
    engine.prepare(fight);
    for (auto _ : state) benchmark::DoNotOptimize(engine.run(1, std::nullopt, Detail::outcome).won);
}
BENCHMARK(even_luck)->Unit(benchmark::kMicrosecond);

void even_margin_of_it(benchmark::State& state) {
    const FightSetup fight = setup();
    Engine engine(armoury());
    engine.prepare(fight);
    for (auto _ : state) benchmark::DoNotOptimize(even_margin(engine).value);
}
BENCHMARK(even_margin_of_it)->Unit(benchmark::kMicrosecond);

void trials_by_threads(benchmark::State& state) {
    const FightSetup fight = setup();
    const tbb::global_control limit(tbb::global_control::max_allowed_parallelism,
                                    static_cast<std::size_t>(state.range(0)));
    for (auto _ : state) benchmark::DoNotOptimize(run_trials(armoury(), fight, {20000, 1, 1}).won);
}
BENCHMARK(trials_by_threads)->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace

/// The first trials end alike by both; false and a message where one does not.
bool engine_meets_the_loop() {
    const FightSetup fight = setup();
    Engine engine(armoury());
    engine.prepare(fight);
    for (std::uint64_t trial = 0; trial < 20000; ++trial) {
        const Luck luck{1, trial};
        const FightResult& told = engine.run(1, luck);
        const Outcome by_hand = fight_by_hand(luck);
        constexpr double rounding = 1e-6;
        if (told.won == by_hand.won && told.time == by_hand.time &&
            std::abs(told.all_dealt() - by_hand.dealt) < rounding)
            continue;
        std::fprintf(stderr, "trial %llu: the engine and the loop by hand differ\n",
                     static_cast<unsigned long long>(trial));
        return false;
    }
    return true;
}

} // namespace panoplon::bench
