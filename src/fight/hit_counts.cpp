#include "fight/course.h"

#include "fight/actions.h"
#include "fight/blows.h"
#include "fight/states.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

/// What one hit of an action takes, as its spread has it in the middle.
double hit_damage(Field& f, Actor& actor, Place& place, Actor& target, bool critical) {
    const BlowTerms& terms = blow_terms(f, actor, place, target);
    Environment env = environment(f, actor, &target);
    double damage = 0;
    for (const DamageTerms& one : terms.damages)
        damage += middle_damage(f, one, critical ? terms.crit_factor : 1, env);
    return damage * actor.strength;
}

} // namespace

/// Every action of the character against a foe of each kind, then theirs against the character.
std::vector<BlowCount> blows(Field& f) {
    f.strength = 1;
    f.watch.timeline = nullptr;
    f.watch.inquiry = nullptr;
    begin(f);
    std::vector<BlowCount> list;
    const auto count = [&](Actor& actor, Actor& target) {
        for (Place& place : actor.places) {
            if (place.action->deals.empty()) continue;
            const double most = blow_terms(f, actor, place, target).crit > 0
                                    ? hit_damage(f, actor, place, target, true)
                                    : 0;
            list.push_back({actor.ours, actor.setup->kind, target.setup->kind, place.id,
                            hit_damage(f, actor, place, target, false), most,
                            target.ceilings[f.rules.health]});
        }
    };
    Actor& character = f.cast.actors.front();
    const auto for_each_kind = [&](const auto& visit) {
        std::vector<std::string> met;
        for (Actor& foe : f.cast.actors) {
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

} // namespace panoplon::fighting
