#include "fight/arena.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

double Arena::chance_of(Evaluator& formula, const Environment& env) {
    return std::clamp(evaluate(formula, env), 0.0, 1.0);
}

bool Arena::affordable(const Actor& actor, const Action& action) {
    return std::all_of(action.cost.begin(), action.cost.end(), [&](const auto& cost) {
        const std::size_t pool = cost.first.index();
        return actor.pools[pool] >= cost.second - rounding_of(actor, pool);
    });
}

/// The first one that opposes it and stands, in the order of arrival; null when there is none.
Actor* Arena::front_target(const Actor& actor) {
    for (Actor* one = actor.opposed; one != actor.opposed_end; ++one)
        if (one->active()) return one;
    return nullptr;
}

/// What the actor can do with what it wears now. Terms that were kept stay: versions tell whether
/// they are those of now.
void Arena::make_places(Actor& actor) {
    const std::vector<ActionId>& actions = actor.setup->actions;
    actor.places.resize(actions.size());
    for (std::size_t i = 0; i < actions.size(); ++i) {
        Place& place = actor.places[i];
        place.id = actions[i];
        place.action = &armoury_.at(place.id);
        place.formulas = &actions_[place.id.index()];
        place.index = i;
        place.ready = 0;
        place.account = 0;
        const auto others = static_cast<std::size_t>(actor.opposed_end - actor.opposed);
        place.terms.resize(others);
        place.flows.resize(others);
    }
}

/// Whatever hangs on what the actor wears now.
void Arena::take_up(Actor& actor) {
    actor.hears = events_of(actor.setup->triggers);
    make_places(actor);
    actor.swaps.clear();
    for (const SetupSwap& one : actor.setup->swaps) actor.swaps.push_back(rule_formula(one.when));
    actor.clocked = reads_time(actor);
}

void Arena::find_counts(Actor& actor) {
    std::vector<ActionCount>& counts = actor.ours ? counts_->actions : counts_->foe_actions;
    std::vector<double>& dealt = actor.ours ? counts_->dealt_by_action : counts_->taken_by_action;
    for (Place& place : actor.places) {
        place.count = counts.data() + place.id.index();
        place.dealt = dealt.data() + place.id.index() * armoury_.damages.size();
    }
}

/// M61: the first on its list that is ready, affordable and whose `when` holds; none without one.
Place* Arena::choose_action(Actor& actor, const Actor* front) {
    if (!front) return nullptr;
    for (Place& place : actor.places) {
        if (place.ready > now_) continue;
        if (place.formulas->unconditional) return &place;
        if (affordable(actor, *place.action) && when_holds(actor, place, *front)) return &place;
    }
    return nullptr;
}

bool Arena::when_holds(Actor& actor, Place& place, const Actor& front) {
    std::optional<Evaluator>& when = place.formulas->when;
    return !when || holds(*when, environment(actor, &front));
}

/// How long an action takes with the actor's stats of now; never 0 or less (M66).
Ticks Arena::time_taken(Actor& actor, const Place& place) const {
    Evaluator& formula = place.formulas->every;
    const double units = evaluate(formula, environment(actor, nullptr));
    const Ticks every = to_ticks(units);
    if (every <= 0) {
        const std::string inputs = formula.last_inputs();
        throw FightStopped{
            {fmt::format("'every' of '{}' is {}{}: time would stand still", place.action->id, units,
                         inputs.empty() ? "" : " with " + inputs),
             place.action->every.span}};
    }
    return every;
}

Ticks Arena::time_of(Actor& actor, Place& place) {
    if (!place.formulas->steady_time) return time_taken(actor, place);
    Ticks& every = actor.derived->every[place.index];
    if (every == 0) every = time_taken(actor, place);
    return every;
}

/// Pays, and makes the actor busy (M62, M66).
void Arena::begin_action(Actor& actor, Place& place) {
    const Action& action = *place.action;
    for (const auto& [pool, cost] : action.cost) {
        take_from(actor, pool.index(), cost);
        stir_pool(actor, pool.index());
    }
    actor.ready = now_ + time_of(actor, place);
    place.ready = now_ + action.cooldown;
    if (action.cooldown > 0) first_cooldown_ = 0;
    place.count->done += 1;
}

void Arena::strike(Actor& actor, Place& place, Actor* front) {
    begin_action(actor, place);
    int struck = 0;
    for (Actor* target = front; target != actor.opposed_end; ++target) {
        if (!target->active()) continue;
        land_blow(actor, place, *target);
        if (over_ || !actor.standing) return;
        if (++struck == place.action->targets) return;
    }
}

const BlowTerms& Arena::blow_terms(Actor& actor, Place& place, Actor& target) {
    TermsKept& kept = place.terms[target.position];
    const bool steady = place.formulas->steady;
    if (steady)
        if (const BlowTerms* known = kept.find(actor.derived->version, target.derived->version))
            return *known;
    BlowTerms& terms = kept.next(steady);
    find_blow_terms(terms, actor, place, target);
    return terms;
}

void Arena::find_blow_terms(BlowTerms& terms, Actor& actor, const Place& place, Actor& target) {
    const Action& action = *place.action;
    ActionFormulas& formulas = *place.formulas;
    Environment env = environment(actor, &target);
    terms.self_version = actor.derived->version;
    terms.target_version = target.derived->version;
    terms.hit = chance_of(hit_, env);
    terms.crit = chance_of(crit_, env);
    terms.crit_factor = terms.crit > 0 ? evaluate(crit_factor_, env) : 1;
    terms.damages.clear();
    terms.drains.clear();
    for (std::size_t i = 0; i < action.deals.size(); ++i) {
        DamageTerms& damage = terms.damages.emplace_back();
        damage.type = action.deals[i].first.index();
        damage.raw = evaluate(formulas.deals[i], env);
        if (!even_ && !formulas.steady) continue; // deal() does it, once for the blow
        damage.plain = mitigated(damage.type, damage.raw, env);
        damage.critical = mitigated(damage.type, damage.raw * terms.crit_factor, env);
    }
    for (Evaluator& drain : formulas.drains)
        terms.drains.push_back(std::max(0.0, evaluate(drain, env)));
}

/// What is left of an amount after the target's defences; never below 0.
double Arena::mitigated(std::size_t type, double amount, Environment& env) {
    env[Scalar::amount] = std::max(0.0, amount);
    return std::max(0.0, evaluate(mitigated_[type], env));
}

/// The damage of a hit, type after type; returns what the target's pool lost (M62).
double Arena::deal(Actor& actor, Place& place, Actor& target, const BlowTerms& terms,
                   const BlowDraws& draws, bool critical) {
    const bool unspread = place.formulas->unspread;
    double lost = 0;
    double dealt = 0;
    for (const DamageTerms& damage : terms.damages) {
        const double factor = critical ? terms.crit_factor : 1;
        const double amount = unspread ? (critical ? damage.critical : damage.plain)
                                       : spread_damage(actor, target, damage, factor, draws.spread);
        const Loss loss = take_damage(target, amount * actor.strength);
        lost += loss.lost;
        dealt += loss.all();
        place.dealt[damage.type] += loss.all();
    }
    ActionCount& count = *place.count;
    count.hits += 1;
    count.crits += critical;
    count.dealt += dealt;
    if (timeline_)
        tell(actor, critical ? "crits" : "hits", place.action->id, target.setup->name, dealt,
             health(target));
    return lost;
}

double Arena::spread_damage(const Actor& actor, const Actor& target, const DamageTerms& damage,
                            double factor, double draw) {
    Environment env = environment(actor, &target);
    const double spread = 1 + armoury_.combat.spread * (2 * draw - 1);
    return mitigated(damage.type, damage.raw * (factor * spread), env);
}

/// One blow on one target: hit, crit, spread, mitigation, the pool, then what a hit drains and
/// applies (M62).
void Arena::land_blow(Actor& actor, Place& place, Actor& target) {
    const BlowDraws draws = blow_draws(luck_, actor.index, actor.blows++);
    const BlowTerms& terms = blow_terms(actor, place, target);
    if (!happens(terms.hit, draws.hit)) {
        place.count->misses += 1;
        if (watched_) blow_stopped(actor, place, target, "misses", "the blow missed");
        return;
    }
    if (target.warded) {
        place.count->warded += 1;
        if (watched_) blow_stopped(actor, place, target, "warded", "a ward took the blow");
        return;
    }
    const bool critical = happens(terms.crit, draws.crit);
    const double lost = deal(actor, place, target, terms, draws, critical);
    for (std::size_t i = 0; i < terms.drains.size(); ++i)
        restore(actor, place.action->drains[i].first.index(), lost * terms.drains[i],
                origin_of(place.id));
    if (health(target) <= 0) {
        fall(target, &actor);
        if (over_) return;
    }
    if (triggers_) {
        fire(actor, TriggerEvent::hit, &target);
        if (critical) fire(actor, TriggerEvent::crit, &target);
        if (target.standing) fire(target, TriggerEvent::hurt, &actor);
    }
    if (place.action->applies) apply_on_hit(actor, place, target, draws.apply);
}

void Arena::blow_stopped(const Actor& actor, const Place& place, const Actor& target,
                         const char* event, const char* why) {
    const Action& action = *place.action;
    if (inquiry_ && action.applies)
        note_effect(actor, action.applies->effect, action.id, nullptr, action.span, why);
    if (timeline_) tell(actor, event, action.id, target.setup->name, 0, health(target));
}

void Arena::apply_on_hit(Actor& actor, Place& place, Actor& target, double draw) {
    const Action& action = *place.action;
    const bool to_self = action.applies->to_self;
    Actor& receiver = to_self ? actor : target;
    const bool drawn = happens(action.applies->chance, draw);
    if (inquiry_)
        note_effect(actor, action.applies->effect, action.id, nullptr, action.span,
                    !drawn              ? chance_failed
                    : receiver.standing ? ""
                                        : "whoever would get it had fallen");
    if (drawn && receiver.standing)
        apply_effect(receiver, action.applies->effect, action.applies->duration, !to_self,
                     origin_of(place.id));
}

} // namespace panoplon
