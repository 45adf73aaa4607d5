// From a base and sums of modifiers to the values of every stat (M1-M3).
#pragma once

#include "model/armoury.h"
#include "model/growth.h"

#include <map>
#include <span>
#include <vector>

namespace panoplon {

/// What an amount comes to: `add_factor` scales add amounts only (a tier's stat_factor, M44);
/// `levels` counts it so many times (an upgrade's).
[[nodiscard]] double scaled(Change change, double amount, double add_factor, int levels);

/// The sums of M1, by stat: Σ add, Σ percent points, Π times. Bearers are added in one fixed order
/// (bearers_of, then band, then effects), so a state has one value, bitwise (M2).
struct StatSums {
    std::vector<double> add, percent, times;

    void reset(std::size_t stats) {
        add.assign(stats, 0.0);
        percent.assign(stats, 0.0);
        times.assign(stats, 1.0);
    }
    void include(const Modifiers& modifiers, double add_factor = 1, int levels = 1);
};

/// (base + add) × (1 + percent / 100) × times, rounded and clamped as the stat says (M1).
[[nodiscard]] double settle(const Stat& stat, double base, double add, double percent,
                            double times);

/// Computes stats; holds the compiled formulas, so one for each thread.
class Deriver {
  public:
    explicit Deriver(const Armoury& armoury);

    /// Writes the value of every stat. `base` and `into` have one place a stat and may not overlap.
    void derive(std::span<const double> base, const StatSums& sums, int level,
                std::span<double> into);
    /// What can be carried with these stats; 0 where the armoury weighs nothing.
    [[nodiscard]] double capacity(std::span<const double> stats, int level);
    /// base_stats() of a character, worked out once.
    [[nodiscard]] const std::vector<double>& base(CharacterId character, int level);
    [[nodiscard]] const Armoury& armoury() const { return armoury_; }

  private:
    const Armoury& armoury_;
    std::vector<Evaluator> formulas_; ///< in the order of Armoury::derived_order
    std::vector<Evaluator> capacity_; ///< one, or none
    std::vector<std::size_t> plain_;  ///< stats without a formula
    std::map<std::pair<CharacterId, int>, std::vector<double>> bases_; ///< by level
};

} // namespace panoplon
