#include "fight/arena.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

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

} // namespace

bool Arena::has_effect(const Actor& actor, EffectId id) const {
    return first_of(actor.effects, id) != nullptr;
}

void Arena::effect_began(EffectId id) {
    if (effect_holders_[id.index()]++ == 0) effect_since_[id.index()] = now_;
}

void Arena::effect_ended(const Actor& actor, const EffectState& state) {
    const std::size_t i = state.id.index();
    if (--effect_holders_[i] == 0) counts_->effects[i].uptime += to_units(now_ - effect_since_[i]);
    if (!timeline_) return;
    const auto index = static_cast<std::size_t>(&actor - actors_.data());
    timeline_->bars.push_back({index, state.id, to_units(state.began), to_units(now_)});
}

/// What the effects of an actor come to besides its stats (M23).
void Arena::find_standing_effects(Actor& actor) {
    actor.restore_factor = 1;
    actor.absorb = 0;
    actor.warded = false;
    for (const EffectState& state : actor.effects) {
        const Effect& effect = *state.effect;
        actor.restore_factor *= effect.restore_factor;
        actor.absorb += state.absorb;
        actor.warded = actor.warded || effect.ward;
    }
}

/// When the effects of an actor next do something by themselves.
void Arena::find_effect_moments(Actor& actor) {
    Ticks tick = never;
    Ticks end = never;
    for (const EffectState& state : actor.effects) {
        end = std::min(end, state.end);
        if (state.ticks) tick = std::min(tick, state.next_tick);
    }
    actor.next_tick = tick;
    actor.next_end = end;
    first_tick_ = std::min(first_tick_, tick);
    first_end_ = std::min(first_end_, end);
}

/// The oldest effect absorbs first.
void Arena::wear_absorbs(Actor& actor, double amount) {
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
    if (actor.absorb <= 0) change_own_rates(actor);
}

void Arena::drop_effect(Actor& actor, std::size_t at) {
    effect_ended(actor, actor.effects[at]);
    actor.effects.erase(actor.effects.begin() + static_cast<std::ptrdiff_t>(at));
    find_standing_effects(actor);
    find_effect_moments(actor);
    change_own_rates(actor);
    stir(actor);
}

bool Arena::would_act(const Actor& target, EffectId id, Ticks duration) const {
    const EffectState* const running = first_of(target.effects, id);
    if (!running) return true;
    switch (armoury_.at(id).again) {
    case Again::refresh: return now_ + duration > running->end;
    case Again::extend: return running->end < never;
    case Again::pile: return true;
    case Again::keep: return false;
    }
    return false;
}

/// M20, where one runs already that does not pile: nothing but its end changes.
void Arena::prolong(EffectState& running, Ticks moment, Ticks duration, const Origin& origin) {
    const Ticks both = std::min(duration, running.end - moment); // of the old and the new
    switch (running.effect->again) {
    case Again::refresh:
        if (running.end < never) count_lost_time(running.id, origin, both, 0);
        running.end = moment + duration;
        break;
    case Again::extend: running.end += duration; break;
    case Again::keep:
    case Again::pile:
        if (running.end < never) count_lost_time(running.id, origin, 0, both);
    }
}

/// M20: what an application does to one that runs already.
void Arena::apply_effect(Actor& target, EffectId id, Ticks duration, bool hostile,
                         const Origin& origin) {
    if (hostile && target.warded) {
        if (timeline_)
            tell(target, "warded", armoury_.at(id).id, target.setup->name, 0, health(target));
        return;
    }
    EffectState* const running = first_of(target.effects, id);
    if (timeline_) tell_application(target, id, running, duration, *origin.id);
    if (running && running->effect->again != Again::pile) {
        prolong(*running, now_, duration, origin);
        return find_effect_moments(target);
    }
    if (running) make_room(target, *running, origin);
    begin_effect(target, id, duration, hostile);
}

/// Of a pile that is full, the oldest goes.
void Arena::make_room(Actor& target, const EffectState& oldest, const Origin& origin) {
    const Effect& effect = *oldest.effect;
    const auto copies = std::count_if(target.effects.begin(), target.effects.end(),
                                      [&](const EffectState& e) { return e.id == oldest.id; });
    if (copies < effect.pile_max) return;
    if (oldest.end < never) count_lost_time(oldest.id, origin, oldest.end - now_, 0);
    drop_effect(target, static_cast<std::size_t>(&oldest - target.effects.data()));
    // What the new one absorbs is found without the one that made room; ceilings wait.
    if (!effect.modifiers.empty()) target.derived = &derived(target);
}

void Arena::begin_effect(Actor& target, EffectId id, Ticks duration, bool hostile) {
    const Effect& effect = armoury_.at(id);
    const double absorb =
        absorbs_[id.index()]
            ? std::max(0.0, evaluate(*absorbs_[id.index()], environment(target, nullptr)))
            : 0;
    const EffectState state{
        id,      &effect, now_, now_ + duration, now_ + effect.period, !effect.per_time.empty(),
        hostile, absorb};
    target.effects.insert(
        std::upper_bound(target.effects.begin(), target.effects.end(), state, stands_before),
        state);
    find_standing_effects(target);
    find_effect_moments(target);
    change_own_rates(target);
    stir(target);
    effect_began(id);
    if (!effect.modifiers.empty()) derive(target);
}

/// Of an effect, and of the consumable that gave it again too soon (M91).
void Arena::count_lost_time(EffectId id, const Origin& origin, Ticks cut, Ticks overlap) {
    const auto add = [&](auto& count) {
        count.cut += to_units(cut);
        count.overlap += to_units(overlap);
    };
    add(counts_->effects[id.index()]);
    if (origin.kind == Origin::Kind::packed) add(counts_->uses[origin.index]);
}

void Arena::count_tick(const Actor& actor, EffectId id, double lost) {
    (actor.ours ? counts_->taken_by_effect : counts_->dealt_by_effect)[id.index()] += lost;
}

/// Takes from a pool what no blow took: a tick, or a regen below 0. Returns what was lost.
double Arena::drain_pool(Actor& actor, std::size_t pool, double amount) {
    if (pool == health_) return lose_health(actor, amount);
    const double lost = take_from(actor, pool, amount);
    stir_pool(actor, pool);
    return lost;
}

/// M21: amounts fall in steps of the period, the first one period after the start.
void Arena::tick_effects() {
    for (Actor* one : in_order_) {
        Actor& actor = *one;
        if (actor.next_tick > now_ || !actor.active()) continue;
        actor.next_tick = never;
        for (EffectState& state : actor.effects) {
            if (!state.ticks) continue;
            if (state.next_tick == now_) {
                state.next_tick += state.effect->period;
                if (health(actor) > 0) tick(actor, state); // what falls at this instant: in vain
            }
            actor.next_tick = std::min(actor.next_tick, state.next_tick);
        }
        if (health(actor) <= 0) {
            fall(actor, nullptr);
            if (over_) return;
        }
    }
}

void Arena::tick(Actor& actor, const EffectState& state) {
    count_event();
    for (const PoolStep& step : steps_[state.id.index()]) {
        if (step.amount >= 0) {
            restore(actor, step.pool, step.amount, origin_of(state.id));
            continue;
        }
        if (state.hostile && actor.warded) continue;
        const double amount = -step.amount * tick_strength(actor, state);
        const double lost = state.hostile && step.pool == health_
                                ? take_damage(actor, amount).all()
                                : drain_pool(actor, step.pool, amount);
        if (step.pool != health_) continue;
        count_tick(actor, state.id, lost);
        if (timeline_)
            tell(actor, "tick", state.effect->id, actor.setup->name, lost, health(actor));
    }
}

void Arena::regenerate() {
    for (Actor* one : in_order_) {
        Actor& actor = *one;
        if (actor.regen_due > now_ || !actor.active()) continue;
        actor.regen_due = never;
        for (std::size_t r = 0; r < regens_.size(); ++r) {
            Ticks& next = actor.next_regen[r];
            if (next <= now_) {
                const PoolRegen& regen = regens_[r];
                next += regen.period;
                const double rate = regen.moves ? regen_rate(actor, r) : actor.derived->regen[r];
                if (rate < 0)
                    drain_pool(actor, regen.pool, -rate * regen.units);
                else if (actor.pools[regen.pool] < actor.ceilings[regen.pool])
                    restore(actor, regen.pool, rate * regen.units,
                            {Origin::Kind::regen, 0, regen_word});
            }
            actor.regen_due = std::min(actor.regen_due, next);
        }
        if (health(actor) > 0) continue;
        fall(actor, nullptr);
        if (over_) return;
    }
}

/// At an end, modifiers go first, then pools clamp (M12).
void Arena::end_effects() {
    for (Actor* one : in_order_) {
        Actor& actor = *one;
        if (actor.next_end > now_ || !actor.active()) continue;
        bool changed = false;
        for (std::size_t i = actor.effects.size(); i-- > 0;) {
            if (actor.effects[i].end > now_) continue;
            const Effect& effect = *actor.effects[i].effect;
            changed = changed || !effect.modifiers.empty();
            drop_effect(actor, i);
            if (timeline_)
                tell(actor, "effect_ends", effect.id, actor.setup->name, 0, health(actor));
        }
        if (changed) derive(actor);
    }
}

} // namespace panoplon
