// Five hundred things that say every mechanic, twice: read, fought, travelled with and judged.
#include "armoury/keys.h"
#include "armoury/live_keys.h"
#include "journey/journey.h"
#include "judge/audit/audit.h"
#include "outfit/refusals.h"
#include "support/armouries.h"
#include "support/generated.h"

#include <catch2/catch.hpp>
#include <set>

using namespace panoplon;
using namespace panoplon::test;

TEST_CASE("two games of five hundred things say every mechanic", "[M80]") {
    std::set<std::string> used;
    for (const Game game : {Game::loot, Game::survival}) {
        const ReadArmoury result = read(generated_armoury(game));
        INFO(mistakes(result));
        REQUIRE(result.usable());
        CHECK(result.armoury.items.size() >= 480);
        for (const RawDefinition& definition : result.definitions)
            for (const KeyState& key : key_states(result.armoury, definition))
                used.insert(definition.kind + " " + without_places(definition.kind, key.path));
    }
    const auto says = [&](const std::string& key) {
        for (const std::string& one : used)
            if (one == key || one.starts_with(key + ".")) return true;
        return false;
    };
    for (const char* key : {"action deals_up_to",  "action hit",           "action applies",
                            "action applies_also", "action cost",          "action restores",
                            "action needs_worn",   "action spends",        "action summons",
                            "action weight",       "effect per_time",      "effect removes",
                            "effect immune",       "effect stops",         "effect then",
                            "effect taunts",       "effect absorbs",       "pool shields",
                            "combat returned",     "combat crit_on",       "item use.removes",
                            "item use.does",       "item use.when",        "item use.takes",
                            "item add_up_to",      "item lasts",           "item cursed",
                            "item trigger.chance", "item sockets",         "item takes",
                            "upgrade points",      "character points",     "loadout points",
                            "carry band.to",       "encounter foes.up_to", "foe chooses",
                            "foe drops",           "drops weights",        "journey carries_over",
                            "journey stage.rest",  "journey stage.stock",  "journey stage.pays",
                            "journey stage.mends", "journey stage.gives",  "journey stage.gains"}) {
        INFO(key);
        CHECK(says(key));
    }
}

TEST_CASE("two games of five hundred things are fought, travelled and judged", "[M80][M83][M97]") {
    const Game game = GENERATE(Game::loot, Game::survival);
    const Armoury a = armoury(generated_armoury(game));
    Deriver deriver(a);
    for (const Loadout& loadout : a.loadouts) {
        INFO(loadout.id);
        CHECK(refusals(deriver, outfit_of(a, loadout, 3)).empty());
        const FightResult fought = Bout(a, loadout.id, "lair", 3).trial(0);
        CHECK_FALSE(fought.error);
        CHECK_FALSE(Bout(a, loadout.id, "lair", 3).even().error);
    }
    const JourneySummary travelled = run_journey(a, a.journeys[0], {40, 1});
    CHECK_FALSE(travelled.error);
    CHECK(travelled.finished > 0);
    AuditOptions options;
    options.sample = 2;
    const AuditResult result = audit(Judging(a), options);
    CHECK(result.whole_contexts() == 2);
    std::size_t judged = 0, rolled = 0;
    for (const ItemVerdict& one : result.items) {
        judged += one.contexts > 0;
        rolled += one.rolled.has_value();
    }
    CHECK(judged > 20);
    CHECK((rolled > 0) == (game == Game::loot));
    for (const ContextRow& context : result.contexts) {
        INFO(context.context.level);
        CHECK(refusals(deriver, context.outfit).empty());
    }
}
