// Estimates from trials, with their 95 % intervals.
#pragma once

#include <cstddef>
#include <optional>
#include <span>

namespace panoplon {

/// A value with the interval that covers the truth in 95 of 100 repetitions.
struct Estimate {
    double mean = 0;
    double low = 0;
    double high = 0;
};

/// Sums from which a mean and its interval follow. Merging in one order gives one result.
struct Moments {
    double count = 0;
    double sum = 0;
    double squares = 0;

    void add(double x) {
        count += 1;
        sum += x;
        squares += x * x;
    }
    void merge(const Moments& other) {
        count += other.count;
        sum += other.sum;
        squares += other.squares;
    }
    [[nodiscard]] double mean() const { return count > 0 ? sum / count : 0; }
};

/// Mean with Student's interval; the interval is the mean itself for fewer than two values.
[[nodiscard]] Estimate estimate_mean(const Moments& moments);
/// Share of successes with Wilson's interval. `of` ≥ 1.
[[nodiscard]] Estimate estimate_share(double successes, double of);
/// A mean difference, and whether trials tell it from none (M94).
struct Difference {
    Estimate estimate;
    bool told = false; ///< the interval does not hold 0
    /// As many trials would tell it, were it as large as it seems; none when it seems to be 0.
    std::optional<double> needed;
};
[[nodiscard]] Difference find_difference(const Moments& differences);

/// The q-quantile (0 ≤ q ≤ 1) of sorted, non-empty values, interpolated between neighbours.
[[nodiscard]] double quantile(std::span<const double> sorted, double q);

} // namespace panoplon
