// By even luck, beginnings of an action that change nothing are passed over; what could come of one
// is not.
#include "support/armouries.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// A wasp that bites for 10 every second; it falls after 200 seconds at the earliest.
const std::string wasp = "[action.bite]\nevery = \"1\"\ndeals = { blunt = \"self.attack\" }\n"
                         "[foe.wasp]\nbase = { max_health = 2000, attack = 10 }\n"
                         "actions = [\"bite\"]\n[encounter.nest]\nfoes = [ { foe = \"wasp\" } ]\n";

/// The fight by even luck, and the same with every instant lived through.
std::pair<FightResult, FightResult> both_ways(const std::string& text) {
    const Armoury a = armoury(text);
    const Loadout& loadout = a.at(find_id<LoadoutKind>(a.loadouts, "l"));
    const FightSetup setup =
        set_up_fight(a, outfit_of(a, loadout, 1), find_id<EncounterKind>(a.encounters, "nest"));
    Engine engine(a);
    engine.prepare(setup);
    Inquiry inquiry;
    const FightResult all = engine.inquire(1, std::nullopt, inquiry);
    return {engine.run(1, std::nullopt), all};
}

void check_alike(const std::pair<FightResult, FightResult>& both) {
    const auto& [passed_over, all] = both;
    CHECK(passed_over.won == all.won);
    CHECK(passed_over.time == Approx(all.time));
    CHECK(passed_over.events < all.events); // some were passed over
    for (std::size_t i = 0; i < all.actions.size(); ++i) {
        CHECK(passed_over.actions[i].done == all.actions[i].done);
        CHECK(passed_over.foe_actions[i].done == all.foe_actions[i].done);
        CHECK(passed_over.actions[i].dealt == Approx(all.actions[i].dealt));
    }
}

} // namespace

TEST_CASE("a use rule is looked at when its pool passes the threshold", "[M33][M68]") {
    // From 100 health 10 go a second. At 6 s less than half is left, and 30 come back; at 9 s
    // again.
    const auto both = both_ways(duel() + wasp +
                                "[item.vial]\nstack = 2\nuse = { restore = { health = 30 }, "
                                "cooldown = 1 }\n[loadout.l]\ncharacter = \"hero\"\npack = { vial "
                                "= 2 }\n[[loadout.l.use]]\nitem = \"vial\"\nwhen = "
                                "\"self.health_share < 0.5\"\n");
    check_alike(both);
    CHECK(both.first.uses[0].used == 2);
    CHECK(both.first.time == Approx(16));
}

TEST_CASE("the default rule is looked at when as much is missing as it restores", "[M33][M68]") {
    const auto both = both_ways(duel() + wasp +
                                "[item.vial]\nstack = 2\nuse = { restore = { health = 40 }, "
                                "cooldown = 1 }\n[loadout.l]\ncharacter = \"hero\"\npack = { vial "
                                "= 2 }\n");
    check_alike(both);
    CHECK(both.first.uses[0].used == 2);
    CHECK(both.first.wasted[0] == Approx(0).margin(1e-9));
    CHECK(both.first.time == Approx(18));
}

TEST_CASE("an action that comes first is chosen once its cost is there", "[M61][M68]") {
    const std::string text =
        with(with(duel(), "max = \"max_breath\"", "max = \"max_breath\"\nregen = \"3\""),
             "actions = [\"strike\"]", "actions = [\"burst\", \"strike\"]") +
        wasp +
        "[action.burst]\nevery = \"1\"\ncost = { breath = 20 }\ndeals = { blunt = \"50\" }\n"
        "[loadout.l]\ncharacter = \"hero\"\n";
    const auto both = both_ways(text);
    check_alike(both);
    // 50 breath, and 3 more a second: twice at once, then whenever 20 are there again.
    CHECK(both.first.actions[both.first.actions.size() - 1].done >= 3);
}

TEST_CASE("chances of passed-over beginnings are saved up and come true", "[M68]") {
    const std::string text = with(duel() + wasp, "deals = { blunt = \"self.attack\" }\n[foe.wasp]",
                                  "deals = { blunt = \"self.attack\" }\napplies = { effect = "
                                  "\"itch\", chance = 0.1, duration = 2 }\n[foe.wasp]") +
                             "[effect.itch]\nadd = { keen = 1 }\n[loadout.l]\ncharacter = "
                             "\"hero\"\n";
    const auto both = both_ways(
        with(text, "max_health = 100, attack = 10, might", "max_health = 500, attack = 10, might"));
    check_alike(both);
    // Every tenth bite of 50: those at 9, 19, 29, 39 and 49 s; the last lasts to the end.
    CHECK(both.first.effects[0].uptime == Approx(4 * 2 + 1));
}
