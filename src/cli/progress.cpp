#include "cli/session.h"

#include "base/ranks.h"

#include <chrono>
#include <csignal>
#include <ctime>
#include <mutex>
#include <unistd.h>

namespace panoplon {

namespace {

std::atomic<bool> interrupted_flag = false;
static_assert(std::atomic<bool>::is_always_lock_free, "set from a signal handler");

/// What asks a run to stop: Ctrl-C, whoever ends processes, a terminal that is closed.
constexpr int stopping_signals[] = {SIGINT, SIGTERM, SIGHUP};

/// Milliseconds of a clock that a signal handler may read.
std::int64_t now_in_handler() {
    timespec now{};
    clock_gettime(CLOCK_MONOTONIC, &now);
    return std::int64_t{now.tv_sec} * 1000 + now.tv_nsec / 1'000'000;
}

std::atomic<std::int64_t> interrupted_at = 0;
int wishes_heeded = 0; ///< StopWishes that live; commands run on one thread

/// The first keeps what is finished, the second ends the program at once. Who stops a group of
/// processes may send one signal twice: that is no second.
void on_interrupt(int number) {
    constexpr std::int64_t same_signal = 300;
    const std::int64_t now = now_in_handler();
    if (!interrupted_flag.exchange(true)) {
        interrupted_at = now;
    } else if (now - interrupted_at > same_signal) {
        std::signal(number, SIG_DFL);
        std::raise(number);
    }
}

/// But for what the program was started to ignore, as by nohup.
void handle_stopping_signals(void (*handler)(int)) {
    for (const int number : stopping_signals) {
        struct sigaction action {};
        sigaction(number, nullptr, &action);
        if (action.sa_handler == SIG_IGN) continue;
        action.sa_handler = handler;
        sigaction(number, &action, nullptr);
    }
}

std::string progress_words(const std::string& what, std::size_t finished, std::size_t of,
                           double passed) {
    const double left = passed / static_cast<double>(finished) * static_cast<double>(of - finished);
    return fmt::format("{} {} of {}, about {:.0f} s left", what, finished, of, left);
}

} // namespace

bool was_interrupted() {
    return interrupted_flag;
}

StopWish::StopWish() : heeds_(outlet().watched()) {
    if (heeds_ && wishes_heeded++ == 0) handle_stopping_signals(on_interrupt);
}

StopWish::~StopWish() {
    if (heeds_ && --wishes_heeded == 0) handle_stopping_signals(SIG_DFL);
}

Watch StopWish::later() const {
    return {{}, heeds_ && !interrupted_flag ? &interrupted_flag : nullptr};
}

ProgressWatch::ProgressWatch(const Invocation& invocation, std::string what) {
    if (!outlet().watched()) return;
    watch_.stop = &interrupted_flag;
    if (invocation.has("q") || only_helps()) return;
    on_terminal_ = isatty(STDERR_FILENO);
    using Steady = std::chrono::steady_clock;
    const auto start = Steady::now();
    auto shown = std::make_shared<std::pair<std::mutex, Steady::time_point>>();
    shown->second = on_terminal_ ? Steady::time_point() : start;
    watch_.progress = [start, shown, terminal = on_terminal_,
                       what = std::move(what)](std::size_t finished, std::size_t of) {
        const std::chrono::milliseconds between(terminal ? 200 : 10'000);
        const std::unique_lock<std::mutex> lock(shown->first, std::try_to_lock);
        const auto now = Steady::now();
        if (!lock.owns_lock() || now - shown->second < between) return;
        shown->second = now;
        const std::string words =
            progress_words(what, finished, of, std::chrono::duration<double>(now - start).count());
        if (terminal)
            fmt::print(stderr, "\r{} \x1b[K", words);
        else
            fmt::print(stderr, "{}\n", words);
    };
}

ProgressWatch::~ProgressWatch() {
    if (on_terminal_) fmt::print(stderr, "\r\x1b[K");
}

} // namespace panoplon
