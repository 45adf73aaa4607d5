// Judges one item of an armoury again and again while the armoury changes a little.
#pragma once

#include "base/watch.h"
#include "judge/audit/earlier_audit.h"
#include "judge/audit/measured_context.h"
#include "judge/search/contexts.h"
#include "judge/search/recall.h"

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

/// What a search of a context has to begin from.
struct BegunSearch {
    std::optional<Search::Findings> findings; ///< none where it was not searched yet
    double roughness = 0;                     ///< of the best

    template <class Archive>
    void serialize(Archive& archive) {
        archive(findings, roughness);
    }
};

class ItemJudge {
  public:
    /// Of the contexts of an audit of this scope, those of the item's window. `armoury`: any of the
    /// readings to come, which have the same characters, encounters and items, in the same order.
    ItemJudge(const Armoury& armoury, const ContextScope& scope, ItemId item);

    [[nodiscard]] const std::vector<Context>& contexts() const { return contexts_; }
    // All of them judge contexts on all ranks.
    //
    /// As an audit would, whatever was judged before. Where an audit of a context is known, it is
    /// taken from there; `recall` is for this armoury.
    [[nodiscard]] JudgedItem judge(const Armoury& armoury, const Watch& watch = {},
                                   const Recall& recall = {});
    /// At a glance, after a change of anything: from what an audit before it found. What that did
    /// not look at is searched.
    [[nodiscard]] JudgedItem judge_after(const Armoury& armoury, const EarlierAudit& earlier,
                                         const EarlierAudit::Changed& changed,
                                         const Watch& watch = {});

    /// After either of these, of an armoury that differs from theirs in one number of the item:
    /// from where those searches ended. Quicker than a whole search, nearly always as good, and the
    /// same whatever other numbers were judged between.
    [[nodiscard]] JudgedItem judge_near(const Armoury& armoury);
    /// Likewise, by what was found alone: nothing better is looked for, so that with the item the
    /// margins are often a little too low.
    [[nodiscard]] JudgedItem judge_at_a_glance(const Armoury& armoury);

  private:
    /// What comes of a search of one context; nothing where the item is not there.
    struct Judged {
        std::optional<ContextRow> context;
        std::optional<ItemContextRow> row;
        std::optional<BegunSearch> begun; ///< where there is something new to begin from

        template <class Archive>
        void serialize(Archive& archive) {
            archive(context, row, begun);
        }
    };
    /// Searches a context, and says what there is to begin from after that, where it is new.
    using SearchOne = std::function<std::optional<BegunSearch>(
        const Judging& judging, Search& search, std::size_t context)>;
    [[nodiscard]] JudgedItem judge_by(const Armoury& armoury, const Watch& watch,
                                      const SearchOne& search_one);
    /// Enters the world of a context in which the item is judged; false: it is not.
    [[nodiscard]] bool enter(const Judging& judging, Search& search, const Context& context) const;
    [[nodiscard]] BegunSearch search_whole(Search& search) const;
    [[nodiscard]] BegunSearch choose_among(const SeenOutfits& seen,
                                           const std::vector<bool>& changed, const Armoury& armoury,
                                           Search& search) const;

    ItemId item_;
    std::vector<Context> contexts_;
    std::vector<BegunSearch> begun_; ///< by context
};

} // namespace panoplon
