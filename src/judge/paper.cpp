#include "judge/paper.h"

#include <algorithm>

namespace panoplon {

namespace {

/// An item with its tier, as one row of numbers: adds, percents, times by stat.
struct PaperItem {
    std::vector<double> numbers;
    std::vector<ActionId> actions;
};

PaperItem on_paper(const Armoury& armoury, const Item& item) {
    const std::size_t stats = armoury.stats.size();
    PaperItem paper;
    paper.numbers.assign(3 * stats, 0.0);
    std::fill(paper.numbers.begin() + static_cast<std::ptrdiff_t>(2 * stats), paper.numbers.end(),
              1.0);
    const auto include = [&](const Modifiers& modifiers, double add_factor) {
        for (const Amount& a : modifiers.add)
            paper.numbers[a.stat.index()] += a.amount * add_factor;
        for (const Amount& a : modifiers.percent) paper.numbers[stats + a.stat.index()] += a.amount;
        for (const Amount& a : modifiers.times)
            paper.numbers[2 * stats + a.stat.index()] *= a.amount;
    };
    const Tier* tier = item.tier.given() ? &armoury.at(item.tier) : nullptr;
    include(item.modifiers, tier ? tier->stat_factor : 1);
    if (tier) include(tier->modifiers, 1);
    paper.actions = item.actions;
    std::sort(paper.actions.begin(), paper.actions.end());
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
};

Standing standing_of(const Armoury& armoury, const Item& a, const PaperItem& paper_a, const Item& b,
                     const PaperItem& paper_b) {
    Standing standing;
    standing.compare(a.level, b.level, Better::lower);
    standing.compare(static_cast<double>(a.weight), static_cast<double>(b.weight), Better::lower);
    const bool all_actions = std::includes(paper_a.actions.begin(), paper_a.actions.end(),
                                           paper_b.actions.begin(), paper_b.actions.end());
    if (!all_actions) standing.no_worse = false;
    if (paper_a.actions.size() > paper_b.actions.size()) standing.better = true;
    const std::size_t stats = armoury.stats.size();
    for (std::size_t i = 0; i < paper_a.numbers.size() && standing.no_worse; ++i)
        standing.compare(paper_a.numbers[i], paper_b.numbers[i], armoury.stats[i % stats].better);
    return standing;
}

} // namespace

std::vector<PaperVerdict> compare_on_paper(const Armoury& armoury) {
    std::vector<PaperItem> papers;
    for (const Item& item : armoury.items) papers.push_back(on_paper(armoury, item));
    std::vector<PaperVerdict> verdicts(armoury.items.size());
    for (std::size_t a = 0; a < papers.size(); ++a) {
        const Item& one = armoury.items[a];
        for (std::size_t b = 0; b < papers.size(); ++b) {
            const Item& other = armoury.items[b];
            if (a == b || !one.worn() || one.slot != other.slot) continue;
            const Standing standing = standing_of(armoury, one, papers[a], other, papers[b]);
            if (!standing.no_worse) continue;
            if (standing.better)
                verdicts[b].outclassed_by.emplace_back(a);
            else
                verdicts[b].twins.emplace_back(a);
        }
    }
    return verdicts;
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
