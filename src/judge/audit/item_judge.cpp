#include "judge/audit/item_judge.h"

#include "base/compute_each.h"
#include "judge/audit/context_bytes.h"
#include "judge/audit/measuring.h"
#include "judge/search/shared_answers.h"

#include <algorithm>

namespace panoplon {

ItemJudge::ItemJudge(const Armoury& armoury, const ContextScope& scope, ItemId item)
    : item_(item),
      contexts_(contexts_of(armoury, scope)),
      begun_(contexts_.size()) {}

BegunSearch ItemJudge::search_whole(Search& search) const {
    if (search.find_best()) search.find_for(item_);
    search.settle();
    return {search.findings_for(item_), search.roughness_of_best()};
}

/// `changed`: by item, as Search has it.
BegunSearch ItemJudge::choose_among(const SeenOutfits& seen, const std::vector<bool>& changed,
                                    const Armoury& armoury, Search& search) const {
    std::vector<Found> outfits = seen.read(AnswerNames(armoury, search.wardrobe()));
    const Context context = search.context();
    if (!search.choose_among(outfits, changed)) { // none of them is legal any more
        search.enter(context);
        return search_whole(search);
    }
    bool may_differ = changed.empty();
    for (std::size_t i = 0; i < changed.size(); ++i)
        may_differ = may_differ || (changed[i] && search.available(ItemId(i)));
    if (may_differ) { // what is best without it may be something new
        const Candidate best = search.best().candidate;
        search.enter(context);
        (void)search.begin_with(best);
    }
    search.find_for(item_);
    search.settle();
    return {search.findings_around(item_), search.roughness_of_best()};
}

JudgedItem ItemJudge::judge(const Armoury& armoury, const Watch& watch, const Recall& recall) {
    const std::vector<bool> none(armoury.items.size(), false);
    const auto seen_before = [&](const Judging& judging, Search& search, const Recall& known) {
        return known.memory ? seen_by_audit(judging, known, search) : std::nullopt;
    };
    const Judging judged(armoury);
    tell_all_ranks(
        recall, contexts_.size(), [&] { return Search(armoury, judged.twins); }, watch,
        [&](Search& search, std::size_t i, const Recall& known) {
            return enter(judged, search, contexts_[i]) && seen_before(judged, search, known);
        });
    return judge_by(armoury, watch, [&](const Judging& judging, Search& search, std::size_t) {
        const auto seen = seen_before(judging, search, recall);
        return seen ? choose_among(*seen, none, armoury, search) : search_whole(search);
    });
}

JudgedItem ItemJudge::judge_after(const Armoury& armoury, const EarlierAudit& earlier,
                                  const EarlierAudit::Changed& changed, const Watch& watch) {
    return judge_by(armoury, watch, [&](const Judging&, Search& search, std::size_t context) {
        const SeenOutfits* seen =
            earlier.find(armoury, contexts_[context], search.limits().highest_rank);
        return seen ? choose_among(*seen, changed.in(contexts_[context]), armoury, search)
                    : search_whole(search);
    });
}

/// Where a change of the item's level lets it be judged at a level for the first time, the context
/// is searched whole.
JudgedItem ItemJudge::judge_near(const Armoury& armoury) {
    return judge_by(
        armoury, {},
        [&](const Judging&, Search& search, std::size_t context) -> std::optional<BegunSearch> {
            const BegunSearch& begun = begun_[context];
            if (!begun.findings) return search_whole(search);
            (void)search.find_again(item_, *begun.findings);
            return std::nullopt;
        });
}

JudgedItem ItemJudge::judge_at_a_glance(const Armoury& armoury) {
    return judge_by(
        armoury, {},
        [&](const Judging&, Search& search, std::size_t context) -> std::optional<BegunSearch> {
            const BegunSearch& begun = begun_[context];
            if (!begun.findings) return search_whole(search);
            (void)search.fight_again(*begun.findings);
            return std::nullopt;
        });
}

bool ItemJudge::enter(const Judging& judging, Search& search, const Context& context) const {
    if (!may_have_its_time(judging.armoury, item_, context.level)) return false;
    Limits limits;
    limits.highest_rank = world_of(judging, item_, context.character, context.level);
    search.limit(std::move(limits));
    search.enter(context);
    return search.available(item_) && age_in(judging, search, item_) == Age::in_time;
}

JudgedItem ItemJudge::judge_by(const Armoury& armoury, const Watch& watch,
                               const SearchOne& search_one) {
    const Judging judging(armoury);
    std::vector<std::optional<Judged>> judged = compute_each(
        contexts_.size(), [&] { return Search(armoury, judging.twins); }, {{}, watch.stop},
        [&](Search& search, std::size_t i) {
            Judged one;
            if (!enter(judging, search, contexts_[i])) return one;
            one.begun = search_one(judging, search, i);
            const double roughness = (one.begun ? *one.begun : begun_[i]).roughness;
            one.context = context_row(armoury, search, roughness);
            if (one.context->sound()) one.row = measure_item(judging, search, roughness, item_);
            return one;
        });
    JudgedItem all;
    for (std::size_t i = 0; i < judged.size(); ++i) {
        if (!judged[i]) continue;
        Judged& one = *judged[i];
        if (one.begun) begun_[i] = std::move(*one.begun);
        if (!one.context) continue;
        if (one.row) {
            one.row->context = all.contexts.size();
            all.rows.push_back(*one.row);
        }
        all.contexts.push_back(std::move(*one.context));
    }
    all.verdict = judge_item(judging, item_, all.rows, all.contexts);
    return all;
}

} // namespace panoplon
