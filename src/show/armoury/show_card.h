// Sheets of items.
#pragma once

#include "judge/paper/paper.h"
#include "show/document.h"

namespace panoplon {

[[nodiscard]] Document show_cards(const Armoury& armoury, const std::vector<ItemId>& items,
                                  const std::vector<PaperVerdict>& paper);

} // namespace panoplon
