#include "judge/search/ladder.h"

#include "outfit/needs.h"

#include <algorithm>
#include <set>

namespace panoplon {

std::vector<int> levels_that_matter(const Armoury& armoury, CharacterId character,
                                    const LevelRange& levels, int step) {
    std::set<int> chosen = {levels.first, levels.last};
    for (int level = levels.first; level <= levels.last; level += step) chosen.insert(level);
    for (const Item& item : armoury.items) {
        const int from = item.wear_level();
        const bool gear = item.worn() || item.consumed();
        if (gear && levels.holds(from) && is_among(armoury, item.needs, character))
            chosen.insert(from);
    }
    return {chosen.begin(), chosen.end()};
}

namespace {

/// Of the context that the search has entered; found or known.
Found best_of(const Armoury& armoury, const std::vector<ItemId>& groups, const Recall& recall,
              Search& search) {
    KnownAnswer kept(recall, armoury, groups, search, "best");
    Found found;
    if (kept.known([&](const Answer&, const Found& best) { found = best; })) return found;
    if (search.find_best()) found = search.best();
    if (!search.ended()) kept.keep({{"best", kept.names().write(found)}});
    return found;
}

/// Whether any item of a rank above one and up to another can be worn or used at a level: else the
/// rung is the one below it.
bool adds_anything(const Armoury& armoury, int level, int above, int up_to) {
    return std::any_of(armoury.items.begin(), armoury.items.end(), [&](const Item& item) {
        const int rank = item.tier.given() ? armoury.at(item.tier).rank : above;
        return rank > above && rank <= up_to && item.wear_level() <= level;
    });
}

} // namespace

std::vector<std::optional<Outfit>>
find_ladder(const Armoury& armoury, const std::vector<ItemId>& groups, const Context& context,
            const std::vector<int>& ranks, const Recall& recall, Search& search) {
    std::vector<std::optional<Outfit>> ladder;
    for (std::size_t rung = 0; rung < ranks.size(); ++rung) {
        if (rung > 0 && !adds_anything(armoury, context.level, ranks[rung - 1], ranks[rung])) {
            ladder.push_back(ladder.back());
            continue;
        }
        search.limit({ranks[rung], {}, {}, std::nullopt});
        search.enter(context);
        const Found found = best_of(armoury, groups, recall, search);
        if (search.ended()) return ladder;
        ladder.push_back(found.any ? std::optional(search.outfit_of(found.candidate))
                                   : std::nullopt);
    }
    return ladder;
}

bool is_ladder_known(const Armoury& armoury, const std::vector<ItemId>& groups,
                     const Context& context, const std::vector<int>& ranks, const Recall& recall,
                     Search& search) {
    for (std::size_t rung = 0; rung < ranks.size(); ++rung) {
        if (rung > 0 && !adds_anything(armoury, context.level, ranks[rung - 1], ranks[rung]))
            continue;
        search.limit({ranks[rung], {}, {}, std::nullopt});
        search.enter(context);
        if (!KnownAnswer(recall, armoury, groups, search, "best")
                 .known([](const Answer&, const Found&) {}))
            return false;
    }
    return true;
}

} // namespace panoplon
