#include "judge/tune/tune_all.h"

#include "base/text.h"
#include "judge/tune/irreducible.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

constexpr int most_rounds = 4;
/// So many numbers of an item are tried before the smallest change is taken.
constexpr std::size_t most_numbers = 4;

struct Weighty {
    double points; ///< what it costs of a budget
    std::string word;
};

void list_modifiers(const Armoury& armoury, const Modifiers& modifiers, const std::string& where,
                    std::vector<Weighty>& into) {
    for (const Change change : {Change::add, Change::percent, Change::times})
        for (const Amount& amount : modifiers.of(change)) {
            const Stat& stat = armoury.at(amount.stat);
            const double size = change == Change::times ? (amount.amount - 1) * 100 : amount.amount;
            if (stat.better != Better::neither)
                into.push_back({std::abs(size * std::max(stat.cost, 0.1)),
                                fmt::format("{}{}.{}", where,
                                            change_names[static_cast<int>(change)], stat.id)});
        }
}

void sort_by_points(std::vector<Weighty>& list) {
    std::stable_sort(list.begin(), list.end(),
                     [](const Weighty& a, const Weighty& b) { return a.points > b.points; });
}

/// The stat that most others in its slot add.
std::string usual_stat(const Armoury& armoury, const Item& item) {
    std::map<StatId, int> counts;
    for (const Item& other : armoury.items)
        if (other.slot == item.slot && &other != &item)
            for (const Amount& amount : other.modifiers.add)
                if (amount.amount > 0) ++counts[amount.stat];
    const auto most =
        std::max_element(counts.begin(), counts.end(),
                         [](const auto& a, const auto& b) { return a.second < b.second; });
    return most == counts.end() ? std::string() : "add." + armoury.at(most->first).id;
}

/// Clearly heavier than the one in the middle of its slot.
bool is_heavy(const Armoury& armoury, const Item& item) {
    std::vector<Thousandths> weights;
    for (const Item& other : armoury.items)
        if (other.slot == item.slot && (other.worn() || other.use)) weights.push_back(other.weight);
    std::sort(weights.begin(), weights.end());
    return item.weight * 2 > weights[weights.size() / 2] * 3;
}

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
        const ItemVerdict& verdict = present.verdict;
        const WhatIfs from = what_ifs_.with(what_ifs());
        std::optional<TunedItem> best;
        double least = 0;
        for (const std::string& word : numbers_of(read.armoury, verdict.item)) {
            if (tried.size() == most_numbers || watch_.stopped()) break;
            const Result<TunedNumber> number = find_number(read, verdict.item, word);
            if (!number.ok()) continue;
            tried.push_back(number.value().name());
            const Tuning tuning =
                tune(read, from, number.value(), judge, present, {{}, watch_.stop});
            if (!tuning.proposal) continue;
            const double size = std::max(std::abs(tuning.number.now),
                                         resolution(read.armoury, tuning.number) * 100);
            const double change = std::abs(*tuning.proposal - tuning.number.now) / size;
            if (best && change >= least) continue;
            least = change;
            best = {verdict.item,
                    verdict.verdict,
                    tuning.number,
                    *tuning.proposal,
                    Verdict::sound,
                    fmt::format("fair from {} to {}", shortest(tuning.low->value),
                                shortest(tuning.high->value))};
        }
        return best;
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

std::vector<std::string> numbers_of(const Armoury& armoury, ItemId id) {
    const Item& item = armoury.at(id);
    std::vector<Weighty> own, borne;
    list_modifiers(armoury, item.modifiers, "", own);
    if (item.use) {
        for (const auto& [pool, amount] : item.use->restore)
            own.push_back({std::abs(amount), fmt::format("use.restore.{}", armoury.at(pool).id)});
        if (item.use->effect.given()) {
            const Effect& effect = armoury.at(item.use->effect);
            list_modifiers(armoury, effect.modifiers, fmt::format("effect.{}.", effect.id), borne);
        }
    }
    if (item.set.given()) {
        const ItemSet& set = armoury.at(item.set);
        for (std::size_t s = 0; s < set.steps.size(); ++s)
            list_modifiers(armoury, set.steps[s].modifiers,
                           fmt::format("set.{}.step.{}.", set.id, s + 1), borne);
    }
    sort_by_points(own);
    sort_by_points(borne);
    constexpr std::size_t most_own = 2;
    std::vector<std::string> words;
    for (std::size_t i = 0; i < std::min(own.size(), most_own); ++i) words.push_back(own[i].word);
    if (!borne.empty()) words.push_back(borne.front().word);
    if (armoury.carry.capacity.given() && is_heavy(armoury, item)) words.emplace_back("weight");
    if (item.worn())
        if (const std::string usual = usual_stat(armoury, item);
            !usual.empty() && std::find(words.begin(), words.end(), usual) == words.end())
            words.push_back(usual);
    return words;
}

TuneAll tune_all(const ReadArmoury& read, const WhatIfs& what_ifs, const ContextScope& scope,
                 Memory& memory, const Watch& watch) {
    return AllTuner(read, what_ifs, scope, memory, watch).run();
}

} // namespace panoplon
