// Work on many trials, spread over threads, with results that do not depend on them.
#pragma once

#include "base/bytes.h"
#include "base/parallel.h"
#include "base/ranks.h"
#include "fight/trials.h"

#include <algorithm>
#include <map>
#include <memory>
#include <utility>
#include <vector>

namespace panoplon {

/// Trials in one unit of work.
inline constexpr std::uint64_t block_size = 64;

/// Blocks 0 … of trials, on all ranks: merged by the first as run_blocks() does it, and the sum
/// told to all. How many trials are in it: the first ones, all but where the watch has stopped it.
template <class MakeWorker, class Sum, class Work, class Merge>
std::uint64_t run_blocks_on_ranks(Ranks& all, Sum& whole, std::uint64_t trials, const Watch& watch,
                                  const MakeWorker& make_worker, const Work& work,
                                  const Merge& merge) {
    using Worker = decltype(make_worker());
    const std::uint64_t blocks = (trials + block_size - 1) / block_size;
    // Enough in a piece that its letters cost little beside it, and few where that is much work.
    const std::uint64_t at_once = std::clamp<std::uint64_t>(blocks / 256, 1, 16);
    std::vector<std::unique_ptr<Worker>> workers(threads_at_work());
    std::map<std::size_t, std::string> early; // pieces that came before one before them
    std::size_t next = 0;
    std::uint64_t done = 0;
    SharedWork shared;
    for (std::size_t piece = 0; piece * at_once < blocks; ++piece) shared.pieces.push_back(piece);
    shared.stopped = [&] { return watch.stopped(); };
    shared.run = [&](std::size_t piece, std::size_t thread) {
        if (!workers[thread]) workers[thread] = std::make_unique<Worker>(make_worker());
        std::vector<Sum> parts;
        const std::uint64_t end = std::min(trials, (piece + 1) * at_once * block_size);
        for (std::uint64_t first = piece * at_once * block_size; first < end; first += block_size)
            parts.push_back(work(*workers[thread], first, std::min(end, first + block_size)));
        return bytes_of(parts);
    };
    shared.take = [&](std::size_t piece, const std::string& bytes) {
        early.emplace(piece, bytes);
        for (auto first = early.begin(); first != early.end() && first->first == next; ++next) {
            for (const Sum& part : value_of_bytes<std::vector<Sum>>(first->second))
                merge(whole, part);
            done = std::min(trials, next * at_once * block_size + at_once * block_size);
            first = early.erase(first);
        }
        if (watch.progress) watch.progress(done, trials);
    };
    using Answers = std::pair<std::uint64_t, Sum>;
    shared.answers = [&] { return bytes_of(Answers(done, whole)); };
    shared.get = [&](const std::string& bytes) {
        auto answers = value_of_bytes<Answers>(bytes);
        done = answers.first;
        whole = std::move(answers.second);
    };
    all.share(shared);
    return done;
}

/// Works through trials 0 … `trials` − 1 in blocks on all threads of all ranks, and merges the
/// blocks in their order as they are done: so sums do not depend on who ran which, and memory not
/// on their number. `make_worker()` gives a thread's own working space; `work(worker, first, last)`
/// a block's sum; `merge(whole, sum)` adds it, one at a time. True when stopped before the end: the
/// first blocks are merged then, each whole.
template <class MakeWorker, class Sum, class Work, class Merge>
bool run_blocks(Sum& whole, std::uint64_t trials, const Watch& watch, const MakeWorker& make_worker,
                const Work& work, const Merge& merge) {
    using Worker = decltype(make_worker());
    std::uint64_t done = 0;
    if (Ranks* all = ranks(); all && trials > block_size)
        done = run_blocks_on_ranks(*all, whole, trials, watch, make_worker, work, merge);
    Workers<Worker> workers(make_worker);
    std::uint64_t begun = done;
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
            return std::make_shared<Sum>(work(worker, first, std::min(trials, first + block_size)));
        });
    };
    const auto take = [&](const void* part) {
        merge(whole, *static_cast<const Sum*>(part));
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
