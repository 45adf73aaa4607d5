// Why things of a fight happened or did not (M90).
#pragma once

#include "show/fight/show_fight.h"

namespace panoplon {

/// What the asked names of the answer come to, as text and JSON.
void show_why(const Armoury& armoury, const FightAnswer& answer, Document& document);

/// Everything of a fight that can be asked about: ids of what is in it, stats, pools, damage types.
[[nodiscard]] std::vector<std::string> askable(const Armoury& armoury);

} // namespace panoplon
