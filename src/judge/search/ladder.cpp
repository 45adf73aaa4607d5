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
        const bool gear = item.worn() || item.use;
        if (gear && levels.holds(from) && is_among(armoury, item.needs, character))
            chosen.insert(from);
    }
    return {chosen.begin(), chosen.end()};
}

namespace {

/// Whether any item of a rank above one and up to another can be worn or used at a level: else the
/// rung is the one below it.
bool adds_anything(const Armoury& armoury, int level, int above, int up_to) {
    return std::any_of(armoury.items.begin(), armoury.items.end(), [&](const Item& item) {
        const int rank = item.tier.given() ? armoury.at(item.tier).rank : above;
        return rank > above && rank <= up_to && item.wear_level() <= level;
    });
}

} // namespace

BestOver find_best_over(const Armoury& armoury, const std::vector<ItemId>& groups,
                        CharacterId character, EncounterId encounter,
                        const std::vector<int>& levels, const std::vector<int>& ranks,
                        const Watch& watch, const std::function<void()>& done_one) {
    BestOver over;
    over.ladder.resize(ranks.size());
    Search search(armoury, groups);
    search.heed(watch);
    for (const int level : levels)
        for (std::size_t rung = 0; rung < ranks.size(); ++rung) {
            if (rung > 0 && !adds_anything(armoury, level, ranks[rung - 1], ranks[rung])) {
                over.ladder[rung].push_back(over.ladder[rung - 1].back());
                if (done_one) done_one();
                continue;
            }
            over.stopped = over.stopped || watch.stopped();
            if (over.stopped) return over;
            search.limit({ranks[rung], {}, {}, std::nullopt});
            search.enter({character, level, encounter});
            BestPoint point;
            point.level = level;
            point.any = search.find_best();
            over.stopped = watch.stopped();
            if (over.stopped) return over;
            if (search.error()) {
                over.error = search.error();
                return over;
            }
            if (point.any) point.outfit = search.outfit_of(search.best().candidate);
            over.ladder[rung].push_back(std::move(point));
            if (done_one) done_one();
        }
    return over;
}

} // namespace panoplon
