#include "cli/folder_events.h"

#include "base/text.h"
#include "cli/session.h"

#include <array>
#include <fmt/format.h>
#include <poll.h>
#include <sys/inotify.h>
#include <unistd.h>

namespace panoplon {

namespace {

namespace fs = std::filesystem;
using namespace std::chrono_literals;

constexpr auto between_looks = 50ms;
constexpr auto between_stamps = 2s;
/// An editor that writes a file anew has written all of it by then.
constexpr auto quiet_enough = 100ms;

constexpr std::uint32_t every_change = IN_CREATE | IN_DELETE | IN_MODIFY | IN_CLOSE_WRITE |
                                       IN_MOVED_FROM | IN_MOVED_TO | IN_DELETE_SELF | IN_MOVE_SELF |
                                       IN_ATTRIB;

/// Calls visit(path) for the folder and all below it, links to folders among them, as far as they
/// can be read.
template <class Visit>
void for_each_entry(const fs::path& folder, const Visit& visit) {
    std::error_code error;
    visit(folder);
    constexpr int deepest = 64;
    auto at = fs::recursive_directory_iterator(folder,
                                               fs::directory_options::follow_directory_symlink |
                                                   fs::directory_options::skip_permission_denied,
                                               error);
    for (; !error && at != fs::recursive_directory_iterator(); at.increment(error)) {
        if (at.depth() >= deepest) at.disable_recursion_pending();
        visit(at->path());
    }
}

/// Of what is there: names, sizes, and when it was written.
std::size_t stamp_of(const fs::path& folder) {
    std::uint64_t hash = hash_start;
    for_each_entry(folder, [&](const fs::path& path) {
        std::error_code error;
        const auto size = fs::is_regular_file(path, error) ? fs::file_size(path, error) : 0;
        const auto time = fs::last_write_time(path, error).time_since_epoch().count();
        hash = hash_text(fmt::format("{} {} {}", path.string(), size, time), hash);
    });
    return hash;
}

} // namespace

FolderEvents::FolderEvents(std::string folder)
    : folder_(std::move(folder)),
      events_(inotify_init1(IN_NONBLOCK | IN_CLOEXEC)) {
    begin();
    stamp_ = stamp_of(folder_);
    listener_ = std::jthread([this](const std::stop_token& stop) { listen(stop); });
}

FolderEvents::~FolderEvents() {
    listener_.request_stop();
    listener_.join();
    if (events_ >= 0) ::close(events_);
}

void FolderEvents::begin() {
    changed_ = false;
    watch_folders();
}

/// Folders that are new are watched from now on; a folder that is watched already stays so. A file
/// by a link is written where it lies.
void FolderEvents::watch_folders() {
    if (events_ < 0) return;
    for_each_entry(folder_, [&](const fs::path& path) {
        std::error_code error;
        if (fs::is_directory(path, error) || fs::is_symlink(path, error))
            inotify_add_watch(events_, path.c_str(), every_change);
    });
}

void FolderEvents::note() {
    last_change_ = Clock::now().time_since_epoch().count();
    changed_ = true;
}

bool FolderEvents::read_events() {
    alignas(inotify_event) std::array<char, 16384> events;
    bool any = false;
    while (::read(events_, events.data(), events.size()) > 0) any = true;
    return any;
}

void FolderEvents::listen(const std::stop_token& stop) {
    auto next_stamp = Clock::now() + between_stamps;
    while (!stop.stop_requested()) {
        if (events_ >= 0) {
            pollfd waiting{events_, POLLIN, 0};
            ::poll(&waiting, 1, static_cast<int>(between_looks / 1ms));
            if (read_events()) note();
        } else {
            std::this_thread::sleep_for(between_looks);
        }
        if (was_interrupted()) changed_ = true;
        if (Clock::now() < next_stamp) continue;
        const std::size_t stamp = stamp_of(folder_);
        if (stamp != stamp_) note();
        stamp_ = stamp;
        next_stamp = Clock::now() + between_stamps;
    }
}

bool FolderEvents::wait() {
    while (!changed_ && !was_interrupted()) std::this_thread::sleep_for(between_looks / 2);
    return settle(quiet_enough);
}

bool FolderEvents::settle(std::chrono::milliseconds quiet) {
    const auto passed = [&] {
        return Clock::now() - Clock::time_point(Clock::duration(last_change_.load()));
    };
    while (!was_interrupted() && passed() < quiet) std::this_thread::sleep_for(between_looks / 5);
    return !was_interrupted();
}

} // namespace panoplon
