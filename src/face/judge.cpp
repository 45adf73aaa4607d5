#include "panoplon/judge.h"

#include "face/inside.h"
#include "judge/audit/audit.h"
#include "judge/search/best.h"

namespace panoplon::core {

namespace {

void list_worn(const panoplon::Armoury& armoury, const std::vector<WornItem>& worn,
               BestOutfit& into) {
    for_each_worn(worn, [&](const WornItem& one) {
        into.worn.emplace_back(armoury.at(one.slot).id, armoury.at(one.item).id);
    });
}

} // namespace

BestOutfit best(const Armoury& armoury, const BestQuery& query) {
    const panoplon::Armoury& a = usable(armoury);
    BestOptions options;
    options.characters = {known<CharacterId>("character", a.characters, query.character)};
    options.encounters = {known<EncounterId>("encounter", a.encounters, query.encounter)};
    const int level = known_level(a, query.level);
    options.levels = {level, level};
    const BestResult result = find_bests(a, options);
    BestOutfit outfit;
    if (result.contexts.empty()) return outfit;
    const BestOfContext& found = result.contexts.front();
    outfit.any = found.any;
    if (!found.any) return outfit;
    outfit.margin = found.margin.value;
    outfit.proven = found.proven;
    list_worn(a, found.outfit.worn, outfit);
    for (const PackedItem& packed : found.outfit.pack)
        outfit.packed.emplace_back(a.at(packed.item).id, packed.count);
    return outfit;
}

std::vector<ItemVerdict> audit(const Armoury& armoury, const AuditQuery& query) {
    const panoplon::Armoury& a = usable(armoury);
    AuditOptions options;
    for (const std::string& id : query.characters)
        options.characters.push_back(known<CharacterId>("character", a.characters, id));
    for (const std::string& id : query.encounters)
        options.encounters.push_back(known<EncounterId>("encounter", a.encounters, id));
    options.levels = {query.first_level == 0 ? a.levels.first : known_level(a, query.first_level),
                      query.last_level == 0 ? a.levels.last : known_level(a, query.last_level)};
    options.step = query.step == 0 ? a.audit.step : query.step;
    if (options.step < 1) throw std::invalid_argument("a step is at least 1");
    std::vector<ItemVerdict> list;
    for (const panoplon::ItemVerdict& one : panoplon::audit(a, options).items)
        list.push_back({a.at(one.item).id, verdict_name(one.verdict), one.sentence, one.overstays,
                        one.pick_share, one.grip.mean, one.shortfall.mean});
    return list;
}

} // namespace panoplon::core
