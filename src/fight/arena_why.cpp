#include "fight/arena.h"

#include "base/text.h"

#include <fmt/format.h>

namespace panoplon {

Inquiry::Entry& Arena::asked_use(const Actor& actor, std::size_t rule) {
    const SetupRule& one = actor.setup->rules[rule];
    const Item& item = armoury_.at(actor.setup->pack[one.packed].item);
    return inquiry_->entry(Matter::use, actor.setup->kind, item.id, "", "",
                           one.when.given() ? one.when.span : item.span);
}

Inquiry::Entry& Arena::asked_action(const Actor& actor, const Action& action) {
    return inquiry_->entry(Matter::action, actor.setup->kind, action.id, "", "", action.span);
}

Inquiry::Entry& Arena::asked_effect(const Actor& giver, EffectId effect, const std::string& by,
                                    const Trigger* trigger, const Span& span) {
    return inquiry_->entry(
        Matter::effect, giver.setup->kind, armoury_.at(effect).id, by,
        trigger ? trigger_event_names[static_cast<int>(trigger->on)] : std::string(), span);
}

Inquiry::Entry& Arena::asked_swap(const Actor& actor, const SetupSwap& swap) {
    return inquiry_->entry(Matter::swap, actor.setup->kind, swap.name, "", "", swap.span);
}

/// Everything that could happen has its entry, though nothing of it ever comes up.
void Arena::list_possible() {
    for (const Actor& actor : actors_) {
        for (std::size_t rule = 0; rule < actor.setup->rules.size(); ++rule) {
            asked_use(actor, rule);
            const Item& item = armoury_.at(actor.setup->pack[actor.setup->rules[rule].packed].item);
            if (item.use->effect.given())
                asked_effect(actor, item.use->effect, item.id, nullptr, item.span);
        }
        for (const ActionId id : actor.setup->actions) {
            const Action& action = armoury_.at(id);
            asked_action(actor, action);
            if (action.applies)
                asked_effect(actor, action.applies->effect, action.id, nullptr, action.span);
        }
        for (const SetupSwap& swap : actor.setup->swaps) asked_swap(actor, swap);
        for (const Bearer* bearer : actor.setup->triggers)
            for (const Trigger& trigger : bearer->triggers)
                asked_effect(actor, trigger.effect, bearer->id, &trigger, trigger.span);
    }
}

/// Why a use that was considered is not done; `refused` is empty where it is not even wanted.
void Arena::note_unused(Actor& actor, std::size_t rule, const char* refused) {
    Inquiry::Entry& entry = asked_use(actor, rule);
    const double time = to_units(now_);
    const SetupRule& one = actor.setup->rules[rule];
    const Item& item = armoury_.at(actor.setup->pack[one.packed].item);
    if (*refused != 0) {
        Inquiry::denied(entry, refused, item.span, time);
    } else if (one.when.given()) {
        const Evaluator& formula = actor.rules[rule].formula->value;
        Inquiry::denied(entry, fmt::format("its rule '{}' is false", one.when.text), one.when.span,
                        time, [&] { return formula.last_inputs(); });
    } else if (item.use->restore.empty()) {
        Inquiry::denied(entry, "its effect runs already (the default rule waits for its end)",
                        item.span, time);
    } else {
        Inquiry::denied(entry,
                        "the default rule waits until as much is missing as it restores, or 35 % "
                        "is left",
                        item.span, time, [&] { return pools_words(actor); });
    }
}

void Arena::note_swap(const Actor& actor, const SetupSwap& swap, bool due) {
    Inquiry::Entry& entry = asked_swap(actor, swap);
    if (due && swap.refused.empty())
        Inquiry::happened(entry, to_units(now_));
    else if (due)
        Inquiry::denied(entry, swap.refused, swap.span, to_units(now_));
    else if (swap.when.given())
        Inquiry::denied(entry, fmt::format("its condition '{}' is false", swap.when.text),
                        swap.when.span, to_units(now_), [&] { return pools_words(actor); });
    else
        Inquiry::denied(entry, fmt::format("its time, {}, has not come", to_units(swap.at)),
                        swap.span, to_units(now_));
}

std::string Arena::pools_words(const Actor& actor) const {
    std::vector<std::string> words;
    for (std::size_t p = 0; p < pools_; ++p)
        words.push_back(fmt::format("{} {} of {}", armoury_.pools[p].id, rounded(actor.pools[p]),
                                    rounded(actor.ceilings[p])));
    return join(words, ", ");
}

/// Why each action before the chosen one, and each after it, is not done.
void Arena::note_choice(Actor& actor, const Place* chosen) {
    const Actor* const front = front_target(actor);
    const double time = to_units(now_);
    for (Place& place : actor.places) {
        const Action& action = *place.action;
        Inquiry::Entry& entry = asked_action(actor, action);
        if (&place == chosen) {
            Inquiry::happened(entry, time);
        } else if (!front) {
            Inquiry::denied(entry, "nobody is there to be hit", action.span, time);
        } else if (chosen && &place > chosen) {
            Inquiry::denied(entry,
                            fmt::format("'{}' stands before it and is done", chosen->action->id),
                            chosen->action->span, time);
        } else if (place.ready > now_) {
            Inquiry::denied(entry, "cooling down", action.span, time);
        } else if (!affordable(actor, action)) {
            Inquiry::denied(entry, "its cost is not there", action.span, time,
                            [&] { return pools_words(actor); });
        } else if (std::optional<Evaluator>& when = place.formulas->when) {
            Inquiry::denied(entry, fmt::format("its condition '{}' is false", action.when.text),
                            action.when.span, time, [&] { return when->last_inputs(); });
        }
    }
}

void Arena::note_effect(const Actor& giver, EffectId effect, const std::string& by,
                        const Trigger* trigger, const Span& span, const char* refused) {
    Inquiry::Entry& entry = asked_effect(giver, effect, by, trigger, span);
    if (*refused == 0)
        Inquiry::happened(entry, to_units(now_));
    else
        Inquiry::denied(entry, refused, span, to_units(now_));
}

} // namespace panoplon
