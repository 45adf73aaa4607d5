// Results that hang on nothing but their number, computed on all threads of all ranks.
#pragma once

#include "base/bytes.h"
#include "base/parallel.h"
#include "base/ranks.h"

#include <map>
#include <memory>
#include <optional>
#include <utility>
#include <vector>

namespace panoplon {

/// What for_each_with_worker() would compute, once on some rank for each number: results by number,
/// of those that are known. Progress counts results.
template <class Result, class MakeWorker, class Compute>
std::vector<std::optional<Result>> compute_on_ranks(Ranks& all, std::size_t count,
                                                    const MakeWorker& make_worker,
                                                    const Watch& watch, const Compute& compute) {
    using Worker = decltype(make_worker());
    std::vector<std::unique_ptr<Worker>> workers(threads_at_work());
    std::map<std::uint64_t, Result> results;
    SharedWork work;
    for (std::size_t i = 0; i < count; ++i) work.pieces.push_back(i);
    work.stopped = [&] { return watch.stopped(); };
    work.run = [&](std::size_t i, std::size_t thread) {
        if (!workers[thread]) workers[thread] = std::make_unique<Worker>(make_worker());
        std::optional<Result> result = compute(*workers[thread], i);
        if (watch.stopped()) result.reset();
        return bytes_of(result);
    };
    work.take = [&](std::size_t i, const std::string& bytes) {
        auto result = value_of_bytes<std::optional<Result>>(bytes);
        if (!result) return;
        results.emplace(i, std::move(*result));
        if (watch.progress) watch.progress(results.size(), count);
    };
    work.answers = [&] { return bytes_of(results); };
    work.get = [&](const std::string& bytes) {
        results = value_of_bytes<std::map<std::uint64_t, Result>>(bytes);
    };
    all.share(work);
    std::vector<std::optional<Result>> list(count);
    for (auto& [i, result] : results) list[i] = std::move(result);
    return list;
}

/// compute(worker, i) for each of 0 … count - 1, by its number. None of what is not begun, or under
/// way, when the watch stops. `make_worker()` gives a thread's working space, which may not change
/// what is found. Progress counts results. A result is made up of numbers, or has `serialize()`.
template <class MakeWorker, class Compute>
auto compute_each(std::size_t count, const MakeWorker& make_worker, const Watch& watch,
                  const Compute& compute) {
    using Worker = decltype(make_worker());
    using Result = decltype(compute(std::declval<Worker&>(), std::size_t{}));
    std::vector<std::optional<Result>> results(count);
    if (Ranks* all = ranks(); all && count > 1)
        results = compute_on_ranks<Result>(*all, count, make_worker, watch, compute);
    std::vector<std::size_t> missing;
    for (std::size_t i = 0; i < count; ++i)
        if (!results[i]) missing.push_back(i);
    for_each_with_worker(missing.size(), make_worker, watch, [&](Worker& worker, std::size_t m) {
        Result result = compute(worker, missing[m]);
        if (!watch.stopped()) results[missing[m]] = std::move(result);
    });
    return results;
}

} // namespace panoplon
