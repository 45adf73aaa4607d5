// The price of weight, as tables and a figure.
#pragma once

#include "judge/appraise/weighing.h"
#include "show/document.h"

namespace panoplon {

[[nodiscard]] Document show_weighing(const Armoury& armoury, LoadoutId loadout,
                                     EncounterId encounter, const Weighing& weighing);
/// Margin against capacity with the bands as strips, and against units of what is packed; none
/// where nothing is weighed and nothing can be packed.
[[nodiscard]] std::optional<Figure> weighing_figure(const Armoury& armoury, LoadoutId loadout,
                                                    EncounterId encounter,
                                                    const Weighing& weighing);

} // namespace panoplon
