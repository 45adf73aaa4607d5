#include "cli/editor_wire.h"

#include "base/text.h"
#include "cli/outlet.h"

#include <cerrno>
#include <charconv>
#include <fmt/format.h>
#include <poll.h>
#include <unistd.h>

namespace panoplon {

namespace {

constexpr std::size_t longest_header = 4096;      // bytes
constexpr std::size_t longest_message = 64 << 20; // likewise

/// Of its lines, the number after `Content-Length:`.
std::optional<std::size_t> length_in(std::string_view header) {
    for (const std::string& line : split(header, '\n')) {
        constexpr std::string_view name = "Content-Length:";
        if (!line.starts_with(name)) continue;
        const std::string_view digits = trim(std::string_view(line).substr(name.size()));
        std::size_t length = 0;
        const auto [end, error] =
            std::from_chars(digits.data(), digits.data() + digits.size(), length);
        if (error == std::errc() && end == digits.data() + digits.size()) return length;
    }
    return std::nullopt;
}

EditorWire::Received ended(std::string why) {
    return {EditorWire::Received::What::ended, {}, std::move(why)};
}

} // namespace

std::optional<EditorWire::Received> EditorWire::take_message() {
    constexpr std::string_view blank_line = "\r\n\r\n";
    const std::size_t header_end = bytes_.find(blank_line);
    if (header_end == std::string::npos)
        return bytes_.size() > longest_header
                   ? std::optional(ended("what came is no message of an editor"))
                   : std::nullopt;
    const auto length = length_in(std::string_view(bytes_).substr(0, header_end));
    if (!length) return ended("a message came without its Content-Length");
    if (*length > longest_message)
        return ended(
            fmt::format("a message of {} bytes; at most {} are read", *length, longest_message));
    const std::size_t begin = header_end + blank_line.size();
    if (bytes_.size() < begin + *length) return std::nullopt;
    const std::string text = bytes_.substr(begin, *length);
    bytes_.erase(0, begin + *length);
    Json message = Json::parse(text, nullptr, false);
    if (message.is_discarded()) return Received{Received::What::not_json};
    return Received{Received::What::message, std::move(message)};
}

EditorWire::Received EditorWire::next(std::chrono::milliseconds patience) {
    while (true) {
        if (auto received = take_message()) return std::move(*received);
        pollfd input{STDIN_FILENO, POLLIN, 0};
        const int ready = ::poll(&input, 1, static_cast<int>(patience.count()));
        if (ready == 0) return {};
        if (ready < 0 && errno == EINTR) return {};
        char more[1 << 16];
        const ssize_t count = ::read(STDIN_FILENO, more, sizeof more);
        if (count <= 0) return ended(bytes_.empty() ? "" : "the last message is cut off");
        bytes_.append(more, static_cast<std::size_t>(count));
    }
}

bool EditorWire::send(const Json& message) {
    const std::string text = message.dump(-1, ' ', false, Json::error_handler_t::replace);
    return outlet().say(fmt::format("Content-Length: {}\r\n\r\n{}", text.size(), text));
}

} // namespace panoplon
