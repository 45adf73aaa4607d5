#include "base/disk.h"

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <filesystem>
#include <unistd.h>
#include <utility>

namespace panoplon {

namespace {

/// An open file, closed when done with.
class OpenFile {
  public:
    OpenFile(const std::string& path, int flags)
        : file_(open(path.c_str(), flags | O_CLOEXEC, 0666)) {}
    ~OpenFile() {
        if (file_ >= 0) ::close(file_);
    }
    OpenFile(const OpenFile&) = delete;
    OpenFile& operator=(const OpenFile&) = delete;

    [[nodiscard]] bool is_open() const { return file_ >= 0; }

    bool read_all(std::string& into) const {
        std::string block(1u << 16, '\0');
        while (true) {
            const ssize_t size = ::read(file_, block.data(), block.size());
            if (size < 0 && errno == EINTR) continue;
            if (size <= 0) return size == 0;
            into.append(block, 0, static_cast<std::size_t>(size));
        }
    }

    bool write_all(std::string_view content) {
        while (!content.empty()) {
            const ssize_t written = ::write(file_, content.data(), content.size());
            if (written < 0 && errno == EINTR) continue;
            if (written < 0) return false;
            content.remove_prefix(static_cast<std::size_t>(written));
        }
        return true;
    }

    /// What can't be synced, as a pipe, needs none.
    [[nodiscard]] bool sync() const {
        while (fsync(file_) != 0) {
            if (errno == EINVAL || errno == ENOTSUP) return true;
            if (errno != EINTR) return false;
        }
        return true;
    }

    bool close() {
        const int file = std::exchange(file_, -1);
        return ::close(file) == 0;
    }

  private:
    int file_;
};

std::string reason() {
    return std::strerror(errno);
}

} // namespace

bool is_no_file(const std::string& path) {
    std::error_code error;
    const std::filesystem::file_status there = std::filesystem::status(path, error);
    return std::filesystem::exists(there) && !std::filesystem::is_regular_file(there);
}

std::optional<std::string> read_bytes(const std::string& path, std::string& into) {
    const OpenFile file(path, O_RDONLY);
    if (!file.is_open() || !file.read_all(into)) return reason();
    return std::nullopt;
}

std::optional<std::string> write_synced(const std::string& path, std::string_view content) {
    OpenFile file(path, O_WRONLY | O_CREAT | O_TRUNC);
    if (!file.is_open() || !file.write_all(content) || !file.sync() || !file.close())
        return reason();
    return std::nullopt;
}

std::optional<std::string> sync_file(const std::string& path) {
    const OpenFile file(path, O_RDONLY);
    if (!file.is_open() || !file.sync()) return reason();
    return std::nullopt;
}

} // namespace panoplon
