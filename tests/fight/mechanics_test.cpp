// Amounts as formulas, ranges, removal and immunity, what stops and what follows, what comes back,
// and choices by weight: by trial and by even luck, in numbers that can be found by hand.
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

namespace {

/// The duel, whose hero has this pack and meets a biter of 1000 health that bites for 10 each 1.
Armoury with_pack(const std::string& more, const std::string& pack,
                  const std::string& root = duel()) {
    return armoury(root + biter() + more + "[loadout.l]\ncharacter = \"hero\"\npack = { " + pack +
                   " }\n");
}

std::size_t count(const Lines& list, const std::string& part) {
    return static_cast<std::size_t>(
        std::count_if(list.begin(), list.end(), [&](const std::string& line) {
            return line.find(part) != std::string::npos;
        }));
}

/// What the blows of a trial deal, one after the other.
std::vector<double> dealt(const Timeline& timeline, const std::string& actor) {
    std::vector<double> amounts;
    for (const TimelineEvent& event : timeline.events)
        if (event.actor == actor && (event.event == "hits" || event.event == "crits"))
            amounts.push_back(event.amount);
    return amounts;
}

/// Health of the character over time, by even luck, from a fight told.
double health_lost(const FightResult& result) {
    return result.all_taken();
}

} // namespace

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

TEST_CASE("a use ends effects by id, by tag or of the other side, and is kept until there is one",
          "[M24][M33]") {
    const std::string ills =
        "[effect.venom]\ntags = [\"poison\"]\nper_time = { health = -2 }\n[effect.curse]\nadd = { "
        "attack = -1 }\n[effect.glow]\nadd = { keen = 1 }\n[action.spit]\nevery = 1\nwhen = \"time "
        ">= 2 "
        "&& time < 3\"\ndeals = { blunt = \"1\" }\napplies = { effect = \"venom\", duration = "
        "50 }\napplies_also = [ { effect = \"curse\", duration = 50 } ]\n[foe.spitter]\nbase = { "
        "max_health = 1000 }\nactions = [\"spit\"]\n[encounter.pit]\nfoes = [ { foe = \"spitter\" "
        "} "
        "]\n[item.lamp]\nuse = { effect = \"glow\", duration = 50 }\n";
    const auto removed = [&](const std::string& words) {
        const Armoury a = with_pack(ills + "[item.root]\nuse = { removes = [" + words + "] }\n",
                                    "lamp = 1, root = 3");
        return lines(Bout(a, "l", "pit").tell(), "effect_removed");
    };
    CHECK(removed("\"venom\"") == Lines{"2 hero effect_removed venom hero 0"});
    CHECK(removed("\"poison\"") == Lines{"2 hero effect_removed venom hero 0"});
    CHECK(removed("\"curse\", \"poison\"").size() == 2);
    CHECK(removed("\"hostile\"").size() == 2);
    CHECK(removed("\"glow\"") == Lines{"0 hero effect_removed glow hero 0"});
}

TEST_CASE("stats are what they were once an effect is removed", "[M24][M2]") {
    const Armoury a =
        with_pack("[effect.curse]\nadd = { attack = -4 }\n[action.hex]\nevery = 1\nwhen = "
                  "\"time < 1\"\ndeals = { blunt = \"0\" }\napplies = { effect = \"curse\", "
                  "duration = 50 }\n[foe.hag]\nbase = { max_health = 1000 }\nactions = "
                  "[\"hex\"]\n[encounter.hut]\nfoes = [ { foe = \"hag\" } ]\n[item.root]\n"
                  "use = { removes = [\"curse\"], when = \"time >= 3\" }\n",
                  "root = 1");
    const std::vector<double> blows = dealt(Bout(a, "l", "hut").tell(), "hero");
    REQUIRE(blows.size() > 5);
    CHECK(blows[1] == 6);
    CHECK(blows[2] == 6);
    CHECK(blows[3] == 10);
}

TEST_CASE("an immunity keeps effects out and leaves those that run; an effect may end others",
          "[M24]") {
    const std::string of_cold =
        "[effect.chill]\ntags = [\"cold\"]\nadd = { attack = -2 }\n[effect.warm]\nimmune = "
        "[\"cold\"]\nREMOVES[action.breathe]\nevery = 1\ndeals = { blunt = \"0\" }\napplies = { "
        "effect = "
        "\"chill\", duration = 2.5 }\n[foe.icy]\nbase = { max_health = 1000 }\nactions = "
        "[\"breathe\"]\n[encounter.ice]\nfoes = [ { foe = \"icy\" } ]\n[item.ember]\nuse = { "
        "effect = "
        "\"warm\", duration = 4, when = \"time >= 3\", cooldown = 100 }\n";
    const Armoury keeps = with_pack(with(of_cold, "REMOVES", ""), "ember = 1");
    const Timeline told = Bout(keeps, "l", "ice").tell();
    CHECK(count(lines(told, "immune"), "hero immune chill") == 4); // at 3, 4, 5 and 6
    CHECK(count(lines(told, "effect_ends"), "4.5 hero effect_ends chill") == 1);
    const Armoury ends = with_pack(with(of_cold, "REMOVES", "removes = [\"cold\"]\n"), "ember = 1");
    CHECK(count(lines(Bout(ends, "l", "ice").tell(), "effect_removed"), "3 hero") == 1);
}

TEST_CASE("who is stunned begins nothing until the effect ends, by even luck, too", "[M25]") {
    const std::string stun =
        "[effect.stun]\nstops = [\"actions\"]\n[action.bash]\nevery = 10\ndeals = { blunt = "
        "\"0\" }\napplies = { effect = \"stun\", duration = 3.5 }\n[foe.basher]\nbase = { "
        "max_health "
        "= 100 }\nactions = [\"bash\"]\n[encounter.yard]\nfoes = [ { foe = \"basher\" } ]\n";
    const Armoury a = with_pack(stun, "");
    const Lines blows = lines(Bout(a, "l", "yard").tell(), "hits");
    CHECK(blows[0] == "0 hero hits strike basher.1 10");
    CHECK(count(blows, "1 hero hits") + count(blows, "2 hero hits") + count(blows, "3 hero hits") ==
          0);
    CHECK(blows[2] == "3.5 hero hits strike basher.1 10");
    // Ten blows: one before the stun of 0 to 3.5, seven from then on, two after that of 10 to 13.5.
    CHECK_THAT(Bout(a, "l", "yard").trial(0).time, WithinAbs(14.5, 1e-6));
    CHECK_THAT(Bout(a, "l", "yard").even().time,
               WithinAbs(15.5, 1e-6)); // a blow flows over its time
}

TEST_CASE("who is kept from uses uses nothing until that ends", "[M25]") {
    const Armoury a = with_pack(
        "[effect.gag]\nstops = [\"uses\"]\n[action.choke]\nevery = 100\ndeals = { blunt = \"0\" "
        "}\napplies = { effect = \"gag\", duration = 4 }\n[foe.choker]\nbase = { max_health = "
        "1000 }\nactions = [\"choke\"]\n[encounter.alley]\nfoes = [ { foe = \"choker\" } ]\n"
        "[effect.glow]\nadd = { keen = 1 }\n[item.lamp]\nuse = { effect = \"glow\", duration = "
        "2, when = \"time >= 1\", cooldown = 100 }\n",
        "lamp = 1");
    CHECK(lines(Bout(a, "l", "alley").tell(), "uses") == Lines{"4 hero uses lamp hero 0"});
}

TEST_CASE("what follows an effect comes when it ends by itself, and not when it is removed",
          "[M26]") {
    const std::string high =
        "[effect.high]\nadd = { attack = 5 }\nthen = { effect = \"low\", duration = 2 "
        "}\n[effect.low]\nadd = { attack = -5 }\n[item.dust]\nuse = { effect = "
        "\"high\", duration = 3, cooldown = 100 }\n[item.root]\nuse = { removes = "
        "[\"high\"], when = \"time >= 2\" }\n";
    const std::vector<double> blows =
        dealt(Bout(with_pack(high, "dust = 1"), "l", "bites").tell(), "hero");
    CHECK(std::vector<double>(blows.begin(), blows.begin() + 7) ==
          std::vector<double>{15, 15, 15, 5, 5, 10, 10});
    const std::vector<double> removed =
        dealt(Bout(with_pack(high, "dust = 1, root = 1"), "l", "bites").tell(), "hero");
    CHECK(std::vector<double>(removed.begin(), removed.begin() + 4) ==
          std::vector<double>{15, 15, 10, 10});
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
    CHECK_THAT(health_lost(even), WithinAbs(45 * 0.2 + 135 * 0.1, 1e-6));
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
