// Amounts as formulas, ranges, what comes back, what is thrown, and choices by weight: by trial and
// by even luck, in numbers that can be found by hand.
#include "outfit/outfit.h"
#include "support/armouries.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;
using Lines = std::vector<std::string>;
using Catch::Matchers::WithinAbs;
using Catch::Matchers::WithinRel;

TEST_CASE("a consumable restores by a formula of who uses it and who gets it", "[M23a]") {
    const Armoury a = with_pack(
        "[item.balm]\nuse = { restore = { health = \"0.3 * other.max_health + self.might\" "
        "}, cooldown = 100 }\n",
        "balm = 1");
    // 100 health: 40 are given as soon as 40 are missing, which is after the fourth bite.
    CHECK(lines(Bout(a, "l", "bites").tell(), "restores") ==
          Lines{"3 hero restores balm health 40"});
    CHECK(lines(Bout(a, "l", "bites").tell(), "uses") == Lines{"3 hero uses balm hero 0"});
}

TEST_CASE("a formula below 0 restores nothing, and takes no time", "[M23a]") {
    const Armoury a = with_pack("[item.balm]\nuse = { restore = { health = \"self.might - 40\" }, "
                                "takes = \"self.might - 40\", when = \"time >= 2\" }\n",
                                "balm = 1");
    const Timeline told = Bout(a, "l", "bites").tell();
    CHECK(count(lines(told, "uses"), "balm") == 1);
    CHECK(lines(told, "restores").empty());
    CHECK(count(lines(told, "hits"), "hero hits") == 10);
}

TEST_CASE("what a use takes of time may be a formula", "[M23a][M32]") {
    const Armoury a =
        with_pack("[item.balm]\nuse = { restore = { health = 5 }, takes = \"self.might / "
                  "4\", when = \"time >= 2\", cooldown = 100 }\n",
                  "balm = 1");
    const Lines blows = lines(Bout(a, "l", "bites").tell(), "hits");
    CHECK(count(blows, "1 hero hits") >= 1);
    CHECK(count(blows, "2 hero hits") == 0); // busy from 2 to 4.5
    CHECK(count(blows, "4.5 hero hits") == 1);
}

TEST_CASE("an item's own rule is followed where no loadout has one", "[M33]") {
    const std::string balm =
        "[item.balm]\nuse = { restore = { health = 5 }, when = \"time >= 3\", cooldown = 100 }\n";
    CHECK(lines(Bout(with_pack(balm, "balm = 1"), "l", "bites").tell(), "uses") ==
          Lines{"3 hero uses balm hero 0"});
    const Armoury ruled =
        armoury(duel() + biter() + balm +
                "[loadout.l]\ncharacter = \"hero\"\npack = { balm = 1 }\nuse = [ { "
                "item = \"balm\", when = \"time >= 5\" } ]\n");
    CHECK(lines(Bout(ruled, "l", "bites").tell(), "uses") == Lines{"5 hero uses balm hero 0"});
}

TEST_CASE("an effect's amounts are those of its beginning, of who applied it", "[M23a]") {
    // The hero's own attack halves at 2.5; a venom of before goes on as it was.
    const std::string venom =
        "[effect.venom]\nper_time = { health = \"-0.5 * other.attack\" }\n[effect.weak]\npercent = "
        "{ attack = -50 }\n[action.spit]\nevery = 1\nwhen = \"time < 1\"\napplies = { effect = "
        "\"venom\", duration = 6 }\n[item.charm]\nslot = \"charm\"\nactions = "
        "[\"spit\"]\n[item.dust]\n"
        "use = { effect = \"weak\", duration = 50, when = \"time >= 2.5\" }\n";
    const Armoury a =
        armoury(duel() + venom +
                "[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" }\npack "
                "= { dust = 1 }\n");
    const Lines ticks = lines(Bout(a, "l", "spar").tell(), "tick");
    CHECK(ticks.size() == 6);
    CHECK(count(ticks, "venom dummy.1 5") == 6);
    CHECK_THAT(Bout(a, "l", "spar").even().dealt_by_effect[0], WithinAbs(30, 1e-6));
}

TEST_CASE("a cost may be a share, and is asked for before it is paid", "[M23a][M10]") {
    const Armoury a = armoury(
        with(duel(), "[action.rest]",
             "[action.burst]\nevery = 1\ncost = { breath = \"0.4 * self.max_breath\" }\ndeals = { "
             "blunt = 1 }\n[action.rest]") +
        "[item.charm]\nslot = \"charm\"\nactions = [\"burst\"]\n[loadout.l]\ncharacter = "
        "\"hero\"\nworn = { charm = \"charm\" }\n");
    const FightResult result = Bout(a, "l", "spar").trial(0);
    CHECK(result.actions[find_id<ActionKind>(a.actions, "burst").index()].done == 2); // 50 breath
}

TEST_CASE("an action restores to its own pools, hit or not", "[M62b]") {
    const Armoury a =
        armoury(duel() + biter() +
                "[action.recover]\nevery = 1\nhit = \"0\"\nwhen = \"self.health < 60\"\nrestores = "
                "{ health "
                "= \"self.might\" }\n[item.charm]\nslot = \"charm\"\nactions = [\"recover\"]\n"
                "[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" }\n");
    const Timeline told = Bout(a, "l", "bites").tell();
    CHECK(count(lines(told, "restores"), "recover health 10") > 10);
    CHECK(count(lines(told, ""), "hero misses recover") == 0); // it strikes nobody
    const FightResult even = Bout(a, "l", "bites").even();
    CHECK(even.timed_out); // as much is restored as is bitten
}

TEST_CASE("a blow lies between the least and the most, evenly, and even luck in the middle",
          "[M62b]") {
    const std::string root = with(duel(), "[combat]\n", "[combat]\nspread = 0.5\n");
    const std::string ranged = with(root, "deals = { blunt = \"self.attack\" }",
                                    "deals = { blunt = \"4\" }\ndeals_up_to = { blunt = "
                                    "\"self.attack * 2\" }"); // 4 to 20
    const Armoury a = armoury(with(ranged, "[foe.dummy]\nbase = { max_health = 100 }",
                                   "[foe.dummy]\nbase = { max_health = 99999 }"));
    std::vector<double> all;
    for (std::uint64_t trial = 0; trial < 5; ++trial)
        for (const double amount : dealt(Bout(a, "bare", "spar").tell(trial), "hero"))
            all.push_back(amount);
    REQUIRE(all.size() > 700);
    CHECK(*std::min_element(all.begin(), all.end()) >= 4);
    CHECK(*std::max_element(all.begin(), all.end()) <= 20);
    double sum = 0;
    for (const double amount : all) sum += amount;
    const double deviation = 16 / std::sqrt(12.0) / std::sqrt(static_cast<double>(all.size()));
    CHECK_THAT(sum / static_cast<double>(all.size()), WithinAbs(12, 4 * deviation));
    CHECK_THAT(Bout(a, "bare", "spar").even().dealt[0] / 180, WithinRel(12.0, 1e-9));
}

TEST_CASE("an action's own chances and factor stand in place of the armoury's", "[M62b]") {
    const std::string root = with(duel(), "[combat]\n", "[combat]\nhit = \"0\"\ncrit = \"0\"\n");
    const Armoury a = armoury(with(root, "every = \"1\"\ndeals",
                                   "every = \"1\"\nhit = \"1\"\ncrit = \"1\"\ncrit_factor = "
                                   "\"2.5\"\ndeals"));
    CHECK(dealt(Bout(a, "bare", "spar").tell(), "hero") == std::vector<double>{25, 25, 25, 25});
    CHECK_THAT(Bout(a, "bare", "spar").even().time, WithinAbs(4, 1e-6));
}

TEST_CASE("a critical hit multiplies what is dealt, or what is left of it", "[M62b]") {
    const std::string armoured =
        with(with(duel(), "mitigated = \"amount\"", "mitigated = \"amount - 6\""), "[combat]\n",
             "[combat]\ncrit = \"1\"\ncrit_factor = \"2\"\n");
    const Armoury raw = armoury(armoured);
    CHECK(dealt(Bout(raw, "bare", "spar").tell(), "hero").front() == 14); // 20 − 6
    const Armoury after =
        armoury(with(armoured, "[combat]\n", "[combat]\ncrit_on = \"mitigated\"\n"));
    CHECK(dealt(Bout(after, "bare", "spar").tell(), "hero").front() == 8); // (10 − 6) × 2
    CHECK_THAT(Bout(after, "bare", "spar").even().dealt[0] /
                   Bout(after, "bare", "spar").even().time,
               WithinAbs(8, 1e-6));
}

TEST_CASE("each effect that a hit applies has a chance and draws of its own", "[M62]") {
    const Armoury a = armoury(with(duel(), "[action.rest]",
                                   "applies = { effect = \"one\", chance = 0.5, duration = 0.5 "
                                   "}\napplies_also = [ { effect "
                                   "= \"two\", chance = \"0.3 + self.might / 100\", duration = 0.5 "
                                   "}, { effect = \"three\", "
                                   "duration = 0.5, to = \"self\" } ]\n[action.rest]") +
                              "[effect.one]\nadd = { guard = 1 }\n[effect.two]\nadd = { guard = 1 "
                              "}\n[effect.three]\nadd = "
                              "{ guard = 1 }\n");
    std::size_t one = 0, two = 0, three = 0, both = 0;
    for (std::uint64_t trial = 0; trial < 60; ++trial) {
        const Lines told = lines(Bout(a, "bare", "spar").tell(trial), "effect");
        one += count(told, "effect one dummy.1");
        two += count(told, "effect two dummy.1");
        three += count(told, "effect three hero");
        for (int second = 0; second < 9; ++second) {
            const std::string when = std::to_string(second) + " dummy.1 effect ";
            const auto at = [&](const char* effect) {
                return std::any_of(told.begin(), told.end(), [&](const std::string& line) {
                    return line.starts_with(when + effect);
                });
            };
            both += at("one") && at("two") ? 1 : 0;
        }
    }
    const double blows = 60 * 9; // the tenth fells
    CHECK(three == 60 * 10 - 60);
    CHECK_THAT(static_cast<double>(one) / blows, WithinAbs(0.5, 0.09));
    CHECK_THAT(static_cast<double>(two) / blows, WithinAbs(0.4, 0.09));
    CHECK_THAT(static_cast<double>(both) / blows, WithinAbs(0.2, 0.09)); // drawn apart
}

TEST_CASE("formulas see whether one has an effect, and how many copies", "[M23a]") {
    const Armoury a =
        armoury(with(duel(), "deals = { blunt = \"self.attack\" }",
                     "deals = { blunt = \"self.attack + 3 * other.mark_copies + 100 * "
                     "self.mark_active\" }\napplies = { effect = \"mark\", duration = 100 }") +
                "[effect.mark]\nagain = \"pile\"\npile_max = 2\n");
    const std::vector<double> blows = dealt(Bout(a, "bare", "spar").tell(), "hero");
    CHECK(std::vector<double>(blows.begin(), blows.begin() + 4) ==
          std::vector<double>{10, 13, 16, 16});
}

TEST_CASE("a share of a blow comes back, after absorbs, and may fell", "[M62a]") {
    const std::string root =
        with(with(duel(), "[combat]\n", "[combat]\nreturned = \"self.thorns / 100\"\n"),
             "[stat.attack]", "[stat.thorns]\n[stat.attack]");
    const Armoury a = armoury(
        with(root, "base = { max_health = 100 }", "base = { max_health = 1000, thorns = 50 }"));
    const Timeline told = Bout(a, "bare", "spar").tell();
    CHECK(lines(told, "returns").front() == "0 dummy.1 returns strike hero 5");
    CHECK(count(lines(told, "falls"), "hero falls") == 1);
    const FightResult trial = Bout(a, "bare", "spar").trial(0);
    CHECK(trial.time == 19); // 100 health, 5 a blow: the twentieth
    CHECK(trial.actions[0].returned == 100);
    const FightResult even = Bout(a, "bare", "spar").even();
    CHECK_THAT(even.time, WithinAbs(20, 1e-6));
    CHECK_THAT(even.actions[0].returned, WithinAbs(100, 1e-6));
    CHECK_FALSE(even.won);
    const Armoury shielded = armoury(
        with(root, "base = { max_health = 100 }", "base = { max_health = 1000, thorns = 50 }") +
        "[effect.bark]\nabsorbs = 30\n[item.charm]\nslot = \"charm\"\ntrigger = [ { on = "
        "\"start\", "
        "effect = \"bark\", duration = \"always\" } ]\n[loadout.l]\ncharacter = \"hero\"\nworn = { "
        "charm = \"charm\" }\n");
    CHECK(Bout(shielded, "l", "spar").trial(0).time == 25);
    CHECK_THAT(Bout(shielded, "l", "spar").even().time, WithinAbs(26, 1e-6));
}

TEST_CASE("a foe chooses by weight, as often as the weights say; even luck takes turns", "[M61a]") {
    const Armoury a = armoury(
        duel() +
        "[action.light]\nevery = 1\nweight = 3\ndeals = { blunt = \"0.1\" }\n[action.heavy]\nevery "
        "= "
        "1\nweight = 1\ndeals = { blunt = \"0.2\" }\n[foe.chooser]\nbase = { max_health = 2000 "
        "}\nactions = [\"heavy\", \"light\"]\nchooses = \"by weight\"\n[encounter.lot]\nfoes = [ { "
        "foe = "
        "\"chooser\" } ]\n");
    const auto done = [&](const FightResult& result, const char* action) {
        return result.foe_actions[find_id<ActionKind>(a.actions, action).index()].done;
    };
    double heavy = 0, all = 0;
    for (std::uint64_t trial = 0; trial < 10; ++trial) {
        const FightResult result = Bout(a, "bare", "lot").trial(trial);
        heavy += done(result, "heavy");
        all += done(result, "heavy") + done(result, "light");
    }
    CHECK(all == 1800);
    CHECK_THAT(heavy / all, WithinAbs(0.25, 0.05));
    const FightResult even = Bout(a, "bare", "lot").even();
    CHECK(done(even, "heavy") == 45);
    CHECK(done(even, "light") == 135);
    CHECK_THAT(even.all_taken(), WithinAbs(45 * 0.2 + 135 * 0.1, 1e-6));
}

TEST_CASE("an action that needs something worn is done only with it", "[M61]") {
    const std::string bow =
        "[action.shoot]\nevery = 1\nneeds_worn = [\"bow\", \"quiver\"]\ndeals = { blunt = "
        "\"1\" }\n[item.bow]\nslot = \"hand\"\ntags = [\"bow\"]\nactions = "
        "[\"shoot\"]\n[item.quiver]\nslot "
        "= \"charm\"\ntags = [\"quiver\"]\n[loadout.without]\ncharacter = \"hero\"\nworn = { hand "
        "= "
        "\"bow\" }\n[loadout.with]\ncharacter = \"hero\"\nworn = { hand = \"bow\", charm = "
        "\"quiver\" }\n";
    const Armoury a = armoury(duel() + bow);
    CHECK(dealt(Bout(a, "without", "spar").tell(), "hero").front() == 10);
    CHECK(dealt(Bout(a, "with", "spar").tell(), "hero").front() == 1);
}

TEST_CASE("a trigger's chance may be a formula of who bears it and the other", "[M23a][M63]") {
    const auto fired = [](const std::string& chance) {
        const Armoury a = armoury(
            duel() +
            "[effect.glow]\nadd = { keen = 1 }\n[item.charm]\nslot = \"charm\"\ntrigger = [ { on "
            "= \"hit\", effect = \"glow\", duration = 0.5, chance = \"" +
            chance + "\" } ]\n[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" }\n");
        std::size_t times = 0;
        for (std::uint64_t trial = 0; trial < 40; ++trial)
            times += count(lines(Bout(a, "l", "spar").tell(trial), "trigger"), "charm");
        return static_cast<double>(times) / (40 * 9);
    };
    CHECK(fired("self.might - 20") == 0);
    CHECK(fired("self.might") == 1);
    CHECK_THAT(fired("self.might / 20"), WithinAbs(0.5, 0.1));
    CHECK(fired("other.health_share > 0.55 ? 1 : 0") == 4.0 / 9); // blows that leave 90 to 60
}

TEST_CASE("a use may do an action at once: nothing is paid, and it is used while one is there",
          "[M32b]") {
    const std::string bomb = "[action.burst]\nevery = 9\ncooldown = 50\ncost = { breath = 400 "
                             "}\ntargets = \"all\"\ndeals = { "
                             "blunt = 15 }\n[item.bomb]\nuse = { does = \"burst\", cooldown = 2, "
                             "takes = 0.5 }\n[foe.toad]\n"
                             "base = { max_health = 40 }\nactions = "
                             "[\"rest\"]\n[encounter.pond]\nfoes = [ { foe = \"toad\", "
                             "at = 1 }, { foe = \"toad\", at = 1 } ]\n";
    const Armoury a = with_pack(bomb, "bomb = 3");
    const Timeline told = Bout(a, "l", "pond").tell();
    CHECK(lines(told, "uses") == Lines{"1 hero uses bomb hero 0", "3 hero uses bomb hero 0"});
    CHECK(count(lines(told, "hits"), "hero hits burst toad.2 15") == 2);
    CHECK(count(lines(told, "hits"), "1 hero hits strike") == 0); // busy until 1.5
    // 15 and 15 of both, with strikes at 1.5 and 2.5 on the first: it falls at 3, the other has 10.
    CHECK_THAT(Bout(a, "l", "pond").trial(0).time, WithinAbs(3.5, 1e-6));
    const FightResult even = Bout(a, "l", "pond").even();
    CHECK(even.uses[0].used == 2);
    const std::size_t burst = find_id<ActionKind>(a.actions, "burst").index();
    CHECK_THAT(even.actions[burst].dealt, WithinAbs(30 + 10 + 15, 1e-6));
    CHECK(even.won);
}

TEST_CASE("what is thrown and fells the last ends the fight, by even luck, too", "[M32b]") {
    const Armoury a =
        with_pack("[action.burst]\nevery = 1\ndeals = { blunt = 500 }\n[item.bomb]\nuse = { "
                  "does = \"burst\", when = \"time >= 2\" }\n",
                  "bomb = 2");
    for (const bool even : {false, true}) {
        Bout bout(a, "l", "spar");
        const FightResult result = even ? bout.even() : bout.trial(0);
        CHECK(result.won);
        CHECK(result.time == 2);
        CHECK(result.uses[0].used == 1);
    }
}

TEST_CASE("what is thrown applies its effects, and by even luck saves up their chances", "[M32b]") {
    const Armoury a =
        with_pack("[effect.weak]\nadd = { attack = -10 }\n[action.burst]\nevery = "
                  "1\ndeals = { blunt = 1 }\napplies = { effect = \"weak\", chance = "
                  "0.5, duration = 4 }\n[item.bomb]\nuse = { does = \"burst\", when = "
                  "\"time >= 1\", cooldown = 2 }\n",
                  "bomb = 4");
    // Of four at 1, 3, 5 and 7 the second and the fourth come true: from 3 to 11 nobody is bitten.
    Bout bout(a, "l", "bites");
    const FightResult even = bout.even();
    CHECK_THAT(even.effects[0].uptime, WithinAbs(8, 1e-6));
    CHECK_THAT(even.time, WithinAbs(18, 1e-6));
}

TEST_CASE("formulas see the load, and it falls as the pack is used up", "[M50a]") {
    const Armoury a = armoury(
        with(duel(), "deals = { blunt = \"self.attack\" }",
             "deals = { blunt = \"self.attack * (1 - self.load) + 100 * other.load\" }") +
        "[carry]\ncapacity = 20\n[item.stone]\nweight = 6\nstack = 9\n[item.brew]\nweight = 4\nuse "
        "= { "
        "effect = \"glow\", duration = 1, when = \"time >= 2\" }\n[effect.glow]\nadd = { keen = 1 "
        "}\n[loadout.l]\ncharacter = \"hero\"\npack = { stone = 1, brew = 1 }\n");
    const std::vector<double> blows = dealt(Bout(a, "l", "spar").tell(), "hero");
    CHECK_THAT(blows[0], WithinAbs(5, 1e-9)); // 10 of 20
    CHECK_THAT(blows[1], WithinAbs(5, 1e-9));
    CHECK_THAT(blows[2], WithinAbs(7, 1e-9)); // 6 of 20
}
