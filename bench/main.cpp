#include "bench/checks.h"

#include <benchmark/benchmark.h>

int main(int count, char** arguments) {
    benchmark::Initialize(&count, arguments);
    if (!panoplon::bench::engine_meets_the_loop()) return 1;
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
