#include "fight/arena.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

void Arena::prepare_actor(Actor& actor, const ActorSetup& setup) {
    actor.setup = actor.first = &setup;
    actor.index = static_cast<std::uint64_t>(&actor - actors_.data());
    actor.ours = setup.side == Side::character;
    actor.position = actor.ours ? actor.index : actor.index - ours_;
    actor.opposed = actors_.data() + (actor.ours ? ours_ : 0);
    actor.opposed_end = actors_.data() + (actor.ours ? actors_.size() : ours_);
    actor.rules.clear();
    actor.always_stirred = false;
    for (const SetupRule& rule : setup.rules) {
        const Use& use = *armoury_.at(setup.pack[rule.packed].item).use;
        const bool sees_pools = rule.when.given() || !use.restore.empty();
        actor.rules.push_back({rule.packed, &use, rule_formula(rule.when), sees_pools});
        actor.always_stirred =
            actor.always_stirred || rule.when.reads(Scalar::time) || use.to_allies;
    }
    actor.uses = !actor.rules.empty();
    actor.effects.clear();
    actor.states.clear();
    actor.first_derived = nullptr;
    take_up(actor);
    actor.next_regen.assign(regens_.size(), 0);
    actor.first_pack_weight = 0;
    find_groups(actor);
    for (const PackedItem& packed : setup.pack)
        actor.first_pack_weight =
            bounded_sum(actor.first_pack_weight,
                        bounded_product(armoury_.at(packed.item).weight, packed.count));
}

/// Which of its consumables cool down together (M31).
void Arena::find_groups(Actor& actor) const {
    const std::vector<PackedItem>& pack = actor.setup->pack;
    const auto group = [&](std::size_t packed) -> const std::string& {
        static const std::string none;
        const std::optional<Use>& use = armoury_.at(pack[packed].item).use;
        return use ? use->group : none;
    };
    actor.groups.assign(pack.size(), 0);
    for (std::size_t i = 0; i < pack.size(); ++i) {
        if (group(i).empty()) continue;
        std::size_t first = 0;
        while (group(first) != group(i)) ++first;
        actor.groups[i] = static_cast<int>(first) + 1;
    }
}

void Arena::start_actor(Actor& actor) {
    if (actor.setup != actor.first) {
        actor.setup = actor.first;
        take_up(actor);
    }
    const ActorSetup& setup = *actor.setup;
    actor.strength = actor.ours ? 1 : strength_;
    actor.effects.clear();
    actor.restore_factor = 1;
    actor.absorb = 0;
    actor.warded = false;
    actor.next_tick = actor.next_end = never;
    actor.swapped.assign(setup.swaps.size(), false);
    actor.pack_weight = actor.first_pack_weight;
    actor.standing = true;
    actor.present = false;
    const Derived* const first = actor.first_derived;
    if (!first || first->version != actor.first_version) {
        actor.first_derived = &derived(actor);
        actor.first_version = actor.first_derived->version;
    }
    actor.derived = actor.first_derived;
    set_ceilings(actor, true);
    actor.order =
        order_moves_ ? evaluate(order_, environment(actor, nullptr)) : actor.derived->order;
    for (Place& place : actor.places) {
        place.ready = 0;
        place.account = 0;
    }
    find_counts(actor);
    actor.use_ready.assign(setup.pack.size(), 0);
    if (actor.uses)
        unsettle(actor);
    else
        std::fill_n(actor.calm, pools_, Calm());
    for (RuleState& rule : actor.rules) {
        rule.last_refusal = Refused::no;
        rule.over = false;
    }
    actor.left.resize(setup.pack.size());
    for (std::size_t i = 0; i < setup.pack.size(); ++i) actor.left[i] = setup.pack[i].count;
    actor.ready = setup.arrival;
    actor.blows = 0;
    actor.acting = nullptr;
    actor.flows.clear();
    change_own_rates(actor);
    actor.lives = actor.first_lives = lives_of(actor);
    actor.revived = -1;
    actor.triggered.clear();
    find_regen_moments(actor);
    actor.next_cooldown = never;
    stir(actor);
    if (actor.ceilings[health_] > 0) return;
    const StatId ceiling = armoury_.pools[health_].max;
    throw FightStopped{{fmt::format("'{}' has {} {} at level {}: it can't stand", setup.name,
                                    actor.ceilings[health_], armoury_.at(ceiling).id, setup.level),
                        armoury_.at(ceiling).span}};
}

/// The state of now: one that was found already, or found now.
Derived& Arena::derived(Actor& actor) {
    changing_.clear();
    for (const EffectState& effect : actor.effects)
        if (!effect.effect->modifiers.empty()) changing_.push_back(effect.id);
    Derived* known = actor.states.find([&](const Derived& state) {
        return state.setup == actor.setup && state.effects == changing_ &&
               state.reach.has(carried(actor));
    });
    if (known) return *known;
    Derived& state = actor.states.next();
    state.effects = changing_;
    find_derived(actor, state);
    return state;
}

/// Stats from nothing: own and worn, then effects by kind and age, then the band, so that one state
/// has one value whatever came before it (M2). The load is found without the band (M50).
void Arena::find_derived(Actor& actor, Derived& state) {
    const ActorSetup& setup = *actor.setup;
    state.setup = nullptr; // until all is found
    sums_ = setup.sums;
    for (const EffectId effect : state.effects) sums_.include(armoury_.at(effect).modifiers);
    state.stats.resize(armoury_.stats.size());
    deriver_.derive(setup.base, sums_, setup.level, state.stats);
    state.capacity = 0;
    state.reach = BandReach();
    if (setup.carries) {
        state.capacity = deriver_.capacity(state.stats, setup.level) + setup.granted;
        if (!std::isfinite(state.capacity))
            throw FightStopped{
                {fmt::format("the capacity '{}' gives no number", armoury_.carry.capacity.text),
                 armoury_.carry.capacity.span}};
        state.reach = band_around(armoury_.carry, carried(actor), state.capacity);
    }
    state.band = state.reach.band;
    if (const Band* applied = armoury_.carry.band(state.band)) {
        sums_.include(applied->modifiers);
        deriver_.derive(setup.base, sums_, setup.level, state.stats);
    }
    state.every.assign(actor.places.size(), 0);
    state.version = ++last_version_;
    actor.derived = &state;
    state.regen.resize(regens_.size());
    for (std::size_t r = 0; r < regens_.size(); ++r)
        state.regen[r] = regens_[r].moves ? 0 : regen_rate(actor, r);
    if (!order_moves_) state.order = evaluate(order_, environment(actor, nullptr));
    state.setup = &setup;
}

void Arena::derive(Actor& actor) {
    const int before = actor.derived->band;
    actor.derived = &derived(actor);
    change_own_rates(actor);
    stir(actor);
    set_ceilings(actor, false);
    find_regen_moments(actor);
    const double order =
        order_moves_ ? evaluate(order_, environment(actor, nullptr)) : actor.derived->order;
    if (order != actor.order) order_changed_ = true;
    actor.order = order;
    if (!timeline_ || before == actor.derived->band) return;
    const Band* band = armoury_.carry.band(actor.derived->band);
    tell(actor, "band", band ? band->name : "none", "", 0, health(actor));
}

/// After a change of the pack: only another band changes stats (M31).
void Arena::weigh_pack(Actor& actor) {
    if (!actor.derived->reach.has(carried(actor))) derive(actor);
}

/// M10, M11: a pool starts as full as it says; a falling ceiling clamps it, a rising one leaves
/// the amount or its share.
void Arena::set_ceilings(Actor& actor, bool first) {
    for (std::size_t p = 0; p < armoury_.pools.size(); ++p) {
        const Pool& pool = armoury_.pools[p];
        double ceiling = std::max(0.0, actor.derived->stats[pool.max.index()]);
        if (p == health_) ceiling *= actor.strength;
        if (first) {
            actor.pools[p] = ceiling * pool.start;
        } else if (pool.keep_share && ceiling > actor.ceilings[p] && actor.ceilings[p] > 0) {
            actor.pools[p] *= ceiling / actor.ceilings[p];
        }
        actor.ceilings[p] = ceiling;
        actor.pools[p] = std::clamp(actor.pools[p], 0.0, ceiling);
    }
    find_quiet(actor);
}

double Arena::regen_rate(const Actor& actor, std::size_t regen) {
    return evaluate(regens_[regen].rate, environment(actor, nullptr));
}

void Arena::no_number(const Evaluator& formula, double value) {
    const std::string inputs = formula.last_inputs();
    throw FightStopped{{fmt::format("the formula '{}' gives {}{}", formula.formula().text,
                                    std::isnan(value) ? "nan" : shortest(value),
                                    inputs.empty() ? "" : " with " + inputs),
                        formula.formula().span}};
}

/// When regen next falls, of pools that gain or lose by it: whole periods after the arrival. This
/// moment is passed over once it has had its regen.
void Arena::find_regen_moments(Actor& actor) {
    actor.regen_due = never;
    const Ticks arrival = actor.setup->arrival;
    for (std::size_t r = 0; r < regens_.size(); ++r) {
        const PoolRegen& regen = regens_[r];
        Ticks& next = actor.next_regen[r];
        next = never;
        if (!regen.moves && actor.derived->regen[r] == 0) continue;
        const double periods = std::ceil((now_ - arrival) / regen.period);
        next = arrival + std::max(1.0, periods) * regen.period;
        if (next == now_ && regenerated_) next += regen.period;
        actor.regen_due = std::min(actor.regen_due, next);
    }
    first_regen_ = std::min(first_regen_, actor.regen_due);
}

int Arena::lives_of(Actor& actor) {
    if (!lives_) return 0;
    constexpr double most = 1000;
    return static_cast<int>(
        std::clamp(std::floor(evaluate(*lives_, environment(actor, nullptr))), 0.0, most));
}

/// M64: a life in place of a fall; false when there is none left.
bool Arena::lose_life(Actor& actor) {
    if (actor.lives == 0) return false;
    --actor.lives;
    actor.revived = now_;
    actor.pools[health_] = actor.ceilings[health_] * armoury_.combat.revive_share;
    stir(actor);
    if (timeline_) tell(actor, "life_lost", "", "", 0, health(actor));
    fire(actor, TriggerEvent::life_lost, nullptr);
    return true;
}

/// Who is felled does nothing more; the fight ends at once when a side has nobody left (M60, M65).
void Arena::fall(Actor& actor, Actor* by) {
    if (lose_life(actor)) return;
    actor.standing = false;
    first_cooldown_ = 0;
    rates_stirred_ = true;
    actor.pools[health_] = 0;
    actor.flows.clear();
    actor.acting = nullptr;
    while (!actor.effects.empty()) drop_effect(actor, actor.effects.size() - 1);
    rows_.rest(actor);
    find_active();
    if (timeline_) tell(actor, "falls", "", "", 0, 0);
    over_ = !someone_left(actor.setup->side);
    if (by && !over_) fire(*by, TriggerEvent::kill, &actor);
}

/// What a blow or a hostile tick comes to: absorbs take first, the oldest before the others (M23).
Loss Arena::take_damage(Actor& actor, double amount) {
    Loss loss;
    if (actor.revived == now_) return loss; // several lives at one instant are never lost (M64)
    if (actor.absorb > 0) {
        loss.absorbed = amount > actor.absorb * (1 + rounding) ? actor.absorb : amount;
        wear_absorbs(actor, loss.absorbed);
    }
    loss.lost = lose_health(actor, amount - loss.absorbed);
    return loss;
}

} // namespace panoplon
