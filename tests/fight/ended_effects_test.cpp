// Effects that are removed, kept out, that stop who has them and that others follow: by trial and
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
        CHECK(Bout(a, "l", "pit").trial(0).uses[1].refused == 0); // it is not even wanted
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
