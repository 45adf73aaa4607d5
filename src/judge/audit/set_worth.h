// Sets and their steps: how often the best gear reaches them, and what the bonus is worth (M84).
#pragma once

#include "judge/audit/audit.h"

#include <vector>

namespace panoplon {

struct StepWorth {
    SetId set;
    std::size_t step = 0;      ///< place among the set's steps
    int from_level = 0;        ///< at which somebody can wear as many pieces; 0: nobody ever
    std::size_t contexts = 0;  ///< from there on, for `window` levels
    double reached = 0;        ///< share of them, by weight, whose best reaches the step
    double reached_in_all = 0; ///< the same of all contexts of the audit
    double gain = 0; ///< mean share of the margin that the bonus gives where it is reached
    std::string sentence;
};

/// By set, then by step. Each step is judged by itself: the same loadout without its bonus.
[[nodiscard]] std::vector<StepWorth> judge_sets(const Judging& judging, const AuditResult& result);

} // namespace panoplon
