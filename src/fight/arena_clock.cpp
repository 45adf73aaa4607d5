#include "fight/arena.h"

#include <algorithm>

namespace panoplon {

void Arena::fight() {
    begin();
    const Ticks limit = armoury_.combat.time_limit;
    while (true) {
        instant();
        if (over_) return;
        if (even_) find_rates();
        now_ = even_ ? flow_on(limit) : std::min(next_in_trial(), limit);
        result_.timed_out = now_ >= limit;
        if (result_.timed_out) return;
    }
}

/// One instant in the order of M60.
void Arena::instant() {
    count_event();
    if (order_moves_) refresh_order();
    if (order_changed_) sort_order();
    regenerated_ = false;
    if (even_) {
        fall_by_flow();
        end_flows();
    } else {
        if (first_tick_ <= now_) tick_effects();
        if (!over_ && first_regen_ <= now_) regenerate();
    }
    regenerated_ = true;
    if (!over_ && first_end_ <= now_) end_effects();
    if (!over_ && !all_came_) arrive();
    if (!over_ && swaps_) consider_swaps();
    if (even_ || uneasy_ || first_cooldown_ <= now_) wake_users();
    if (!over_) consider_uses();
    if (!over_ && first_ready_ <= now_) act_all();
    if (timeline_) sample();
}

void Arena::act_all() {
    for (Actor* one : in_order_) {
        Actor& actor = *one;
        if (actor.ready > now_ || !actor.active()) continue;
        Actor* const front = front_target(actor);
        Place* place = choose_action(actor, front);
        if (inquiry_) note_choice(actor, place);
        if (!place) continue;
        count_event();
        if (even_)
            flow_action(actor, *place);
        else
            strike(actor, *place, front);
        if (over_) return;
        consider_uses();
    }
}

void Arena::arrive() {
    all_came_ = true;
    bool came = false;
    for (Actor* one : in_order_) {
        Actor& actor = *one;
        if (actor.present) continue;
        if (actor.setup->arrival > now_) {
            all_came_ = false;
            continue;
        }
        actor.present = true;
        came = true;
        stir(actor);
        if (timeline_) tell(actor, "arrives", "", "", 0, health(actor));
    }
    if (came) find_active();
    for (Actor& actor : actors_)
        if (came && actor.present && actor.setup->arrival == now_)
            fire(actor, TriggerEvent::start, nullptr);
    if (came && even_) retarget();
}

void Arena::find_active() {
    active_.clear();
    for (Actor& actor : actors_)
        if (actor.active()) active_.push_back(&actor);
}

void Arena::refresh_order() {
    for (Actor& actor : actors_) {
        const double order = evaluate(order_, environment(actor, nullptr));
        order_changed_ = order_changed_ || order != actor.order;
        actor.order = order;
    }
}

void Arena::sort_order() {
    in_order_.clear();
    for (Actor& actor : actors_) in_order_.push_back(&actor);
    // The character's side stands before the foes, and each in its position: a stable sort keeps
    // both. It takes room of its own, so it is left out where nothing would move.
    const auto before = [](const Actor* a, const Actor* b) { return a->order > b->order; };
    if (!std::is_sorted(in_order_.begin(), in_order_.end(), before))
        std::stable_sort(in_order_.begin(), in_order_.end(), before);
    users_.clear();
    std::copy_if(in_order_.begin(), in_order_.end(), std::back_inserter(users_),
                 [](const Actor* actor) { return !actor->rules.empty(); });
    order_changed_ = false;
}

/// The next end of a cooldown. By even luck only those of uses: what an actor could do again
/// matters once it is free.
void Arena::find_next_cooldown(Actor& actor) {
    actor.next_cooldown = never;
    const auto later = [&](Ticks moment) {
        if (moment > now_) actor.next_cooldown = std::min(actor.next_cooldown, moment);
    };
    if (!even_)
        for (const Place& place : actor.places) later(place.ready);
    for (std::size_t i = 0; i < actor.use_ready.size(); ++i)
        if (actor.left[i] > 0) later(actor.use_ready[i]);
}

/// The first end of a cooldown after this moment, of those who are there.
Ticks Arena::next_cooldown() {
    if (first_cooldown_ > now_) return first_cooldown_;
    first_cooldown_ = never;
    for (Actor* actor : active_) {
        find_next_cooldown(*actor);
        first_cooldown_ = std::min(first_cooldown_, actor->next_cooldown);
    }
    return first_cooldown_;
}

/// The first moment after this one at which a condition on time may turn, of those who are there
/// (M60b).
Ticks Arena::next_turn_in_time() {
    Ticks next = never;
    for (Actor& actor : actors_)
        if (actor.clocked && actor.active()) next = std::min(next, next_turn_in_time(actor));
    return next;
}

Ticks Arena::next_turn_in_time(Actor& actor) {
    Ticks next = never;
    const auto look = [&](std::optional<TimeTurns>& turns, const Actor* other) {
        if (turns) next = std::min(next, turns->next(now_, environment(actor, other)));
    };
    for (const RuleState& rule : actor.rules)
        if (rule.formula && actor.left[rule.packed] > 0) look(rule.formula->turns, nullptr);
    for (std::size_t i = 0; i < actor.swaps.size(); ++i)
        if (actor.swaps[i] && !actor.swapped[i]) look(actor.swaps[i]->turns, nullptr);
    if (actor.ready > now_) return next; // its actions are looked at once it is free
    const Actor* const front = front_target(actor);
    for (const Place& place : actor.places)
        if (front && place.ready <= now_) look(place.formulas->turns, front);
    return next;
}

/// The first end of an effect after this moment. What had no length at all ends at the next
/// instant, whatever makes that.
Ticks Arena::next_end() {
    Ticks next = never;
    first_end_ = never;
    for (const Actor* actor : active_) {
        first_end_ = std::min(first_end_, actor->next_end);
        if (actor->next_end > now_) next = std::min(next, actor->next_end);
    }
    return next;
}

/// The first moment after this one at which something is due in a trial.
Ticks Arena::next_in_trial() {
    Ticks next = next_cooldown(), tick = never, end = never, regen = never, ready = never;
    if (swaps_) next = std::min(next, next_swap());
    if (clocked_) next = std::min(next, next_turn_in_time());
    for (Actor& actor : actors_) {
        if (!actor.standing) continue;
        ready = std::min(ready, actor.ready);
        if (!actor.present) {
            next = std::min(next, actor.setup->arrival);
            continue;
        }
        if (actor.ready > now_) next = std::min(next, actor.ready);
        if (actor.next_end > now_) next = std::min(next, actor.next_end);
        end = std::min(end, actor.next_end);
        tick = std::min(tick, actor.next_tick);
        regen = std::min(regen, actor.regen_due);
    }
    first_ready_ = ready;
    first_end_ = end;
    first_tick_ = tick;
    first_regen_ = regen;
    return std::min({next, tick, regen});
}

} // namespace panoplon
