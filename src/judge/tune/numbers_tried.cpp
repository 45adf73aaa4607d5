#include "judge/tune/numbers_tried.h"

#include "judge/paper/peers.h"
#include "model/budget.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <limits>
#include <map>

namespace panoplon {

namespace {

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
        if (other.slot == item.slot && (other.worn() || other.consumed()))
            weights.push_back(other.weight);
    std::sort(weights.begin(), weights.end());
    return item.weight * 2 > weights[weights.size() / 2] * 3;
}

std::vector<ItemId> poor_rivals_of(const Armoury& armoury, ItemId item) {
    const Peers peers(armoury);
    BudgetMeter meter(armoury);
    std::vector<ItemId> rivals;
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        if (ItemId(i) == item || !peers.is_rival(ItemId(i), item)) continue;
        const std::optional<BudgetUse> budget = meter(armoury.items[i]);
        if (!budget || budget->share() >= 1 - armoury.budget.tolerance) return {};
        rivals.emplace_back(i);
    }
    return rivals;
}

} // namespace

std::vector<std::string> numbers_of(const Armoury& armoury, ItemId id, std::size_t most_own) {
    const Item& item = armoury.at(id);
    std::vector<Weighty> own, borne;
    list_modifiers(armoury, item.modifiers, "", own);
    if (item.use) {
        for (const auto& [pool, amount] : item.use->restore)
            if (amount.fixed())
                own.push_back(
                    {std::abs(amount.number), fmt::format("use.restore.{}", armoury.at(pool).id)});
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

std::optional<Verdict> verdict_without(const Tuning& tuning) {
    if (tuning.number.kind == "item") return std::nullopt;
    const double nothing = tuning.number.key.find("times.") != std::string::npos ? 1 : 0;
    for (const TunePoint& point : tuning.points)
        if (point.value == nothing && point.refused.empty()) return point.verdict.verdict;
    return std::nullopt;
}

NumbersTried try_numbers(const ReadArmoury& read, const WhatIfs& what_ifs, ItemJudge& judge,
                         const JudgedItem& present, HowMany how_many, const Watch& watch) {
    const ItemId item = present.verdict.item;
    NumbersTried numbers;
    if (fit_of(present.verdict.verdict) == Fit::unjudged) return numbers;
    if (fit_of(present.verdict.verdict) == Fit::dominant)
        numbers.poor_rivals = poor_rivals_of(read.armoury, item);
    const std::vector<std::string> words = numbers_of(read.armoury, item, how_many.own);
    double least = std::numeric_limits<double>::infinity();
    for (const std::string& word : words) {
        if (numbers.tried.size() == how_many.numbers || watch.stopped()) break;
        const Result<TunedNumber> found = find_number(read, item, word);
        if (!found.ok()) continue;
        const TunedNumber& number = found.value();
        const double size =
            number.now != 0 ? std::abs(number.now) : resolution(read.armoury, number) * 100;
        TuneScope scope{false};
        if (!how_many.to_show) scope.furthest = least * size;
        numbers.tried.push_back(
            tune(read, what_ifs, number, judge, present, scope, {{}, watch.stop}));
        if (watch.progress)
            watch.progress(numbers.tried.size(), std::min(words.size(), how_many.numbers));
        const Tuning& tuning = numbers.tried.back();
        if (!tuning.proposal) continue;
        const double change = std::abs(*tuning.proposal - number.now) / size;
        if (change >= least) continue;
        least = change;
        numbers.smallest = numbers.tried.size() - 1;
    }
    if (how_many.to_show && numbers.smallest) {
        Tuning& shown = numbers.tried[*numbers.smallest];
        shown = tune(read, what_ifs, shown.number, judge, present, {}, {{}, watch.stop});
        if (!shown.proposal) numbers.smallest.reset();
    }
    return numbers;
}

} // namespace panoplon
