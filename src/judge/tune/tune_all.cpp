#include "judge/tune/tune_all.h"

#include "base/text.h"
#include "judge/tune/irreducible.h"
#include "judge/tune/numbers_tried.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

constexpr int most_rounds = 4;
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
    AllTuner(const ReadArmoury& read, const WhatIfs& what_ifs, const ContextScope& scope,
             Memory& memory, const Watch& watch)
        : read_(read),
          what_ifs_(what_ifs),
          scope_(scope),
          memory_(memory),
          watch_(watch) {}

    TuneAll run() {
        all_.before = audited(read_);
        all_.after = all_.before;
        while (all_.rounds < most_rounds && !watch_.stopped()) {
            const std::vector<ItemVerdict> unfair = all_.left();
            if (unfair.empty()) break;
            ++all_.rounds;
            if (!improve(unfair) || watch_.stopped()) break;
            all_.after = audited(changed());
        }
        if (all_.left().empty()) leave_out();
        for (TunedItem& one : all_.changes) one.after = verdict_in(all_.after, one.item);
        all_.partial = watch_.stopped();
        return std::move(all_);
    }

  private:
    AuditResult audited(const ReadArmoury& read) {
        return audit(read.armoury, AuditOptions{scope_, {}}, watch_, Recall(memory_, read));
    }

    [[nodiscard]] std::vector<std::string> what_ifs() const {
        std::vector<std::string> list;
        for (const TunedItem& one : all_.changes) list.push_back(one.number.what_if(one.then));
        return list;
    }

    [[nodiscard]] ReadArmoury changed() const { return what_ifs_.read(what_ifs()); }

    /// A change found early may have become needless by a later one. The item of the one left out
    /// is looked at first: that alone mostly tells.
    void leave_out() {
        const std::vector<std::string> words = what_ifs();
        const auto enough = [&](const std::vector<std::size_t>& kept, std::size_t left_out) {
            if (watch_.stopped()) return false;
            std::vector<std::string> some;
            for (const std::size_t one : kept) some.push_back(words[one]);
            const ReadArmoury read = what_ifs_.read(some);
            ItemJudge judge(read.armoury, scope_, all_.changes[left_out].item);
            const JudgedItem judged = judge.judge(read.armoury, {{}, watch_.stop});
            if (is_unfair(judged.verdict.verdict) || watch_.stopped()) return false;
            AuditResult result = audited(read);
            const bool fair = unfair_of(result).empty() && !watch_.stopped();
            if (fair) all_.after = std::move(result);
            return fair;
        };
        std::vector<TunedItem> needed;
        for (const std::size_t one : irreducible(all_.changes.size(), enough))
            needed.push_back(all_.changes[one]);
        all_.changes = std::move(needed);
        all_.irreducible = !watch_.stopped();
    }

    /// Finds a change for each that is still unfair with the changes so far; false: there was
    /// nothing to find.
    bool improve(const std::vector<ItemVerdict>& unfair) {
        bool better = false;
        for (const ItemVerdict& verdict : unfair) {
            if (watch_.stopped()) break;
            const ReadArmoury read = changed();
            ItemJudge judge(read.armoury, scope_, verdict.item);
            const JudgedItem present = judge.judge(read.armoury, watch_);
            std::erase_if(all_.unsolved,
                          [&](const TuneAll::Unsolved& one) { return one.item == verdict.item; });
            if (!is_unfair(present.verdict.verdict)) {
                better = true; // by a change that was made for another, as of a set
                continue;
            }
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

    const ReadArmoury& read_;
    const WhatIfs& what_ifs_;
    const ContextScope& scope_;
    Memory& memory_;
    const Watch& watch_;
    TuneAll all_;
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

TuneAll tune_all(const ReadArmoury& read, const WhatIfs& what_ifs, const ContextScope& scope,
                 Memory& memory, const Watch& watch) {
    return AllTuner(read, what_ifs, scope, memory, watch).run();
}

} // namespace panoplon
