// How much an armoury may hold. What is beyond is refused with a word, so that no input takes all
// memory, all time or the stack; docs/format.md tells them.
#pragma once

#include <cstddef>

namespace panoplon {

inline constexpr std::size_t most_files = 10'000;
inline constexpr std::size_t deepest_folder = 32;
inline constexpr std::size_t largest_file = 32u << 20; ///< bytes,
inline constexpr std::size_t largest_toml = 8u << 20;  ///< and of one in TOML
inline constexpr std::size_t most_bytes = 256u << 20;  ///< of all files
inline constexpr std::size_t most_definitions = 100'000;
inline constexpr std::size_t most_stats = 2000; ///< every actor and every formula has them all,
inline constexpr std::size_t most_pools = 100;  ///< and these
inline constexpr std::size_t most_effects = 10'000;
inline constexpr std::size_t most_cells = 2'000'000; ///< of a table
inline constexpr std::size_t deepest_key = 32;       ///< parts, as in a.b.c
inline constexpr std::size_t longest_chain = 32;     ///< patterns like patterns, things in things
inline constexpr std::size_t most_foes = 1000;       ///< of an encounter

} // namespace panoplon
