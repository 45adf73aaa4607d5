#include "fight/reasons.h"

#include "base/text.h"
#include "fight/actions.h"
#include "fight/calls.h"

#include <fmt/format.h>

namespace panoplon::fighting {

namespace {

Inquiry::Entry& asked_action(Field& f, const Actor& actor, const Action& action) {
    return f.watch.inquiry->entry(Matter::action, actor.setup->kind, action.id, "", "",
                                  action.span);
}

Inquiry::Entry& asked_effect(Field& f, const Actor& giver, EffectId effect, const std::string& by,
                             const Trigger* trigger, const Span& span) {
    return f.watch.inquiry->entry(
        Matter::effect, giver.setup->kind, f.rules.armoury.at(effect).id, by,
        trigger ? trigger_event_names[static_cast<int>(trigger->on)] : std::string(), span);
}

Inquiry::Entry& asked_swap(Field& f, const Actor& actor, const SetupSwap& swap) {
    return f.watch.inquiry->entry(Matter::swap, actor.setup->kind, swap.name, "", "", swap.span);
}

std::string pools_words(const Field& f, const Actor& actor) {
    std::vector<std::string> words;
    for (std::size_t p = 0; p < f.rules.pools; ++p)
        words.push_back(fmt::format("{} {} of {}", f.rules.armoury.pools[p].id,
                                    rounded(actor.pools[p]), rounded(actor.ceilings[p])));
    return join(words, ", ");
}

} // namespace

Inquiry::Entry& asked_use(Field& f, const Actor& actor, std::size_t rule) {
    const SetupRule& one = actor.setup->rules[rule];
    const Item& item = f.rules.armoury.at(actor.setup->pack[one.packed].item);
    return f.watch.inquiry->entry(Matter::use, actor.setup->kind, item.id, "", "",
                                  one.when.given() ? one.when.span : item.span);
}

void list_possible(Field& f, const Actor& actor) {
    for (std::size_t rule = 0; rule < actor.setup->rules.size(); ++rule) {
        asked_use(f, actor, rule);
        const Item& item =
            f.rules.armoury.at(actor.setup->pack[actor.setup->rules[rule].packed].item);
        if (item.use->effect.given())
            asked_effect(f, actor, item.use->effect, item.id, nullptr, item.span);
        if (!item.use->does.given()) continue;
        const Action& does = f.rules.armoury.at(item.use->does);
        for (const Application& application : does.applies)
            asked_effect(f, actor, application.effect, does.id, nullptr, does.span);
    }
    for (const ActionId id : actor.setup->actions) {
        const Action& action = f.rules.armoury.at(id);
        asked_action(f, actor, action);
        for (const Application& application : action.applies)
            asked_effect(f, actor, application.effect, action.id, nullptr, action.span);
    }
    for (const SetupSwap& swap : actor.setup->swaps) asked_swap(f, actor, swap);
    for (const Bearer* bearer : actor.setup->triggers)
        for (const Trigger& trigger : bearer->triggers)
            asked_effect(f, actor, trigger.effect, bearer->id, &trigger, trigger.span);
}

void list_possible(Field& f) {
    for (const Actor& actor : f.cast.actors)
        if (!actor.setup->called) list_possible(f, actor);
}

void note_unused(Field& f, Actor& actor, std::size_t rule, const char* refused) {
    Inquiry::Entry& entry = asked_use(f, actor, rule);
    const double time = to_units(f.now);
    const SetupRule& one = actor.setup->rules[rule];
    const Item& item = f.rules.armoury.at(actor.setup->pack[one.packed].item);
    if (*refused != 0) {
        Inquiry::denied(entry, refused, item.span, time);
    } else if (one.when.given()) {
        const Evaluator& formula = actor.uses.rules[rule].formula->value;
        Inquiry::denied(entry, fmt::format("its rule '{}' is false", one.when.text), one.when.span,
                        time, [&] { return formula.last_inputs(); });
    } else if (item.use->restore.empty() && item.use->removes.given()) {
        Inquiry::denied(entry, "nothing that it ends runs (the default rule waits for that)",
                        item.span, time);
    } else if (item.use->restore.empty() && item.use->does.given()) {
        Inquiry::denied(entry, "nobody is there to be struck", item.span, time);
    } else if (item.use->restore.empty()) {
        Inquiry::denied(entry, "its effect runs already (the default rule waits for its end)",
                        item.span, time);
    } else {
        Inquiry::denied(entry,
                        "the default rule waits until as much is missing as it restores, or 35 % "
                        "is left",
                        item.span, time, [&] { return pools_words(f, actor); });
    }
}

void note_swap(Field& f, const Actor& actor, const SetupSwap& swap, bool due) {
    Inquiry::Entry& entry = asked_swap(f, actor, swap);
    if (due && swap.refused.empty())
        Inquiry::happened(entry, to_units(f.now));
    else if (due)
        Inquiry::denied(entry, swap.refused, swap.span, to_units(f.now));
    else if (swap.when.given())
        Inquiry::denied(entry, fmt::format("its condition '{}' is false", swap.when.text),
                        swap.when.span, to_units(f.now), [&] { return pools_words(f, actor); });
    else
        Inquiry::denied(entry, fmt::format("its time, {}, has not come", to_units(swap.at)),
                        swap.span, to_units(f.now));
}

void note_choice(Field& f, Actor& actor, const Place* chosen) {
    const Actor* const front = front_target(f, actor);
    const double time = to_units(f.now);
    for (Place& place : actor.places) {
        const Action& action = *place.action;
        Inquiry::Entry& entry = asked_action(f, actor, action);
        if (&place == chosen) {
            Inquiry::happened(entry, time);
        } else if (!front) {
            Inquiry::denied(entry, "nobody is there to be hit", action.span, time);
        } else if (chosen && &place > chosen && !actor.setup->chooses_by_weight) {
            Inquiry::denied(entry,
                            fmt::format("'{}' stands before it and is done", chosen->action->id),
                            chosen->action->span, time);
        } else if (place.ready > f.now) {
            Inquiry::denied(entry, "cooling down", action.span, time);
        } else if (actor.under.stops_actions) {
            Inquiry::denied(entry, "an effect keeps it from acting", action.span, time);
        } else if (chosen && actor.setup->chooses_by_weight) {
            Inquiry::denied(entry,
                            fmt::format("the choice by weight fell on '{}'", chosen->action->id),
                            chosen->action->span, time);
        } else if (!can_spend(actor, place)) {
            Inquiry::denied(entry, "what it spends is not in the pack", action.span, time);
        } else if (!can_call(actor, place)) {
            Inquiry::denied(entry, "as many as it may call stand already", action.span, time);
        } else if (!affordable(f, actor, place)) {
            Inquiry::denied(entry, "its cost is not there", action.span, time,
                            [&] { return pools_words(f, actor); });
        } else if (std::optional<Evaluator>& when = place.formulas->when) {
            Inquiry::denied(entry, fmt::format("its condition '{}' is false", action.when.text),
                            action.when.span, time, [&] { return when->last_inputs(); });
        }
    }
}

void note_effect(Field& f, const Actor& giver, EffectId effect, const std::string& by,
                 const Trigger* trigger, const Span& span, const char* refused) {
    Inquiry::Entry& entry = asked_effect(f, giver, effect, by, trigger, span);
    if (*refused == 0)
        Inquiry::happened(entry, to_units(f.now));
    else
        Inquiry::denied(entry, refused, span, to_units(f.now));
}

} // namespace panoplon::fighting
