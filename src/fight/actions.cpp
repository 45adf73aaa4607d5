#include "fight/actions.h"

#include "fight/calls.h"
#include "fight/course.h"
#include "fight/states.h"
#include "fight/uses.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon::fighting {

namespace {

void make_place(Field& f, const Actor& actor, Place& place, ActionId action) {
    place.id = action;
    place.action = &f.rules.armoury.at(action);
    place.formulas = &f.rules.actions[action.index()];
    place.ready = 0;
    place.turn = 0;
    place.accounts.assign(place.action->applies.size(), 0);
    const auto others = static_cast<std::size_t>(actor.opposed_end - actor.opposed);
    place.terms.resize(others);
    place.flows.resize(others);
    place.spends.clear();
    place.lacks_stack = false;
}

/// M61b: what an action on the list takes from the pack. Foes have no end of it.
void find_spent(const Actor& actor, Place& place) {
    if (!actor.ours || actor.setup->called) return;
    const std::vector<PackedItem>& pack = actor.setup->pack;
    for (const PackedItem& spent : place.action->spends) {
        const auto at = std::find_if(pack.begin(), pack.end(), [&](const PackedItem& packed) {
            return packed.item == spent.item;
        });
        if (at != pack.end())
            place.spends.emplace_back(static_cast<std::size_t>(at - pack.begin()), spent.count);
        else
            place.lacks_stack = true;
    }
}

/// What the actor can do with what it wears now. Terms that were kept stay: versions tell whether
/// they are those of now.
void make_places(Field& f, Actor& actor) {
    const std::vector<ActionId>& actions = actor.setup->actions;
    actor.places.resize(actions.size());
    for (std::size_t i = 0; i < actions.size(); ++i) {
        actor.places[i].index = i;
        make_place(f, actor, actor.places[i], actions[i]);
        find_spent(actor, actor.places[i]);
    }
    actor.thrown.resize(actor.uses.rules.size());
    for (std::size_t i = 0; i < actor.thrown.size(); ++i)
        if (actor.uses.rules[i].use->does.given())
            make_place(f, actor, actor.thrown[i], actor.uses.rules[i].use->does);
}

bool when_holds(Field& f, Actor& actor, Place& place, const Actor& front) {
    std::optional<Evaluator>& when = place.formulas->when;
    return !when || holds(*when, environment(f, actor, &front));
}

/// How long an action takes with the actor's stats of now; never 0 or less (M66).
Ticks time_taken(const Field& f, Actor& actor, const Place& place) {
    Evaluator& formula = place.formulas->every;
    const double units = evaluate(formula, environment(f, actor, nullptr));
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

bool possible(Field& f, Actor& actor, Place& place, const Actor& front) {
    return place.ready <= f.now && can_spend(actor, place) && can_call(actor, place) &&
           affordable(f, actor, place) && when_holds(f, actor, place, front);
}

/// M61a: of what it could do, one by their weights. By even luck each saves up its share of every
/// choice, and the one that has saved up the most is done.
[[gnu::noinline]] Place* choose_by_weight(Field& f, Actor& actor, const Actor& front) {
    double whole = 0;
    std::vector<Place*> all;
    for (Place& place : actor.places) {
        if (!possible(f, actor, place, front)) continue;
        all.push_back(&place);
        whole += place.action->weight;
    }
    if (all.empty()) return nullptr;
    if (whole <= 0) return all.front();
    if (f.even) {
        for (Place* place : all) place->turn += place->action->weight / whole;
        Place* const chosen =
            *std::max_element(all.begin(), all.end(),
                              [](const Place* a, const Place* b) { return a->turn < b->turn; });
        chosen->turn -= 1;
        return chosen;
    }
    double left = choice_draw(f.luck, actor.index, actor.choices++) * whole;
    for (Place* place : all) {
        if (left < place->action->weight) return place;
        left -= place->action->weight;
    }
    return all.back();
}

} // namespace

bool affordable(const Field& f, const Actor& actor, const Place& place) {
    const PoolQuantities& costs = place.formulas->costs;
    return std::all_of(costs.begin(), costs.end(), [&](const auto& cost) {
        const auto& [pool, amount] = cost;
        return actor.pools[pool] >= value_of(f, amount, actor, nullptr) - rounding_of(actor, pool);
    });
}

Actor* front_target(const Field& f, const Actor& actor) {
    Actor* front = nullptr;
    for (Actor* one = actor.opposed; one != actor.opposed_end; ++one) {
        if (!one->active() || (front && !one->under.taunts)) continue;
        if (!f.rules.anybody_taunts || one->under.taunts) return one;
        front = one;
    }
    return front;
}

template <class Strike>
void for_each_target(const Field& f, const Actor& actor, const Strike& strike) {
    if (!f.rules.anybody_taunts) {
        for (Actor* one = actor.opposed; one != actor.opposed_end; ++one)
            if (one->active() && !strike(*one)) return;
        return;
    }
    std::vector<Actor*> order;
    for (Actor* one = actor.opposed; one != actor.opposed_end; ++one)
        if (one->active()) order.push_back(one);
    std::stable_partition(order.begin(), order.end(),
                          [](const Actor* one) { return one->under.taunts; });
    for (Actor* one : order)
        if (one->active() && !strike(*one)) return;
}

void take_up(Field& f, Actor& actor) {
    actor.hears = events_of(actor.setup->triggers);
    make_places(f, actor);
    actor.swaps.due.clear();
    for (const SetupSwap& one : actor.setup->swaps)
        actor.swaps.due.push_back(f.rules.condition(one.when));
    actor.clocked = reads_time(actor);
}

Place* choose_action(Field& f, Actor& actor, const Actor* front) {
    if (!front || actor.under.stops_actions) return nullptr;
    if (actor.setup->chooses_by_weight) return choose_by_weight(f, actor, *front);
    for (Place& place : actor.places) {
        if (place.ready > f.now) continue;
        if (place.formulas->unconditional || possible(f, actor, place, *front)) return &place;
    }
    return nullptr;
}

Ticks time_of(Field& f, Actor& actor, Place& place) {
    if (!place.formulas->steady_time) return time_taken(f, actor, place);
    Ticks& every = actor.derived->every[place.index];
    if (every == 0) every = time_taken(f, actor, place);
    return every;
}

void begin_action(Field& f, Actor& actor, Place& place) {
    const Action& action = *place.action;
    f.room.amounts.clear(); // of the moment before anything is paid
    for (const auto& [pool, cost] : place.formulas->costs)
        f.room.amounts.push_back(std::max(0.0, value_of(f, cost, actor, nullptr)));
    for (std::size_t i = 0; i < f.room.amounts.size(); ++i) {
        const std::size_t pool = place.formulas->costs[i].first;
        take_from(actor, pool, f.room.amounts[i]);
        stir_pool(f, actor, pool);
    }
    for (const auto& [packed, units] : place.spends) take_from_pack(f, actor, packed, units);
    if (!place.spends.empty()) weigh_pack(f, actor);
    for (const auto& [pool, amount] : place.formulas->gives)
        restore(f, actor, pool, std::max(0.0, value_of(f, amount, actor, nullptr)),
                origin_of(f, place.id));
    actor.ready = f.now + time_of(f, actor, place);
    place.ready = f.now + action.cooldown;
    if (action.cooldown > 0) f.clock.first_cooldown = 0;
    place.count->done += 1;
}

} // namespace panoplon::fighting
