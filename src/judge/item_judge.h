// Judges one item of an armoury again and again while the armoury changes a little.
#pragma once

#include "judge/measured_context.h"
#include "judge/scope.h"

#include <vector>

namespace panoplon {

/// What one item comes to in the contexts of its window.
struct JudgedItem {
    ItemVerdict verdict;
    std::vector<ContextRow> contexts;
    std::vector<ItemContextRow> rows;
};

class ItemJudge {
  public:
    /// Of the contexts of an audit of this scope, those of the item's window. `armoury`: any of the readings to come, which
    /// have the same characters, encounters and items, in the same order.
    ItemJudge(const Armoury& armoury, const ContextScope& scope, ItemId item);

    /// As an audit would, whatever was judged before.
    [[nodiscard]] JudgedItem judge(const Armoury& armoury);
    /// The same from where the searches before have ended: quicker, and of an armoury that differs
    /// in one number of the item nearly always as good.
    [[nodiscard]] JudgedItem judge_near(const Armoury& armoury);

  private:
    /// By chain, then by level: what the last search found; none: not searched yet.
    using Found = std::vector<std::vector<std::optional<Search::Findings>>>;
    JudgedItem gathered(const Armoury& armoury, const PaperVerdict& paper,
                        std::vector<JudgedItem>& chains) const;
    void search_again(const Armoury& armoury, const std::vector<ItemId>& groups, std::size_t chain,
                      JudgedItem& into);
    static void note(const Armoury& armoury, const std::vector<ItemId>& groups,
                     const Search& search, ItemId item, JudgedItem& into);

    ItemId item_;
    ContextScope scope_;
    std::vector<ContextChain> chains_;
    Found found_;
};

} // namespace panoplon
