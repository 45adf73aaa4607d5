#include "fight/effects.h"

#include "fight/counting.h"
#include "fight/course.h"
#include "fight/flows.h"
#include "fight/states.h"
#include "fight/telling.h"
#include "fight/uses.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

/// Effects stand by kind, then by age: the order of their sums.
bool stands_before(const EffectState& a, const EffectState& b) {
    return a.id != b.id ? a.id < b.id : a.began < b.began;
}

/// The oldest of a kind; null when there is none.
template <class Effects>
auto first_of(Effects& effects, EffectId id) -> decltype(effects.data()) {
    for (auto& state : effects)
        if (state.id == id) return &state;
    return nullptr;
}

/// Takes from a pool what no blow took: a tick, or a regen below 0. Returns what was lost.
double drain_pool(Field& f, Actor& actor, std::size_t pool, double amount) {
    if (pool == f.rules.health) return lose_health(f, actor, amount);
    const double lost = take_from(actor, pool, amount);
    stir_pool(f, actor, pool);
    return lost;
}

[[gnu::always_inline]] inline void tick(Field& f, Actor& actor, const EffectState& state) {
    count_event(f);
    const std::vector<PoolStep>& steps = f.rules.steps[state.id.index()];
    for (std::size_t i = 0; i < steps.size(); ++i) {
        const PoolStep& step = steps[i];
        const double given =
            state.rates ? (*state.rates)[i] * to_units(state.effect->period) : step.amount;
        if (given >= 0) {
            restore(f, actor, step.pool, given, origin_of(f, state.id));
            continue;
        }
        if (state.hostile && actor.under.warded) continue;
        const double amount = -given * tick_strength(f, actor, state);
        const double lost = state.hostile && step.pool == f.rules.health
                                ? take_damage(f, actor, amount).all()
                                : drain_pool(f, actor, step.pool, amount);
        if (step.pool != f.rules.health) continue;
        count_tick(f, actor, state.id, lost);
        if (f.watch.timeline)
            tell(f, actor, "tick", state.effect->id, actor.setup->name, lost, health(f, actor));
    }
}

void effect_began(Field& f, EffectId id) {
    if (f.ledger.holders[id.index()]++ == 0) f.ledger.since[id.index()] = f.now;
}

void effect_ended(Field& f, const Actor& actor, const EffectState& state) {
    const std::size_t i = state.id.index();
    if (--f.ledger.holders[i] == 0)
        f.ledger.counts->effects[i].uptime += to_units(f.now - f.ledger.since[i]);
    if (!f.watch.timeline) return;
    const auto index = static_cast<std::size_t>(&actor - f.cast.actors.data());
    f.watch.timeline->bars.push_back({index, state.id, to_units(state.began), to_units(f.now)});
}

/// What the effects of an actor come to besides its stats (M23).
void find_standing_effects(Actor& actor) {
    actor.under.restore_factor = 1;
    actor.under.absorb = 0;
    actor.under.warded = actor.under.immune = false;
    actor.under.stops_actions = actor.under.stops_uses = actor.under.taunts = false;
    for (const EffectState& state : actor.effects) {
        const Effect& effect = *state.effect;
        actor.under.immune = actor.under.immune || effect.immune.given();
        actor.under.stops_actions = actor.under.stops_actions || effect.stops_actions;
        actor.under.stops_uses = actor.under.stops_uses || effect.stops_uses;
        actor.under.restore_factor *= effect.restore_factor;
        actor.under.absorb += state.absorb;
        actor.under.warded = actor.under.warded || effect.ward;
        actor.under.taunts = actor.under.taunts || effect.taunts;
    }
}

/// Drops the effects that are to go, the youngest first, and tells each by this event.
template <class Goes>
void drop_all(Field& f, Actor& actor, const char* event, const Goes& goes) {
    bool changed = false;
    for (std::size_t i = actor.effects.size(); i-- > 0;) {
        if (!goes(actor.effects[i])) continue;
        const Effect& effect = *actor.effects[i].effect;
        changed = changed || !effect.modifiers.empty();
        drop_effect(f, actor, i);
        if (f.watch.timeline)
            tell(f, actor, event, effect.id, actor.setup->name, 0, health(f, actor));
    }
    if (changed) derive(f, actor);
}

/// Of a pile that is full, the oldest goes.
void make_room(Field& f, Actor& target, const EffectState& oldest, const Origin& origin) {
    const Effect& effect = *oldest.effect;
    const auto copies = std::count_if(target.effects.begin(), target.effects.end(),
                                      [&](const EffectState& e) { return e.id == oldest.id; });
    if (copies < effect.pile_max) return;
    if (oldest.end < never) count_lost_time(f, oldest.id, origin, oldest.end - f.now, 0);
    drop_effect(f, target, static_cast<std::size_t>(&oldest - target.effects.data()));
    // What the new one absorbs is found without the one that made room; ceilings wait.
    if (!effect.modifiers.empty()) take_state(target, derived(f, target));
}

/// Whether what an actor has keeps an effect out (M24).
bool is_immune(const Actor& actor, EffectId id, bool hostile) {
    return actor.under.immune &&
           std::any_of(actor.effects.begin(), actor.effects.end(), [&](const EffectState& state) {
               return state.effect->immune.has(id, hostile);
           });
}

/// What an effect gives and takes, of who has it and who applied it; kept until the fight ends.
const std::vector<double>& reckon(Field& f, EffectId id, const Actor& target, const Actor& by) {
    Room& room = f.room;
    if (room.rates_used == room.rates.size()) room.rates.emplace_back();
    std::vector<double>& rates = room.rates[room.rates_used++];
    rates.clear();
    for (const PoolStep& step : f.rules.steps[id.index()])
        rates.push_back(value_of(f, step.rate, target, &by));
    return rates;
}

void begin_effect(Field& f, Actor& target, EffectId id, Ticks duration, bool hostile,
                  const Actor& by) {
    const Effect& effect = f.rules.armoury.at(id);
    const double absorb =
        f.rules.absorbs[id.index()]
            ? std::max(0.0, evaluate(*f.rules.absorbs[id.index()], environment(f, target, nullptr)))
            : 0;
    EffectState state{
        id,      &effect, f.now, f.now + duration, f.now + effect.period, !effect.per_time.empty(),
        hostile, absorb};
    if (f.rules.reckoned[id.index()]) state.rates = &reckon(f, id, target, by);
    target.effects.insert(
        std::upper_bound(target.effects.begin(), target.effects.end(), state, stands_before),
        state);
    target.copies[id.index()] += 1;
    find_standing_effects(target);
    find_effect_moments(f, target);
    change_own_rates(f, target);
    stir(f, target);
    effect_began(f, id);
    if (!effect.modifiers.empty()) derive(f, target);
}

} // namespace

bool has_effect(const Actor& actor, EffectId id) {
    return first_of(actor.effects, id) != nullptr;
}

void find_effect_moments(Field& f, Actor& actor) {
    Ticks tick = never;
    Ticks end = never;
    for (const EffectState& state : actor.effects) {
        end = std::min(end, state.end);
        if (state.ticks) tick = std::min(tick, state.next_tick);
    }
    actor.under.next_tick = tick;
    actor.under.next_end = end;
    f.clock.first_tick = std::min(f.clock.first_tick, tick);
    f.clock.first_end = std::min(f.clock.first_end, end);
}

void wear_absorbs(Field& f, Actor& actor, double amount) {
    while (amount > 0) {
        EffectState* oldest = nullptr;
        for (EffectState& state : actor.effects)
            if (state.absorb > 0 && (!oldest || state.began < oldest->began)) oldest = &state;
        if (!oldest) break;
        const double taken = std::min(amount, oldest->absorb);
        // What is left within rounding of what was there is nothing.
        oldest->absorb = taken >= oldest->absorb * (1 - rounding) ? 0 : oldest->absorb - taken;
        amount -= taken;
    }
    find_standing_effects(actor);
    if (actor.under.absorb <= 0) change_own_rates(f, actor);
}

void drop_effect(Field& f, Actor& actor, std::size_t at) {
    effect_ended(f, actor, actor.effects[at]);
    actor.copies[actor.effects[at].id.index()] -= 1;
    actor.effects.erase(actor.effects.begin() + static_cast<std::ptrdiff_t>(at));
    find_standing_effects(actor);
    find_effect_moments(f, actor);
    change_own_rates(f, actor);
    stir(f, actor);
}

bool has_any(const Actor& actor, const EffectGroup& group) {
    return std::any_of(actor.effects.begin(), actor.effects.end(), [&](const EffectState& state) {
        return group.has(state.id, state.hostile);
    });
}

void remove_effects(Field& f, Actor& actor, const EffectGroup& group) {
    drop_all(f, actor, "effect_removed",
             [&](const EffectState& state) { return group.has(state.id, state.hostile); });
}

bool would_act(const Field& f, const Actor& target, EffectId id, Ticks duration) {
    if (is_immune(target, id, false)) return false;
    const EffectState* const running = first_of(target.effects, id);
    if (!running) return true;
    switch (f.rules.armoury.at(id).again) {
    case Again::refresh: return f.now + duration > running->end;
    case Again::extend: return running->end < never;
    case Again::pile: return true;
    case Again::keep: return false;
    }
    return false;
}

void prolong(Field& f, EffectState& running, Ticks moment, Ticks duration, const Origin& origin) {
    const Ticks both = std::min(duration, running.end - moment); // of the old and the new
    switch (running.effect->again) {
    case Again::refresh:
        if (running.end < never) count_lost_time(f, running.id, origin, both, 0);
        running.end = moment + duration;
        break;
    case Again::extend: running.end += duration; break;
    case Again::keep:
    case Again::pile:
        if (running.end < never) count_lost_time(f, running.id, origin, 0, both);
    }
}

void apply_effect(Field& f, Actor& target, EffectId id, Ticks duration, bool hostile,
                  const Actor& by, const Origin& origin) {
    if (hostile && target.under.warded) {
        if (f.watch.timeline)
            tell(f, target, "warded", f.rules.armoury.at(id).id, target.setup->name, 0,
                 health(f, target));
        return;
    }
    if (is_immune(target, id, hostile)) {
        if (f.watch.timeline)
            tell(f, target, "immune", f.rules.armoury.at(id).id, target.setup->name, 0,
                 health(f, target));
        return;
    }
    EffectState* running = first_of(target.effects, id);
    if (f.watch.timeline) tell_application(f, target, id, running, duration, *origin.id);
    if (running && running->effect->again != Again::pile) {
        prolong(f, *running, f.now, duration, origin);
        return find_effect_moments(f, target);
    }
    if (const EffectGroup& removed = f.rules.armoury.at(id).removes; removed.given()) {
        remove_effects(f, target, removed);
        running = first_of(target.effects, id);
    }
    if (running) make_room(f, target, *running, origin);
    begin_effect(f, target, id, duration, hostile, by);
}

void tick_effects(Field& f) {
    for (Actor* one : f.cast.in_order) {
        Actor& actor = *one;
        if (actor.under.next_tick > f.now || !actor.active()) continue;
        actor.under.next_tick = never;
        for (EffectState& state : actor.effects) {
            if (!state.ticks) continue;
            if (state.next_tick == f.now) {
                state.next_tick += state.effect->period;
                if (health(f, actor) > 0)
                    tick(f, actor, state); // what falls at this instant: in vain
            }
            actor.under.next_tick = std::min(actor.under.next_tick, state.next_tick);
        }
        if (health(f, actor) <= 0) {
            fall(f, actor, nullptr);
            if (f.over) return;
        }
    }
}

void regenerate(Field& f) {
    for (Actor* one : f.cast.in_order) {
        Actor& actor = *one;
        if (actor.due.regen > f.now || !actor.active()) continue;
        actor.due.regen = never;
        for (std::size_t r = 0; r < f.rules.regens.size(); ++r) {
            Ticks& next = actor.due.regens[r];
            if (next <= f.now) {
                const PoolRegen& regen = f.rules.regens[r];
                next += regen.period;
                const double rate = regen.moves ? regen_rate(f, actor, r) : actor.derived->regen[r];
                if (rate < 0)
                    drain_pool(f, actor, regen.pool, -rate * regen.units);
                else if (actor.pools[regen.pool] < actor.ceilings[regen.pool])
                    restore(f, actor, regen.pool, rate * regen.units,
                            {Origin::Kind::regen, 0, regen_word});
            }
            actor.due.regen = std::min(actor.due.regen, next);
        }
        if (health(f, actor) > 0) continue;
        fall(f, actor, nullptr);
        if (f.over) return;
    }
}

void end_effects(Field& f) {
    for (Actor* one : f.cast.in_order) {
        Actor& actor = *one;
        if (actor.under.next_end > f.now || !actor.active()) continue;
        std::vector<std::pair<EffectId, bool>> followed; // and whether it was hostile
        drop_all(f, actor, "effect_ends", [&](const EffectState& state) {
            if (state.end > f.now) return false;
            if (state.effect->then.effect.given()) followed.emplace_back(state.id, state.hostile);
            return true;
        });
        for (const auto& [ended, hostile] : followed) {
            const Aftermath& then = f.rules.armoury.at(ended).then;
            apply_effect(f, actor, then.effect, then.duration, hostile, actor, origin_of(f, ended));
        }
    }
}

} // namespace panoplon::fighting
