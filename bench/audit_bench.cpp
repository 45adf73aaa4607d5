// Whole audits: how long they take, and how much of what was planted they find.
#include "bench/demo_armoury.h"
#include "judge/audit/audit.h"
#include "tests/support/planted.h"

#include <benchmark/benchmark.h>
#include <cstdio>

namespace panoplon::bench {

namespace {

/// As `panoplon audit` does, without trials.
void audit_demo(benchmark::State& state) {
    const Armoury armoury = demo_armoury();
    AuditOptions options;
    options.levels = armoury.levels;
    options.step = armoury.audit.step;
    for (auto _ : state) benchmark::DoNotOptimize(audit(armoury, options));
}
BENCHMARK(audit_demo)->Unit(benchmark::kSecond)->Iterations(1)->UseRealTime();

/// Recall and precision over armouries of about as many items as the argument; what was missed or
/// invented is told on standard error.
void audit_planted(benchmark::State& state) {
    test::PlantedSize size;
    size.alike = static_cast<int>(state.range(0)) / (size.slots * size.generations);
    test::Found all;
    std::uint64_t seed = 1;
    for (auto _ : state) all.add(test::audit_planted(test::make_planted(seed++, size)));
    state.counters["planted"] = all.all().planted;
    state.counters["recall"] = all.recall();
    state.counters["precision"] = all.precision();
    std::fputs(all.wrong.c_str(), stderr);
}
BENCHMARK(audit_planted)->Unit(benchmark::kSecond)->Arg(200)->Iterations(5)->UseRealTime();
BENCHMARK(audit_planted)->Unit(benchmark::kSecond)->Arg(500)->Iterations(1)->UseRealTime();

} // namespace

} // namespace panoplon::bench
