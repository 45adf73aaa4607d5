#include "fight/blows.h"

#include "fight/actions.h"
#include "fight/counting.h"
#include "fight/effects.h"
#include "fight/reasons.h"
#include "fight/states.h"
#include "fight/telling.h"
#include "fight/triggers.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

[[gnu::cold, gnu::noinline]] void blow_stopped(Field& f, const Actor& actor, const Place& place,
                                               const Actor& target, const char* event,
                                               const char* why) {
    const Action& action = *place.action;
    if (f.watch.inquiry && action.applies)
        note_effect(f, actor, action.applies->effect, action.id, nullptr, action.span, why);
    if (f.watch.timeline)
        tell(f, actor, event, action.id, target.setup->name, 0, health(f, target));
}

[[gnu::noinline]] double spread_damage(Field& f, const Actor& actor, const Actor& target,
                                       const DamageTerms& damage, double factor, double draw) {
    Environment env = environment(f, actor, &target);
    const double spread = 1 + f.rules.armoury.combat.spread * (2 * draw - 1);
    return mitigated(f, damage.type, damage.raw * (factor * spread), env);
}

/// The damage of a hit, type after type; returns what the target's pool lost (M62).
[[gnu::always_inline]] inline double deal(Field& f, Actor& actor, Place& place, Actor& target,
                                          const BlowTerms& terms, const BlowDraws& draws,
                                          bool critical) {
    const bool unspread = place.formulas->unspread;
    double lost = 0;
    double dealt = 0;
    for (const DamageTerms& damage : terms.damages) {
        const double factor = critical ? terms.crit_factor : 1;
        const double amount = unspread
                                  ? (critical ? damage.critical : damage.plain)
                                  : spread_damage(f, actor, target, damage, factor, draws.spread);
        const Loss loss = take_damage(f, target, amount * actor.strength);
        lost += loss.lost;
        dealt += loss.all();
        place.dealt[damage.type] += loss.all();
    }
    ActionCount& count = *place.count;
    count.hits += 1;
    count.crits += critical;
    count.dealt += dealt;
    if (f.watch.timeline)
        tell(f, actor, critical ? "crits" : "hits", place.action->id, target.setup->name, dealt,
             health(f, target));
    return lost;
}

void find_blow_terms(Field& f, BlowTerms& terms, Actor& actor, const Place& place, Actor& target) {
    const Action& action = *place.action;
    ActionFormulas& formulas = *place.formulas;
    Environment env = environment(f, actor, &target);
    terms.self_version = actor.derived->version;
    terms.target_version = target.derived->version;
    terms.hit = chance_of(f.rules.hit, env);
    terms.crit = chance_of(f.rules.crit, env);
    terms.crit_factor = terms.crit > 0 ? evaluate(f.rules.crit_factor, env) : 1;
    terms.damages.clear();
    terms.drains.clear();
    for (std::size_t i = 0; i < action.deals.size(); ++i) {
        DamageTerms& damage = terms.damages.emplace_back();
        damage.type = action.deals[i].first.index();
        damage.raw = evaluate(formulas.deals[i], env);
        if (!f.even && !formulas.steady) continue; // deal() does it, once for the blow
        damage.plain = mitigated(f, damage.type, damage.raw, env);
        damage.critical = mitigated(f, damage.type, damage.raw * terms.crit_factor, env);
    }
    for (Evaluator& drain : formulas.drains)
        terms.drains.push_back(std::max(0.0, evaluate(drain, env)));
}

void apply_on_hit(Field& f, Actor& actor, Place& place, Actor& target, double draw) {
    const Action& action = *place.action;
    const bool to_self = action.applies->to_self;
    Actor& receiver = to_self ? actor : target;
    const bool drawn = happens(action.applies->chance, draw);
    if (f.watch.inquiry)
        note_effect(f, actor, action.applies->effect, action.id, nullptr, action.span,
                    !drawn                   ? chance_failed
                    : receiver.life.standing ? ""
                                             : "whoever would get it had fallen");
    if (drawn && receiver.life.standing)
        apply_effect(f, receiver, action.applies->effect, action.applies->duration, !to_self,
                     origin_of(f, place.id));
}

/// One blow on one target: hit, crit, spread, mitigation, the pool, then what a hit drains and
/// applies (M62).
[[gnu::always_inline]] inline void land_blow(Field& f, Actor& actor, Place& place, Actor& target) {
    const BlowDraws draws = blow_draws(f.luck, actor.index, actor.blows++);
    const BlowTerms& terms = blow_terms(f, actor, place, target);
    if (!happens(terms.hit, draws.hit)) {
        place.count->misses += 1;
        if (f.watch.any) blow_stopped(f, actor, place, target, "misses", "the blow missed");
        return;
    }
    if (target.under.warded) {
        place.count->warded += 1;
        if (f.watch.any) blow_stopped(f, actor, place, target, "warded", "a ward took the blow");
        return;
    }
    const bool critical = happens(terms.crit, draws.crit);
    const double lost = deal(f, actor, place, target, terms, draws, critical);
    for (std::size_t i = 0; i < terms.drains.size(); ++i)
        restore(f, actor, place.action->drains[i].first.index(), lost * terms.drains[i],
                origin_of(f, place.id));
    if (health(f, target) <= 0) {
        fall(f, target, &actor);
        if (f.over) return;
    }
    if (f.cast.anybody_hears) {
        fire(f, actor, TriggerEvent::hit, &target);
        if (critical) fire(f, actor, TriggerEvent::crit, &target);
        if (target.life.standing) fire(f, target, TriggerEvent::hurt, &actor);
    }
    if (place.action->applies) apply_on_hit(f, actor, place, target, draws.apply);
}

} // namespace

void strike(Field& f, Actor& actor, Place& place, Actor* front) {
    begin_action(f, actor, place);
    int struck = 0;
    for (Actor* target = front; target != actor.opposed_end; ++target) {
        if (!target->active()) continue;
        land_blow(f, actor, place, *target);
        if (f.over || !actor.life.standing) return;
        if (++struck == place.action->targets) return;
    }
}

const BlowTerms& blow_terms(Field& f, Actor& actor, Place& place, Actor& target) {
    TermsKept& kept = place.terms[target.position];
    const bool steady = place.formulas->steady;
    if (steady)
        if (const BlowTerms* known = kept.find(actor.derived->version, target.derived->version))
            return *known;
    BlowTerms& terms = kept.next(steady);
    find_blow_terms(f, terms, actor, place, target);
    return terms;
}

double mitigated(Field& f, std::size_t type, double amount, Environment& env) {
    env[Scalar::amount] = std::max(0.0, amount);
    return std::max(0.0, evaluate(f.rules.mitigated[type], env));
}

double chance_of(Evaluator& formula, const Environment& env) {
    return std::clamp(evaluate(formula, env), 0.0, 1.0);
}

} // namespace panoplon::fighting
