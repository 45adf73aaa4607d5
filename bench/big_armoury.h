// Armouries as large as wanted, for measuring.
#pragma once

#include "diagnostic/source.h"

#include <cstddef>

namespace panoplon::bench {

/// The starter armoury with a table of so many items more: six slots, five tiers, eight stats, a
/// set, a tag and a weight each; numbers that differ from row to row, the same in every run.
[[nodiscard]] Sources big_armoury(std::size_t items);

} // namespace panoplon::bench
