#include "judge/tune/tune_all.h"

#include "base/text.h"
#include "judge/tune/irreducible.h"
#include "judge/tune/numbers_tried.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr int most_rounds = 6;

std::vector<ItemVerdict> unfair_of(const AuditResult& result) {
    std::vector<ItemVerdict> list;
    for (const ItemVerdict& one : result.items)
        if (one.calls() && is_unfair(one.verdict)) list.push_back(one);
    for (const ConsumableVerdict& one : result.consumables)
        if (one.judged.calls() && is_unfair(one.judged.verdict)) list.push_back(one.judged);
    std::stable_partition(list.begin(), list.end(),
                          [](const ItemVerdict& one) { return one.verdict == Verdict::dominant; });
    return list;
}

Verdict verdict_in(const AuditResult& result, ItemId item) {
    for (const ItemVerdict& one : result.items)
        if (one.item == item) return one.verdict;
    for (const ConsumableVerdict& one : result.consumables)
        if (one.judged.item == item) return one.judged.verdict;
    return Verdict::unjudged;
}

class AllTuner {
  public:
    AllTuner(const WhatIfs& what_ifs, const ContextScope& scope, Memory& memory, Stages& stages)
        : what_ifs_(what_ifs),
          scope_(scope),
          memory_(memory),
          stages_(stages) {}

    TuneAll run() {
        look_whole();
        all_.before = all_.after;
        while (!all_.left().empty() && all_.rounds < most_rounds && improve()) look_whole();
        for (TunedItem& one : all_.changes) one.after = verdict_in(all_.after, one.item);
        all_.irreducible = all_.irreducible && all_.left().empty();
        all_.partial = watch_.stopped();
        return std::move(all_);
    }

  private:
    /// An audit of all changes so far. Until the next one, all is judged from what it found.
    void look_whole() {
        searched_ = what_ifs_.read(what_ifs());
        all_.after = in_stage(stages_, "contexts", [&](const Watch& watch) {
            watch_ = watch;
            return audit(searched_.armoury, AuditOptions{scope_, {}}, watch,
                         Recall(memory_, searched_));
        });
        earlier_.emplace(searched_, all_.after);
    }

    [[nodiscard]] std::vector<std::string> what_ifs() const {
        std::vector<std::string> list;
        for (const TunedItem& one : all_.changes) list.push_back(one.number.what_if(one.then));
        return list;
    }

    /// Changes what is unfair, and what that leaves or makes unfair of it, until nothing is;
    /// false: there was nothing to find.
    bool improve() {
        bool better = false;
        std::vector<ItemVerdict> unfair = all_.left();
        while (!unfair.empty() && all_.rounds < most_rounds) {
            ++all_.rounds;
            const bool changed = in_stage(stages_, "items", [&](const Watch& watch) {
                watch_ = watch;
                return change_each(unfair);
            });
            if (!changed) break;
            better = true;
            unfair = unfair_at_a_glance(what_ifs_.read(what_ifs()));
        }
        if (better && all_.unsolved.empty())
            stages_.run("changes", [&](const Watch& watch) {
                watch_ = watch;
                leave_out();
            });
        return better && !watch_.stopped();
    }

    /// What was unfair by the last audit, or is changed. Of anything else a glance alone is not
    /// believed: with something new beside it the best without it is often another.
    [[nodiscard]] bool is_known_unfair(ItemId item) const {
        return is_unfair(verdict_in(all_.after, item)) ||
               std::any_of(all_.changes.begin(), all_.changes.end(),
                           [&](const TunedItem& change) { return change.item == item; });
    }

    [[nodiscard]] JudgedItem judged(const ReadArmoury& read, ItemJudge& judge, ItemId item) const {
        const Watch quiet = {{}, watch_.stop};
        if (!is_known_unfair(item)) return judge.judge(read.armoury, quiet);
        return judge.judge_after(read.armoury, *earlier_,
                                 earlier_->changed(read.armoury, content_of(read)), quiet);
    }

    /// Some of it may be fair by a closer look.
    [[nodiscard]] std::vector<ItemVerdict> unfair_at_a_glance(const ReadArmoury& read) const {
        return unfair_of(audit_again(read.armoury, AuditOptions{scope_, {}}, *earlier_,
                                     {{}, watch_.stop}, Recall(memory_, read)));
    }

    /// A change found early may have become needless by a later one. The item of the one left out
    /// is looked at first: that alone mostly tells.
    void leave_out() {
        const std::vector<std::string> words = what_ifs();
        const auto enough = [&](const std::vector<std::size_t>& kept, std::size_t left_out) {
            if (watch_.stopped()) return false;
            if (watch_.progress && left_out > 0) watch_.progress(left_out, words.size());
            std::vector<std::string> some;
            for (const std::size_t one : kept) some.push_back(words[one]);
            const ReadArmoury read = what_ifs_.read(some);
            const auto unfair = [&](ItemId item) {
                ItemJudge judge(read.armoury, scope_, item);
                return is_unfair(judged(read, judge, item).verdict.verdict);
            };
            if (unfair(all_.changes[left_out].item)) return false;
            const std::vector<ItemVerdict> seen = unfair_at_a_glance(read);
            const bool none = std::none_of(seen.begin(), seen.end(), [&](const ItemVerdict& one) {
                return is_known_unfair(one.item) && unfair(one.item);
            });
            return none && !watch_.stopped();
        };
        std::vector<TunedItem> needed;
        for (const std::size_t one : irreducible(all_.changes.size(), enough))
            needed.push_back(all_.changes[one]);
        all_.changes = std::move(needed);
        all_.irreducible = !watch_.stopped();
    }

    /// Finds a change for each that is still unfair with the changes so far; false: there was
    /// nothing to find.
    bool change_each(const std::vector<ItemVerdict>& unfair) {
        bool better = false;
        for (std::size_t i = 0; i < unfair.size() && !watch_.stopped(); ++i) {
            const ItemVerdict& verdict = unfair[i];
            if (watch_.progress && i > 0) watch_.progress(i, unfair.size());
            const ReadArmoury read = what_ifs_.read(what_ifs());
            ItemJudge judge(read.armoury, scope_, verdict.item);
            const JudgedItem present = judged(read, judge, verdict.item);
            std::erase_if(all_.unsolved,
                          [&](const TuneAll::Unsolved& one) { return one.item == verdict.item; });
            // It may be fair by a change that was made for another, as of a set.
            if (!is_unfair(present.verdict.verdict)) continue;
            std::vector<std::string> tried;
            if (auto change = smallest_change(read, judge, present, tried)) {
                take(std::move(*change));
                better = true;
            } else {
                all_.unsolved.push_back({verdict.item, verdict.verdict, std::move(tried)});
            }
        }
        return better;
    }

    /// A number that was changed before is changed once more, against what it was at first.
    void take(TunedItem change) {
        for (TunedItem& before : all_.changes)
            if (before.number.name() == change.number.name() &&
                before.number.id == change.number.id) {
                before.then = change.then;
                before.sentence = change.sentence;
                return;
            }
        all_.changes.push_back(std::move(change));
    }

    std::optional<TunedItem> smallest_change(const ReadArmoury& read, ItemJudge& judge,
                                             const JudgedItem& present,
                                             std::vector<std::string>& tried) {
        const NumbersTried numbers = try_numbers(read, what_ifs_.with(what_ifs()), judge, present,
                                                 few_numbers, {{}, watch_.stop});
        for (const Tuning& one : numbers.tried) tried.push_back(one.number.name());
        if (!numbers.smallest) return std::nullopt;
        const Tuning& best = numbers.tried[*numbers.smallest];
        return TunedItem{present.verdict.item,
                         present.verdict.verdict,
                         best.number,
                         *best.proposal,
                         Verdict::sound,
                         fmt::format("fair from {} to {}", shortest(best.low->value),
                                     shortest(best.high->value))};
    }

    const WhatIfs& what_ifs_;
    const ContextScope& scope_;
    Memory& memory_;
    Stages& stages_;
    Watch watch_; ///< of the stage
    TuneAll all_;
    ReadArmoury searched_;                ///< what all_.after is an audit of
    std::optional<EarlierAudit> earlier_; ///< the same, to judge by
};

} // namespace

bool is_unfair(Verdict verdict) {
    return verdict == Verdict::dominant || verdict == Verdict::useless ||
           verdict == Verdict::burden;
}

std::vector<ItemVerdict> TuneAll::left() const {
    return unfair_of(after);
}

std::vector<NumberChange> TuneAll::numbers() const {
    std::vector<NumberChange> list;
    for (const TunedItem& one : changes) list.push_back(one.number.change(one.then));
    return list;
}

TuneAll tune_all(const WhatIfs& what_ifs, const ContextScope& scope, Memory& memory,
                 Stages& stages) {
    return AllTuner(what_ifs, scope, memory, stages).run();
}

} // namespace panoplon
