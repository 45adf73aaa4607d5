#include "base/parallel.h"

#include "base/ranks.h"

#include <algorithm>
#include <optional>
#include <tbb/blocked_range.h>
#include <tbb/global_control.h>
#include <tbb/parallel_for.h>
#include <tbb/parallel_pipeline.h>
#include <tbb/task_arena.h>

namespace panoplon {

struct ThreadLimit::Control {
    std::optional<tbb::global_control> limit;
};

ThreadLimit::ThreadLimit(std::size_t threads) : control_(std::make_unique<Control>()) {
    if (threads > 0) control_->limit.emplace(tbb::global_control::max_allowed_parallelism, threads);
}

ThreadLimit::~ThreadLimit() = default;

std::size_t threads_at_work() {
    const auto machine = static_cast<std::size_t>(tbb::this_task_arena::max_concurrency());
    return std::min(
        machine, tbb::global_control::active_value(tbb::global_control::max_allowed_parallelism));
}

void share_out(std::size_t count, const std::function<void(std::size_t, std::size_t)>& visit) {
    const AloneScope alone; // this thread does pieces, too
    tbb::parallel_for(
        tbb::blocked_range<std::size_t>(0, count, 1),
        [&](const tbb::blocked_range<std::size_t>& range) { visit(range.begin(), range.end()); });
}

void run_in_order(const std::function<bool(std::uint64_t&)>& next,
                  const std::function<std::shared_ptr<void>(std::uint64_t)>& run,
                  const std::function<void(const void*)>& take) {
    const AloneScope alone;
    constexpr int under_way = 8; // a thread
    const auto tokens =
        static_cast<std::size_t>(tbb::this_task_arena::max_concurrency() * under_way);
    using tbb::filter_mode;
    using Part = std::shared_ptr<void>;
    const auto begin = [&](tbb::flow_control& control) {
        std::uint64_t number = 0;
        if (!next(number)) control.stop();
        return number;
    };
    tbb::parallel_pipeline(
        tokens, tbb::make_filter<void, std::uint64_t>(filter_mode::serial_in_order, begin) &
                    tbb::make_filter<std::uint64_t, Part>(filter_mode::parallel, run) &
                    tbb::make_filter<Part, void>(filter_mode::serial_in_order,
                                                 [&](const Part& part) { take(part.get()); }));
}

} // namespace panoplon
