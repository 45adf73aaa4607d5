// A loadout worn: stats with their parts, places, load, bag, refusals.
#pragma once

#include "outfit/sheet.h"
#include "output/document.h"

namespace panoplon {

[[nodiscard]] Document show_equip(const Armoury& armoury, const Loadout& loadout,
                                  const Outfit& outfit, const Sheet& sheet);
[[nodiscard]] std::string refusals_text(const std::vector<Refusal>& refused);
/// M55: which band, how far the next edge is on either side, and what crossing it costs.
[[nodiscard]] std::string load_words(const Armoury& armoury, const Sheet& sheet);

} // namespace panoplon
