#include "judge/paper/tier_power.h"

#include "model/budget.h"

namespace panoplon {

std::vector<TierPower> tier_powers(const Armoury& armoury) {
    std::vector<TierPower> powers(armoury.tiers.size());
    BudgetMeter meter(armoury);
    for (const Item& item : armoury.items) {
        if (!item.tier.given()) continue;
        const auto use = meter(item);
        const double factor = armoury.at(item.tier).budget;
        if (!use || use->allowed <= 0 || factor <= 0) continue;
        TierPower& power = powers[item.tier.index()];
        ++power.items;
        power.mean += use->spent * factor / use->allowed;
    }
    for (TierPower& power : powers)
        if (power.items > 0) power.mean /= static_cast<double>(power.items);
    return powers;
}

} // namespace panoplon
