// What definitions are to one another, once all are built.
#pragma once

#include "diagnostic/diagnostic.h"
#include "model/armoury.h"

namespace panoplon {

/// Finds what items and effects tell by words of others (effects that are removed, affixes), which
/// end of a roll is the worse, and which items actions spend.
void link(Armoury& armoury, Sink& sink);

} // namespace panoplon
