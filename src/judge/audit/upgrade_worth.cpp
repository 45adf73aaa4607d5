#include "judge/audit/upgrade_worth.h"

#include "base/compute_each.h"
#include "formula/formula.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// One level of an upgrade in one context: the logarithm of what it multiplies the margin by; none
/// where the margin is not to be had.
using Gains = std::vector<std::optional<double>>;

/// By upgrade and level, one after the other, in one context.
Gains gains_in(Engine& engine, const ContextRow& row) {
    const Armoury& armoury = engine.armoury();
    Gains gains;
    Outfit outfit = row.outfit;
    // Each begins from the same guess: where a margin has several crossings, another guess may lead
    // to another of them.
    const auto margin_with = [&](UpgradeId upgrade, int level) {
        outfit.upgrades = row.outfit.upgrades; // those that take points
        std::erase_if(outfit.upgrades,
                      [&](const BoughtUpgrade& bought) { return bought.upgrade == upgrade; });
        outfit.upgrades.push_back({upgrade, level, {}});
        const FightSetup setup = set_up_fight(armoury, outfit, row.context.encounter);
        engine.prepare(setup);
        return even_margin(engine, row.best.value);
    };
    for (std::size_t u = 0; u < armoury.upgrades.size(); ++u) {
        double before = row.best.value;
        for (int level = 1; level <= armoury.upgrades[u].max; ++level) {
            if (armoury.upgrades[u].points > 0) { // spent by the best itself
                gains.emplace_back();
                continue;
            }
            const Margin margin = margin_with(UpgradeId(u), level);
            const bool known = !margin.error && margin.reach == Reach::within;
            gains.push_back(known ? std::optional(std::log(margin.value / before)) : std::nullopt);
            if (known) before = margin.value;
        }
    }
    return gains;
}

std::optional<double> cost_of(const Armoury& armoury, const Upgrade& upgrade, int bought) {
    if (!upgrade.cost.given()) return std::nullopt;
    Evaluator evaluator(upgrade.cost);
    Environment environment;
    environment[Scalar::bought] = bought;
    environment[Scalar::level] = (armoury.levels.first + armoury.levels.last) / 2;
    return evaluator(environment);
}

} // namespace

std::optional<double> UpgradeWorth::per_hundred() const {
    constexpr double coin = 100;
    if (!cost || *cost <= 0) return std::nullopt;
    return gain * coin / *cost;
}

std::vector<UpgradeWorth> judge_upgrades(const Armoury& armoury, const AuditResult& result,
                                         const Watch& watch) {
    std::vector<UpgradeWorth> list;
    for (std::size_t u = 0; u < armoury.upgrades.size(); ++u)
        for (int level = 1; level <= armoury.upgrades[u].max; ++level) {
            UpgradeWorth worth;
            worth.upgrade = UpgradeId(u);
            worth.level = level;
            worth.cost = cost_of(armoury, armoury.upgrades[u], level - 1);
            list.push_back(worth);
        }
    if (list.empty()) return list;
    const std::vector<std::optional<Gains>> by_context = compute_each(
        result.contexts.size(), [&] { return Engine(armoury); }, watch,
        [&](Engine& engine, std::size_t c) {
            return result.contexts[c].sound() && result.contexts[c].whole()
                       ? gains_in(engine, result.contexts[c])
                       : Gains();
        });
    if (watch.stopped()) return {};
    for (std::size_t i = 0; i < list.size(); ++i) {
        double sum = 0;
        double weights = 0;
        for (std::size_t c = 0; c < by_context.size(); ++c) {
            const Gains& gains = *by_context[c];
            if (i >= gains.size() || !gains[i]) continue;
            const double gain = std::expm1(*gains[i]);
            list[i].least = list[i].contexts == 0 ? gain : std::min(list[i].least, gain);
            list[i].most = list[i].contexts == 0 ? gain : std::max(list[i].most, gain);
            ++list[i].contexts;
            sum += gain * result.contexts[c].weight;
            weights += result.contexts[c].weight;
        }
        if (weights > 0) list[i].gain = sum / weights;
    }
    return list;
}

} // namespace panoplon
