#include "judge/no_worse.h"

#include <algorithm>
#include <numeric>

namespace panoplon {

NoWorse::NoWorse(std::size_t rows, const std::vector<Column>& columns)
    : rows_(rows),
      words_((rows + 63) / 64),
      bits_(rows * words_, ~std::uint64_t{0}) {
    const std::uint64_t last =
        rows % 64 == 0 ? ~std::uint64_t{0} : (std::uint64_t{1} << (rows % 64)) - 1;
    for (std::size_t row = 0; row < rows; ++row) at(row)[words_ - 1] = last;
    for (const Column& column : columns) {
        const auto [least, most] = std::minmax_element(column.values.begin(), column.values.end());
        if (rows > 0 && *least != *most) keep(column);
    }
}

/// From the best value to the worst: whoever has come up is no worse than whoever comes up now.
void NoWorse::keep(const Column& column) {
    std::vector<std::size_t> order(rows_);
    std::iota(order.begin(), order.end(), std::size_t{0});
    const bool rising = column.better == Better::lower;
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return rising ? column.values[a] < column.values[b] : column.values[a] > column.values[b];
    });
    std::vector<std::uint64_t> seen(words_, 0);
    for (std::size_t first = 0; first < rows_;) {
        std::size_t end = first;
        if (column.better == Better::neither) std::fill(seen.begin(), seen.end(), 0);
        for (; end < rows_ && column.values[order[end]] == column.values[order[first]]; ++end)
            seen[order[end] / 64] |= std::uint64_t{1} << (order[end] % 64);
        for (std::size_t i = first; i < end; ++i)
            for (std::size_t w = 0; w < words_; ++w) at(order[i])[w] &= seen[w];
        first = end;
    }
}

} // namespace panoplon
