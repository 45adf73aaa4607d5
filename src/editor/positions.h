// Places in a text as the Language Server Protocol counts them: lines from 0, and in a line the
// 16-bit units that its text takes in UTF-16.
#pragma once

#include <cstddef>
#include <string_view>

namespace panoplon {

struct TextPosition {
    std::size_t line = 0, character = 0;
    bool operator==(const TextPosition&) const = default;
};

/// Units that a text of one line takes.
[[nodiscard]] std::size_t utf16_units(std::string_view text);
/// Of a byte of a text in UTF-8; its end for one past it.
[[nodiscard]] TextPosition position_of(std::string_view text, std::size_t offset);
/// The byte at which a position is: the end of the line, or of the text, for one past it.
[[nodiscard]] std::size_t offset_of(std::string_view text, const TextPosition& position);

} // namespace panoplon
