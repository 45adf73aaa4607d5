#include "chance/estimate.h"

#include <algorithm>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>

namespace panoplon {

namespace {

constexpr double tail = 0.025;

} // namespace

Estimate estimate_mean(const Moments& moments) {
    const double mean = moments.mean();
    if (moments.count < 2) return {mean, mean, mean};
    const double variance =
        std::max(0.0, (moments.squares - moments.sum * mean) / (moments.count - 1));
    const boost::math::students_t distribution(moments.count - 1);
    const double half =
        quantile(complement(distribution, tail)) * std::sqrt(variance / moments.count);
    return {mean, mean - half, mean + half};
}

Estimate estimate_share(double successes, double of) {
    static const double z = quantile(complement(boost::math::normal(), tail));
    const double share = successes / of;
    const double denominator = 1 + z * z / of;
    const double centre = (share + z * z / (2 * of)) / denominator;
    const double half =
        z * std::sqrt(share * (1 - share) / of + z * z / (4 * of * of)) / denominator;
    const double low = successes <= 0 ? 0 : std::max(0.0, centre - half);
    const double high = successes >= of ? 1 : std::min(1.0, centre + half);
    return {share, low, high};
}

Difference find_difference(const Moments& differences) {
    Difference found;
    found.estimate = estimate_mean(differences);
    const double mean = found.estimate.mean;
    found.told = mean != 0 && (found.estimate.low > 0 || found.estimate.high < 0);
    if (mean == 0 || differences.count < 2) return found;
    const double half = found.estimate.high - mean;
    found.needed = std::ceil(differences.count * (half / mean) * (half / mean));
    return found;
}

double quantile(std::span<const double> sorted, double q) {
    const double at = q * static_cast<double>(sorted.size() - 1);
    const auto below = static_cast<std::size_t>(at);
    const std::size_t above = std::min(below + 1, sorted.size() - 1);
    return sorted[below] + (at - static_cast<double>(below)) * (sorted[above] - sorted[below]);
}

} // namespace panoplon
