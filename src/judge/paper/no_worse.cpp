#include "judge/paper/no_worse.h"

#include "base/parallel.h"
#include <algorithm>
#include <numeric>

namespace panoplon {

namespace {

/// Rows of a column from the best value to the worst, in steps of equal value.
struct Ranking {
    std::vector<std::uint32_t> order;
    std::vector<std::uint32_t> ends; ///< one past the last row of each step
    bool alone = false;              ///< only equal values are no worse
};

Ranking rank(const Column& column) {
    const std::vector<double>& values = column.values;
    Ranking ranking;
    ranking.alone = column.better == Better::neither;
    ranking.order.resize(values.size());
    std::iota(ranking.order.begin(), ranking.order.end(), std::uint32_t{0});
    const bool rising = column.better == Better::lower;
    std::sort(ranking.order.begin(), ranking.order.end(), [&](std::uint32_t a, std::uint32_t b) {
        return rising ? values[a] < values[b] : values[a] > values[b];
    });
    for (std::uint32_t i = 1; i <= values.size(); ++i)
        if (i == values.size() || values[ranking.order[i]] != values[ranking.order[i - 1]])
            ranking.ends.push_back(i);
    return ranking;
}

bool differs(const Column& column) {
    const auto [least, most] = std::minmax_element(column.values.begin(), column.values.end());
    return least != most && *least != *most;
}

} // namespace

/// The words of all rows' bits are worked through in stripes that stay in the nearest memory.
NoWorse::NoWorse(std::size_t rows, const std::vector<Column>& columns)
    : rows_(rows),
      words_((rows + 63) / 64),
      bits_(rows * words_, ~std::uint64_t{0}) {
    const std::uint64_t last =
        rows % 64 == 0 ? ~std::uint64_t{0} : (std::uint64_t{1} << (rows % 64)) - 1;
    for (std::size_t row = 0; row < rows; ++row) at(row)[words_ - 1] = last;
    std::vector<Ranking> rankings;
    for (const Column& column : columns)
        if (rows > 0 && differs(column)) rankings.push_back(rank(column));
    const std::size_t stripes = (words_ + stripe - 1) / stripe;
    for_each_in_parallel(stripes, [&](std::size_t s) {
        for (const Ranking& ranking : rankings)
            keep(ranking.order, ranking.ends, ranking.alone, s * stripe);
    });
}

/// From the best value to the worst: whoever has come up is no worse than whoever comes up now.
void NoWorse::keep(const std::vector<std::uint32_t>& order, const std::vector<std::uint32_t>& ends,
                   bool alone, std::size_t first_word) {
    const std::size_t words = std::min(stripe, words_ - first_word);
    std::uint64_t seen[stripe] = {};
    std::size_t first = 0;
    for (const std::size_t end : ends) {
        if (alone) std::fill(seen, seen + words, 0);
        for (std::size_t i = first; i < end; ++i) {
            const std::size_t word =
                order[i] / 64 - first_word; // huge where it is of another stripe
            if (word < words) seen[word] |= std::uint64_t{1} << (order[i] % 64);
        }
        for (std::size_t i = first; i < end; ++i) {
            std::uint64_t* bits = at(order[i]) + first_word;
            for (std::size_t w = 0; w < words; ++w) bits[w] &= seen[w];
        }
        first = end;
    }
}

} // namespace panoplon
