#include "fight/triggers.h"

#include "fight/actions.h"
#include "fight/counting.h"
#include "fight/course.h"
#include "fight/effects.h"
#include "fight/reasons.h"
#include "fight/states.h"
#include "fight/telling.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

/// Tells a trigger apart by what it does, so that its draws do not depend on what else is worn.
std::uint64_t key_of(const Trigger& trigger) {
    constexpr std::uint64_t events = 16;
    return static_cast<std::uint64_t>(trigger.effect.index()) * events +
           static_cast<std::uint64_t>(trigger.on);
}

/// By trial a draw decides; by even luck chances are saved up and come true at 1.
bool comes_true(Field& f, Actor& actor, TriggerState& state, const Actor* other, double chance) {
    const double whole = whole_chance(f, actor, state, other, chance);
    if (f.even) {
        state.account += whole;
        if (state.account < full_account) return false;
        state.account -= 1;
        return true;
    }
    const auto index = static_cast<std::uint64_t>(&actor - f.cast.actors.data());
    return happens(whole, trigger_draw(f.luck, index, key_of(*state.trigger), state.occasions++));
}

void fire_one(Field& f, Actor& actor, const Trigger& trigger, const std::string& source,
              Actor* other, double chance) {
    TriggerState& state = state_of(f, actor, trigger);
    const auto note = [&](const char* why) {
        if (f.watch.inquiry)
            note_effect(f, actor, trigger.effect, source, &trigger, trigger.span, why);
    };
    if (state.ready > f.now) return note("its trigger is cooling down");
    if (!comes_true(f, actor, state, other, chance)) return note(chance_failed);
    Actor* receiver = trigger.to_self ? &actor : other;
    if (!receiver || !receiver->active()) return note("nobody is there to get it");
    note("");
    state.ready = f.now + trigger.cooldown;
    count_event(f);
    if (f.watch.timeline)
        tell(f, actor, "trigger", source, receiver->setup->name, 0, health(f, actor),
             trigger_event_names[static_cast<int>(trigger.on)]);
    apply_effect(f, *receiver, trigger.effect, trigger.duration, opposed(actor, *receiver), actor,
                 {Origin::Kind::trigger, 0, source});
}

} // namespace

void fire_all(Field& f, Actor& actor, TriggerEvent event, Actor* other, double chance) {
    if (actor.setup->triggers.empty() && actor.effects.empty() && actor.derived->band == no_band)
        return;
    const auto fire_of = [&](const Bearer& bearer) {
        for (const Trigger& trigger : bearer.triggers)
            if (trigger.on == event) fire_one(f, actor, trigger, bearer.id, other, chance);
    };
    for (const Bearer* bearer : actor.setup->triggers) fire_of(*bearer);
    if (const Band* band = f.rules.armoury.carry.band(actor.derived->band)) fire_of(*band);
    // What fires may begin or end effects: those that stand now are asked.
    std::vector<EffectId> standing;
    for (const EffectState& state : actor.effects)
        if (!f.rules.armoury.at(state.id).triggers.empty()) standing.push_back(state.id);
    for (const EffectId effect : standing)
        if (has_effect(actor, effect)) fire_of(f.rules.armoury.at(effect));
}

TriggerState& state_of(Field& f, Actor& actor, const Trigger& trigger) {
    const auto known = std::find_if(actor.triggered.begin(), actor.triggered.end(),
                                    [&](const auto& state) { return state.trigger == &trigger; });
    return known != actor.triggered.end() ? *known
                                          : actor.triggered.emplace_back(TriggerState{
                                                &trigger, f.rules.compiled(trigger.chance)});
}

double whole_chance(Field& f, const Actor& actor, const TriggerState& state, const Actor* other,
                    double chance) {
    return std::clamp(value_of(f, state.chance, actor, other), 0.0, 1.0) * chance;
}

} // namespace panoplon::fighting
