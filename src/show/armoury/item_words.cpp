#include "show/armoury/item_words.h"

#include "base/text.h"
#include "outfit/needs.h"
#include "show/words.h"

#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::string effect_words(const Armoury& armoury, EffectId effect, Ticks duration) {
    return fmt::format("{} {}", armoury.at(effect).id,
                       duration == never ? "for good"
                                         : fmt::format("for {}", rounded(to_units(duration))));
}

/// What a pool gets, or loses, from an effect in a step of its period.
std::string per_time_words(const Armoury& armoury, const Effect& effect, PoolId pool,
                           const Quantity& amount) {
    if (!amount.fixed())
        return fmt::format("{} × {} to {} each {}", amount.formula.text,
                           rounded(to_units(effect.period)), armoury.at(pool).id,
                           rounded(to_units(effect.period)));
    const double step = amount.number * to_units(effect.period);
    return fmt::format("{} {} {} each {}", step < 0 ? "takes" : "gives", rounded(std::abs(step)),
                       armoury.at(pool).id, rounded(to_units(effect.period)));
}

/// What happens when it is applied to who has it already.
std::string again_words(const Effect& effect) {
    switch (effect.again) {
    case Again::refresh: return {};
    case Again::extend: return "lasts longer each time";
    case Again::pile: return fmt::format("piles up to {}", effect.pile_max);
    case Again::keep: return "not again while it lasts";
    }
    return {};
}

} // namespace

std::string modifiers_words(const Armoury& armoury, const Modifiers& modifiers, double add_factor) {
    std::vector<std::string> parts;
    for (const Change change : {Change::add, Change::percent, Change::times})
        for (const Amount& amount : modifiers.of(change))
            parts.push_back(
                change_words(change, amount.amount * (change == Change::add ? add_factor : 1)) +
                " " + armoury.at(amount.stat).id);
    return parts.empty() ? "nothing" : join(parts, ", ");
}

std::string amount_words(const Quantity& amount) {
    return amount.fixed() ? rounded(amount.number) : amount.formula.text;
}

std::string use_words(const Armoury& armoury, const Use& use) {
    std::vector<std::string> parts;
    for (const auto& [pool, amount] : use.restore)
        parts.push_back(fmt::format("restores {} {}", amount_words(amount), armoury.at(pool).id));
    if (use.removes.given()) parts.push_back("ends " + join(use.removes.words, ", "));
    if (use.does.given()) parts.push_back("does " + armoury.at(use.does).id);
    if (use.effect.given())
        parts.push_back("gives " + effect_words(armoury, use.effect, use.duration));
    if (use.to_allies) parts.emplace_back("to everyone of its side");
    const std::string only = only_words(armoury, use.only);
    if (!only.empty()) parts.push_back(fmt::format("by {} only", only));
    if (use.cooldown > 0)
        parts.push_back(
            fmt::format("cooldown {}{}", rounded(to_units(use.cooldown)),
                        use.group.empty() ? "" : fmt::format(" (group {})", use.group)));
    if (!use.takes.is(0)) parts.push_back("takes " + amount_words(use.takes));
    if (use.when.given()) parts.push_back("when " + use.when.text);
    return join(parts, ", ");
}

std::string effect_does_words(const Armoury& armoury, EffectId id) {
    const Effect& effect = armoury.at(id);
    std::vector<std::string> parts;
    if (const std::string words = modifiers_words(armoury, effect.modifiers, 1); words != "nothing")
        parts.push_back(words);
    for (const auto& [pool, amount] : effect.per_time)
        parts.push_back(per_time_words(armoury, effect, pool, amount));
    if (effect.restore_factor != 1)
        parts.push_back(fmt::format("× {} all that is restored", rounded(effect.restore_factor)));
    if (effect.absorbs.given()) parts.push_back("absorbs " + effect.absorbs.text);
    if (effect.ward) parts.emplace_back("no blow and nothing hostile takes hold");
    if (effect.taunts) parts.emplace_back("draws the blows");
    if (effect.removes.given()) parts.push_back("ends " + join(effect.removes.words, ", "));
    if (effect.immune.given()) parts.push_back("immune to " + join(effect.immune.words, ", "));
    if (effect.stops_actions) parts.emplace_back("no actions");
    if (effect.stops_uses) parts.emplace_back("no uses");
    for (const Trigger& trigger : effect.triggers) parts.push_back(trigger_words(armoury, trigger));
    if (const std::string again = again_words(effect); !again.empty()) parts.push_back(again);
    if (effect.then.effect.given())
        parts.push_back("then " + effect_words(armoury, effect.then.effect, effect.then.duration));
    return parts.empty() ? "nothing" : join(parts, ", ");
}

std::string needs_words(const Armoury& armoury, const Needs& needs) {
    std::vector<std::string> parts;
    if (needs.level > 1) parts.push_back(fmt::format("level {}", needs.level));
    const std::string only = only_words(armoury, needs);
    if (!only.empty()) parts.push_back("for " + only);
    for (const Amount& need : needs.stats)
        parts.push_back(
            fmt::format("{} {} with nothing worn", rounded(need.amount), armoury.at(need.stat).id));
    return join(parts, ", ");
}

std::string trigger_words(const Armoury& armoury, const Trigger& trigger) {
    std::string text = fmt::format("on {}", trigger_event_names[static_cast<int>(trigger.on)]);
    if (!trigger.chance.fixed())
        text += fmt::format(", chance {}", trigger.chance.formula.text);
    else if (trigger.chance.number < 1)
        text += fmt::format(", {}", percent(trigger.chance.number));
    text += fmt::format(": {} on {}", effect_words(armoury, trigger.effect, trigger.duration),
                        trigger.to_self ? "itself" : "the other");
    if (trigger.cooldown > 0)
        text += fmt::format(", again after {}", rounded(to_units(trigger.cooldown)));
    return text;
}

std::string grants_words(const Grants& grants) {
    std::vector<std::string> parts;
    if (grants.bag > 0)
        parts.push_back(counted(static_cast<std::size_t>(grants.bag), "stack") + " in the bag");
    if (grants.capacity != 0)
        parts.push_back(fmt::format("{} of capacity", rounded(to_weight(grants.capacity), 3)));
    return join(parts, ", ");
}

} // namespace panoplon
