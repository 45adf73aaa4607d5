// The sheet of an item for a person.
#pragma once

#include "judge/appraisal.h"

#include <optional>
#include <string>

namespace panoplon {

[[nodiscard]] std::string card_text(const Armoury& armoury, const Item& item,
                                    const PaperVerdict& paper, const Appraisal& appraisal);

/// Budget points that an item gives for a unit of what it costs; none without a budget or a cost.
[[nodiscard]] std::optional<double> points_per(const Appraisal& appraisal, double cost);

} // namespace panoplon
