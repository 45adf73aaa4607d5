#include "fight/roughness.h"

#include "fight/margin.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace panoplon {

namespace {

/// Shares by which a pool's ceiling is changed; they add up to 0.
constexpr std::array<double, 5> changes = {-0.005, -0.0025, 0, 0.0025, 0.005};

/// The furthest from the straight line that fits best (least squares).
double furthest_from_line(const std::array<double, changes.size()>& values) {
    double mean = 0, slope = 0, squares = 0;
    for (std::size_t i = 0; i < changes.size(); ++i) {
        mean += values[i] / changes.size();
        slope += changes[i] * values[i];
        squares += changes[i] * changes[i];
    }
    double furthest = 0;
    for (std::size_t i = 0; i < changes.size(); ++i)
        furthest = std::max(furthest, std::abs(values[i] - mean - slope / squares * changes[i]));
    return furthest;
}

} // namespace

double roughness_near(Engine& engine, const ActorSetup& character, double margin) {
    double furthest = 0;
    ActorSetup changed = character;
    for (const Pool& pool : engine.armoury().pools) {
        double& times = changed.sums.times[pool.max.index()];
        const double as_it_is = times;
        std::array<double, changes.size()> logs{};
        bool told = true;
        for (std::size_t i = 0; i < changes.size() && told; ++i) {
            times = as_it_is * (1 + changes[i]);
            engine.prepare_character(changed);
            const Margin there = even_margin(engine, margin * (1 + changes[i]));
            told = !there.error && there.reach == Reach::within;
            logs[i] = std::log(there.value);
        }
        times = as_it_is;
        if (told) furthest = std::max(furthest, furthest_from_line(logs));
    }
    engine.prepare_character(character);
    return std::expm1(furthest);
}

} // namespace panoplon
