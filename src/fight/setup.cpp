#include "fight/setup.h"

#include "outfit/load.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// The loadout's own rules in the order of the file, then the default for every other consumable
/// in the pack's order (M33).
std::vector<SetupRule> rules_of(const Armoury& armoury, const Outfit& outfit) {
    std::vector<SetupRule> rules;
    std::vector<bool> ruled(outfit.pack.size(), false);
    for (const UseRule& rule : outfit.uses)
        for (std::size_t i = 0; i < outfit.pack.size(); ++i)
            if (outfit.pack[i].item == rule.item) {
                rules.push_back({i, rule.when});
                ruled[i] = true;
            }
    for (std::size_t i = 0; i < outfit.pack.size(); ++i)
        if (!ruled[i] && armoury.at(outfit.pack[i].item).use) rules.push_back({i, {}});
    return rules;
}

} // namespace

int foe_level(const Encounter& encounter, int level) {
    if (!encounter.foe_level.given()) return level;
    Environment environment;
    environment[Scalar::level] = level;
    const double value = Evaluator(encounter.foe_level)(environment);
    constexpr double highest = 10000;
    return std::isfinite(value) ? static_cast<int>(std::clamp(std::round(value), 1.0, highest)) : 1;
}

ActorSetup set_up_character(const Armoury& armoury, const Outfit& outfit) {
    return set_up_character(armoury, outfit,
                            base_stats(armoury, armoury.at(outfit.character), outfit.level));
}

ActorSetup set_up_character(const Armoury& armoury, const Outfit& outfit,
                            std::vector<double> base) {
    const Character& character = armoury.at(outfit.character);
    ActorSetup actor;
    actor.side = Side::character;
    actor.name = character.id;
    actor.level = outfit.level;
    actor.base = std::move(base);
    actor.sums = worn_sums(armoury, outfit);
    for_each_worn(outfit.worn, [&](const WornItem& worn) {
        for (const ActionId action : armoury.at(worn.item).actions) actor.actions.push_back(action);
    });
    actor.actions.insert(actor.actions.end(), character.actions.begin(), character.actions.end());
    actor.carries = armoury.carry.capacity.given();
    actor.worn = worn_share(armoury.carry, worn_weight(armoury, outfit));
    actor.granted = to_weight(granted_capacity(armoury, outfit));
    actor.pack = outfit.pack;
    actor.rules = rules_of(armoury, outfit);
    return actor;
}

std::vector<ActorSetup> set_up_foes(const Armoury& armoury, const Encounter& encounter, int level) {
    std::vector<ActorSetup> actors;
    const int their_level = foe_level(encounter, level);
    std::vector<int> met(armoury.foes.size(), 0);
    for (const FoeGroup& group : encounter.foes) {
        const Foe& foe = armoury.at(group.foe);
        ActorSetup actor;
        actor.side = Side::foes;
        actor.level = their_level;
        actor.base = base_stats(armoury, foe, their_level);
        actor.sums.reset(armoury.stats.size());
        actor.sums.include(foe.modifiers);
        actor.actions = foe.actions;
        actor.arrival = group.at;
        for (int i = 0; i < group.count; ++i) {
            actor.name = fmt::format("{}.{}", foe.id, ++met[group.foe.index()]);
            actors.push_back(actor);
        }
    }
    return actors;
}

FightSetup set_up_fight(const Armoury& armoury, const Outfit& outfit, EncounterId encounter) {
    FightSetup setup;
    setup.encounter = encounter;
    setup.actors.push_back(set_up_character(armoury, outfit));
    for (ActorSetup& foe : set_up_foes(armoury, armoury.at(encounter), outfit.level))
        setup.actors.push_back(std::move(foe));
    return setup;
}

} // namespace panoplon
