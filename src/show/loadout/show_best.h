// The best legal loadout of each context and its rivals.
#pragma once

#include "judge/search/best.h"
#include "show/document.h"

namespace panoplon {

[[nodiscard]] Document show_best(const Armoury& armoury, const BestOptions& options,
                                 const BestResult& result);

} // namespace panoplon
