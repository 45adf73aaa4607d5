// By even luck, beginnings of an action that change nothing are passed over; what could come of one
// is not.
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

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

void check_effects_alike(const std::pair<FightResult, FightResult>& both) {
    const auto& [passed_over, all] = both;
    for (std::size_t i = 0; i < all.effects.size(); ++i) {
        CHECK(passed_over.effects[i].uptime == Approx(all.effects[i].uptime));
        CHECK(passed_over.effects[i].cut == Approx(all.effects[i].cut));
        CHECK(passed_over.effects[i].overlap == Approx(all.effects[i].overlap));
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

TEST_CASE("beginnings that only prolong an effect are passed over", "[M20][M68]") {
    const std::string again = GENERATE("refresh", "extend", "keep");
    const double chance = GENERATE(1.0, 0.35);
    const std::string text =
        with(duel() + wasp, "deals = { blunt = \"self.attack\" }\n[foe.wasp]",
             fmt::format("deals = {{ blunt = \"self.attack\" }}\napplies = {{ effect = \"itch\", "
                         "chance = {}, duration = 4 }}\n[foe.wasp]",
                         chance)) +
        "[effect.itch]\nagain = \"" + again +
        "\"\nadd = { keen = 1 }\n[loadout.l]\ncharacter = \"hero\"\n";
    const auto both = both_ways(
        with(text, "max_health = 100, attack = 10, might", "max_health = 505, attack = 10, might"));
    check_alike(both);
    check_effects_alike(both);
    const bool some_lost = both.first.effects[0].cut + both.first.effects[0].overlap > 0;
    CHECK(some_lost == (again != "extend"));
    // Fifty-one bites, every one of them an instant for who looks on.
    CHECK(both.second.events - both.first.events > (again == "keep" ? 25 : 40));
}

TEST_CASE("what is prolonged to an earlier end ends there", "[M20][M68]") {
    // The gnat's sting cuts the wasp's short: at each bite of 3, 6, … s it lasts for 5, until the
    // gnat at 4, 8, … s leaves 1 of it.
    const std::string text =
        with(duel() + wasp, "[foe.wasp]",
             "[effect.itch]\nadd = { keen = 1 }\n[action.sting]\nevery = \"3\"\napplies = { "
             "effect = \"itch\", duration = 5 }\n[action.prick]\nevery = \"4\"\napplies = { "
             "effect = \"itch\", duration = 1 }\n[foe.gnat]\nbase = { max_health = 2000 }\n"
             "actions = [\"prick\"]\n[foe.wasp]") +
        "[loadout.l]\ncharacter = \"hero\"\n";
    const auto both = both_ways(with(with(text, "actions = [\"bite\"]", "actions = [\"sting\"]"),
                                     "foes = [ { foe = \"wasp\" } ]",
                                     "foes = [ { foe = \"wasp\" }, { foe = \"gnat\" } ]"));
    check_alike(both);
    check_effects_alike(both);
    CHECK(both.first.effects[0].uptime < both.first.time - 20);
}

TEST_CASE("what triggers only save up is passed over, and comes true in time", "[M68]") {
    // A tenth of each bite, and what cools down saves nothing.
    const std::string on = GENERATE("hit", "hurt");
    const std::string who = on == "hit" ? "foe.wasp" : "character.hero";
    const std::string text =
        duel() + wasp + "[effect.itch]\nadd = { keen = 1 }\n[[" + who + ".trigger]]\non = \"" + on +
        "\"\nchance = 0.1\ncooldown = 7\neffect = \"itch\"\nduration = 2\nto = \"self\"\n" +
        "[loadout.l]\ncharacter = \"hero\"\n";
    const auto both = both_ways(
        with(text, "max_health = 100, attack = 10, might", "max_health = 505, attack = 10, might"));
    check_alike(both);
    check_effects_alike(both);
    // Bites at 0, 1, 2, …: the tenth is at 9 s, those until 15 s save nothing, the next tenth is at
    // 25 s, then at 41 s.
    CHECK(both.first.effects[0].uptime == Approx(3 * 2));
    CHECK(both.second.events - both.first.events > 30);
}

TEST_CASE("stats that nothing of a flow hangs on leave it going on", "[M68]") {
    // The hero's might changes at 0 and 10 s; neither its strike nor the bite reads that.
    const std::string text = duel() + wasp +
                             "[effect.glow]\nadd = { might = 5 }\n[item.brew]\nuse = { effect = "
                             "\"glow\", duration = 10 }\n[loadout.l]\ncharacter = \"hero\"\npack "
                             "= { brew = 1 }\n";
    const auto both = both_ways(
        with(text, "max_health = 100, attack = 10, might", "max_health = 505, attack = 10, might"));
    check_alike(both);
    // Both begin at each second, 51 times. Instants: the first, the end of the glow, the fall; and
    // one use.
    CHECK(both.first.events == both.first.actions[0].done + both.first.foe_actions[2].done + 3 + 1);
}

TEST_CASE("an idle actor is an instant when it can act again, a busy one is not", "[M61][M68]") {
    const std::string text =
        with(duel(), "actions = [\"strike\"]", "actions = [\"burst\"]") + wasp +
        "[action.burst]\nevery = \"1\"\ncooldown = 1.5\ndeals = { blunt = \"50\" }\n"
        "[loadout.l]\ncharacter = \"hero\"\n";
    const auto both = both_ways(text);
    check_alike(both);
    CHECK(both.first.actions.back().done == 7); // at 0, 1.5, 3, … 9 s; it falls at 10
}

TEST_CASE("under a ward nothing is prolonged", "[M23][M68]") {
    // From 5 s on, for a minute, a ward takes the bites.
    const std::string text =
        with(duel() + wasp, "deals = { blunt = \"self.attack\" }\n[foe.wasp]",
             "deals = { blunt = \"self.attack\" }\napplies = { effect = \"itch\", duration = 4 }\n"
             "[foe.wasp]") +
        "[effect.itch]\nadd = { keen = 1 }\n[effect.shell]\nward = true\n[item.brew]\n"
        "use = { effect = \"shell\", duration = 60 }\n[loadout.l]\ncharacter = \"hero\"\npack = { "
        "brew = 1 }\n"
        "[[loadout.l.use]]\nitem = \"brew\"\nwhen = \"self.health_share < 0.5\"\n";
    const auto both = both_ways(text);
    check_alike(both);
    check_effects_alike(both);
    // Until 4 s after the last bite before the shell, and from the shell's end to the fall.
    CHECK(both.first.effects[0].uptime == Approx(13));
}
