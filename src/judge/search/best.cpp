#include "judge/search/best.h"

#include "base/parallel.h"
#include "base/text.h"
#include "judge/paper/paper.h"
#include "outfit/needs.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

/// Units of everything that is worn and packed.
std::map<ItemId, std::int64_t> units_in(const Outfit& outfit) {
    std::map<ItemId, std::int64_t> units;
    for_each_worn(outfit.worn, [&](const WornItem& worn) { units[worn.item] += 1; });
    for (const PackedItem& packed : outfit.pack) units[packed.item] += packed.count;
    return units;
}

std::vector<PackedItem> more_in(const Outfit& other, const Outfit& best) {
    std::map<ItemId, std::int64_t> had = units_in(best);
    std::vector<PackedItem> more;
    for (const auto& [item, count] : units_in(other))
        if (count > had[item]) more.push_back({item, count - had[item], {}});
    return more;
}

std::vector<Rival> rivals_of(Search& search, const Outfit& best) {
    std::vector<Rival> list;
    for (const auto& [item, count] : units_in(best)) {
        if (!search.available(item)) continue; // what is merely carried
        search.find_without(item);
        search.settle();
        const Found& found = search.without(item);
        Rival rival;
        rival.item = item;
        rival.any = found.any;
        if (found.any) {
            rival.margin = found.margin.value;
            rival.outfit = search.outfit_of(found.candidate);
            rival.instead = more_in(rival.outfit, best);
        }
        list.push_back(std::move(rival));
    }
    std::stable_sort(list.begin(), list.end(),
                     [](const Rival& a, const Rival& b) { return a.margin < b.margin; });
    return list;
}

/// Why something that has to be there can't be; empty: it can.
std::string why_not(Search& search, const Armoury& armoury, const Context& context,
                    const std::vector<ItemId>& with) {
    Deriver deriver(armoury);
    const std::vector<double> naked =
        naked_stats(deriver, {context.character, context.level, {}, {}, {}, {}, {}});
    for (const ItemId item : with) {
        const Item& one = armoury.at(item);
        const bool carried = !one.worn() && !one.use;
        if (carried || search.available(item)) continue;
        std::vector<std::string> reasons =
            unmet_needs(armoury, one, context.character, context.level, naked);
        if (reasons.empty()) reasons.emplace_back("it is left out by what is asked for");
        return fmt::format("{}: {}", one.id, join(reasons, "; "));
    }
    return {};
}

BestOfContext find_one(Search& search, const Armoury& armoury, const BestOptions& options,
                       const Context& context) {
    BestOfContext result;
    result.context = context;
    search.enter(context);
    result.reason = why_not(search, armoury, context, options.limits.with);
    if (!result.reason.empty()) return result;
    result.candidates = search.count_candidates();
    if (!search.find_best()) {
        result.reason = search.error() ? search.error()->message : "nothing legal was found";
        return result;
    }
    result.searched = search.best().margin.value;
    std::optional<Bounded> bounded;
    if (!search.proven() && options.bound_fights > 0)
        bounded = search.find_bound(options.bound_fights);
    result.outfit = search.outfit_of(search.best().candidate);
    result.margin = search.best().margin;
    result.rivals = rivals_of(search, result.outfit);
    result.any = true;
    result.proven = search.proven();
    if (bounded) tell_bound(*bounded, result);
    Deriver deriver(armoury);
    result.load = outfit_load(deriver, result.outfit);
    result.value = value_of(armoury, result.outfit);
    return result;
}

} // namespace

void tell_bound(const Bounded& bounded, BestOfContext& best) {
    if (best.margin.value > bounded.bound) return;
    best.proven = bounded.closed;
    best.bound = bounded.bound;
}

BestResult find_bests(const Judging& judging, const BestOptions& options, const Watch& watch) {
    const Armoury& armoury = judging.armoury;
    const std::vector<Context> contexts = contexts_of(armoury, options);
    std::vector<std::optional<BestOfContext>> found(contexts.size());
    for_each_with_worker(
        contexts.size(),
        [&] {
            Search search(armoury, judging.twins);
            search.limit(options.limits);
            search.heed(watch);
            return search;
        },
        watch,
        [&](Search& search, std::size_t i) {
            BestOfContext one = find_one(search, armoury, options, contexts[i]);
            if (!watch.stopped()) found[i] = std::move(one);
        });
    BestResult result;
    for (std::optional<BestOfContext>& one : found)
        if (one)
            result.contexts.push_back(std::move(*one));
        else
            result.partial = true;
    return result;
}

} // namespace panoplon
