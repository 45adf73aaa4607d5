// A loadout worn: stats with their parts, places, load, bag, refusals; and two side by side.
#pragma once

#include "judge/appraise/compare_outfits.h"
#include "outfit/sheet.h"
#include "show/document.h"

namespace panoplon {

[[nodiscard]] Document show_equip(const Armoury& armoury, const Loadout& loadout,
                                  const Outfit& outfit, const Sheet& sheet,
                                  const std::vector<std::string>& notes = {});
/// Two loadouts at one level.
struct TwoOutfits {
    LoadoutId first, second;
    int level = 1;
    Sheet first_sheet, second_sheet;
    OutfitComparison comparison;
};
[[nodiscard]] Document show_equip_two(const Armoury& armoury, const TwoOutfits& two);

/// Three and more at one level.
struct SeveralOutfits {
    std::vector<LoadoutId> loadouts;
    int level = 1;
    std::vector<Outfit> outfits; ///< by loadout,
    std::vector<Sheet> sheets;   ///< and these
    std::vector<std::optional<double>> powers;
};
[[nodiscard]] Document show_equip_several(const Armoury& armoury, const SeveralOutfits& several);

[[nodiscard]] std::string refusals_text(const std::vector<Refusal>& refused);
/// M55: which band, how far the next edge is on either side, and what crossing it costs.
[[nodiscard]] std::string load_words(const Armoury& armoury, const Sheet& sheet);

} // namespace panoplon
