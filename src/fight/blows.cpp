#include "fight/blows.h"

#include "fight/actions.h"
#include "fight/calls.h"
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
    if (f.watch.inquiry)
        for (const Application& application : action.applies)
            note_effect(f, actor, application.effect, action.id, nullptr, action.span, why);
    if (f.watch.timeline)
        tell(f, actor, event, action.id, target.setup->name, 0, health(f, target));
}

/// What a blow drawn from its range, or from the armoury's spread, comes to.
[[gnu::noinline]] double spread_damage(Field& f, const Actor& actor, const Actor& target,
                                       const Place& place, const DamageTerms& damage, double factor,
                                       double draw) {
    Environment env = environment(f, actor, &target);
    if (!place.formulas->up_to.empty())
        return after_crit(f, damage.type, damage.raw + damage.range * draw, factor, env);
    const double spread = 1 + f.rules.armoury.combat.spread * (2 * draw - 1);
    if (f.rules.armoury.combat.crit_after_mitigation)
        return mitigated(f, damage.type, damage.raw * spread, env) * factor;
    return mitigated(f, damage.type, damage.raw * (factor * spread), env);
}

/// The damage of a hit, type after type (M62).
[[gnu::always_inline]] inline Loss deal(Field& f, Actor& actor, Place& place, Actor& target,
                                        const BlowTerms& terms, const BlowDraws& draws,
                                        bool critical) {
    const bool unspread = place.formulas->unspread;
    Loss whole;
    for (const DamageTerms& damage : terms.damages) {
        const double factor = critical ? terms.crit_factor : 1;
        const double amount =
            unspread ? (critical ? damage.critical : damage.plain)
                     : spread_damage(f, actor, target, place, damage, factor, draws.spread);
        const Loss loss = take_damage(f, target, amount * actor.strength);
        whole.lost += loss.lost;
        whole.absorbed += loss.absorbed;
        place.dealt[damage.type] += loss.all();
    }
    ActionCount& count = *place.count;
    count.hits += 1;
    count.crits += critical;
    count.dealt += whole.all();
    if (f.watch.timeline)
        tell(f, actor, critical ? "crits" : "hits", place.action->id, target.setup->name,
             whole.all(), health(f, target));
    return whole;
}

void find_blow_terms(Field& f, BlowTerms& terms, Actor& actor, const Place& place, Actor& target) {
    const Action& action = *place.action;
    ActionFormulas& formulas = *place.formulas;
    Environment env = environment(f, actor, &target);
    terms.self_version = 0; // until all is found
    terms.hit = chance_of(*formulas.hit, env);
    terms.crit = chance_of(*formulas.crit, env);
    terms.crit_factor = terms.crit > 0 ? evaluate(*formulas.crit_factor, env) : 1;
    terms.returned = f.rules.returned ? share_returned(f, actor, target) : 0;
    terms.damages.clear();
    terms.drains.clear();
    for (std::size_t i = 0; i < action.deals.size(); ++i) {
        DamageTerms& damage = terms.damages.emplace_back();
        damage.type = action.deals[i].first.index();
        damage.raw = evaluate(formulas.deals[i], env);
        damage.range = formulas.up_to.empty() ? 0 : evaluate(formulas.up_to[i], env) - damage.raw;
        if (!f.even && !formulas.steady) continue; // deal() does it, once for the blow
        damage.plain = middle_damage(f, damage, 1, env);
        damage.critical = middle_damage(f, damage, terms.crit_factor, env);
    }
    for (Evaluator& drain : formulas.drains)
        terms.drains.push_back(std::max(0.0, evaluate(drain, env)));
    terms.self_version = actor.derived->version;
    terms.target_version = target.derived->version;
}

void apply_on_hit(Field& f, Actor& actor, Place& place, Actor& target, std::size_t nth,
                  double draw) {
    const Application& application = place.action->applies[nth];
    Actor& receiver = application.to_self ? actor : target;
    const bool drawn = happens(value_of(f, place.formulas->chances[nth], actor, &target), draw);
    if (f.watch.inquiry)
        note_effect(f, actor, application.effect, place.action->id, nullptr, place.action->span,
                    !drawn                   ? chance_failed
                    : receiver.life.standing ? ""
                                             : "whoever would get it had fallen");
    if (drawn && receiver.life.standing)
        apply_effect(f, receiver, application.effect, application.duration, !application.to_self,
                     actor, origin_of(f, place.id));
}

/// M62a: what of a blow comes back to who struck. It is mitigated by nothing and sets nothing off.
void give_back(Field& f, Actor& actor, Place& place, const Actor& target, double amount) {
    if (actor.under.warded) return;
    const Loss loss = take_damage(f, actor, amount * target.strength);
    place.count->returned += loss.all();
    if (f.watch.timeline)
        tell(f, target, "returns", place.action->id, actor.setup->name, loss.all(),
             health(f, actor));
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
    const Loss loss = deal(f, actor, place, target, terms, draws, critical);
    for (std::size_t i = 0; i < terms.drains.size(); ++i)
        restore(f, actor, place.action->drains[i].first.index(), loss.lost * terms.drains[i],
                origin_of(f, place.id));
    const double returned = loss.all() * terms.returned;
    if (returned > 0) give_back(f, actor, place, target, returned);
    if (health(f, target) <= 0) {
        fall(f, target, &actor);
        if (f.over) return;
    }
    if (returned > 0 && health(f, actor) <= 0) {
        fall(f, actor, &target);
        if (f.over || !actor.life.standing) return;
    }
    if (f.cast.anybody_hears) {
        fire(f, actor, TriggerEvent::hit, &target);
        if (critical) fire(f, actor, TriggerEvent::crit, &target);
        if (target.life.standing) fire(f, target, TriggerEvent::hurt, &actor);
    }
    const std::size_t applied = place.action->applies.size();
    if (applied > 0) apply_on_hit(f, actor, place, target, 0, draws.apply);
    for (std::size_t i = 1; i < applied; ++i)
        apply_on_hit(f, actor, place, target, i,
                     application_draw(f.luck, actor.index, actor.blows - 1, i));
}

/// Its blows, one on each target.
[[gnu::always_inline]] inline void land_blows(Field& f, Actor& actor, Place& place) {
    int struck = 0;
    for_each_target(f, actor, [&](Actor& target) {
        land_blow(f, actor, place, target);
        return !f.over && actor.life.standing && ++struck != place.action->targets;
    });
}

[[gnu::always_inline]] inline void strike_and_call(Field& f, Actor& actor, Place& place) {
    if (place.formulas->strikes) land_blows(f, actor, place);
    if (place.formulas->calls && !f.over && actor.life.standing) call(f, actor, place);
}

} // namespace

void strike(Field& f, Actor& actor, Place& place) {
    begin_action(f, actor, place);
    strike_and_call(f, actor, place);
}

void strike_at_once(Field& f, Actor& actor, Place& place) {
    place.count->done += 1;
    strike_and_call(f, actor, place);
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

double after_crit(Field& f, std::size_t type, double raw, double factor, Environment& env) {
    if (f.rules.armoury.combat.crit_after_mitigation) return mitigated(f, type, raw, env) * factor;
    return mitigated(f, type, raw * factor, env);
}

double middle_damage(Field& f, const DamageTerms& damage, double factor, Environment& env) {
    return after_crit(f, damage.type, damage.raw + damage.range / 2, factor, env);
}

double share_returned(Field& f, const Actor& actor, const Actor& target) {
    return std::max(0.0, evaluate(*f.rules.returned, environment(f, target, &actor)));
}

double chance_of(Evaluator& formula, const Environment& env) {
    return std::clamp(evaluate(formula, env), 0.0, 1.0);
}

} // namespace panoplon::fighting
