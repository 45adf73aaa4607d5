#include "judge/paper/paper.h"

#include "base/parallel.h"
#include "judge/paper/gear_sources.h"
#include "judge/paper/no_worse.h"
#include "outfit/needs.h"
#include "outfit/outfit.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <map>
#include <string>
#include <tuple>
#include <utility>

namespace panoplon {

namespace {

/// A trigger as what it does, so that two can be found equal.
using PaperTrigger = std::tuple<int, std::int32_t, double, std::string, double, bool>;

/// An item with its tier: one row of numbers (adds, percents, times by stat) and sorted lists.
struct PaperItem {
    const Item* item = nullptr;
    std::vector<double> numbers;
    std::vector<CharacterId> wearers; ///< by calling and character; their stats are compared apart
    std::vector<ActionId> actions;
    std::vector<SlotId> sockets;
    std::vector<PaperTrigger> triggers;
    std::vector<std::pair<std::int32_t, std::int64_t>> contents;
    std::vector<double> worst = {}, best = {}; ///< as `numbers`; empty: all finds are alike
};

template <class List>
List sorted(List list) {
    std::sort(list.begin(), list.end());
    return list;
}

std::vector<CharacterId> wearers_of(const Armoury& armoury, const Item& item) {
    std::vector<CharacterId> list;
    for (std::size_t c = 0; c < armoury.characters.size(); ++c)
        if (is_among(armoury, item.needs, CharacterId(c))) list.emplace_back(c);
    return list;
}

/// Moves both ends of one number, by what the worse and the better of a draw differ from its
/// middle.
struct Ends {
    PaperItem& paper;
    Better direction;

    void move(std::size_t column, double low, double high) const {
        if (direction == Better::lower) std::swap(low, high);
        paper.worst[column] += low;
        paper.best[column] += high;
    }
    void multiply(std::size_t column, double low, double high) const {
        if (direction == Better::lower) std::swap(low, high);
        paper.worst[column] *= low;
        paper.best[column] *= high;
    }
};

double amount_of(const std::vector<Amount>& list, StatId stat, double otherwise) {
    for (const Amount& amount : list)
        if (amount.stat == stat) return amount.amount;
    return otherwise;
}

/// Of what is drawn for finds: of each number by itself the worst and the best.
void find_ends(const Armoury& armoury, const Item& item, PaperItem& paper) {
    const std::size_t stats = armoury.stats.size();
    const double factor = item.tier.given() ? armoury.at(item.tier).stat_factor : 1;
    paper.worst = paper.best = paper.numbers;
    for (const Roll& roll : item.rolls) {
        const double half = std::abs(roll.best - roll.worst) / 2 * factor;
        Ends{paper, armoury.at(roll.stat).better}.move(roll.stat.index(), -half, half);
    }
    for (const AffixDraw& draw : item.affixes)
        for (const Change change : {Change::add, Change::percent, Change::times})
            for (const Amount& middle : draw.modifiers.of(change)) {
                const bool times = change == Change::times;
                if (times && middle.amount == 0) continue; // of each of them
                double low = HUGE_VAL, high = -HUGE_VAL;
                for (const AffixId affix : draw.affixes) {
                    const double amount = amount_of(armoury.at(affix).modifiers.of(change),
                                                    middle.stat, times ? 1 : 0);
                    low = std::min(low, amount);
                    high = std::max(high, amount);
                }
                const Ends ends{paper, armoury.at(middle.stat).better};
                const std::size_t column =
                    static_cast<std::size_t>(change) * stats + middle.stat.index();
                const double scale = change == Change::add ? factor : 1;
                if (times)
                    ends.multiply(column, low / middle.amount, high / middle.amount);
                else
                    ends.move(column, (low - middle.amount) * scale,
                              (high - middle.amount) * scale);
            }
}

PaperItem on_paper(const Armoury& armoury, const Item& item) {
    const std::size_t stats = armoury.stats.size();
    PaperItem paper{&item,
                    std::vector<double>(3 * stats, 0.0),
                    wearers_of(armoury, item),
                    sorted(item.actions),
                    sorted(item.sockets),
                    {},
                    {}};
    std::fill(paper.numbers.begin() + static_cast<std::ptrdiff_t>(2 * stats), paper.numbers.end(),
              1.0);
    for_each_bearer(armoury, item, [&](const Bearer& bearer, double add_factor) {
        for (const Amount& a : bearer.modifiers.add)
            paper.numbers[a.stat.index()] += a.amount * add_factor;
        for (const Amount& a : bearer.modifiers.percent)
            paper.numbers[stats + a.stat.index()] += a.amount;
        for (const Amount& a : bearer.modifiers.times)
            paper.numbers[2 * stats + a.stat.index()] *= a.amount;
        for (const Trigger& t : bearer.triggers)
            paper.triggers.emplace_back(static_cast<int>(t.on), t.effect.value, t.duration,
                                        t.chance.text(), t.cooldown, t.to_self);
    });
    for (const PackedItem& inner : item.contains)
        paper.contents.emplace_back(inner.item.value, inner.count);
    if (item.draws()) find_ends(armoury, item, paper);
    std::sort(paper.triggers.begin(), paper.triggers.end());
    std::sort(paper.contents.begin(), paper.contents.end());
    return paper;
}

/// What a is to b: no worse anywhere, and better somewhere.
struct Standing {
    bool no_worse = true;
    bool better = false;

    void compare(double a, double b, Better direction) {
        if (a == b) return;
        const bool wins = direction == Better::higher  ? a > b
                          : direction == Better::lower ? a < b
                                                       : false;
        (wins ? better : no_worse) = wins;
    }
    /// `a` has to have all of `b` (both sorted); having more is better.
    template <class List>
    void at_least(const List& a, const List& b) {
        if (!std::includes(a.begin(), a.end(), b.begin(), b.end())) no_worse = false;
        if (a.size() > b.size()) better = true;
    }
};

/// Everybody who meets b's needs of stats has to meet a's.
void compare_needed_stats(Standing& standing, const Needs& a, const Needs& b) {
    for (const Amount& need : a.stats)
        standing.compare(need.amount, amount_of(b.stats, need.stat, -HUGE_VAL), Better::lower);
    for (const Amount& need : b.stats)
        standing.compare(amount_of(a.stats, need.stat, -HUGE_VAL), need.amount, Better::lower);
}

void compare_wearing(Standing& standing, const PaperItem& one, const PaperItem& other) {
    const Item& a = *one.item;
    const Item& b = *other.item;
    standing.compare(a.wear_level(), b.wear_level(), Better::lower);
    standing.compare(static_cast<double>(a.weight), static_cast<double>(b.weight), Better::lower);
    if (!standing.no_worse) return;
    standing.at_least(one.wearers, other.wearers);
    compare_needed_stats(standing, a.needs, b.needs);
    standing.at_least(b.takes, a.takes); // the fewer places the better
    if (!a.unique.empty() && a.unique != b.unique) standing.no_worse = false;
    if (a.unique.empty() && !b.unique.empty()) standing.better = true;
}

/// Where finds of either differ, worst is compared with worst and best with best (M44a).
void compare_ends(Standing& standing, const Armoury& armoury, const PaperItem& one,
                  const PaperItem& other) {
    for (const auto end : {&PaperItem::worst, &PaperItem::best}) {
        const auto at_end = [&](const PaperItem& item) -> const std::vector<double>& {
            return (item.*end).empty() ? item.numbers : item.*end;
        };
        const std::vector<double>& a = at_end(one);
        const std::vector<double>& b = at_end(other);
        for (std::size_t i = 0; i < a.size() && standing.no_worse; ++i)
            standing.compare(a[i], b[i], armoury.stats[i % armoury.stats.size()].better);
    }
}

void compare_gifts(Standing& standing, const PaperItem& one, const PaperItem& other) {
    const Item& a = *one.item;
    const Item& b = *other.item;
    standing.at_least(one.actions, other.actions);
    standing.at_least(one.sockets, other.sockets);
    standing.at_least(one.triggers, other.triggers);
    standing.at_least(one.contents, other.contents);
    standing.compare(static_cast<double>(a.grants.bag), static_cast<double>(b.grants.bag),
                     Better::higher);
    standing.compare(static_cast<double>(a.grants.capacity), static_cast<double>(b.grants.capacity),
                     Better::higher);
    standing.compare(a.draw_time, b.draw_time, Better::lower);
    if (b.grows.kills > 0 && !a.grows.as(b.grows)) standing.no_worse = false;
    if (a.grows.kills > 0 && b.grows.kills == 0) standing.better = true;
    if (b.set.given() && a.set != b.set) standing.no_worse = false;
    if (a.set.given() && !b.set.given()) standing.better = true;
}

/// Of two that NoWorse has found: a is no worse in any number, in its level and in its weight.
Standing standing_of_no_worse(const Armoury& armoury, const PaperItem& a, const PaperItem& b) {
    Standing standing;
    standing.better = a.numbers != b.numbers;
    compare_wearing(standing, a, b);
    if (standing.no_worse) compare_gifts(standing, a, b);
    if (standing.no_worse && (a.item->draws() || b.item->draws()))
        compare_ends(standing, armoury, a, b);
    return standing;
}

Standing standing_of(const Armoury& armoury, const PaperItem& a, const PaperItem& b) {
    Standing standing;
    compare_wearing(standing, a, b);
    const std::size_t stats = armoury.stats.size();
    for (std::size_t i = 0; i < a.numbers.size() && standing.no_worse; ++i)
        standing.compare(a.numbers[i], b.numbers[i], armoury.stats[i % stats].better);
    if (standing.no_worse) compare_gifts(standing, a, b);
    if (standing.no_worse && (a.item->draws() || b.item->draws()))
        compare_ends(standing, armoury, a, b);
    return standing;
}

/// What standing_of() compares as numbers: who is worse in one of these needs no closer look.
std::vector<Column> columns_of(const Armoury& armoury, const std::vector<PaperItem>& papers,
                               const std::vector<std::size_t>& rows) {
    const std::size_t stats = armoury.stats.size();
    std::vector<Column> columns(3 * stats + 2);
    columns[3 * stats].better = columns[3 * stats + 1].better = Better::lower;
    for (std::size_t i = 0; i < 3 * stats; ++i) columns[i].better = armoury.stats[i % stats].better;
    for (const std::size_t row : rows) {
        for (std::size_t i = 0; i < 3 * stats; ++i)
            columns[i].values.push_back(papers[row].numbers[i]);
        columns[3 * stats].values.push_back(papers[row].item->wear_level());
        columns[3 * stats + 1].values.push_back(static_cast<double>(papers[row].item->weight));
    }
    return columns;
}

} // namespace

std::vector<PaperVerdict> compare_on_paper(const Armoury& armoury) {
    std::vector<PaperItem> papers;
    for (const Item& item : armoury.items) papers.push_back(on_paper(armoury, item));
    std::vector<PaperVerdict> verdicts(armoury.items.size());
    const GearSources sources(armoury);
    Deriver deriver(armoury);
    const std::vector<std::vector<double>> naked = last_naked_stats(deriver);
    for (std::size_t i = 0; i < papers.size(); ++i) {
        verdicts[i].unreachable = why_never(armoury, armoury.items[i], naked);
        if (verdicts[i].unreachable.empty())
            verdicts[i].unreachable = sources.why_not_had(ItemId(i));
    }
    for (std::size_t s = 0; s < armoury.slots.size(); ++s) {
        std::vector<std::size_t> rows; // items of the slot
        for (std::size_t i = 0; i < papers.size(); ++i)
            if (armoury.items[i].slot == SlotId(s)) rows.push_back(i);
        const NoWorse no_worse(rows.size(), columns_of(armoury, papers, rows));
        for_each_in_parallel(rows.size(), [&](std::size_t b) {
            PaperVerdict& verdict = verdicts[rows[b]];
            no_worse.for_each(b, [&](std::size_t a) {
                const Standing standing =
                    standing_of_no_worse(armoury, papers[rows[a]], papers[rows[b]]);
                if (!standing.no_worse) return;
                (standing.better ? verdict.outclassed_by : verdict.twins).emplace_back(rows[a]);
            });
        });
    }
    return verdicts;
}

std::vector<std::vector<ItemId>> twin_sets(const Armoury& armoury) {
    std::vector<PaperItem> papers;
    for (const Item& item : armoury.items)
        if (item.worn()) papers.push_back(on_paper(armoury, item));
    const auto key = [](const PaperItem& paper) {
        const Item& item = *paper.item;
        return std::tuple<SlotId, int, Thousandths, const std::vector<double>&>(
            item.slot, item.wear_level(), item.weight, paper.numbers);
    };
    std::stable_sort(papers.begin(), papers.end(),
                     [&](const PaperItem& a, const PaperItem& b) { return key(a) < key(b); });
    std::vector<std::vector<ItemId>> sets;
    const auto id = [&](const PaperItem& paper) {
        return ItemId(static_cast<std::size_t>(paper.item - armoury.items.data()));
    };
    std::vector<bool> grouped(papers.size(), false);
    for (std::size_t i = 0; i < papers.size(); ++i) {
        if (grouped[i]) continue;
        std::vector<ItemId> group = {id(papers[i])};
        for (std::size_t j = i + 1; j < papers.size() && key(papers[i]) == key(papers[j]); ++j) {
            const Standing standing = standing_of(armoury, papers[i], papers[j]);
            if (grouped[j] || !standing.no_worse || standing.better) continue;
            grouped[j] = true;
            group.push_back(id(papers[j]));
        }
        if (group.size() > 1) sets.push_back(std::move(group));
    }
    return sets;
}

std::vector<ItemId> twin_groups(const std::vector<PaperVerdict>& verdicts) {
    std::vector<ItemId> group;
    for (std::size_t i = 0; i < verdicts.size(); ++i) {
        ItemId first(i);
        for (const ItemId twin : verdicts[i].twins) first = std::min(first, twin);
        group.push_back(first);
    }
    return group;
}

} // namespace panoplon
