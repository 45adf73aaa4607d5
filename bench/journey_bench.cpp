// Journeys of thirty stages on the demo armoury. Wanted: ten thousand in under 20 s on two cores;
// a tenth of that is run, so 2 s.
#include "bench/demo_armoury.h"
#include "journey/journey.h"

#include <benchmark/benchmark.h>

namespace panoplon::bench {

namespace {

/// The first journey's stages, again and again, a win each, levels as they rise there.
Journey thirty_stages(const Armoury& armoury) {
    Journey journey = armoury.journeys.front();
    const std::vector<Stage> way = journey.stages;
    journey.stages.clear();
    for (std::size_t i = 0; i < 30; ++i) {
        Stage stage = way[i % way.size()];
        stage.wins = 1;
        stage.level_gain = i % 3 == 2 ? 1 : 0;
        journey.stages.push_back(stage);
    }
    return journey;
}

void journeys_of_thirty_stages(benchmark::State& state) {
    const Armoury armoury = demo_armoury();
    const Journey journey = thirty_stages(armoury);
    double fights = 0;
    for (auto _ : state) {
        const JourneySummary summary = run_journey(armoury, journey, {1000, 1});
        fights = summary.fights / static_cast<double>(summary.trials);
    }
    state.counters["fights"] = fights;
}
BENCHMARK(journeys_of_thirty_stages)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace

} // namespace panoplon::bench
