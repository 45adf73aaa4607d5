// Which contexts a piece of work looks at.
#pragma once

#include "fight/trials.h"
#include "model/armoury.h"

#include <atomic>
#include <functional>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <vector>

namespace panoplon {

/// The contexts of one character and encounter, from the lowest level up: each search starts from
/// the best of the one before.
struct ContextChain {
    CharacterId character;
    EncounterId encounter;
    std::vector<int> levels;
};

/// Every `step`-th level of the range at which the encounter is met. Empty lists stand for all
/// characters, and for all encounters that have a weight but for the yardstick's. Chains without
/// levels are left out.
[[nodiscard]] std::vector<ContextChain> context_chains(const Armoury& armoury,
                                                       std::vector<CharacterId> characters,
                                                       std::vector<EncounterId> encounters,
                                                       const LevelRange& levels, int step);

/// Calls run(chain, done) for each chain, in parallel; run calls done() after each of its levels,
/// which is told as progress. A Chain has its ContextChain as `of`.
template <class Chain, class Run>
void run_chains(std::vector<Chain>& chains, const Watch& watch, const Run& run) {
    std::size_t total = 0;
    for (const Chain& chain : chains) total += chain.of.levels.size();
    std::atomic<std::size_t> finished = 0;
    const std::function<void()> done = [&] {
        const std::size_t now = ++finished;
        if (watch.progress) watch.progress(now, total);
    };
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, chains.size(), 1),
                      [&](const tbb::blocked_range<std::size_t>& range) {
                          for (std::size_t i = range.begin(); i != range.end(); ++i)
                              run(chains[i], done);
                      });
}

} // namespace panoplon
