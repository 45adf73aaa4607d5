// Work on all threads. What is found may not depend on their number or on who did what: each piece
// writes to a place of its own, and a worker keeps nothing that would change what it finds next.
#pragma once

#include "base/watch.h"

#include <cstdint>
#include <memory>
#include <mutex>
#include <vector>

namespace panoplon {

/// At most so many threads work, as long as it lives.
class ThreadLimit {
  public:
    explicit ThreadLimit(std::size_t threads); ///< 0: as many as there are
    ~ThreadLimit();
    ThreadLimit(const ThreadLimit&) = delete;
    ThreadLimit& operator=(const ThreadLimit&) = delete;

  private:
    struct Control;
    std::unique_ptr<Control> control_;
};

/// How many threads work at a time, as the limit that holds says.
[[nodiscard]] std::size_t threads_at_work();

/// Calls visit(first, last) for stretches that make up 0 … count - 1, in parallel.
void share_out(std::size_t count, const std::function<void(std::size_t, std::size_t)>& visit);

/// Calls visit(i) for each of 0 … count - 1, in parallel.
template <class Visit>
void for_each_in_parallel(std::size_t count, const Visit& visit) {
    share_out(count, [&](std::size_t first, std::size_t last) {
        for (std::size_t i = first; i != last; ++i) visit(i);
    });
}

/// Working spaces, of which a thread takes one at a time; made where none is free.
template <class Worker>
class Workers {
  public:
    explicit Workers(std::function<Worker()> make) : make_(std::move(make)) {}

    /// Calls use(worker) and returns what it returns.
    template <class Use>
    auto with(const Use& use) {
        std::unique_ptr<Worker> worker = take();
        struct GiveBack {
            Workers& to;
            std::unique_ptr<Worker>& worker;
            ~GiveBack() {
                const std::lock_guard<std::mutex> lock(to.guard_);
                to.free_.push_back(std::move(worker));
            }
        } give_back{*this, worker};
        return use(*worker);
    }

  private:
    std::unique_ptr<Worker> take() {
        {
            const std::lock_guard<std::mutex> lock(guard_);
            if (!free_.empty()) {
                std::unique_ptr<Worker> worker = std::move(free_.back());
                free_.pop_back();
                return worker;
            }
        }
        return std::make_unique<Worker>(make_());
    }

    std::function<Worker()> make_;
    std::mutex guard_;
    std::vector<std::unique_ptr<Worker>> free_;
};

/// Calls visit(worker, i) for each of 0 … count - 1, in parallel, until the watch stops it; each
/// that is done is told as progress. `make_worker()` gives a thread's working space.
template <class MakeWorker, class Visit>
void for_each_with_worker(std::size_t count, const MakeWorker& make_worker, const Watch& watch,
                          const Visit& visit) {
    Workers<decltype(make_worker())> workers(make_worker);
    std::atomic<std::size_t> done = 0;
    share_out(count, [&](std::size_t first, std::size_t last) {
        workers.with([&](auto& worker) {
            for (std::size_t i = first; i != last && !watch.stopped(); ++i) {
                visit(worker, i);
                const std::size_t now = ++done;
                if (watch.progress) watch.progress(now, count);
            }
        });
    });
}

/// Numbers from `next(number)`, as long as that is true, go through `run` in parallel; what comes
/// of them goes through `take`, one at a time and in the order of the numbers.
void run_in_order(const std::function<bool(std::uint64_t&)>& next,
                  const std::function<std::shared_ptr<void>(std::uint64_t)>& run,
                  const std::function<void(const void*)>& take);

} // namespace panoplon
