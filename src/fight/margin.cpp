#include "fight/margin.h"

#include <algorithm>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <utility>
#include <vector>

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

/// The strength at which the outcome turns, to 0.01 %.
double turn_within(Probe& probe, const Bracket& bracket) {
    constexpr double precision = 1e-4;
    std::uintmax_t most_fights = 60;
    const auto close = [](double a, double b) { return std::abs(a - b) < precision; };
    const auto [low, high] =
        boost::math::tools::toms748_solve(probe, bracket.won, bracket.lost, bracket.won_remainder,
                                          bracket.lost_remainder, close, most_fights);
    return std::exp((low + high) / 2);
}

/// The margin on a grid of strengths (M69a): numbers of its lines from the weakest strength to the
/// strongest.
class GridMargin {
  public:
    explicit GridMargin(Engine& engine) : probe_(engine, even_) {}

    Margin find(double guess) {
        Margin margin;
        int lost = lost_line(guess);
        while (lost > weakest_line && !probe_.error) {
            const int lower = lost_below(lost);
            if (lower == lost) break;
            lost = lower;
        }
        if (lost > strongest_line) {
            margin.reach = Reach::above;
            margin.value = strongest;
        } else if (lost == weakest_line) {
            margin.reach = Reach::below;
            margin.value = weakest;
        } else if (!probe_.error) {
            margin.value =
                turn_within(probe_, {at(lost - 1), at(lost), remainder(lost - 1), remainder(lost)});
        }
        margin.error = probe_.error;
        return margin;
    }

  private:
    static constexpr int strongest_line = 416; // of 64: lines are 1 % apart
    static constexpr int weakest_line = -strongest_line;
    static constexpr int lines_below = 10;

    [[nodiscard]] static double at(int line) { return line * (log_strongest / strongest_line); }

    double remainder(int line) {
        const auto known = std::find_if(known_.begin(), known_.end(),
                                        [&](const auto& one) { return one.first == line; });
        if (known != known_.end()) return known->second;
        known_.emplace_back(line, probe_(at(line)));
        return known_.back().second;
    }
    bool won(int line) { return remainder(line) > 0; }

    /// A line that is lost while the one below it is won; the weakest line where that is lost, one
    /// past the strongest where that is won.
    int lost_line(double guess) {
        const double line = std::log(guess) / (log_strongest / strongest_line);
        int now = static_cast<int>(
            std::clamp(std::round(line), double(weakest_line), double(strongest_line)));
        const bool up = won(now);
        int step = lines_of(remainder(now));
        int won_at = weakest_line - 1, lost_at = strongest_line + 1;
        while (!probe_.error) {
            (won(now) ? won_at : lost_at) = now;
            if (won(now) != up) break;
            if (now == (up ? strongest_line : weakest_line)) break;
            now = std::clamp(up ? now + step : now - step, weakest_line, strongest_line);
            step += step + step / 2;
        }
        while (lost_at - won_at > 1 && won_at >= weakest_line && lost_at <= strongest_line &&
               !probe_.error) {
            const double share = remainder(won_at) / (remainder(won_at) - remainder(lost_at));
            const int line_between =
                won_at + static_cast<int>(std::lround(share * (lost_at - won_at)));
            const int middle = std::clamp(line_between, won_at + 1, lost_at - 1);
            (won(middle) ? won_at : lost_at) = middle;
        }
        return lost_at;
    }

    /// How many lines away the outcome is thought to turn from where so much remains.
    static int lines_of(double remains) {
        return std::max(
            1, static_cast<int>(std::abs(step_from(remains)) / (log_strongest / strongest_line)));
    }

    /// Where a line in the 10 % below is lost, the lowest such line of those without a gap below
    /// the first that is met; else `lost`.
    int lost_below(int lost) {
        for (int line = lost - 2; line >= std::max(weakest_line, lost - lines_below); --line) {
            if (probe_.error || won(line)) continue;
            while (line > weakest_line && !won(line - 1)) --line;
            return line;
        }
        return lost;
    }

    std::optional<Luck> even_;
    Probe probe_;
    std::vector<std::pair<int, double>> known_; ///< remainder by line
};

} // namespace

Margin even_margin(Engine& engine, double guess) {
    return GridMargin(engine).find(guess);
}

Margin turn_near(Engine& engine, double guess) {
    const std::optional<Luck> even;
    Probe probe(engine, even);
    Margin margin;
    const auto bracket = find_bracket(probe, guess, margin);
    if (bracket) margin.value = turn_within(probe, *bracket);
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
