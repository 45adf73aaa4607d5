// Work on many trials, spread over threads, with results that do not depend on them.
#pragma once

#include "base/parallel.h"
#include "fight/trials.h"

#include <algorithm>
#include <utility>

namespace panoplon {

/// Trials in one unit of work.
inline constexpr std::uint64_t block_size = 64;

/// Works through trials 0 … `trials` − 1 in blocks on all threads, and merges the blocks in their
/// order as they are done: so sums do not depend on who ran which, and memory not on their number.
/// `make_worker()` gives a thread's own working space; `work(worker, first, last)` a block's part;
/// `merge(part)` is called by one thread at a time. True when stopped before the end: the first
/// blocks are merged then, each whole.
template <class MakeWorker, class Work, class Merge>
bool run_blocks(std::uint64_t trials, const Watch& watch, MakeWorker make_worker, Work work,
                Merge merge) {
    using Worker = decltype(make_worker());
    Workers<Worker> workers(make_worker);
    using Part = decltype(work(std::declval<Worker&>(), std::uint64_t{}, std::uint64_t{}));
    std::uint64_t begun = 0;
    std::uint64_t done = 0;
    bool stopped = false;
    const auto next = [&](std::uint64_t& first) {
        stopped = begun < trials && watch.stopped();
        if (begun >= trials || stopped) return false;
        first = begun;
        begun = std::min(trials, begun + block_size);
        return true;
    };
    const auto run = [&](std::uint64_t first) -> std::shared_ptr<void> {
        return workers.with([&](Worker& worker) {
            return std::make_shared<Part>(
                work(worker, first, std::min(trials, first + block_size)));
        });
    };
    const auto take = [&](const void* part) {
        merge(*static_cast<const Part*>(part));
        done = std::min(trials, done + block_size);
        if (watch.progress) watch.progress(done, trials);
    };
    run_in_order(next, run, take);
    return stopped;
}

/// Runs options.trials trials, then as many again and again, until `close()` or `most` are done.
/// `run(options)` does the trials from options.first on; it is false where they can't go on.
template <class Run, class Close>
void double_until(TrialsOptions options, std::uint64_t most, Run run, Close close) {
    options.trials = std::min(options.trials, most);
    std::uint64_t done = 0;
    while (run(options)) {
        done += options.trials;
        if (done >= most || close()) return;
        options.first = done;
        options.trials = std::min(done, most - done);
    }
}

} // namespace panoplon
