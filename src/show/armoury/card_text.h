// The sheet of an item for a person.
#pragma once

#include "judge/appraise/appraisal.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace panoplon {

/// What a card tells, row by row: a label, and words that are printable.
using CardFacts = std::vector<std::pair<std::string, std::string>>;
[[nodiscard]] CardFacts card_facts(const Armoury& armoury, const Item& item,
                                   const PaperVerdict& paper, const Appraisal& appraisal);

[[nodiscard]] std::string card_text(const Armoury& armoury, const Item& item,
                                    const PaperVerdict& paper, const Appraisal& appraisal);

/// Budget points that an item gives for a unit of what it costs; none without a budget or a cost.
[[nodiscard]] std::optional<double> points_per(const Appraisal& appraisal, double cost);

} // namespace panoplon
