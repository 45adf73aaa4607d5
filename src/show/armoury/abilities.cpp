#include "show/armoury/abilities.h"

#include "base/text.h"
#include "judge/appraise/appraisal.h"
#include "judge/paper/gear_sources.h"
#include "outfit/needs.h"
#include "outfit/refusals.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// Levels in words: "level 4", "levels 4–30".
std::string levels_words(int first, int last) {
    return first == last ? fmt::format("level {}", first)
                         : fmt::format("levels {}–{}", first, last);
}

class ItemAbilities {
  public:
    ItemAbilities(const Armoury& armoury, const Item& item)
        : armoury_(armoury),
          item_(item),
          deriver_(armoury) {}

    Abilities run() {
        if (!item_.worn() && !item_.consumed()) {
            abilities_.can.emplace_back("be carried by anybody, at any level");
            abilities_.cannot.emplace_back("be worn: it has no slot");
            abilities_.cannot.emplace_back("be used: it has no use");
        } else {
            for (std::size_t c = 0; c < armoury_.characters.size(); ++c) wearing(CharacterId(c));
        }
        places();
        company();
        const std::string source = GearSources(armoury_).why_not_had(
            ItemId(static_cast<std::size_t>(&item_ - armoury_.items.data())));
        if (!source.empty()) abilities_.cannot.push_back("be had: " + source);
        return std::move(abilities_);
    }

  private:
    void wearing(CharacterId character) {
        const std::string& id = armoury_.at(character).id;
        const char* verb = item_.use ? "used" : item_.spent ? "spent" : "worn";
        const Wearer wearer = find_wearer(deriver_, item_, character);
        if (wearer.first > 0)
            abilities_.can.push_back(fmt::format("be {} by {}, {}", verb, id,
                                                 levels_words(wearer.first, armoury_.levels.last)));
        else
            abilities_.cannot.push_back(
                fmt::format("be {} by {}: {}", verb, id, join(wearer.reasons, "; ")));
    }

    void places() {
        if (!item_.worn()) return;
        if (armoury_.at(item_.slot).socket) {
            std::vector<std::string> hosts;
            for (const Item& host : armoury_.items)
                if (std::find(host.sockets.begin(), host.sockets.end(), item_.slot) !=
                    host.sockets.end())
                    hosts.push_back(host.id);
            if (hosts.empty())
                abilities_.cannot.push_back(fmt::format("be put into anything: no item has a "
                                                        "socket {}",
                                                        armoury_.at(item_.slot).id));
            else
                abilities_.can.push_back(fmt::format("be put into the socket {} of {}",
                                                     armoury_.at(item_.slot).id,
                                                     join(hosts, ", ")));
        }
        if (item_.takes.size() > 1) {
            std::vector<std::string> slots;
            for (const SlotId slot : item_.takes) slots.push_back(armoury_.at(slot).id);
            abilities_.cannot.push_back(fmt::format(
                "be worn beside anything else in {}: it takes all of these", join(slots, ", ")));
        }
        for (const SlotId socket : item_.sockets) {
            std::vector<std::string> fits;
            for (const Item& inner : armoury_.items)
                if (inner.slot == socket) fits.push_back(inner.id);
            if (fits.empty())
                abilities_.cannot.push_back(fmt::format("hold anything in its socket {}: nothing "
                                                        "fits it",
                                                        armoury_.at(socket).id));
            else
                abilities_.can.push_back(fmt::format("hold in its socket {} one of {}",
                                                     armoury_.at(socket).id, join(fits, ", ")));
        }
    }

    void company() {
        std::vector<std::string> rivals;
        for (const Item& other : armoury_.items)
            if (&other != &item_ && !item_.unique.empty() && other.unique == item_.unique)
                rivals.push_back(other.id);
        if (!rivals.empty())
            abilities_.cannot.push_back(
                fmt::format("be worn together with {}: at most one of '{}' is", join(rivals, ", "),
                            item_.unique));
        if (!item_.set.given()) return;
        std::vector<std::string> steps;
        for (const SetStep& step : armoury_.at(item_.set).steps)
            steps.push_back(std::to_string(step.count));
        abilities_.can.push_back(fmt::format("count for the set {}, which has steps for {} pieces",
                                             armoury_.at(item_.set).id, join(steps, ", ")));
    }

    const Armoury& armoury_;
    const Item& item_;
    Deriver deriver_;
    Abilities abilities_;
};

Abilities loadout_abilities(const Armoury& armoury, const Loadout& loadout) {
    Abilities abilities;
    Deriver deriver(armoury);
    const int first = std::max(loadout.levels.first, armoury.levels.first);
    const int last = std::min(loadout.levels.last, armoury.levels.last);
    int from = 0;
    std::string refused;
    const auto close = [&](int level) {
        if (from > 0) abilities.can.push_back("be worn at " + levels_words(from, level));
        from = 0;
    };
    for (int level = first; level <= last; ++level) {
        const auto list = refusals(deriver, outfit_of(armoury, loadout, level));
        if (list.empty()) {
            if (from == 0) from = level;
            continue;
        }
        close(level - 1);
        const std::string why =
            fmt::format("{}: {}", list.front().thing, list.front().reasons.front());
        if (why != refused)
            abilities.cannot.push_back(fmt::format("be worn at level {}: {}", level, why));
        refused = why;
    }
    close(last);
    for (const Encounter& encounter : armoury.encounters)
        for (const std::string& reason :
             missing_for(deriver, outfit_of(armoury, loadout, last), encounter))
            abilities.cannot.push_back(fmt::format("fight {}: {}", encounter.id, reason));
    return abilities;
}

Abilities action_abilities(const Armoury& armoury, const Action& action) {
    Abilities abilities;
    Deriver deriver(armoury);
    const ActionId id(static_cast<std::size_t>(&action - armoury.actions.data()));
    for (std::size_t c = 0; c < armoury.characters.size(); ++c) {
        const Character& character = armoury.characters[c];
        const bool own = std::find(character.actions.begin(), character.actions.end(), id) !=
                         character.actions.end();
        const auto naked =
            naked_stats(deriver, {CharacterId(c), armoury.levels.last, {}, {}, {}, {}, {}});
        for (const auto& [pool, cost] : action.cost) {
            const double ceiling = naked[armoury.at(pool).max.index()];
            if (own && cost.fixed() && ceiling < cost.number)
                abilities.cannot.push_back(
                    fmt::format("be paid by {} with nothing worn at level {}: it costs {} {}, of "
                                "which it has {}",
                                character.id, armoury.levels.last, rounded(cost.number),
                                armoury.at(pool).id, rounded(ceiling)));
        }
        if (own) abilities.can.push_back("be done by " + character.id);
    }
    for (const Item& item : armoury.items)
        if (std::find(item.actions.begin(), item.actions.end(), id) != item.actions.end())
            abilities.can.push_back("be done by who wears " + item.id);
    for (const Item& item : armoury.items)
        if (item.use && item.use->does == id)
            abilities.can.push_back("be done by using " + item.id);
    if (action.deals.empty() && action.applies.empty())
        abilities.cannot.emplace_back("hurt anybody: it deals nothing and applies nothing");
    return abilities;
}

Abilities upgrade_abilities(const Armoury& armoury, const Upgrade& upgrade, bool unused) {
    Abilities abilities;
    if (!armoury.journeys.empty())
        abilities.can.push_back(
            fmt::format("be bought on journeys, up to {}",
                        counted(static_cast<std::size_t>(upgrade.max), "level")));
    else if (unused)
        abilities.cannot.emplace_back(
            "have any effect: no loadout has a level of it, and no journey could buy one");
    return abilities;
}

/// Kinds whose things count though nothing names them: they are judged, or played, by themselves.
bool counts_by_itself(const std::string& kind) {
    return kind == "character" || kind == "encounter" || kind == "journey";
}

template <class Kind, class List>
const auto* named(const List& list, const std::string& id) {
    const Id<Kind> found = find_id<Kind>(list, id);
    return found.given() ? &list[found.index()] : nullptr;
}

} // namespace

Abilities abilities_of(const ReadArmoury& read, const RawDefinition& definition, bool unused) {
    const Armoury& armoury = read.armoury;
    Abilities abilities;
    if (definition.kind == "item")
        abilities = ItemAbilities(armoury, *named<ItemKind>(armoury.items, definition.id)).run();
    else if (definition.kind == "loadout")
        abilities =
            loadout_abilities(armoury, *named<LoadoutKind>(armoury.loadouts, definition.id));
    else if (definition.kind == "action")
        abilities = action_abilities(armoury, *named<ActionKind>(armoury.actions, definition.id));
    else if (definition.kind == "upgrade")
        abilities = upgrade_abilities(armoury, *named<UpgradeKind>(armoury.upgrades, definition.id),
                                      unused);
    else if (unused && !definition.id.empty() && !counts_by_itself(definition.kind))
        abilities.cannot.emplace_back("have any effect: nothing names it");
    return abilities;
}

} // namespace panoplon
