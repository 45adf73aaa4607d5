// Small text helpers: names that come close, joining, numbers for people, UTF-8.
#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace panoplon {

/// Number of single-character insertions, deletions, replacements and swaps of neighbours that
/// turn one text into the other (optimal string alignment).
[[nodiscard]] std::size_t edit_distance(std::string_view a, std::string_view b);

/// The candidate nearest to `wrong`, if it is near enough to be what was meant (at most a third of
/// its letters differ). Among equals one of the same letters wins, then the first.
[[nodiscard]] std::optional<std::string> nearest_name(std::string_view wrong,
                                                      std::span<const std::string> candidates);

[[nodiscard]] std::vector<std::string> split(std::string_view text, char separator);
[[nodiscard]] std::string_view trim(std::string_view text);
[[nodiscard]] std::string join(std::span<const std::string> parts, std::string_view between);

/// Letters of the longest id: file names are made of two.
inline constexpr std::size_t longest_id = 100;
/// What an id is, for hints.
inline constexpr const char* id_words =
    "an id is lower-case letters, digits and '_', 100 of them at most";
/// True for an id: a lower-case letter or digit, then lower-case letters, digits and `_`.
[[nodiscard]] bool is_id(std::string_view text);

/// The shortest decimal that reads back as the same double.
[[nodiscard]] std::string shortest(double number);
/// At most `places` decimals, without trailing zeros; "-0" becomes "0".
[[nodiscard]] std::string rounded(double number, int places = 2);
/// A share as a percentage with one decimal: 0.153 -> "15.3 %".
[[nodiscard]] std::string percent(double share);
/// A gain or loss with its sign: 0.056 -> "+5.6 %". What rounds to 0 has none.
[[nodiscard]] std::string signed_percent(double share, int places = 1);
/// "1 item", "3 items".
[[nodiscard]] std::string counted(std::size_t count, std::string_view singular,
                                  std::string_view plural = {});

/// Byte offset of the first byte that is not part of well-formed UTF-8.
[[nodiscard]] std::optional<std::size_t> invalid_utf8(std::string_view text);
/// Number of characters (code points) in well-formed UTF-8.
[[nodiscard]] std::size_t characters(std::string_view text);
/// Text that can be shown: what would steer a terminal or the direction of reading, what is no
/// character, and bytes that are no text stand as `\u001B`, `\u202E` and `\xFF`; line ends and
/// tabs become spaces.
[[nodiscard]] std::string printable(std::string_view text);
/// The same, line by line.
[[nodiscard]] std::string printable_lines(std::string_view text);

/// 64-bit FNV-1a, chained through `seed`: tells whether two armouries are the same.
inline constexpr std::uint64_t hash_start = 0xcbf29ce484222325ULL;
[[nodiscard]] std::uint64_t hash_text(std::string_view text, std::uint64_t seed = hash_start);

} // namespace panoplon
