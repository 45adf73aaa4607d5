#include "outfit/derive.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

double scaled(Change change, double amount, double add_factor, int levels) {
    switch (change) {
    case Change::add: return amount * add_factor * levels;
    case Change::percent: return amount * levels;
    case Change::times: return levels == 1 ? amount : std::pow(amount, levels);
    }
    return amount;
}

void StatSums::include(const Modifiers& modifiers, double add_factor, int levels) {
    for (const Amount& a : modifiers.add)
        add[a.stat.index()] += scaled(Change::add, a.amount, add_factor, levels);
    for (const Amount& a : modifiers.percent)
        percent[a.stat.index()] += scaled(Change::percent, a.amount, add_factor, levels);
    for (const Amount& a : modifiers.times)
        times[a.stat.index()] *= scaled(Change::times, a.amount, add_factor, levels);
}

double settle(const Stat& stat, double base, double add, double percent, double times) {
    double value = (base + add) * (1 + percent / 100) * times;
    if (stat.rounding == Rounding::down) value = std::floor(value);
    if (stat.rounding == Rounding::nearest) value = std::round(value);
    return std::clamp(value, stat.min, stat.max);
}

Deriver::Deriver(const Armoury& armoury) : armoury_(armoury) {
    for (const StatId stat : armoury.derived_order) formulas_.emplace_back(armoury.at(stat).value);
    if (armoury.carry.capacity.given()) capacity_.emplace_back(armoury.carry.capacity);
    for (std::size_t i = 0; i < armoury.stats.size(); ++i)
        if (!armoury.stats[i].value.given()) plain_.push_back(i);
}

void Deriver::derive(std::span<const double> base, const StatSums& sums, int level,
                     std::span<double> into) {
    const auto settle_one = [&](std::size_t i, double start) {
        into[i] = settle(armoury_.stats[i], start, sums.add[i], sums.percent[i], sums.times[i]);
    };
    for (const std::size_t i : plain_) settle_one(i, base[i]);
    if (formulas_.empty()) return;
    Environment environment;
    environment.self.stats = into.data();
    environment[Scalar::level] = level;
    for (std::size_t k = 0; k < formulas_.size(); ++k) {
        const std::size_t i = armoury_.derived_order[k].index();
        settle_one(i, base[i] + formulas_[k](environment));
    }
}

const std::vector<double>& Deriver::base(CharacterId character, int level) {
    std::vector<double>& base = bases_[{character, level}];
    if (base.empty()) base = base_stats(armoury_, armoury_.at(character), level);
    return base;
}

double Deriver::capacity(std::span<const double> stats, int level) {
    if (capacity_.empty()) return 0;
    Environment environment;
    environment.self.stats = stats.data();
    environment[Scalar::level] = level;
    return capacity_.front()(environment);
}

} // namespace panoplon
