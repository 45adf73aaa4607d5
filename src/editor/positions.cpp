#include "editor/positions.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Units of UTF-16 that the character takes which begins with this byte; 0 for a byte within one.
std::size_t units_of(char byte) {
    const auto b = static_cast<unsigned char>(byte);
    return (b & 0xc0) == 0x80 ? 0 : b >= 0xf0 ? 2 : 1;
}

} // namespace

std::size_t utf16_units(std::string_view text) {
    std::size_t units = 0;
    for (const char c : text) units += units_of(c);
    return units;
}

TextPosition position_of(std::string_view text, std::size_t offset) {
    text = text.substr(0, std::min(offset, text.size()));
    const std::size_t line_end = text.rfind('\n');
    const std::size_t begin = line_end == std::string_view::npos ? 0 : line_end + 1;
    return {static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n')),
            utf16_units(text.substr(begin))};
}

std::size_t offset_of(std::string_view text, const TextPosition& position) {
    std::size_t at = 0;
    for (std::size_t line = 0; line < position.line; ++line) {
        at = text.find('\n', at);
        if (at == std::string_view::npos) return text.size();
        ++at;
    }
    const auto ends_line = [&] { return text[at] == '\n' || text.substr(at, 2) == "\r\n"; };
    for (std::size_t units = 0; at < text.size() && !ends_line(); ++at) {
        const std::size_t more = units_of(text[at]);
        if (more > 0 && units >= position.character) break;
        units += more;
    }
    return at;
}

} // namespace panoplon
