// Judges one item of an armoury again and again while the armoury changes a little.
#pragma once

#include "base/watch.h"
#include "judge/audit/measured_context.h"
#include "judge/search/contexts.h"

#include <functional>
#include <optional>
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
    /// Of the contexts of an audit of this scope, those of the item's window. `armoury`: any of the
    /// readings to come, which have the same characters, encounters and items, in the same order.
    ItemJudge(const Armoury& armoury, const ContextScope& scope, ItemId item);

    [[nodiscard]] const std::vector<Context>& contexts() const { return contexts_; }
    /// As an audit would, whatever was judged before.
    [[nodiscard]] JudgedItem judge(const Armoury& armoury, const Watch& watch = {});
    /// The same from where the searches before have ended: quicker, and of an armoury that differs
    /// in one number of the item nearly always as good.
    [[nodiscard]] JudgedItem judge_near(const Armoury& armoury);

  private:
    /// Of one context: what the whole search found, none where there was none yet; and the best
    /// with and without the item of the last one.
    struct Known {
        std::optional<Search::Findings> whole;
        std::vector<Candidate> last;
        double roughness = 0; ///< as the whole search found it
    };
    /// What comes of a search of one context; nothing where the item is not there.
    struct Judged {
        std::optional<ContextRow> context;
        std::optional<ItemContextRow> row;
    };
    using SearchOne = std::function<void(Search& search, std::size_t context)>;
    [[nodiscard]] JudgedItem judge_by(const Armoury& armoury, const Watch& watch,
                                      const SearchOne& search_one);

    ItemId item_;
    std::vector<Context> contexts_;
    std::vector<Known> known_; ///< by context
};

} // namespace panoplon
