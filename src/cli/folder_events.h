// Tells when something in a folder, or below it, changes.
#pragma once

#include <atomic>
#include <chrono>
#include <filesystem>
#include <string>
#include <thread>

namespace panoplon {

/// Whatever changes counts: who asks reads the folder and sees what is new. The kernel tells of
/// changes (inotify); where it does not, as on some network file systems, what files are there, how
/// large they are and when they were written is looked at every two seconds.
class FolderEvents {
  public:
    explicit FolderEvents(std::string folder);
    ~FolderEvents();
    FolderEvents(const FolderEvents&) = delete;
    FolderEvents& operator=(const FolderEvents&) = delete;

    /// What changes from now on counts.
    void begin();
    /// True once something has changed, or the user wishes to stop: what is under way is out of
    /// date.
    [[nodiscard]] const std::atomic<bool>& changed() const { return changed_; }
    /// Waits until something has changed and then nothing for a moment. False where the user wishes
    /// to stop.
    [[nodiscard]] bool wait();
    /// Waits until nothing has changed for so long. False where the user wishes to stop.
    [[nodiscard]] bool settle(std::chrono::milliseconds quiet);

  private:
    using Clock = std::chrono::steady_clock;
    void watch_folders();
    void listen(const std::stop_token& stop);
    [[nodiscard]] bool read_events();
    void note();

    std::filesystem::path folder_;
    int events_ = -1; ///< of inotify; -1: there is none
    std::atomic<bool> changed_ = false;
    std::atomic<Clock::rep> last_change_ = 0;
    std::size_t stamp_ = 0; ///< of the listening thread
    std::jthread listener_;
};

} // namespace panoplon
