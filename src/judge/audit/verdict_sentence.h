// What to make of a verdict, in a sentence or two.
#pragma once

#include "judge/audit/verdict.h"

#include <string>

namespace panoplon {

/// Every number in it is of contexts that were looked at and counted.
[[nodiscard]] std::string sentence_of(const Judging& judging, const ItemVerdict& verdict);

} // namespace panoplon
