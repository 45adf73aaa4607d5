#include "armoury/encoding.h"

#include "base/text.h"

#include <algorithm>
#include <iconv.h>
#include <string_view>

namespace panoplon {

namespace {

/// None where the bytes are not of that encoding.
std::optional<std::string> converted(std::string_view bytes, const char* from) {
    const iconv_t converter = iconv_open("UTF-8", from);
    if (converter == reinterpret_cast<iconv_t>(-1)) return std::nullopt;
    std::string text(bytes.size() * 3 + 4, '\0'); // no byte of either comes to more
    std::string in(bytes);
    char* read = in.data();
    char* written = text.data();
    std::size_t to_read = in.size();
    std::size_t room = text.size();
    const std::size_t failed = iconv(converter, &read, &to_read, &written, &room);
    iconv_close(converter);
    if (failed == static_cast<std::size_t>(-1) || to_read > 0) return std::nullopt;
    text.resize(text.size() - room);
    return text;
}

/// Whether the bytes at even (0) or odd (1) places of the beginning are mostly 0: western text in
/// two bytes a letter.
bool mostly_zero(std::string_view bytes, std::size_t parity) {
    const std::size_t looked_at = std::min<std::size_t>(bytes.size(), 512) / 2;
    std::size_t zeros = 0;
    for (std::size_t i = 0; i < looked_at; ++i) zeros += bytes[2 * i + parity] == '\0';
    return looked_at > 0 && zeros * 10 >= looked_at * 8;
}

/// Whether some bytes beyond ASCII are well-formed UTF-8: then those that are not are damage.
bool partly_utf8(std::string_view bytes) {
    while (const auto invalid = invalid_utf8(bytes)) {
        const std::string_view sound = bytes.substr(0, *invalid);
        if (std::any_of(sound.begin(), sound.end(), [](char c) { return (c & 0x80) != 0; }))
            return true;
        bytes.remove_prefix(*invalid + 1);
    }
    return std::any_of(bytes.begin(), bytes.end(), [](char c) { return (c & 0x80) != 0; });
}

} // namespace

DecodedText decode_table(const std::string& bytes) {
    using namespace std::string_view_literals;
    const std::string_view all = bytes;
    if (all.starts_with("\xef\xbb\xbf"sv)) {
        const auto bad = invalid_utf8(all.substr(3));
        return {bad ? std::string() : bytes.substr(3), {}, bad};
    }
    const auto wide = [&](std::string_view part, const char* name) {
        auto text = converted(part, name);
        return DecodedText{text.value_or(""), "UTF-16",
                           text ? std::nullopt : std::optional<std::size_t>(0)};
    };
    if (all.starts_with("\xff\xfe"sv)) return wide(all.substr(2), "UTF-16LE");
    if (all.starts_with("\xfe\xff"sv)) return wide(all.substr(2), "UTF-16BE");
    if (mostly_zero(all, 1)) return wide(all, "UTF-16LE");
    if (mostly_zero(all, 0)) return wide(all, "UTF-16BE");
    const auto invalid = invalid_utf8(all);
    if (!invalid) return {bytes, {}, std::nullopt};
    if (partly_utf8(all)) return {{}, {}, invalid};
    auto text = converted(all, "CP1252");
    if (!text) return {{}, {}, invalid};
    return {std::move(*text), "Windows-1252", std::nullopt};
}

} // namespace panoplon
