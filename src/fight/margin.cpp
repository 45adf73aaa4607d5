#include "fight/margin.h"

#include <algorithm>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>

namespace panoplon {

namespace {

/// Between these logarithms of strength the outcome turns: won at `won`, lost at `lost`.
struct Bracket {
    double won, lost;
    double won_remainder, lost_remainder;
};

/// Fights at a logarithm of strength; keeps the first error.
class Probe {
  public:
    Probe(Engine& engine, const std::optional<Luck>& luck) : engine_(engine), luck_(luck) {}

    double operator()(double log_strength) {
        const FightResult& result = engine_.run(std::exp(log_strength), luck_, Detail::outcome);
        if (result.error && !error) error = result.error;
        return result.remainder;
    }
    std::optional<FightError> error;

  private:
    Engine& engine_;
    const std::optional<Luck>& luck_;
};

const double log_weakest = std::log(weakest);
const double log_strongest = std::log(strongest);

/// How far in log strength the outcome is thought to turn from where so much remains: a little
/// farther than it mostly is, so that the turn lies between.
double step_from(double remainder) {
    constexpr double least = 0.004, most = 0.5;
    return std::copysign(std::clamp(std::abs(remainder), least, most), remainder);
}

/// Steps outward from the guess, in growing steps, until the outcome turns or a bound is reached.
std::optional<Bracket> find_bracket(Probe& probe, double guess, Margin& margin) {
    double at = std::clamp(std::log(guess), log_weakest, log_strongest);
    double value = probe(at);
    const bool won = value > 0;
    double step = step_from(value);
    while (!probe.error) {
        const double bound = won ? log_strongest : log_weakest;
        if (at == bound) {
            margin.reach = won ? Reach::above : Reach::below;
            margin.value = won ? strongest : weakest;
            return std::nullopt;
        }
        const double next = std::clamp(at + step, log_weakest, log_strongest);
        const double there = probe(next);
        if ((there > 0) != won)
            return won ? Bracket{at, next, value, there} : Bracket{next, at, there, value};
        at = next;
        value = there;
        step *= 2.5;
    }
    return std::nullopt;
}

} // namespace

Margin even_margin(Engine& engine, double guess) {
    const std::optional<Luck> even;
    Probe probe(engine, even);
    Margin margin;
    const auto bracket = find_bracket(probe, guess, margin);
    if (bracket) {
        constexpr double precision = 1e-4;
        std::uintmax_t most_fights = 60;
        const auto close = [](double a, double b) { return std::abs(a - b) < precision; };
        const auto [low, high] = boost::math::tools::toms748_solve(
            probe, bracket->won, bracket->lost, bracket->won_remainder, bracket->lost_remainder,
            close, most_fights);
        margin.value = std::exp((low + high) / 2);
    }
    margin.error = probe.error;
    return margin;
}

Margin trial_margin(Engine& engine, const Luck& luck, double guess) {
    const std::optional<Luck> own = luck;
    Probe probe(engine, own);
    Margin margin;
    auto bracket = find_bracket(probe, guess, margin);
    constexpr double precision = 0.005;
    while (bracket && !probe.error && bracket->lost - bracket->won > precision) {
        const double middle = (bracket->won + bracket->lost) / 2;
        (probe(middle) > 0 ? bracket->won : bracket->lost) = middle;
    }
    if (bracket) margin.value = std::exp((bracket->won + bracket->lost) / 2);
    margin.error = probe.error;
    return margin;
}

} // namespace panoplon
