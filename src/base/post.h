// Letters between the processes of one run, whatever carries them.
#pragma once

#include <cstddef>
#include <optional>
#include <string>

namespace panoplon {

struct Letter {
    std::size_t from = 0; ///< a rank
    std::string text;     ///< any bytes
};

/// Of one rank of `count()`, which are numbered from 0 on. Used by one thread. Letters from one
/// rank to another arrive in the order in which they were sent.
class Post {
  public:
    Post() = default;
    Post(const Post&) = delete;
    Post& operator=(const Post&) = delete;
    virtual ~Post() = default;

    [[nodiscard]] virtual std::size_t count() const = 0;
    [[nodiscard]] virtual std::size_t rank() const = 0;
    /// Returns at once.
    virtual void send(std::size_t to, std::string text) = 0;
    /// What has arrived, if anything has.
    [[nodiscard]] virtual std::optional<Letter> receive() = 0;
    /// Waits until what was sent has gone. Nothing is sent or received after that.
    virtual void close() = 0;
    /// Ends all ranks at once.
    virtual void end_all(int exit) = 0;
};

} // namespace panoplon
