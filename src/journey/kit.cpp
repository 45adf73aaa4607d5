#include "journey/kit.h"

namespace panoplon {

namespace {

std::optional<Evaluator> compiled(const Formula& formula) {
    if (!formula.given()) return std::nullopt;
    return std::optional<Evaluator>(std::in_place, formula);
}

} // namespace

JourneyKit::JourneyKit(const Armoury& armoury) : engine_(armoury), rival_(armoury) {
    for (const Upgrade& upgrade : armoury.upgrades)
        costs_.push_back(upgrade.points > 0 ? std::nullopt : compiled(upgrade.cost));
    for (const Drops& drops : armoury.drops) lucks_.push_back(compiled(drops.luck));
}

FightSetup& JourneyKit::fight_of(EncounterId encounter, int level) {
    const auto [known, is_new] = fights_.try_emplace(std::pair(encounter, level));
    FightSetup& fight = known->second;
    if (is_new) {
        fight.encounter = encounter;
        fight.actors = set_up_others(armoury(), armoury().at(encounter), level);
        fight.actors.insert(fight.actors.begin(), ActorSetup());
    }
    return fight;
}

const FightSetup& JourneyKit::set_up(const Outfit& outfit, EncounterId encounter) {
    FightSetup& fight = fight_of(encounter, outfit.level);
    set_up_character(armoury(), outfit, deriver().base(outfit.character, outfit.level),
                     fight.actors.front());
    set_up_ = &fight;
    return fight;
}

const FightResult& JourneyKit::fight(const std::vector<double>& begins, const Luck& luck) {
    std::vector<double>& own = set_up_->actors.front().begins;
    own = begins;
    const FightResult& result = engine_.run(1, luck);
    own.clear();
    return result;
}

void JourneyKit::set_up_rival(const Outfit& outfit, EncounterId encounter) {
    FightSetup& fight = fight_of(encounter, outfit.level);
    set_up_character(armoury(), outfit, deriver().base(outfit.character, outfit.level),
                     rival_character_);
    if (rival_fight_ != &fight) rival_.prepare(fight);
    rival_fight_ = &fight;
    rival_.prepare_character(rival_character_);
}

std::optional<double> JourneyKit::cost(std::size_t upgrade, int bought, int level) {
    if (!costs_[upgrade] || bought >= armoury().upgrades[upgrade].max) return std::nullopt;
    Environment environment;
    environment[Scalar::bought] = bought;
    environment[Scalar::level] = level;
    return (*costs_[upgrade])(environment);
}

const FindTable& JourneyKit::finds(DropsId drops, int level) {
    const auto key = std::pair(drops, level);
    auto known = finds_.find(key);
    if (known == finds_.end())
        known = finds_.emplace(key, FindTable(armoury(), armoury().at(drops), level)).first;
    return known->second;
}

std::optional<Margin> JourneyKit::power(const Outfit& outfit, double guess) {
    if (!armoury().yardstick.given()) return std::nullopt;
    engine_.prepare(set_up(outfit, armoury().yardstick));
    return even_margin(engine_, guess);
}

std::optional<Margin> JourneyKit::start_power(const Outfit& start) {
    if (!start_power_) start_power_ = power(start);
    return start_power_;
}

double JourneyKit::luck(DropsId drops, const Outfit& outfit) {
    std::optional<Evaluator>& formula = lucks_[drops.index()];
    if (!formula) return 0;
    const Load load = outfit_load(deriver(), outfit);
    const std::vector<double> stats = outfit_stats(deriver(), outfit, load.band);
    Environment environment;
    environment.self.stats = stats.data();
    environment[Scalar::level] = outfit.level;
    return (*formula)(environment);
}

} // namespace panoplon
