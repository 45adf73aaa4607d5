// Two fights under the same luck, and whether they can be told apart (M94).
#pragma once

#include "fight/paired.h"
#include "show/document.h"

namespace panoplon {

/// What `fight --other` and `--other-set` have found out.
struct TwoFights {
    std::string first, second; ///< what they are called
    EncounterId encounter;
    int level = 1;
    std::uint64_t seed = 1;
    std::uint64_t asked = 0;
    Margin first_even, second_even;
    PairedTrials trials;
};

[[nodiscard]] Document show_fight_two(const Armoury& armoury, const TwoFights& two);

/// Margins of the trials of somebody, sorted, under a name.
struct NamedMargins {
    std::string name;
    std::vector<double> margins;
};
/// The share of trials that are won, over the foes' strength.
[[nodiscard]] Figure margin_figure(const std::string& title, const std::string& subtitle,
                                   const std::vector<NamedMargins>& all);

} // namespace panoplon
