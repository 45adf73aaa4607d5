#include "judge/audit/earlier_audit.h"

#include <algorithm>

namespace panoplon {

namespace {

/// By thing of `now`: whether there was none of that name, or another.
template <class List>
std::vector<bool> new_ones(const List& before, const std::vector<std::uint64_t>& content_before,
                           const List& now, const std::vector<std::uint64_t>& content_now) {
    std::map<std::string, std::uint64_t> known;
    for (std::size_t i = 0; i < before.size(); ++i) known.emplace(before[i].id, content_before[i]);
    std::vector<bool> list;
    for (std::size_t i = 0; i < now.size(); ++i) {
        const auto at = known.find(now[i].id);
        list.push_back(at == known.end() || at->second != content_now[i]);
    }
    return list;
}

} // namespace

EarlierAudit::EarlierAudit(const ReadArmoury& read, const AuditResult& result)
    : armoury_(read.armoury),
      content_(content_of(read)) {
    for (std::size_t i = 0; i < result.contexts.size(); ++i)
        if (!result.seen[i].empty())
            seen_.emplace(
                place_of(armoury_, result.contexts[i].context, result.contexts[i].highest_rank),
                &result.seen[i]);
}

EarlierAudit::Place EarlierAudit::place_of(const Armoury& armoury, const Context& context,
                                           int highest_rank) {
    return {armoury.at(context.character).id, armoury.at(context.encounter).id, context.level,
            highest_rank};
}

const SeenOutfits* EarlierAudit::find(const Armoury& now, const Context& context,
                                      int highest_rank) const {
    const auto at = seen_.find(place_of(now, context, highest_rank));
    return at == seen_.end() ? nullptr : at->second;
}

EarlierAudit::Changed EarlierAudit::changed(const Armoury& now, const Content& content) const {
    Changed changed{
        new_ones(armoury_.items, content_.items, now.items, content.items),
        new_ones(armoury_.characters, content_.characters, now.characters, content.characters),
        new_ones(armoury_.encounters, content_.encounters, now.encounters, content.encounters),
        content_.rules != content.rules};
    // An ally fights by a loadout and as a character.
    const std::vector<bool> loadouts =
        new_ones(armoury_.loadouts, content_.loadouts, now.loadouts, content.loadouts);
    for (std::size_t e = 0; e < now.encounters.size(); ++e)
        for (const LoadoutId ally : now.encounters[e].allies) {
            const bool other =
                loadouts[ally.index()] || changed.characters[now.at(ally).character.index()];
            changed.encounters[e] = changed.encounters[e] || other;
        }
    return changed;
}

std::vector<bool> EarlierAudit::Changed::in(const Context& context) const {
    const bool anything =
        rules || characters[context.character.index()] || encounters[context.encounter.index()];
    return anything ? std::vector<bool>() : items;
}

} // namespace panoplon
