// Which contexts a piece of work looks at.
#pragma once

#include "base/parallel.h"
#include "model/armoury.h"

#include <atomic>
#include <functional>
#include <vector>

namespace panoplon {

/// Contexts of a piece of work.
struct ContextScope {
    std::vector<CharacterId> characters; ///< empty: all
    std::vector<EncounterId> encounters; ///< empty: all that have a weight, but for the yardstick's
    LevelRange levels;                   ///< within the armoury's
    int step = 1;                        ///< levels; ≥ 1
};

/// The contexts of one character and encounter, from the lowest level up: each search starts from
/// the best of the one before.
struct ContextChain {
    CharacterId character;
    EncounterId encounter;
    std::vector<int> levels;
};

/// By character, then encounter: the levels of the scope at which the encounter is met. Chains
/// without levels are left out.
[[nodiscard]] std::vector<ContextChain> context_chains(const Armoury& armoury, ContextScope scope);

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
    for_each_in_parallel(chains.size(), [&](std::size_t i) { run(chains[i], done); });
}

} // namespace panoplon
