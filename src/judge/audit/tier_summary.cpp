#include "judge/audit/tier_summary.h"

#include "model/budget.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace panoplon {

namespace {

/// So much more of a place's worth has to be lost to be called clearly worse.
constexpr double clearly = 0.1;

struct Means {
    double own = 0, other = 0;
    std::size_t contexts = 0;
};

bool is_worn(const Outfit& outfit, ItemId item) {
    bool worn = false;
    for_each_worn(outfit.worn, [&](const WornItem& one) { worn = worn || one.item == item; });
    return worn;
}

/// Over the contexts of the item's time that judge both, or whose best wears the other.
Means compare_rows(const AuditResult& result, std::span<const ItemContextRow> own, ItemId better) {
    const std::span<const ItemContextRow> other = rows_of(result.rows, better);
    std::map<std::size_t, double> others;
    for (const ItemContextRow& row : other)
        if (row.judged) others.emplace(row.context, row.shortfall);
    Means means;
    for (const ItemContextRow& row : own) {
        const auto at = others.find(row.context);
        const bool both =
            at != others.end() || is_worn(result.contexts[row.context].outfit, better);
        if (!row.in_window || !row.judged || !both) continue;
        means.own += row.shortfall;
        means.other += at == others.end() ? 0 : at->second;
        ++means.contexts;
    }
    return means;
}

void find_inversions(const Armoury& armoury, const AuditResult& result, const ItemVerdict& verdict,
                     TierSummary& tier) {
    const Item& item = armoury.at(verdict.item);
    for (const ItemVerdict& one : result.items) {
        const Item& other = armoury.at(one.item);
        const bool lower =
            other.tier.given() && armoury.at(other.tier).rank < armoury.at(item.tier).rank;
        if (!lower || other.takes != item.takes || other.wear_level() > item.wear_level()) continue;
        const Means means = compare_rows(result, rows_of(result.rows, verdict.item), one.item);
        if (means.contexts == 0) continue;
        const auto n = static_cast<double>(means.contexts);
        if (means.own / n > means.other / n + clearly)
            tier.inversions.push_back({verdict.item, one.item, means.own / n, means.other / n});
    }
}

} // namespace

std::vector<ItemId> TierSummary::inverted() const {
    std::vector<ItemId> list;
    for (const Inversion& one : inversions)
        if (list.empty() || list.back() != one.item) list.push_back(one.item);
    return list;
}

std::vector<TierSummary> judge_tiers(const Armoury& armoury, const AuditResult& result) {
    std::vector<TierSummary> list;
    BudgetMeter meter(armoury);
    for (std::size_t t = 0; t < armoury.tiers.size(); ++t) {
        TierSummary tier;
        tier.tier = TierId(t);
        double budgets = 0;
        std::size_t with_budget = 0;
        for (const ItemVerdict& verdict : result.items) {
            const Item& item = armoury.at(verdict.item);
            if (item.tier != tier.tier) continue;
            if (const auto use = meter(item)) {
                budgets += use->share();
                ++with_budget;
                tier.off_budget += std::abs(use->share() - 1) > armoury.budget.tolerance;
            }
            if (verdict.contexts == 0) continue;
            ++tier.items;
            tier.pick_share += verdict.pick_share;
            tier.shortfall += verdict.shortfall.mean;
            find_inversions(armoury, result, verdict, tier);
        }
        if (tier.items > 0) {
            tier.pick_share /= static_cast<double>(tier.items);
            tier.shortfall /= static_cast<double>(tier.items);
        }
        if (with_budget > 0) tier.budget_share = budgets / static_cast<double>(with_budget);
        list.push_back(std::move(tier));
    }
    std::stable_sort(list.begin(), list.end(), [&](const TierSummary& a, const TierSummary& b) {
        return armoury.at(a.tier).rank < armoury.at(b.tier).rank;
    });
    return list;
}

} // namespace panoplon
