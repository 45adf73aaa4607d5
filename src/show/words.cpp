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

std::vector<std::string> actions_done_ids(const Armoury& armoury, const Outfit& outfit) {
    std::vector<std::string> ids;
    for (const ActionId action : actions_done(armoury, outfit))
        ids.push_back(armoury.at(action).id);
    return ids;
}

std::string actions_words(const Armoury& armoury, const Outfit& outfit) {
    if (outfit.actions.empty()) return "";
    const std::vector<std::string> done = actions_done_ids(armoury, outfit);
    std::vector<std::string> left_out;
    for (const ActionId action : actions_had(armoury, outfit.character, outfit.worn)) {
        const std::string& id = armoury.at(action).id;
        if (std::find(done.begin(), done.end(), id) == done.end() &&
            std::find(left_out.begin(), left_out.end(), id) == left_out.end())
            left_out.push_back(id);
    }
    return join(done, ", ") + (left_out.empty() ? "" : "; not " + join(left_out, ", "));
}

Cell tier_cell(const Armoury& armoury, TierId tier) {
    return tier.given() ? Cell(armoury.at(tier).id).in(armoury.at(tier).ink) : Cell();
}

std::string change_words(Change change, double amount) {
    if (change == Change::times) return fmt::format("× {}", rounded(amount, 4));
    return fmt::format("{}{}{}", amount < 0 ? "" : "+", rounded(amount, 4),
                       change == Change::percent ? " %" : "");
}

Json points_json(const Armoury& armoury, const Outfit& outfit) {
    Json json = Json::object();
    for (const BoughtUpgrade& bought : outfit.upgrades)
        json[armoury.at(bought.upgrade).id] = bought.levels;
    return json;
}

} // namespace panoplon
