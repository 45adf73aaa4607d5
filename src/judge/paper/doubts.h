// What is legal but surely not meant: the doubts of diagnostic/doubt_kinds.cpp.
#pragma once

#include "diagnostic/diagnostic.h"
#include "model/armoury.h"

namespace panoplon {

/// Tells every doubt of an armoury without mistakes. What a thing's `allow` names is not told.
void find_doubts(const Armoury& armoury, Sink& sink);

} // namespace panoplon
