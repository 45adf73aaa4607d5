#include "cli/session.h"

#include <chrono>
#include <csignal>
#include <mutex>
#include <unistd.h>

namespace panoplon {

namespace {

std::atomic<bool> interrupted_flag = false;
static_assert(std::atomic<bool>::is_always_lock_free, "set from a signal handler");

void on_interrupt(int) {
    interrupted_flag = true;
}

} // namespace

bool was_interrupted() {
    return interrupted_flag;
}

ProgressWatch::ProgressWatch(const Invocation& invocation, std::string what) {
    heeds_ = outlet().watched();
    if (!heeds_) return;
    struct sigaction action {};
    action.sa_handler = on_interrupt;
    sigaction(SIGINT, &action, nullptr);
    watch_.stop = &interrupted_flag;
    shows_ = isatty(STDERR_FILENO) && !invocation.has("q");
    if (!shows_) return;
    using Steady = std::chrono::steady_clock;
    const auto start = Steady::now();
    auto shown = std::make_shared<std::pair<std::mutex, Steady::time_point>>();
    watch_.progress = [start, shown, what = std::move(what)](std::size_t finished, std::size_t of) {
        const std::unique_lock<std::mutex> lock(shown->first, std::try_to_lock);
        const auto now = Steady::now();
        if (!lock.owns_lock() || now - shown->second < std::chrono::milliseconds(200)) return;
        shown->second = now;
        const double passed = std::chrono::duration<double>(now - start).count();
        const double left =
            passed / static_cast<double>(finished) * static_cast<double>(of - finished);
        fmt::print(stderr, "\r{} {} of {}, about {:.0f} s left \x1b[K", what, finished, of, left);
    };
}

ProgressWatch::~ProgressWatch() {
    if (!heeds_) return;
    if (shows_) fmt::print(stderr, "\r\x1b[K");
    struct sigaction action {};
    action.sa_handler = SIG_DFL;
    sigaction(SIGINT, &action, nullptr);
}

} // namespace panoplon
