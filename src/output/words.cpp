#include "output/words.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

std::vector<std::string> ids_of(const Armoury& armoury, const std::vector<ItemId>& items) {
    std::vector<std::string> ids;
    for (const ItemId item : items) ids.push_back(armoury.at(item).id);
    return ids;
}

std::string change_words(Change change, double amount) {
    if (change == Change::times) return fmt::format("× {}", rounded(amount, 4));
    return fmt::format("{}{}{}", amount < 0 ? "" : "+", rounded(amount, 4),
                       change == Change::percent ? " %" : "");
}

std::string gain_words(double factor) {
    if (std::round((factor - 1) * 1e3) == 0) return percent(0); // no sign where nothing moved
    return (factor >= 1 ? "+" : "") + percent(factor - 1);
}

int urgency(const ItemVerdict& item) {
    constexpr Verdict first[] = {Verdict::dominant,   Verdict::burden,      Verdict::useless,
                                 Verdict::outclassed, Verdict::unreachable, Verdict::unrivalled,
                                 Verdict::weak};
    const auto at = std::find(std::begin(first), std::end(first), item.verdict);
    if (at != std::end(first)) return static_cast<int>(at - std::begin(first));
    if (item.verdict == Verdict::unjudged) return calls_for_nothing + 2;
    return item.overstays ? calls_for_nothing : calls_for_nothing + 1;
}

std::string verdict_words(const ItemVerdict& verdict) {
    return fmt::format("{}{}", verdict_name(verdict.verdict),
                       verdict.overstays ? ", overstays" : "");
}

} // namespace panoplon
