#include "show/words.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

std::vector<std::string> ids_of(const Armoury& armoury, const std::vector<ItemId>& items) {
    std::vector<std::string> ids;
    for (const ItemId item : items) ids.push_back(armoury.at(item).id);
    return ids;
}

Cell tier_cell(const Armoury& armoury, TierId tier) {
    return tier.given() ? Cell(armoury.at(tier).id).in_colour(armoury.at(tier).colour) : Cell();
}

std::string change_words(Change change, double amount) {
    if (change == Change::times) return fmt::format("× {}", rounded(amount, 4));
    return fmt::format("{}{}{}", amount < 0 ? "" : "+", rounded(amount, 4),
                       change == Change::percent ? " %" : "");
}

} // namespace panoplon
