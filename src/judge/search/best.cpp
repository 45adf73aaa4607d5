#include "judge/search/best.h"

#include "base/parallel.h"
#include "base/text.h"
#include "judge/paper/paper.h"
#include "judge/search/shared_answers.h"
#include "outfit/needs.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <utility>

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

/// All of a context's answer that takes a search.
struct Searched {
    Found best;
    double without_bounding = 0;
    double roughness = 0;
    bool proven = false;
    std::optional<Bounded> bounded;
    std::vector<std::pair<ItemId, Found>> without; ///< each thing that the best has
};

Searched searched_in(Search& search, int bound_fights) {
    Searched searched;
    if (!search.find_best()) return searched;
    searched.without_bounding = search.best().margin.value;
    if (!search.proven() && bound_fights > 0) searched.bounded = search.find_bound(bound_fights);
    searched.best = search.best();
    searched.proven = search.proven();
    searched.roughness = search.roughness_of_best();
    for (const auto& [item, count] : units_in(search.outfit_of(searched.best.candidate))) {
        if (!search.available(item)) continue; // what is merely carried
        search.find_without(item);
        search.settle();
        searched.without.emplace_back(item, search.with_needed_pack(search.without(item)));
    }
    return searched;
}

Answer answer_of(const AnswerNames& names, const Searched& searched) {
    Answer answer = {{"best", names.write(searched.best)},
                     {"without_bounding", searched.without_bounding},
                     {"roughness", searched.roughness},
                     {"proven", searched.proven},
                     {"without", Answer::array()}};
    if (searched.bounded)
        answer["bounded"] = {searched.bounded->bound, searched.bounded->fights,
                             searched.bounded->closed};
    for (const auto& [item, found] : searched.without)
        answer["without"].push_back({names.name(item), names.write(found)});
    return answer;
}

Searched read_answer(const AnswerNames& names, const Answer& answer, const Found& best) {
    Searched searched{best,
                      answer.at("without_bounding").get<double>(),
                      answer.at("roughness").get<double>(),
                      answer.at("proven").get<bool>(),
                      {},
                      {}};
    if (answer.contains("bounded")) {
        const Answer& bounded = answer.at("bounded");
        searched.bounded = {bounded.at(0).get<double>(), bounded.at(1).get<int>(),
                            bounded.at(2).get<bool>()};
    }
    for (const Answer& one : answer.at("without"))
        searched.without.emplace_back(names.item(one.at(0)), names.read(one.at(1)));
    return searched;
}

/// Where the answer about the context that was entered is kept.
KnownAnswer answer_kept(const Judging& judging, const Recall& recall, Search& search,
                        int bound_fights) {
    return KnownAnswer(recall, judging.armoury, judging.twins, search,
                       fmt::format("best, rivals, bound of {}", bound_fights));
}

/// Found, or known from before.
Searched answered(const Judging& judging, const Recall& recall, Search& search, int bound_fights) {
    KnownAnswer kept = answer_kept(judging, recall, search, bound_fights);
    Searched searched;
    if (kept.known([&](const Answer& answer, const Found& best) {
            searched = read_answer(kept.names(), answer, best);
        }))
        return searched;
    searched = searched_in(search, bound_fights);
    if (!search.ended()) kept.keep(answer_of(kept.names(), searched));
    return searched;
}

bool has(const Search& search, const Candidate& candidate, ItemId item) {
    bool worn = false;
    for_each_item(candidate, [&](ItemId one) { worn = worn || one == item; });
    return worn || search.packed(candidate, item) > 0;
}

/// The best without an item, with everything as in the best that can be so without a difference
/// that could be told: a search changes much that hardly matters. `noise`: a share of the margin.
Candidate nearest_to(Search& search, const Candidate& best, const Found& without, ItemId item,
                     double noise) {
    Candidate near = without.candidate;
    const double least = without.margin.value * (1 - noise);
    const auto try_on = [&](auto& part, const auto& as_in_best) {
        if (part == as_in_best) return;
        auto before = std::exchange(part, as_in_best);
        const auto margin =
            has(search, near, item) ? std::nullopt : search.margin(near, without.margin.value);
        if (!margin || margin->value < least) part = std::move(before);
    };
    for (int round = 0; round < 2; ++round) { // what one leaves may have stood in another's way
        for (std::size_t p = 0; p < near.places.size(); ++p) try_on(near.places[p], best.places[p]);
        for (std::size_t c = 0; c < near.counts.size(); ++c) try_on(near.counts[c], best.counts[c]);
        for (std::size_t u = 0; u < near.points.size(); ++u) try_on(near.points[u], best.points[u]);
    }
    return near;
}

std::vector<Rival> rivals_of(Search& search, const Searched& searched, const Outfit& best) {
    std::vector<Rival> list;
    for (const auto& [item, found] : searched.without) {
        Rival rival;
        rival.item = item;
        rival.any = found.any;
        if (found.any) {
            rival.margin = found.margin.value;
            rival.outfit = search.outfit_of(found.candidate);
            constexpr double matters = 1e-3; // of a margin, however smooth it is
            const Candidate near = nearest_to(search, searched.best.candidate, found, item,
                                              std::max(searched.roughness, matters));
            rival.instead = more_in(search.outfit_of(near), best);
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
        const bool carried = !one.worn() && !one.consumed();
        if (carried || search.available(item)) continue;
        std::vector<std::string> reasons =
            unmet_needs(armoury, one, context.character, context.level, naked);
        if (reasons.empty()) reasons.emplace_back("it is left out by what is asked for");
        return fmt::format("{}: {}", one.id, join(reasons, "; "));
    }
    return {};
}

BestOfContext find_one(Search& search, const Judging& judging, const BestOptions& options,
                       const Context& context, const Recall& recall) {
    const Armoury& armoury = judging.armoury;
    BestOfContext result;
    result.context = context;
    search.enter(context);
    result.reason = why_not(search, armoury, context, options.limits.with);
    if (!result.reason.empty()) return result;
    result.candidates = search.count_candidates();
    const Searched searched = answered(judging, recall, search, options.bound_fights);
    if (!searched.best.any) {
        result.reason = search.error() ? search.error()->message : "nothing legal was found";
        return result;
    }
    result.any = true;
    result.searched = searched.without_bounding;
    result.roughness = searched.roughness;
    result.proven = searched.proven;
    result.margin = searched.best.margin;
    result.outfit = search.outfit_of(searched.best.candidate);
    result.rivals = rivals_of(search, searched, result.outfit);
    if (searched.bounded) tell_bound(*searched.bounded, result);
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

namespace {

void search_on_all_ranks(const Judging& judging, const BestOptions& options,
                         const std::vector<Context>& contexts, const auto& make_search,
                         const Watch& watch, const Recall& recall) {
    find_on_all_ranks(
        recall, contexts.size(), make_search, watch,
        [&](Search& search, std::size_t i, const Recall& known) {
            search.enter(contexts[i]);
            return !why_not(search, judging.armoury, contexts[i], options.limits.with).empty() ||
                   answer_kept(judging, known, search, options.bound_fights)
                       .known([](const Answer&, const Found&) {});
        },
        [&](Search& search, std::size_t i, const Recall& into) {
            search.enter(contexts[i]);
            (void)answered(judging, into, search, options.bound_fights);
        });
}

} // namespace

BestResult find_bests(const Judging& judging, const BestOptions& options, const Watch& watch,
                      const Recall& recall) {
    const Armoury& armoury = judging.armoury;
    const std::vector<Context> contexts = contexts_of(armoury, options);
    const auto make_search = [&] {
        Search search(armoury, judging.twins, watch);
        search.limit(options.limits);
        return search;
    };
    search_on_all_ranks(judging, options, contexts, make_search, watch, recall);
    std::vector<std::optional<BestOfContext>> found(contexts.size());
    for_each_with_worker(contexts.size(), make_search, watch, [&](Search& search, std::size_t i) {
        BestOfContext one = find_one(search, judging, options, contexts[i], recall);
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
