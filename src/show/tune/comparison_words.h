// Sentences about a comparison that several outputs share.
#pragma once

#include "judge/tune/comparison.h"

#include <algorithm>
#include <cmath>
#include <string>
#include <vector>

namespace panoplon {

/// "Better: 8 → 7 things call for a hand; 2 → 3 of 10 curves keep to their corridor."
[[nodiscard]] std::string headline(const Comparison& comparison);
/// Its second half; empty where no corridor is wanted.
[[nodiscard]] std::string corridors_words(const Comparison& comparison);
/// What newly calls for a hand, and what no longer does: a line each, where there is any.
[[nodiscard]] std::string calling_text(const Comparison& comparison);
/// What the changed items are, moved or not: a line each.
[[nodiscard]] std::string changed_items_text(const Comparison& comparison);
[[nodiscard]] std::string verdict_or_absence(const std::optional<ItemVerdict>& verdict);

inline double ratio_of(const CurveShift& curve) {
    return curve.most().ratio();
}
inline double ratio_of(const BestShift& best) {
    return best.ratio();
}

/// The rows that moved, the furthest first.
template <class Row>
std::vector<const Row*> moved_rows(const std::vector<Row>& rows) {
    std::vector<const Row*> moved;
    for (const Row& row : rows)
        if (row.moved()) moved.push_back(&row);
    std::stable_sort(moved.begin(), moved.end(), [](const Row* a, const Row* b) {
        return std::abs(std::log(ratio_of(*a))) > std::abs(std::log(ratio_of(*b)));
    });
    return moved;
}

} // namespace panoplon
