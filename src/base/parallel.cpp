#include "base/parallel.h"

#include "base/ranks.h"

#include <algorithm>
#include <optional>
#include <tbb/blocked_range.h>
#include <tbb/global_control.h>
#include <tbb/parallel_for.h>
#include <tbb/parallel_pipeline.h>
#include <tbb/task_arena.h>
#if defined(__SANITIZE_THREAD__)
#include <sanitizer/tsan_interface.h>
#endif

namespace panoplon {

namespace {

/// What a thread wrote before it hands something over lies before what the next one does. The
/// library sees to that; it is not built with the thread sanitizer, which is told here.
class HandedOver {
  public:
#if defined(__SANITIZE_THREAD__)
    void give() {
        __tsan_release(this);
    }
    void take() {
        __tsan_acquire(this);
    }
#else
    void give() {}
    void take() {}
#endif
};

} // namespace

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
    HandedOver task, result;
    task.give();
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, count, 1),
                      [&](const tbb::blocked_range<std::size_t>& range) {
                          task.take();
                          visit(range.begin(), range.end());
                          result.give();
                      });
    result.take();
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
    HandedOver begun, done, taken;
    begun.give();
    const auto begin = [&](tbb::flow_control& control) {
        begun.take();
        taken.take();
        std::uint64_t number = 0;
        if (!next(number)) control.stop();
        begun.give();
        return number;
    };
    const auto do_one = [&](std::uint64_t number) {
        begun.take();
        Part part = run(number);
        done.give();
        return part;
    };
    const auto take_one = [&](const Part& part) {
        done.take();
        taken.take();
        take(part.get());
        taken.give();
    };
    tbb::parallel_pipeline(
        tokens, tbb::make_filter<void, std::uint64_t>(filter_mode::serial_in_order, begin) &
                    tbb::make_filter<std::uint64_t, Part>(filter_mode::parallel, do_one) &
                    tbb::make_filter<Part, void>(filter_mode::serial_in_order, take_one));
    begun.take();
    done.take();
    taken.take();
}

} // namespace panoplon
