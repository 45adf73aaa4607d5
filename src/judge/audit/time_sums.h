// What the contexts of an item's time add up to, and what M83 makes of that.
#pragma once

#include "judge/audit/verdict.h"

#include <set>

namespace panoplon {

/// Weighted sums over contexts.
class Tally {
  public:
    void add(double value, double weight) {
        spread_.min = weight_ == 0 ? value : std::min(spread_.min, value);
        spread_.max = weight_ == 0 ? value : std::max(spread_.max, value);
        sum_ += value * weight;
        weight_ += weight;
    }
    [[nodiscard]] Spread spread() const {
        return {weight_ > 0 ? sum_ / weight_ : 0, spread_.min, spread_.max};
    }
    [[nodiscard]] double mean() const { return spread().mean; }

  private:
    Spread spread_;
    double sum_ = 0;
    double weight_ = 0;
};

/// What the time of an item comes to, beside what ItemVerdict shows.
struct TimeSums {
    std::set<EncounterId> met, picked_in;
    std::size_t seen = 0;                        ///< contexts, judged or not,
    std::size_t none_with = 0, none_without = 0; ///< of which no legal loadout has it, or lacks it
    std::size_t picks = 0;
    bool harms_everywhere = true;
};

/// By which way all losses may be off by noise: as if the item were better, or worse, or as found.
enum class Leaning { better, none, worse };

/// Sets what `item` shows of its time.
[[nodiscard]] TimeSums add_up(ItemVerdict& item, std::span<const ItemContextRow> rows,
                              const std::vector<ContextRow>& contexts, Leaning way);

/// M83, the first that applies.
[[nodiscard]] Verdict decide(const Judging& judging, const ItemVerdict& item, const TimeSums& sums);

/// What is picked in so many of its contexts is strong, or sound.
inline constexpr double strong_share = 0.5;

/// Makes levels hold one more; { 0, 0 } holds none.
void widen(LevelRange& levels, int level);

} // namespace panoplon
