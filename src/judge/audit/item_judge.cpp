#include "judge/audit/item_judge.h"

#include "base/parallel.h"

#include <algorithm>

namespace panoplon {

ItemJudge::ItemJudge(const Armoury& armoury, const ContextScope& scope, ItemId item)
    : item_(item),
      contexts_(contexts_of(armoury, scope)),
      known_(contexts_.size()) {}

JudgedItem ItemJudge::judge(const Armoury& armoury, const Watch& watch) {
    return judge_by(armoury, watch, [&](Search& search, std::size_t context) {
        if (search.find_best()) search.find_for(item_);
        search.settle();
        known_[context] = {search.findings_for(item_), {}, search.roughness_of_best()};
    });
}

/// Where a change of the item's level lets it be judged at a level for the first time, the context
/// is searched whole.
JudgedItem ItemJudge::judge_near(const Armoury& armoury) {
    return judge_by(armoury, {}, [&](Search& search, std::size_t context) {
        Known& known = known_[context];
        if (known.whole) {
            (void)search.find_again(item_, *known.whole, known.last);
        } else if (search.find_best()) {
            search.find_for(item_);
            search.settle();
        }
        Search::Findings found = search.findings_for(item_);
        known.last = found.candidates;
        if (!known.whole) {
            known.whole = std::move(found);
            known.roughness = search.roughness_of_best();
        }
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
            search_one(search, i);
            judged[i].context = context_row(armoury, search, known_[i].roughness);
            if (judged[i].context->sound())
                judged[i].row = measure_item(judging, search, known_[i].roughness, item_);
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
