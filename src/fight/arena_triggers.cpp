#include "fight/arena.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Tells a trigger apart by what it does, so that its draws do not depend on what else is worn.
std::uint64_t key_of(const Trigger& trigger) {
    constexpr std::uint64_t events = 16;
    return static_cast<std::uint64_t>(trigger.effect.index()) * events +
           static_cast<std::uint64_t>(trigger.on);
}

} // namespace

/// Everything that an actor bears and that waits for this, in the order of its bearers: its own
/// and worn, its load band, its effects. `chance` is that of what has happened (M68).
void Arena::fire_all(Actor& actor, TriggerEvent event, Actor* other, double chance) {
    if (actor.setup->triggers.empty() && actor.effects.empty() && actor.derived->band == no_band)
        return;
    const auto fire_of = [&](const Bearer& bearer) {
        for (const Trigger& trigger : bearer.triggers)
            if (trigger.on == event) fire_one(actor, trigger, bearer.id, other, chance);
    };
    for (const Bearer* bearer : actor.setup->triggers) fire_of(*bearer);
    if (const Band* band = armoury_.carry.band(actor.derived->band)) fire_of(*band);
    // What fires may begin or end effects: those that stand now are asked.
    std::vector<EffectId> standing;
    for (const EffectState& state : actor.effects)
        if (!armoury_.at(state.id).triggers.empty()) standing.push_back(state.id);
    for (const EffectId effect : standing)
        if (has_effect(actor, effect)) fire_of(armoury_.at(effect));
}

TriggerState& Arena::state_of(Actor& actor, const Trigger& trigger) {
    const auto known = std::find_if(actor.triggered.begin(), actor.triggered.end(),
                                    [&](const auto& state) { return state.trigger == &trigger; });
    return known != actor.triggered.end() ? *known
                                          : actor.triggered.emplace_back(TriggerState{&trigger});
}

/// By trial a draw decides; by even luck chances are saved up and come true at 1.
bool Arena::comes_true(Actor& actor, TriggerState& state, double chance) {
    const double whole = whole_chance(*state.trigger, chance);
    if (even_) {
        state.account += whole;
        if (state.account < full_account) return false;
        state.account -= 1;
        return true;
    }
    const auto index = static_cast<std::uint64_t>(&actor - actors_.data());
    return happens(whole, trigger_draw(luck_, index, key_of(*state.trigger), state.occasions++));
}

void Arena::fire_one(Actor& actor, const Trigger& trigger, const std::string& source, Actor* other,
                     double chance) {
    TriggerState& state = state_of(actor, trigger);
    const auto note = [&](const char* why) {
        if (inquiry_) note_effect(actor, trigger.effect, source, &trigger, trigger.span, why);
    };
    if (state.ready > now_) return note("its trigger is cooling down");
    if (!comes_true(actor, state, chance)) return note(chance_failed);
    Actor* receiver = trigger.to_self ? &actor : other;
    if (!receiver || !receiver->active()) return note("nobody is there to get it");
    note("");
    state.ready = now_ + trigger.cooldown;
    count_event();
    if (timeline_)
        tell(actor, "trigger", source, receiver->setup->name, 0, health(actor),
             trigger_event_names[static_cast<int>(trigger.on)]);
    apply_effect(*receiver, trigger.effect, trigger.duration, opposed(actor, *receiver),
                 {Origin::Kind::trigger, 0, source});
}

} // namespace panoplon
