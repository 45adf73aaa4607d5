#include "judge/audit/witness.h"

#include <algorithm>

namespace panoplon {

namespace {

std::vector<ItemId> in_place_of(const Armoury& armoury, ItemId id, const Outfit& outfit) {
    const Item& item = armoury.at(id);
    std::vector<ItemId> list;
    const auto add = [&](ItemId other) {
        if (std::find(list.begin(), list.end(), other) == list.end()) list.push_back(other);
    };
    if (item.worn()) {
        for_each_worn(outfit.worn, [&](const WornItem& worn) {
            const auto& takes = armoury.at(worn.item).takes;
            if (std::find_first_of(takes.begin(), takes.end(), item.takes.begin(),
                                   item.takes.end()) != takes.end())
                add(worn.item);
        });
        return list;
    }
    for (const PackedItem& packed : outfit.pack) {
        const std::string& group = armoury.at(packed.item).group();
        const bool same_group = !group.empty() && group == item.group();
        if (packed.item == id || same_group) add(packed.item);
    }
    return list;
}

} // namespace

Witnesses find_witnesses(const Armoury& armoury, ItemId item, std::span<const ItemContextRow> rows,
                         const std::vector<ContextRow>& contexts) {
    Witnesses found;
    for (const ItemContextRow& row : rows) {
        if (!row.in_window || !row.judged) continue;
        const auto keep = [&](std::optional<Witness>& kept) {
            kept = {row.context, row.shortfall,
                    in_place_of(armoury, item, contexts[row.context].outfit)};
        };
        if (!found.best || row.shortfall < found.best->shortfall) keep(found.best);
        if (!found.worst || row.shortfall > found.worst->shortfall) keep(found.worst);
    }
    return found;
}

} // namespace panoplon
