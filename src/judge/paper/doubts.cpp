#include "judge/paper/doubts.h"

#include "base/text.h"
#include "journey/journey.h"
#include "judge/paper/doubting.h"
#include "judge/paper/stats_read.h"
#include "outfit/refusals.h"

#include <map>

namespace panoplon {

namespace {

/// Calls visit(kind word, list) for every kind of definition with an id.
template <class Visit>
void for_each_kind(const Armoury& armoury, const Visit& visit) {
    visit("stat", armoury.stats);
    visit("pool", armoury.pools);
    visit("damage", armoury.damages);
    visit("tier", armoury.tiers);
    visit("slot", armoury.slots);
    visit("set", armoury.sets);
    visit("affix", armoury.affixes);
    visit("pattern", armoury.patterns);
    visit("item", armoury.items);
    visit("effect", armoury.effects);
    visit("upgrade", armoury.upgrades);
    visit("action", armoury.actions);
    visit("character", armoury.characters);
    visit("foe", armoury.foes);
    visit("loadout", armoury.loadouts);
    visit("encounter", armoury.encounters);
    visit("drops", armoury.drops);
    visit("journey", armoury.journeys);
}

void doubt_words(Doubting& doubting) {
    for_each_kind(doubting.armoury(), [&](const char* kind, const auto& list) {
        std::map<std::string, std::string> names;
        for (const auto& thing : list) {
            if (!thing.todo.empty())
                doubting.doubt("todo", kind, thing, fmt::format("to do: {}", thing.todo));
            const auto [at, fresh] = names.emplace(thing.name, thing.id);
            if (!fresh)
                doubting.doubt("same_name", kind, thing,
                               fmt::format("'{}' and '{}' have the same name, '{}'", at->second,
                                           thing.id, thing.name));
        }
    });
}

/// Last, when all others have been told or silenced.
void doubt_allows(Doubting& doubting) {
    for_each_kind(doubting.armoury(), [&](const char* kind, const auto& list) {
        for (const auto& thing : list) {
            if (!thing.allow.empty() && thing.note.empty())
                doubting.doubt("allow_unsaid", kind, thing,
                               fmt::format("'{}' allows {} without a note", thing.id,
                                           join(thing.allow, ", ")));
            for (const std::string& allowed : thing.allow)
                if (!doubting.silenced(thing, allowed) && !allowed.starts_with("allow_"))
                    doubting.doubt("allow_idle", kind, thing,
                                   fmt::format("'{}' allows '{}', which it is not doubted for",
                                               thing.id, allowed));
        }
    });
}

void doubt_yardstick(Doubting& doubting) {
    const Armoury& armoury = doubting.armoury();
    if (!armoury.yardstick.given()) return;
    const Encounter& yardstick = armoury.at(armoury.yardstick);
    if (!yardstick.foe_level.given() || !yardstick.foe_level.variables.empty())
        doubting.doubt(
            "yardstick", "encounter", yardstick,
            fmt::format("the yardstick '{}' grows with the character's level", yardstick.id));
}

/// A stat that gear gives, and no fight sees. Derived stats are for who reads a sheet.
void doubt_unread(Doubting& doubting) {
    const Armoury& armoury = doubting.armoury();
    const std::vector<bool> read = stats_read(armoury);
    std::vector<bool> given(armoury.stats.size(), false);
    for (const Item& item : armoury.items)
        for (const StatId stat : stats_given(armoury, item)) given[stat.index()] = true;
    for (std::size_t s = 0; s < armoury.stats.size(); ++s) {
        const Stat& stat = armoury.stats[s];
        if (read[s] && stat.outside_fights)
            doubting.doubt("unread", "stat", stat,
                           fmt::format("'{}' is said to count outside of fights, and a formula of "
                                       "a fight reads it",
                                       stat.id),
                           "take its `use` out");
        if (!read[s] && given[s] && !stat.outside_fights && !stat.value.given())
            doubting.doubt("unread", "stat", stat,
                           fmt::format("no formula of a fight reads '{}'", stat.id));
    }
}

/// What is worn as it is never found: a change of the item does not keep its loadouts from
/// fighting.
void doubt_finds(Doubting& doubting, const Loadout& loadout) {
    const Armoury& armoury = doubting.armoury();
    for_each_worn(loadout.worn, [&](const WornItem& worn) {
        const Item& item = armoury.at(worn.item);
        const auto doubt = [&](std::string message, const char* counts) {
            doubting.doubt_at(worn.span, "no_such_find", "loadout", loadout, std::move(message),
                              counts);
        };
        for (const Amount& amount : worn.drawn.rolled) {
            const std::string& stat = armoury.at(amount.stat).id;
            const Roll* const roll = item.roll_of(amount.stat);
            if (!roll)
                doubt(fmt::format("'{}' rolls no {}", item.id, stat), "it counts nothing");
            else if (roll->nearest(amount.amount) != amount.amount)
                doubt(fmt::format("'{}' rolls {} to {} {}, not {}", item.id,
                                  shortest(std::min(roll->worst, roll->best)),
                                  shortest(std::max(roll->worst, roll->best)), stat,
                                  shortest(amount.amount)),
                      "the nearest counts");
        }
        for (std::size_t i = item.affixes.size(); i < worn.drawn.affixes.size(); ++i)
            doubt(fmt::format("no '{}' is found with the affix '{}'{}", item.id,
                              armoury.at(worn.drawn.affixes[i]).id,
                              item.affixes.empty() ? "" : " beside what else this one has"),
                  "it counts nothing");
    });
}

void doubt_loadout(Doubting& doubting, Deriver& deriver, const Loadout& loadout) {
    const Armoury& armoury = doubting.armoury();
    doubt_finds(doubting, loadout);
    for (const UseRule& rule : loadout.uses) {
        const Outfit outfit = outfit_of(armoury, loadout, 1);
        const bool packed = std::any_of(outfit.pack.begin(), outfit.pack.end(),
                                        [&](const PackedItem& p) { return p.item == rule.item; });
        if (!packed)
            doubting.doubt_at(rule.span, "use_not_packed", "loadout", loadout,
                              fmt::format("a rule for '{}', which the pack of '{}' does not hold",
                                          armoury.at(rule.item).id, loadout.id));
    }
    const std::vector<ActionId> had = actions_had(armoury, loadout.character, loadout.worn);
    for (const ActionId action : loadout.actions)
        if (std::find(had.begin(), had.end(), action) == had.end())
            doubting.doubt("action_not_had", "loadout", loadout,
                           fmt::format("'{}' names the action '{}', which neither its character "
                                       "nor what it wears gives",
                                       loadout.id, armoury.at(action).id));
    const int first = std::max(loadout.levels.first, armoury.levels.first);
    const int last = std::min(loadout.levels.last, armoury.levels.last);
    std::vector<Refusal> refused;
    for (int level = last; level >= first; --level) {
        std::vector<Refusal> now = refusals(deriver, outfit_of(armoury, loadout, level));
        if (now.empty()) return;
        if (refused.empty()) refused = std::move(now);
    }
    if (!refused.empty())
        doubting.doubt("refused_loadout", "loadout", loadout,
                       fmt::format("'{}' is refused at every level of {}–{}; at {}: {}: {}",
                                   loadout.id, first, last, last, refused.front().thing,
                                   refused.front().reasons.front()));
}

/// Whether a journey can set out at all (M97).
void doubt_journey(Doubting& doubting, Deriver& deriver, const Journey& journey) {
    const Armoury& armoury = doubting.armoury();
    const Outfit start = journey_start(armoury, journey);
    const std::string& loadout = armoury.at(journey.start).id;
    const std::vector<Refusal> refused = refusals(deriver, start);
    if (!refused.empty())
        doubting.doubt("refused_start", "journey", journey,
                       fmt::format("'{}' can't set out: '{}' is refused at level {}: {}: {}",
                                   journey.id, loadout, start.level, refused.front().thing,
                                   refused.front().reasons.front()));
    if (!refused.empty() || journey.stages.empty()) return;
    const std::vector<std::string> missing =
        missing_for(deriver, start, armoury.at(journey.stages.front().encounter));
    if (!missing.empty())
        doubting.doubt("refused_start", "journey", journey,
                       fmt::format("'{}' can't set out: {}", journey.id, missing.front()),
                       "let its start have it");
}

} // namespace

void find_doubts(const Armoury& armoury, Sink& sink) {
    Doubting doubting(armoury, sink);
    doubt_items(doubting);
    doubt_groups(doubting);
    doubt_tiers(doubting);
    doubt_yardstick(doubting);
    doubt_unread(doubting);
    Deriver deriver(armoury);
    for (const Loadout& loadout : armoury.loadouts) doubt_loadout(doubting, deriver, loadout);
    for (const Journey& journey : armoury.journeys) doubt_journey(doubting, deriver, journey);
    doubt_words(doubting);
    doubt_allows(doubting);
}

} // namespace panoplon
