// What is drawn for each find of an item: numbers within a range, and affixes (M44a, M44b).
#pragma once

#include "model/bearer.h"

#include <algorithm>
#include <compare>
#include <string>
#include <vector>

namespace panoplon {

/// What an item adds to a stat where that is drawn for each find (M44a): from the worse end for who
/// wears it to the better.
struct Roll {
    StatId stat;
    double worst = 0, best = 0; ///< points
    double step = 0;            ///< drawn in steps of it from the worse end; 0: anything between

    /// What it can be that is nearest to an amount.
    [[nodiscard]] double nearest(double amount) const {
        return std::clamp(amount, std::min(worst, best), std::max(worst, best));
    }
    bool operator==(const Roll&) const = default;
};

/// An addition that a find may have (M44b).
struct Affix : Bearer {
    std::vector<std::string> tags;
    double weight = 1; ///< how often it is drawn, against the others of its draw
    int level = 1;     ///< only things of this level and above have it
};

/// Affixes of which a find has one; `id` is the word that means them. Its modifiers are their mean,
/// each as often as it is drawn.
struct AffixDraw : Bearer {
    std::vector<AffixId> affixes; ///< that things of the item's level have
    std::vector<double> shares;   ///< how often each is drawn; they add up to 1
};

/// What was drawn for one find. What is not said counts with its middle.
struct Drawn {
    std::vector<Amount> rolled; ///< points, in the order of the stats
    /// By draw of the item; empty: none is said. What stands behind them is of no draw, and counts
    /// nothing.
    std::vector<AffixId> affixes;

    [[nodiscard]] bool given() const { return !rolled.empty() || !affixes.empty(); }
    auto operator<=>(const Drawn&) const = default;
};

} // namespace panoplon
