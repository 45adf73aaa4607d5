#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

std::size_t edit_distance(std::string_view a, std::string_view b) {
    std::vector<std::size_t> before(b.size() + 1), last(b.size() + 1), row(b.size() + 1);
    for (std::size_t j = 0; j <= b.size(); ++j) last[j] = j;
    for (std::size_t i = 1; i <= a.size(); ++i) {
        row[0] = i;
        for (std::size_t j = 1; j <= b.size(); ++j) {
            const std::size_t change = last[j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1);
            row[j] = std::min({last[j] + 1, row[j - 1] + 1, change});
            const bool swapped = i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1];
            if (swapped) row[j] = std::min(row[j], before[j - 2] + 1);
        }
        std::swap(before, last);
        std::swap(last, row);
    }
    return last[b.size()];
}

std::optional<std::string> nearest_name(std::string_view wrong,
                                        std::span<const std::string> candidates) {
    constexpr std::size_t longest_worth_comparing = 100;
    if (wrong.size() > longest_worth_comparing) return std::nullopt;
    const std::size_t allowed = std::max<std::size_t>(1, wrong.size() / 3);
    const std::string* best = nullptr;
    std::size_t best_distance = allowed + 1;
    bool best_is_anagram = false;
    for (const std::string& candidate : candidates) {
        if (candidate.size() > wrong.size() + allowed || wrong.size() > candidate.size() + allowed)
            continue;
        const std::size_t distance = edit_distance(wrong, candidate);
        const bool anagram =
            std::is_permutation(wrong.begin(), wrong.end(), candidate.begin(), candidate.end());
        const bool nearer = distance < best_distance ||
                            (distance == best_distance && best && anagram && !best_is_anagram);
        if (!nearer) continue;
        best = &candidate;
        best_distance = distance;
        best_is_anagram = anagram;
    }
    if (!best) return std::nullopt;
    return *best;
}

std::vector<std::string> split(std::string_view text, char separator) {
    std::vector<std::string> parts;
    while (true) {
        const std::size_t at = text.find(separator);
        parts.emplace_back(text.substr(0, at));
        if (at == std::string_view::npos) return parts;
        text.remove_prefix(at + 1);
    }
}

std::string_view trim(std::string_view text) {
    constexpr std::string_view blanks = " \t\r\n";
    const std::size_t first = text.find_first_not_of(blanks);
    if (first == std::string_view::npos) return {};
    return text.substr(first, text.find_last_not_of(blanks) - first + 1);
}

std::string join(std::span<const std::string> parts, std::string_view between) {
    return fmt::format("{}", fmt::join(parts, between));
}

bool is_id(std::string_view text) {
    const auto lower_or_digit = [](char c) {
        return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
    };
    return !text.empty() && text.size() <= longest_id && lower_or_digit(text.front()) &&
           std::all_of(text.begin(), text.end(),
                       [&](char c) { return lower_or_digit(c) || c == '_'; });
}

std::string shortest(double number) {
    return fmt::format("{}", number);
}

std::string rounded(double number, int places) {
    std::string text = fmt::format("{:.{}f}", number, places);
    if (text.find('.') != std::string::npos) {
        text.erase(text.find_last_not_of('0') + 1);
        if (text.back() == '.') text.pop_back();
    }
    return text == "-0" ? "0" : text;
}

std::string percent(double share) {
    const std::string text = fmt::format("{:.1f} %", share * 100);
    return text == "-0.0 %" ? text.substr(1) : text;
}

std::string signed_percent(double share, int places) {
    const std::string text = fmt::format("{:+.{}f} %", share * 100, places);
    return text.find_first_of("123456789") == std::string::npos ? text.substr(1) : text;
}

std::string counted(std::size_t count, std::string_view singular, std::string_view plural) {
    if (count == 1) return fmt::format("1 {}", singular);
    if (plural.empty()) return fmt::format("{} {}s", count, singular);
    return fmt::format("{} {}", count, plural);
}

namespace {

/// Length of the well-formed UTF-8 sequence at the start of `text`, or 0.
std::size_t sequence_length(std::string_view text) {
    const auto byte = [&](std::size_t i) { return static_cast<unsigned char>(text[i]); };
    const unsigned char lead = byte(0);
    if (lead < 0x80) return 1;
    const std::size_t length = lead >= 0xf0 ? 4 : lead >= 0xe0 ? 3 : 2;
    if (lead < 0xc2 || lead > 0xf4 || text.size() < length) return 0;
    for (std::size_t i = 1; i < length; ++i)
        if ((byte(i) & 0xc0) != 0x80) return 0;
    const unsigned char second = byte(1);
    const bool overlong = (lead == 0xe0 && second < 0xa0) || (lead == 0xf0 && second < 0x90);
    const bool out_of_range = (lead == 0xed && second > 0x9f) || (lead == 0xf4 && second > 0x8f);
    return overlong || out_of_range ? 0 : length;
}

} // namespace

std::optional<std::size_t> invalid_utf8(std::string_view text) {
    std::size_t at = 0;
    while (at < text.size()) {
        const std::size_t length = sequence_length(text.substr(at));
        if (length == 0) return at;
        at += length;
    }
    return std::nullopt;
}

std::size_t characters(std::string_view text) {
    return static_cast<std::size_t>(std::count_if(text.begin(), text.end(), [](char c) {
        return (static_cast<unsigned char>(c) & 0xc0) != 0x80;
    }));
}

namespace {

/// Of a well-formed sequence.
char32_t code_point(std::string_view sequence) {
    const auto lead = static_cast<unsigned char>(sequence.front());
    if (sequence.size() == 1) return lead;
    char32_t code = lead & (0xffu >> (sequence.size() + 1));
    for (const char c : sequence.substr(1))
        code = code << 6 | (static_cast<unsigned char>(c) & 0x3f);
    return code;
}

bool is_shown(char32_t code) {
    const bool control = code < 0x20 || (code >= 0x7f && code < 0xa0);
    const bool direction = code == 0x61c || code == 0x200e || code == 0x200f ||
                           (code >= 0x2028 && code <= 0x202e) || (code >= 0x2066 && code <= 0x2069);
    const bool no_character = (code & 0xfffe) == 0xfffe || (code >= 0xfdd0 && code <= 0xfdef);
    return !control && !direction && !no_character && code != 0xfeff;
}

} // namespace

std::string printable(std::string_view text) {
    std::string shown;
    shown.reserve(text.size());
    while (!text.empty()) {
        const std::size_t length = std::max<std::size_t>(1, sequence_length(text));
        const std::string_view sequence = text.substr(0, length);
        const auto first = static_cast<unsigned char>(text.front());
        text.remove_prefix(length);
        if (length == 1 && first >= 0x80) {
            shown += fmt::format("\\x{:02X}", first);
            continue;
        }
        const char32_t code = code_point(sequence);
        if (first == '\n' || first == '\t' || first == '\r')
            shown += ' ';
        else if (is_shown(code))
            shown += sequence;
        else
            shown += code > 0xffff ? fmt::format("\\U{:08X}", std::uint32_t{code})
                                   : fmt::format("\\u{:04X}", std::uint32_t{code});
    }
    return shown;
}

std::string printable_lines(std::string_view text) {
    std::string shown;
    while (true) {
        const std::size_t end = text.find('\n');
        shown += printable(text.substr(0, end));
        if (end == std::string_view::npos) return shown;
        shown += '\n';
        text.remove_prefix(end + 1);
    }
}

std::uint64_t hash_text(std::string_view text, std::uint64_t seed) {
    for (const char c : text) seed = (seed ^ static_cast<unsigned char>(c)) * 0x100000001b3ULL;
    return seed;
}

} // namespace panoplon
