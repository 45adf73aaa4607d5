// What of a set can't be left out.
#pragma once

#include <cstddef>
#include <functional>
#include <vector>

namespace panoplon {

/// Whether those kept are enough without the one that would be left out last.
using Enough = std::function<bool(const std::vector<std::size_t>& kept, std::size_t left_out)>;

/// Of 0 to `count` - 1, in order, those that stay when each in turn is left out where the rest is
/// enough: no single one of them can be left out. All are taken to be enough. `enough` is asked
/// `count` times.
[[nodiscard]] std::vector<std::size_t> irreducible(std::size_t count, const Enough& enough);

} // namespace panoplon
