#include "fight/arena.h"

namespace panoplon {

/// What one hit of an action takes, as its spread has it in the middle.
double Arena::hit_damage(Actor& actor, Place& place, Actor& target, bool critical) {
    const BlowTerms& terms = blow_terms(actor, place, target);
    Environment env = environment(actor, &target);
    double damage = 0;
    for (const DamageTerms& one : terms.damages)
        damage += mitigated(one.type, one.raw * (critical ? terms.crit_factor : 1), env);
    return damage * actor.strength;
}

/// Every action of the character against a foe of each kind, then theirs against the character.
std::vector<BlowCount> Arena::blows() {
    strength_ = 1;
    timeline_ = nullptr;
    inquiry_ = nullptr;
    begin();
    std::vector<BlowCount> list;
    const auto count = [&](Actor& actor, Actor& target) {
        for (Place& place : actor.places) {
            if (place.action->deals.empty()) continue;
            const double most = chance_of(crit_, environment(actor, &target)) > 0
                                    ? hit_damage(actor, place, target, true)
                                    : 0;
            list.push_back({actor.ours, actor.setup->kind, target.setup->kind, place.id,
                            hit_damage(actor, place, target, false), most,
                            target.ceilings[health_]});
        }
    };
    Actor& character = actors_.front();
    const auto for_each_kind = [&](const auto& visit) {
        std::vector<std::string> met;
        for (Actor& foe : actors_) {
            if (!opposed(character, foe) ||
                std::find(met.begin(), met.end(), foe.setup->kind) != met.end())
                continue;
            met.push_back(foe.setup->kind);
            visit(foe);
        }
    };
    for_each_kind([&](Actor& foe) { count(character, foe); });
    for_each_kind([&](Actor& foe) { count(foe, character); });
    return list;
}

} // namespace panoplon
