#include "judge/audit/item_judge.h"

#include "base/parallel.h"
#include "judge/audit/measuring.h"

#include <algorithm>

namespace panoplon {

ItemJudge::ItemJudge(const Armoury& armoury, const ContextScope& scope, ItemId item)
    : item_(item),
      contexts_(contexts_of(armoury, scope)),
      begun_(contexts_.size()) {}

void ItemJudge::search_whole(Search& search, Begun& begun) const {
    if (search.find_best()) search.find_for(item_);
    search.settle();
    begun = {search.findings_for(item_), search.roughness_of_best()};
}

/// `changed`: by item, as Search has it.
void ItemJudge::choose_among(const SeenOutfits& seen, const std::vector<bool>& changed,
                             const Armoury& armoury, Search& search, Begun& begun) const {
    std::vector<Found> outfits = seen.read(AnswerNames(armoury, search.wardrobe()));
    const Context context = search.context();
    if (!search.choose_among(outfits, changed)) { // none of them is legal any more
        search.enter(context);
        return search_whole(search, begun);
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
    begun = {search.findings_around(item_), search.roughness_of_best()};
}

JudgedItem ItemJudge::judge(const Armoury& armoury, const Watch& watch, const Recall& recall) {
    const std::vector<bool> none(armoury.items.size(), false);
    return judge_by(
        armoury, watch, [&](const Judging& judging, Search& search, std::size_t context) {
            const auto seen = recall.memory ? seen_by_audit(judging, recall, search) : std::nullopt;
            if (seen)
                choose_among(*seen, none, armoury, search, begun_[context]);
            else
                search_whole(search, begun_[context]);
        });
}

JudgedItem ItemJudge::judge_after(const Armoury& armoury, const EarlierAudit& earlier,
                                  const EarlierAudit::Changed& changed, const Watch& watch) {
    return judge_by(armoury, watch, [&](const Judging&, Search& search, std::size_t context) {
        const SeenOutfits* seen =
            earlier.find(armoury, contexts_[context], search.limits().highest_rank);
        if (seen)
            choose_among(*seen, changed.in(contexts_[context]), armoury, search, begun_[context]);
        else
            search_whole(search, begun_[context]);
    });
}

/// Where a change of the item's level lets it be judged at a level for the first time, the context
/// is searched whole.
JudgedItem ItemJudge::judge_near(const Armoury& armoury) {
    return judge_by(armoury, {}, [&](const Judging&, Search& search, std::size_t context) {
        Begun& begun = begun_[context];
        if (begun.findings)
            (void)search.find_again(item_, *begun.findings);
        else
            search_whole(search, begun);
    });
}

JudgedItem ItemJudge::judge_at_a_glance(const Armoury& armoury) {
    return judge_by(armoury, {}, [&](const Judging&, Search& search, std::size_t context) {
        Begun& begun = begun_[context];
        if (begun.findings)
            (void)search.fight_again(*begun.findings);
        else
            search_whole(search, begun);
    });
}

JudgedItem ItemJudge::judge_by(const Armoury& armoury, const Watch& watch,
                               const SearchOne& search_one) {
    const Judging judging(armoury);
    std::vector<Judged> judged(contexts_.size());
    for_each_with_worker(
        contexts_.size(), [&] { return Search(armoury, judging.twins); }, {{}, watch.stop},
        [&](Search& search, std::size_t i) {
            const Context& context = contexts_[i];
            if (!may_have_its_time(armoury, item_, context.level)) return;
            Limits limits;
            limits.highest_rank = world_of(judging, item_, context.character, context.level);
            search.limit(std::move(limits));
            search.enter(context);
            if (!search.available(item_) || age_in(judging, search, item_) != Age::in_time) return;
            search_one(judging, search, i);
            judged[i].context = context_row(armoury, search, begun_[i].roughness);
            if (judged[i].context->sound())
                judged[i].row = measure_item(judging, search, begun_[i].roughness, item_);
        });
    JudgedItem all;
    for (Judged& one : judged) {
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
