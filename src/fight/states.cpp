#include "fight/states.h"

#include "base/text.h"
#include "fight/actions.h"
#include "fight/calls.h"
#include "fight/counting.h"
#include "fight/course.h"
#include "fight/effects.h"
#include "fight/flows.h"
#include "fight/instants.h"
#include "fight/telling.h"
#include "fight/triggers.h"
#include "fight/uses.h"
#include "outfit/load.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon::fighting {

namespace {

/// Which of its consumables cool down together (M31).
void find_groups(const Field& f, Actor& actor) {
    const std::vector<PackedItem>& pack = actor.setup->pack;
    const auto group = [&](std::size_t packed) -> const std::string& {
        static const std::string none;
        const std::optional<Use>& use = f.rules.armoury.at(pack[packed].item).use;
        return use ? use->group : none;
    };
    actor.pack.groups.assign(pack.size(), 0);
    for (std::size_t i = 0; i < pack.size(); ++i) {
        if (group(i).empty()) continue;
        std::size_t first = 0;
        while (group(first) != group(i)) ++first;
        actor.pack.groups[i] = static_cast<int>(first) + 1;
    }
}

/// Stats from nothing: own and worn, then effects by kind and age, then the band, so that one state
/// has one value whatever came before it (M2). The load is found without the band (M50).
void find_derived(Field& f, Actor& actor, Derived& state) {
    const ActorSetup& setup = *actor.setup;
    state.setup = nullptr; // until all is found
    f.room.sums = setup.sums;
    for (const EffectId effect : state.effects)
        f.room.sums.include(f.rules.armoury.at(effect).modifiers);
    state.stats.resize(f.rules.armoury.stats.size());
    f.rules.deriver.derive(setup.base, f.room.sums, setup.level, state.stats);
    state.capacity = 0;
    state.reach = BandReach();
    if (setup.carries) {
        state.capacity = f.rules.deriver.capacity(state.stats, setup.level) + setup.granted;
        if (!std::isfinite(state.capacity))
            throw FightStopped{{fmt::format("the capacity '{}' gives no number",
                                            f.rules.armoury.carry.capacity.text),
                                f.rules.armoury.carry.capacity.span}};
        state.reach = band_around(f.rules.armoury.carry, carried(actor), state.capacity);
    }
    state.band = state.reach.band;
    if (const Band* applied = f.rules.armoury.carry.band(state.band)) {
        f.room.sums.include(applied->modifiers);
        f.rules.deriver.derive(setup.base, f.room.sums, setup.level, state.stats);
    }
    state.every.assign(actor.places.size(), 0);
    state.version = ++f.cast.last_version;
    take_state(actor, state);
    state.regen.resize(f.rules.regens.size());
    for (std::size_t r = 0; r < f.rules.regens.size(); ++r)
        state.regen[r] = f.rules.regens[r].moves ? 0 : regen_rate(f, actor, r);
    if (!f.rules.order_moves) state.order = evaluate(f.rules.order, environment(f, actor, nullptr));
    state.setup = &setup;
}

/// What formulas see as its load: bounded, where there is no capacity at all.
void find_load(Actor& actor) {
    if (!actor.setup->carries) return;
    constexpr double most = 1e6;
    const double weight = to_weight(carried(actor));
    const double capacity = actor.derived->capacity;
    actor.view.load = capacity > 0 ? std::min(most, weight / capacity) : weight > 0 ? most : 0;
}

/// M10, M11: a pool starts as full as it says; a falling ceiling clamps it, a rising one leaves
/// the amount or its share.
void set_ceilings(Field& f, Actor& actor, bool first) {
    for (std::size_t p = 0; p < f.rules.armoury.pools.size(); ++p) {
        const Pool& pool = f.rules.armoury.pools[p];
        double ceiling = std::max(0.0, actor.derived->stats[pool.max.index()]);
        if (p == f.rules.health) ceiling *= actor.strength;
        if (first) {
            const std::vector<double>& begins = actor.start.setup->begins;
            actor.pools[p] = ceiling * (begins.empty() ? pool.start : begins[p]);
        } else if (pool.keep_share && ceiling > actor.ceilings[p] && actor.ceilings[p] > 0) {
            actor.pools[p] *= ceiling / actor.ceilings[p];
        }
        actor.ceilings[p] = ceiling;
        actor.pools[p] = std::clamp(actor.pools[p], 0.0, ceiling);
    }
    find_quiet(f, actor);
}

/// When regen next falls, of pools that gain or lose by it: whole periods after the arrival. This
/// moment is passed over once it has had its regen.
void find_regen_moments(Field& f, Actor& actor) {
    actor.due.regen = never;
    const Ticks arrival = actor.life.arrival;
    for (std::size_t r = 0; r < f.rules.regens.size(); ++r) {
        const PoolRegen& regen = f.rules.regens[r];
        Ticks& next = actor.due.regens[r];
        next = never;
        if (!regen.moves && actor.derived->regen[r] == 0) continue;
        const double periods = std::ceil((f.now - arrival) / regen.period);
        next = arrival + std::max(1.0, periods) * regen.period;
        if (next == f.now && f.clock.regenerated) next += regen.period;
        actor.due.regen = std::min(actor.due.regen, next);
    }
    f.clock.first_regen = std::min(f.clock.first_regen, actor.due.regen);
}

/// Its turn among those who act at one instant.
void find_order(Field& f, Actor& actor) {
    const double order = f.rules.order_moves
                             ? evaluate(f.rules.order, environment(f, actor, nullptr))
                             : actor.derived->order;
    f.cast.order_changed = f.cast.order_changed || order != actor.order;
    actor.order = order;
}

int lives_of(Field& f, Actor& actor) {
    if (!f.rules.lives) return 0;
    constexpr double most = 1000;
    return static_cast<int>(std::clamp(
        std::floor(evaluate(*f.rules.lives, environment(f, actor, nullptr))), 0.0, most));
}

/// M64: a life in place of a fall; false when there is none left.
bool lose_life(Field& f, Actor& actor) {
    if (actor.life.left == 0) return false;
    --actor.life.left;
    actor.life.revived = f.now;
    actor.pools[f.rules.health] =
        actor.ceilings[f.rules.health] * f.rules.armoury.combat.revive_share;
    stir(f, actor);
    if (f.watch.timeline) tell(f, actor, "life_lost", "", "", 0, health(f, actor));
    fire(f, actor, TriggerEvent::life_lost, nullptr);
    return true;
}

} // namespace

void prepare_actor(Field& f, Actor& actor, const ActorSetup& setup) {
    actor.setup = actor.start.setup = &setup;
    actor.index = static_cast<std::uint64_t>(&actor - f.cast.actors.data());
    actor.ours = setup.side == Side::character;
    actor.position = actor.ours ? actor.index : actor.index - f.cast.ours;
    actor.opposed = f.cast.actors.data() + (actor.ours ? f.cast.ours : 0);
    actor.opposed_end = f.cast.actors.data() + (actor.ours ? f.cast.actors.size() : f.cast.ours);
    actor.uses.rules.clear();
    actor.uses.sees_others = false;
    for (const SetupRule& rule : setup.rules) {
        const Use& use = *f.rules.armoury.at(setup.pack[rule.packed].item).use;
        const bool sees_pools = rule.when.given() || !use.restore.empty();
        const UseQuantities& amounts = f.rules.uses[setup.pack[rule.packed].item.index()];
        actor.uses.rules.push_back(
            {rule.packed, &use, &amounts, f.rules.condition(rule.when), sees_pools});
        actor.uses.sees_others = actor.uses.sees_others || rule.when.reads(Scalar::time) ||
                                 use.to_allies || use.does.given();
    }
    actor.uses.any = !actor.uses.rules.empty();
    actor.effects.clear();
    actor.copies.assign(f.rules.armoury.effects.size(), 0);
    actor.view = {nullptr, actor.pools, actor.ceilings, actor.copies.data()};
    actor.states.clear();
    actor.start.derived = nullptr;
    take_up(f, actor);
    actor.due.regens.assign(f.rules.regens.size(), 0);
    actor.pack.first_weight = 0;
    find_groups(f, actor);
    for (const PackedItem& packed : setup.pack)
        actor.pack.first_weight =
            bounded_sum(actor.pack.first_weight,
                        bounded_product(f.rules.armoury.at(packed.item).weight, packed.count));
}

void start_actor(Field& f, Actor& actor, Ticks arrival) {
    if (actor.setup != actor.start.setup) {
        actor.setup = actor.start.setup;
        take_up(f, actor);
    }
    const ActorSetup& setup = *actor.setup;
    actor.strength = actor.ours ? 1 : f.strength;
    if (!actor.effects.empty()) actor.copies.assign(actor.copies.size(), 0);
    actor.effects.clear();
    actor.under = {};
    actor.swaps.done.assign(setup.swaps.size(), false);
    actor.pack.weight = actor.pack.first_weight;
    actor.life = {};
    actor.life.standing = true;
    actor.life.arrival = arrival;
    const Derived* const first = actor.start.derived;
    if (!first || first->version != actor.start.version) {
        actor.start.derived = &derived(f, actor);
        actor.start.version = actor.start.derived->version;
    }
    take_state(actor, *actor.start.derived);
    find_load(actor);
    set_ceilings(f, actor, true);
    find_order(f, actor);
    for (std::vector<Place>* const list : {&actor.places, &actor.thrown})
        for (Place& place : *list) {
            place.ready = 0;
            place.turn = 0;
            std::fill(place.accounts.begin(), place.accounts.end(), 0.0);
        }
    find_counts(f, actor);
    actor.pack.ready.assign(setup.pack.size(), 0);
    if (actor.uses.any)
        unsettle(f, actor);
    else
        std::fill_n(actor.calm, f.rules.pools, Calm());
    for (RuleState& rule : actor.uses.rules) {
        rule.last_refusal = Refused::no;
        rule.over = false;
    }
    actor.pack.left.resize(setup.pack.size());
    for (std::size_t i = 0; i < setup.pack.size(); ++i) actor.pack.left[i] = setup.pack[i].count;
    actor.ready = arrival;
    actor.blows = actor.choices = 0;
    actor.even.acting = nullptr;
    actor.even.flows.clear();
    change_own_rates(f, actor);
    actor.life.left = actor.life.first = lives_of(f, actor);
    actor.life.revived = -1;
    actor.triggered.clear();
    find_regen_moments(f, actor);
    actor.due.cooldown = never;
    stir(f, actor);
    if (actor.ceilings[f.rules.health] > 0) return;
    const StatId ceiling = f.rules.armoury.pools[f.rules.health].max;
    throw FightStopped{
        {fmt::format("'{}' has {} {} at level {}: it can't stand", setup.name,
                     actor.ceilings[f.rules.health], f.rules.armoury.at(ceiling).id, setup.level),
         f.rules.armoury.at(ceiling).span}};
}

Derived& derived(Field& f, Actor& actor) {
    f.room.changing.clear();
    for (const EffectState& effect : actor.effects)
        if (!effect.effect->modifiers.empty()) f.room.changing.push_back(effect.id);
    Derived* known = actor.states.find([&](const Derived& state) {
        return state.setup == actor.setup && state.effects == f.room.changing &&
               state.reach.has(carried(actor));
    });
    if (known) return *known;
    Derived& state = actor.states.next();
    state.effects = f.room.changing;
    find_derived(f, actor, state);
    return state;
}

void derive(Field& f, Actor& actor) {
    const int before = actor.derived->band;
    take_state(actor, derived(f, actor));
    find_load(actor);
    change_own_rates(f, actor);
    stir(f, actor);
    set_ceilings(f, actor, false);
    find_regen_moments(f, actor);
    find_order(f, actor);
    if (!f.watch.timeline || before == actor.derived->band) return;
    const Band* band = f.rules.armoury.carry.band(actor.derived->band);
    tell(f, actor, "band", band ? band->name : "none", "", 0, health(f, actor));
}

void weigh_pack(Field& f, Actor& actor) {
    if (!actor.derived->reach.has(carried(actor))) return derive(f, actor);
    find_load(actor);
}

double regen_rate(Field& f, const Actor& actor, std::size_t regen) {
    return evaluate(f.rules.regens[regen].rate, environment(f, actor, nullptr));
}

void no_number(const Evaluator& formula, double value) {
    const std::string inputs = formula.last_inputs();
    throw FightStopped{{fmt::format("the formula '{}' gives {}{}", formula.formula().text,
                                    std::isnan(value) ? "nan" : shortest(value),
                                    inputs.empty() ? "" : " with " + inputs),
                        formula.formula().span}};
}

void take_out(Field& f, Actor& actor) {
    actor.life.standing = false;
    f.clock.first_cooldown = 0;
    f.flows.rates_stirred = true;
    actor.pools[f.rules.health] = 0;
    actor.even.flows.clear();
    actor.even.acting = nullptr;
    bool changed = false;
    while (!actor.effects.empty()) {
        changed = changed || !actor.effects.back().effect->modifiers.empty();
        drop_effect(f, actor, actor.effects.size() - 1);
    }
    if (changed) {
        take_state(actor, derived(f, actor)); // what others ask of it is without them
        find_order(f, actor);
    }
    f.cast.rows.rest(actor);
    find_active(f);
    if (actor.setup->called) find_first_leave(f);
}

void fall(Field& f, Actor& actor, Actor* by) {
    if (lose_life(f, actor)) return;
    take_out(f, actor);
    if (f.watch.timeline) tell(f, actor, "falls", "", "", 0, 0);
    for (Actor* called : actor.callable)
        if (called->life.standing) leave(f, *called);
    f.over = !someone_left(f, actor.setup->side);
    if (by && !f.over) fire(f, *by, TriggerEvent::kill, &actor);
}

double share_shielded(Field& f, const Actor& actor, PoolShield& shield) {
    return std::clamp(evaluate(shield.share, environment(f, actor, nullptr)), 0.0, 1.0);
}

Loss take_damage(Field& f, Actor& actor, double amount) {
    Loss loss;
    if (actor.life.revived == f.now)
        return loss; // several lives at one instant are never lost (M64)
    if (actor.under.absorb > 0) {
        loss.absorbed = amount > actor.under.absorb * (1 + rounding) ? actor.under.absorb : amount;
        wear_absorbs(f, actor, loss.absorbed);
    }
    double rest = amount - loss.absorbed;
    for (PoolShield& shield : f.rules.shields) {
        const double share = share_shielded(f, actor, shield);
        if (share <= 0 || rest <= 0) continue;
        const double taken = take_from(actor, shield.pool, share * rest);
        stir_pool(f, actor, shield.pool);
        loss.absorbed += taken;
        rest -= taken;
        if (rest <= rounding * amount) rest = 0; // M12a
    }
    loss.lost = lose_health(f, actor, rest);
    return loss;
}

} // namespace panoplon::fighting
