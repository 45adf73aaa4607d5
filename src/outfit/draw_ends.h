// The worst and the best that can be drawn for a find of an item (M44a, M44b).
#pragma once

#include "model/gear.h"

namespace panoplon {

struct DrawEnds {
    Drawn worst, best;
};

/// Of numbers the end that their stat calls worse or better; of each draw of affixes that with
/// which `strength`, a function of Drawn, is lowest and highest while all else counts with its
/// middle.
template <class Strength>
[[nodiscard]] DrawEnds find_draw_ends(const Item& item, const Strength& strength) {
    DrawEnds ends;
    for (const Roll& roll : item.rolls) {
        ends.worst.rolled.push_back({roll.stat, roll.worst});
        ends.best.rolled.push_back({roll.stat, roll.best});
    }
    for (std::size_t d = 0; d < item.affixes.size(); ++d) {
        AffixId worst, best;
        double lowest = 0, highest = 0;
        for (const AffixId affix : item.affixes[d].affixes) {
            Drawn one;
            one.affixes.resize(item.affixes.size());
            one.affixes[d] = affix;
            const double value = strength(one);
            if (!worst.given() || value < lowest) {
                worst = affix;
                lowest = value;
            }
            if (!best.given() || value > highest) {
                best = affix;
                highest = value;
            }
        }
        ends.worst.affixes.push_back(worst);
        ends.best.affixes.push_back(best);
    }
    return ends;
}

} // namespace panoplon
