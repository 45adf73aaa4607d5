#include "model/growth.h"

namespace panoplon {

std::vector<double> base_stats(const Armoury& armoury, const Fighter& fighter, int level) {
    std::vector<double> base(armoury.stats.size(), 0.0);
    for (const Amount& amount : fighter.base) base[amount.stat.index()] += amount.amount;
    for (const Growth& growth : fighter.growth) {
        double& value = base[growth.stat.index()];
        if (growth.formula.given()) {
            Environment environment;
            environment[Scalar::level] = level;
            value += Evaluator(growth.formula)(environment);
        } else {
            value += growth.per_level * (level - 1);
        }
    }
    return base;
}

} // namespace panoplon
