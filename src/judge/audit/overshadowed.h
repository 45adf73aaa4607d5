// What is useless or weak beside one dominant rival alone (M83).
#pragma once

#include "judge/audit/verdict.h"

namespace panoplon {

/// What loses so much to one dominant rival alone that it came out useless or weak, while beside
/// its other rivals it would not, says whom to look at first; the dominant one says what it
/// overshadows. `items`: all that were judged; `rows`: theirs, sorted by item.
void see_overshadowed(const Judging& judging, const std::vector<ItemContextRow>& rows,
                      const std::vector<ContextRow>& contexts, std::vector<ItemVerdict*> items);

} // namespace panoplon
