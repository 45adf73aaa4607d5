#include "model/budget.h"

namespace panoplon {

BudgetMeter::BudgetMeter(const Armoury& armoury) : armoury_(armoury) {
    if (armoury.budget.points.given()) points_.emplace(armoury.budget.points);
}

std::optional<BudgetUse> BudgetMeter::operator()(const Item& item) {
    if (!points_ || !item.worn()) return std::nullopt;
    BudgetUse use;
    const auto spend = [&](const Bearer& bearer) {
        for (const Amount& amount : bearer.modifiers.add)
            use.spent += armoury_.at(amount.stat).cost * amount.amount;
    };
    spend(item);
    for (const AffixDraw& draw : item.affixes) spend(draw);
    Environment environment;
    environment[Scalar::level] = item.level_of_budget();
    use.allowed = (*points_)(environment);
    use.allowed *= static_cast<double>(item.takes.size()) * armoury_.at(item.slot).budget;
    if (item.tier.given()) use.allowed *= armoury_.at(item.tier).budget;
    return use;
}

} // namespace panoplon
