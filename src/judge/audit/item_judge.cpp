#include "judge/audit/item_judge.h"

#include "base/parallel.h"
#include "judge/audit/context_rounds.h"

#include <algorithm>

namespace panoplon {

namespace {

/// The levels of a scope from the first at which an item is judged to the last.
LevelRange levels_of_window(const Armoury& armoury, ItemId item, const ContextScope& scope) {
    LevelRange levels{scope.levels.last + 1, scope.levels.last};
    for (int level = scope.levels.first; level <= scope.levels.last; level += scope.step) {
        if (!in_window(armoury, item, level)) continue;
        levels.first = std::min(levels.first, level);
        levels.last = level;
    }
    return levels;
}

} // namespace

ItemJudge::ItemJudge(const Armoury& armoury, const ContextScope& scope, ItemId item)
    : item_(item),
      scope_(scope),
      chains_(context_chains(armoury, scope)) {
    for (const ContextChain& chain : chains_) known_.emplace_back(chain.levels.size());
}

JudgedItem ItemJudge::judge(const Armoury& armoury, const Watch& watch) {
    const std::vector<PaperVerdict> paper = compare_on_paper(armoury);
    const std::vector<ItemId> groups = twin_groups(paper);
    ContextScope scope = scope_;
    scope.levels = levels_of_window(armoury, item_, scope_);
    const std::vector<ContextChain> narrow = context_chains(armoury, scope);
    std::vector<JudgedItem> judged(chains_.size());
    (void)measure_contexts(armoury, groups, scope, {{}, watch.stop}, {},
                           [&](std::size_t c, std::size_t l, const Search& search) {
                               const ContextChain& of = narrow[c];
                               const auto chain = static_cast<std::size_t>(
                                   std::find_if(chains_.begin(), chains_.end(),
                                                [&](const ContextChain& one) {
                                                    return one.character == of.character &&
                                                           one.encounter == of.encounter;
                                                }) -
                                   chains_.begin());
                               const auto& levels = chains_[chain].levels;
                               const auto level =
                                   std::find(levels.begin(), levels.end(), of.levels[l]);
                               if (!search.available(item_)) return;
                               note(armoury, groups, search, item_, judged[chain]);
                               known_[chain][static_cast<std::size_t>(level - levels.begin())] = {
                                   search.findings_for(item_), {}};
                           });
    return gathered(armoury, paper[item_.index()], judged);
}

JudgedItem ItemJudge::judge_near(const Armoury& armoury) {
    const std::vector<PaperVerdict> paper = compare_on_paper(armoury);
    const std::vector<ItemId> groups = twin_groups(paper);
    std::vector<JudgedItem> judged(chains_.size());
    for_each_in_parallel(chains_.size(), [&](std::size_t chain) {
        search_again(armoury, groups, chain, judged[chain]);
    });
    return gathered(armoury, paper[item_.index()], judged);
}

void ItemJudge::note(const Armoury& armoury, const std::vector<ItemId>& groups,
                     const Search& search, ItemId item, JudgedItem& into) {
    into.contexts.push_back(context_row(armoury, search));
    if (!into.contexts.back().sound()) return;
    ItemContextRow row = measure_item(armoury, groups, search, item);
    row.context = into.contexts.size() - 1;
    into.rows.push_back(row);
}

JudgedItem ItemJudge::gathered(const Armoury& armoury, const PaperVerdict& paper,
                               std::vector<JudgedItem>& chains) const {
    JudgedItem judged;
    for (JudgedItem& chain : chains) {
        for (ItemContextRow& row : chain.rows) {
            row.context += judged.contexts.size();
            judged.rows.push_back(row);
        }
        std::move(chain.contexts.begin(), chain.contexts.end(),
                  std::back_inserter(judged.contexts));
    }
    judged.verdict = judge_item(armoury, item_, paper, judged.rows, judged.contexts);
    return judged;
}

/// Where a change of the item's level lets it be judged at a level for the first time, the context
/// is searched whole.
void ItemJudge::search_again(const Armoury& armoury, const std::vector<ItemId>& groups,
                             std::size_t chain, JudgedItem& into) {
    Search search(armoury, groups);
    for (std::size_t l = 0; l < chains_[chain].levels.size(); ++l) {
        const int level = chains_[chain].levels[l];
        if (!in_window(armoury, item_, level)) continue;
        search.enter({chains_[chain].character, level, chains_[chain].encounter}, {});
        if (!search.available(item_)) continue;
        Known& known = known_[chain][l];
        if (known.whole)
            (void)search.find_again(item_, *known.whole, known.last);
        else if (search.find_best())
            (void)measure_context(armoury, groups, search);
        note(armoury, groups, search, item_, into);
        Search::Findings found = search.findings_for(item_);
        known.last = found.candidates;
        if (!known.whole) known.whole = std::move(found);
    }
}

} // namespace panoplon
