#include "outfit/points.h"

#include "formula/formula.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

int points_at(const Armoury& armoury, CharacterId character, int level) {
    const Formula& formula = armoury.at(character).points;
    if (!formula.given()) return 0;
    Environment environment;
    environment[Scalar::level] = level;
    constexpr double most = 1e6;
    const double points = Evaluator(formula)(environment);
    return std::isfinite(points) ? static_cast<int>(std::clamp(std::floor(points), 0.0, most)) : 0;
}

std::vector<UpgradeId> upgrades_for_points(const Armoury& armoury) {
    std::vector<UpgradeId> list;
    for (std::size_t u = 0; u < armoury.upgrades.size(); ++u)
        if (armoury.upgrades[u].points > 0) list.emplace_back(u);
    return list;
}

std::vector<BoughtUpgrade> spread_points(const Armoury& armoury, int points,
                                         const std::vector<BoughtUpgrade>& parts) {
    std::vector<BoughtUpgrade> spent;
    for (const BoughtUpgrade& part : parts) spent.push_back({part.upgrade, 0, part.span});
    while (true) {
        std::size_t next = parts.size();
        double least = HUGE_VAL;
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const Upgrade& upgrade = armoury.at(parts[i].upgrade);
            if (parts[i].levels == 0 || spent[i].levels == upgrade.max || upgrade.points > points)
                continue;
            const double then =
                static_cast<double>((spent[i].levels + 1) * upgrade.points) / parts[i].levels;
            if (then >= least) continue;
            least = then;
            next = i;
        }
        if (next == parts.size()) return spent;
        spent[next].levels += 1;
        points -= armoury.at(parts[next].upgrade).points;
    }
}

int points_spent(const Armoury& armoury, const std::vector<BoughtUpgrade>& upgrades) {
    int spent = 0;
    for (const BoughtUpgrade& bought : upgrades)
        spent += armoury.at(bought.upgrade).points * bought.levels;
    return spent;
}

} // namespace panoplon
