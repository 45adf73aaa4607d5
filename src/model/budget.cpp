#include "model/budget.h"

namespace panoplon {

std::optional<BudgetUse> budget_use(const Armoury& armoury, const Item& item) {
    if (!armoury.budget.points.given() || !item.worn()) return std::nullopt;
    BudgetUse use;
    for (const Amount& amount : item.modifiers.add) use.spent += armoury.at(amount.stat).cost * amount.amount;
    Environment environment;
    environment[Scalar::level] = item.level;
    use.allowed = Evaluator(armoury.budget.points)(environment);
    if (item.tier.given()) use.allowed *= armoury.at(item.tier).budget;
    return use;
}

} // namespace panoplon
