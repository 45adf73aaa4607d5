// What curves show: where they cross, jump, dip, stall and leave the corridor.
#pragma once

#include "judge/curve/curve.h"

namespace panoplon {

/// Adds every finding of the curves to the result, by kind, then by curve and level.
void find_all(const Armoury& armoury, CurveResult& result);

} // namespace panoplon
