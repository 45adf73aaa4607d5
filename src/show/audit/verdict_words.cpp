#include "show/audit/verdict_words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

int urgency(const ItemVerdict& item) {
    constexpr Verdict first[] = {Verdict::dominant,   Verdict::burden,      Verdict::useless,
                                 Verdict::outclassed, Verdict::unreachable, Verdict::weak,
                                 Verdict::idle};
    if (item.accepted || item.overshadowed_by.given()) return calls_for_nothing + 2;
    // What nobody can carry is as good as unreachable.
    const Verdict verdict = item.shut_out ? Verdict::unreachable : item.verdict;
    const auto at = std::find(std::begin(first), std::end(first), verdict);
    if (at != std::end(first)) return static_cast<int>(at - std::begin(first));
    if (item.verdict == Verdict::unjudged) return calls_for_nothing + 2;
    return item.overstays ? calls_for_nothing : calls_for_nothing + 1;
}

std::string verdict_words(const ItemVerdict& verdict) {
    return fmt::format("{}{}", verdict_name(verdict.verdict),
                       verdict.overstays ? ", overstays" : "");
}

} // namespace panoplon
