// Effects: they begin, act, are prolonged and end (M20-M23). Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// M20: what an application does to one that runs already.
void apply_effect(Field& f, Actor& target, EffectId id, Ticks duration, bool hostile,
                  const Actor& by, const Origin& origin);
/// M20, where one runs already that does not pile: nothing but its end changes.
void prolong(Field& f, EffectState& running, Ticks moment, Ticks duration, const Origin& origin);
/// When the effects of an actor next do something by themselves.
void find_effect_moments(Field& f, Actor& actor);
/// The oldest effect absorbs first.
void wear_absorbs(Field& f, Actor& actor, double amount);
/// M24: ends those of a group, as if their time were up, but that nothing follows.
void remove_effects(Field& f, Actor& actor, const EffectGroup& group);
[[nodiscard]] bool has_any(const Actor& actor, const EffectGroup& group);
/// What an effect gives to a pool, or takes, by unit of time; `nth` of those that it changes.
[[nodiscard]] inline double rate_of(const EffectState& state, std::size_t nth) {
    return state.rates ? (*state.rates)[nth] : state.effect->per_time[nth].second.number;
}
[[nodiscard]] bool would_act(const Field& f, const Actor& target, EffectId id, Ticks duration);
[[nodiscard]] bool has_effect(const Actor& actor, EffectId id);
void drop_effect(Field& f, Actor& actor, std::size_t at);
/// M69: what foes do hurts `strength` times as much, their effects too.
[[nodiscard]] inline double tick_strength(const Field& f, const Actor& target,
                                          const EffectState& state) {
    return state.hostile && target.ours ? f.strength : 1;
}
/// M21: amounts fall in steps of the period, the first one period after the start.
[[gnu::always_inline]] inline void tick_effects(Field& f);
[[gnu::always_inline]] inline void regenerate(Field& f);
/// At an end, modifiers go first, then pools clamp (M12).
void end_effects(Field& f);

} // namespace panoplon::fighting
