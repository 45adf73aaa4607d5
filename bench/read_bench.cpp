// Reading, resolving and checking. Wanted: 10,000 items in CSV in under a second and under 200 MB;
// 1,000 in a tenth of a second.
#include "bench/big_armoury.h"

#include "armoury/read.h"
#include "judge/paper/doubts.h"
#include "judge/paper/paper.h"

#include <benchmark/benchmark.h>
#include <sys/resource.h>

namespace panoplon::bench {

namespace {

/// The most memory that the process has had, in MB.
double peak_memory() {
    rusage usage{};
    getrusage(RUSAGE_SELF, &usage);
    return static_cast<double>(usage.ru_maxrss) / 1024;
}

/// What `check` does, but for finding the files.
void read_and_check(benchmark::State& state) {
    const Sources sources = big_armoury(static_cast<std::size_t>(state.range(0)));
    std::size_t mistakes = 0;
    std::size_t doubts = 0;
    for (auto _ : state) {
        ReadArmoury read = read_sources(sources, Sink());
        if (read.usable()) find_doubts(read.armoury, read.sink);
        mistakes = read.sink.mistake_count();
        doubts = read.sink.doubt_count();
    }
    state.counters["mistakes"] = static_cast<double>(mistakes);
    state.counters["doubts"] = static_cast<double>(doubts);
    state.counters["peak_MB"] = peak_memory();
}
BENCHMARK(read_and_check)->Arg(1000)->Arg(10000)->Unit(benchmark::kMillisecond);

/// What outclasses what, as `card` and `audit` ask.
void compare_all_on_paper(benchmark::State& state) {
    const ReadArmoury read =
        read_sources(big_armoury(static_cast<std::size_t>(state.range(0))), Sink());
    for (auto _ : state) benchmark::DoNotOptimize(compare_on_paper(read.armoury));
}
BENCHMARK(compare_all_on_paper)->Arg(1000)->Arg(10000)->Unit(benchmark::kMillisecond);

} // namespace

} // namespace panoplon::bench
