#include "armoury/crosscheck.h"

#include "base/text.h"
#include "model/budget.h"

#include <cmath>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

/// Looks over the armoury once and tells what is surely not meant.
class Doubts {
  public:
    Doubts(const Armoury& armoury, Sink& sink) : armoury_(armoury), sink_(sink), budget_(armoury) {}

    void run() {
        for (const Item& item : armoury_.items) look_at(item);
        unused_stats();
        unused_effects();
        empty_groups();
        tier_order();
        growing_yardstick();
        todos_and_names();
    }

  private:
    template <class Kind>
    void doubt(const char* doubt_kind, const char* kind, const Kind& thing,
               const std::string& message, const std::string& hint = {}) {
        sink_.doubt(doubt_kind, fmt::format("{}.{}", kind, thing.id), thing.span, message, hint);
    }

    void look_at(const Item& item) {
        if (item.level > armoury_.levels.last && (item.worn() || item.use))
            doubt("never_worn", "item", item,
                  fmt::format("'{}' is for level {}; the armoury ends at {}", item.id, item.level,
                              armoury_.levels.last));
        const bool tier_gives = item.tier.given() && !armoury_.at(item.tier).modifiers.empty();
        if (item.worn() && item.modifiers.empty() && item.actions.empty() && !tier_gives)
            doubt("does_nothing", "item", item,
                  fmt::format("wearing '{}' changes nothing", item.id),
                  "it has no add, percent, times or actions");
        if (const auto budget = budget_(item)) look_at_budget(item, *budget);
        if (!item.worn() && !item.modifiers.empty())
            doubt("never_worn", "item", item,
                  fmt::format("'{}' has modifiers but no slot: they never act", item.id),
                  "give it slot = \"…\"");
    }

    void look_at_budget(const Item& item, const BudgetUse& budget) {
        const double off = budget.share() - 1;
        constexpr double rounding = 1e-9; // of the division: an item at the tolerance is within it
        if (std::abs(off) <= armoury_.budget.tolerance + rounding) return;
        doubt("off_budget", "item", item,
              fmt::format("'{}' spends {} of {} points: {} {}", item.id, rounded(budget.spent, 1),
                          rounded(budget.allowed, 1), percent(std::abs(off)),
                          off > 0 ? "over" : "under"),
              fmt::format("the tolerance is {}", percent(armoury_.budget.tolerance)));
    }

    void unused_stats() {
        std::vector<bool> has(armoury_.stats.size());
        const auto note = [&](const std::vector<Amount>& amounts) {
            for (const Amount& amount : amounts) has[amount.stat.index()] = true;
        };
        const auto fighter = [&](const Fighter& f) {
            note(f.base);
            for (const Change change : {Change::add, Change::percent, Change::times})
                note(f.modifiers.of(change));
            for (const Growth& growth : f.growth) has[growth.stat.index()] = true;
        };
        for (const Character& character : armoury_.characters) fighter(character);
        for (const Foe& foe : armoury_.foes) fighter(foe);
        for (const Item& item : armoury_.items) note(item.modifiers.add);
        for (const Effect& effect : armoury_.effects) note(effect.modifiers.add);
        for (std::size_t i = 0; i < has.size(); ++i)
            if (!has[i] && !armoury_.stats[i].value.given())
                doubt(
                    "unused", "stat", armoury_.stats[i],
                    fmt::format("nobody has any '{}' and nothing gives it", armoury_.stats[i].id));
    }

    void unused_effects() {
        std::vector<bool> applied(armoury_.effects.size());
        for (const Item& item : armoury_.items)
            if (item.use && item.use->effect.given()) applied[item.use->effect.index()] = true;
        for (const Action& action : armoury_.actions)
            if (action.applies) applied[action.applies->effect.index()] = true;
        for (std::size_t i = 0; i < applied.size(); ++i)
            if (!applied[i])
                doubt("unused", "effect", armoury_.effects[i],
                      fmt::format("nothing gives the effect '{}'", armoury_.effects[i].id));
    }

    void empty_groups() {
        std::vector<bool> in_slot(armoury_.slots.size()), in_tier(armoury_.tiers.size());
        for (const Item& item : armoury_.items) {
            if (item.slot.given()) in_slot[item.slot.index()] = true;
            if (item.tier.given()) in_tier[item.tier.index()] = true;
        }
        for (std::size_t i = 0; i < in_slot.size(); ++i)
            if (!in_slot[i])
                doubt("empty", "slot", armoury_.slots[i],
                      fmt::format("no item fits the slot '{}'", armoury_.slots[i].id));
        for (std::size_t i = 0; i < in_tier.size(); ++i)
            if (!in_tier[i])
                doubt("empty", "tier", armoury_.tiers[i],
                      fmt::format("no item is of the tier '{}'", armoury_.tiers[i].id));
    }

    void tier_order() {
        for (const Tier& higher : armoury_.tiers)
            for (const Tier& lower : armoury_.tiers)
                if (higher.rank > lower.rank && higher.budget < lower.budget)
                    doubt("tier_order", "tier", higher,
                          fmt::format(
                              "'{}' ranks above '{}' but has the smaller budget: {} against {}",
                              higher.id, lower.id, shortest(higher.budget),
                              shortest(lower.budget)));
    }

    void growing_yardstick() {
        if (!armoury_.yardstick.given()) return;
        const Encounter& yardstick = armoury_.at(armoury_.yardstick);
        if (!yardstick.foe_level.given() || !yardstick.foe_level.variables.empty())
            doubt("yardstick", "encounter", yardstick,
                  fmt::format("the yardstick '{}' grows with the character's level", yardstick.id),
                  "give it one level: foe_level = \"10\"");
    }

    template <class List>
    void todos(const char* kind, const List& list) {
        std::map<std::string, std::string> names;
        for (const auto& thing : list) {
            if (!thing.todo.empty())
                doubt("todo", kind, thing, fmt::format("to do: {}", thing.todo));
            const auto [at, fresh] = names.emplace(thing.name, thing.id);
            if (!fresh)
                doubt("same_name", kind, thing,
                      fmt::format("'{}' and '{}' have the same name, '{}'", at->second, thing.id,
                                  thing.name));
        }
    }

    void todos_and_names() {
        todos("item", armoury_.items);
        todos("tier", armoury_.tiers);
        todos("stat", armoury_.stats);
        todos("effect", armoury_.effects);
        todos("foe", armoury_.foes);
        todos("loadout", armoury_.loadouts);
        todos("encounter", armoury_.encounters);
        todos("character", armoury_.characters);
    }

    const Armoury& armoury_;
    Sink& sink_;
    BudgetMeter budget_;
};

} // namespace

void find_doubts(const Armoury& armoury, Sink& sink) {
    Doubts(armoury, sink).run();
}

} // namespace panoplon
