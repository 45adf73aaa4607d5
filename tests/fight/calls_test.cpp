// Who is called, what is spent, who draws blows, what shields health, and groups of random size:
// by trial and by even luck, in numbers that can be found by hand.
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

using namespace panoplon;
using namespace panoplon::test;
using Lines = std::vector<std::string>;
using Catch::Matchers::WithinAbs;

namespace {

/// The duel and a biter; the hero wears a charm that gives this action before its own.
Armoury who_may(const std::string& action, const std::string& more = {},
                const std::string& pack = {}) {
    return armoury(
        duel() + biter() + "[action.extra]\n" + action + more +
        "[item.charm]\nslot = \"charm\"\nactions = [\"extra\"]\n[loadout.l]\ncharacter = "
        "\"hero\"\nworn = { charm = \"charm\" }\n" +
        (pack.empty() ? "" : "pack = { " + pack + " }\n"));
}

const std::string hound =
    "[action.snap]\nevery = 1\ndeals = { blunt = \"self.attack\" }\n[foe.hound]\nbase = { "
    "max_health = 20, attack = 5 }\nactions = [\"snap\"]\n";

Armoury with_whistle(const std::string& summons, const std::string& more = {}) {
    return who_may("every = 1\nsummons = { foe = \"hound\", " + summons + " }\n", hound + more);
}

} // namespace

TEST_CASE("what an action spends leaves the pack, and without it it is not done", "[M61b]") {
    const Armoury a = who_may("every = 1\nspends = { dart = 1 }\ndeals = { blunt = 20 }\n",
                              "[item.dart]\nweight = 2\nstack = 9\n", "dart = 3");
    CHECK(dealt(Bout(a, "l", "spar").tell(), "hero") ==
          std::vector<double>{20, 20, 20, 10, 10, 10, 10});
    const FightResult trial = Bout(a, "l", "spar").trial(0);
    CHECK(trial.uses[0].used == 3);
    CHECK(trial.uses[0].left == 0);
    const FightResult even = Bout(a, "l", "spar").even();
    CHECK(even.uses[0].used == 3);
    CHECK_THAT(even.time, WithinAbs(7, 1e-6)); // 3 × 20, then 10 by 10
    CHECK(a.items[find_id<ItemKind>(a.items, "dart").index()].consumed());
}

TEST_CASE("two units a time leave one over, and none at all is no ammunition", "[M61b]") {
    const std::string shot = "every = 1\nspends = { dart = 2 }\ndeals = { blunt = 20 }\n";
    const std::string dart = "[item.dart]\nstack = 9\n";
    const FightResult some = Bout(who_may(shot, dart, "dart = 3"), "l", "spar").trial(0);
    CHECK(some.uses[0].used == 2);
    CHECK(some.uses[0].left == 1);
    CHECK(dealt(Bout(who_may(shot, dart), "l", "spar").tell(), "hero").front() == 10);
}

TEST_CASE("who spends throws off its weight, and with it a load band", "[M61b][M31]") {
    const Armoury a = who_may(
        "every = 1\nspends = { dart = 1 }\ndeals = { blunt = \"self.attack\" }\n",
        "[item.dart]\nweight = 2\nstack = 9\n[carry]\ncapacity = \"10\"\n[[carry.band]]\nname = "
        "\"Laden\"\nfrom = 0.4\nadd = { attack = -4 }\n",
        "dart = 3");
    // 6 of 10 are carried, 4 with the first dart gone, and 2 with the second.
    CHECK(dealt(Bout(a, "l", "spar").tell(), "hero") ==
          std::vector<double>{6, 10, 10, 10, 10, 10, 10, 10, 10, 10, 4});
}

TEST_CASE(
    "who is called fights beside its caller, leaves when its time is over, and is called anew",
    "[M64a]") {
    const Armoury a = with_whistle("duration = 3");
    const Timeline told = Bout(a, "l", "spar").tell();
    CHECK(lines(told, "calls") == Lines{"0 hero calls extra ally.hound.1 0",
                                        "3 hero calls extra ally.hound.1 0",
                                        "6 hero calls extra ally.hound.1 0"});
    CHECK(lines(told, "leaves") == Lines{"3 ally.hound.1 leaves   0", "6 ally.hound.1 leaves   0"});
    // In three units of time the hound snaps three times and the hero strikes twice: 35.
    CHECK(told.events.back().time == 8);
    CHECK_THAT(Bout(a, "l", "spar").even().time, WithinAbs(8 + 2.0 / 3, 1e-6)); // 10 left at 15
    CHECK(Bout(a, "l", "spar").trial(0).remainder == 1); // the hero's health alone counts
}

TEST_CASE("as many stand as may, and one that fell is called again", "[M64a]") {
    const Armoury three = with_whistle("count = 2, most = 3");
    CHECK(lines(Bout(three, "l", "spar").tell(), "calls").size() == 3); // 2 at 0, 1 at 1
    // Both are bitten: the hound has 20 health and falls at every second bite at all.
    const Armoury bitten =
        armoury(with(duel() +
                         with(biter(), "every = \"1\"\ndeals",
                              "every = \"1\"\ntargets = "
                              "\"all\"\ndeals") +
                         hound +
                         "[action.extra]\nevery = 1\nsummons = { foe = \"hound\" }\n[item.charm]\n"
                         "slot = \"charm\"\nactions = [\"extra\"]\n[loadout.l]\ncharacter = "
                         "\"hero\"\nworn = { charm = \"charm\" }\n",
                     "[combat]\n", "[combat]\norder = \"self.attack\"\n"));
    const Timeline told = Bout(bitten, "l", "bites").tell();
    CHECK(count(lines(told, "falls"), "ally.hound.1") >= 3);
    CHECK(count(lines(told, "calls"), "hero calls") >= 4);
    CHECK(lines(told, "falls").back() == "9 hero falls   0");
}

TEST_CASE("who was called leaves when its caller falls, and then nobody is left", "[M64a]") {
    const Timeline told = Bout(with_whistle("count = 1"), "l", "bites").tell();
    CHECK(lines(told, "leaves") == Lines{"9 ally.hound.1 leaves   0"});
    const FightResult lost = Bout(with_whistle("count = 1"), "l", "bites").trial(0);
    CHECK_FALSE(lost.won);
    CHECK(lost.time == 9);
    CHECK_THAT(lost.remainder, WithinAbs(-(1000 - 9 * 10 - 10 * 5) / 1000.0, 1e-9));
}

TEST_CASE("who has fallen does not leave any more: no moment of its own is left", "[M64a][M71]") {
    // The hero swaps at 2.5; the loadout that it swaps to has a swap of the past, which waits for
    // the next moment at which anything is due: a blow, and not the time at which a hound that fell
    // before would have left.
    const Armoury a = armoury(
        duel() + with(biter(), "every = \"1\"", "every = \"2\"\ntargets = \"all\"") +
        with(hound, "max_health = 20", "max_health = 5") +
        "[action.extra]\nevery = 2\ncooldown = 99\nsummons = { foe = \"hound\", duration = 3.7 "
        "}\n[item.charm]\nslot = \"charm\"\nactions = [\"extra\"]\n[item.cap]\nslot = "
        "\"head\"\n[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" }\npack = { cap = "
        "1 }\nactions = [\"extra\"]\nswap = [ { to = \"capped\", at = 2.5 } "
        "]\n[loadout.capped]\ncharacter = "
        "\"hero\"\nworn = { charm = \"charm\", head = \"cap\" }\nswap = [ { to = \"l\", at = 1 } "
        "]\n");
    const Timeline told = Bout(a, "l", "bites").tell();
    CHECK(lines(told, "leaves").empty());
    const Lines swaps = lines(told, "swaps");
    REQUIRE(swaps.size() >= 2);
    CHECK(swaps[0] == "2.5 hero swaps capped hero 0");
    CHECK(swaps[1] == "4 hero swaps l hero 0");
}

TEST_CASE("foes call too, as strong as they are, and a scroll calls by being used", "[M64a][M69]") {
    const std::string howl =
        "[action.howl]\nevery = 1\ncooldown = 100\nsummons = { foe = \"hound\" }\n";
    const Armoury a =
        armoury(with(duel() + biter(), "actions = [\"bite\"]", "actions = [\"howl\", \"bite\"]") +
                hound + howl +
                "[item.scroll]\nuse = { does = \"howl\" }\n[loadout.l]\ncharacter = \"hero\"\npack "
                "= { scroll = 2 }\n");
    const Timeline told = Bout(a, "bare", "bites").tell();
    CHECK(lines(told, "calls") == Lines{"0 biter.1 calls howl hound.1 0"});
    CHECK(count(lines(told, "hits"), "hound.1 hits snap hero 5") > 3);
    const FightResult twice = Bout(a, "bare", "bites").trial(0, 1, 2);
    const FightResult once = Bout(a, "bare", "bites").trial(0);
    CHECK(twice.time < once.time);
    // The second scroll would call nobody while the first's hound stands.
    const FightResult read = Bout(a, "l", "spar").trial(0);
    CHECK(read.uses[0].used == 1);
    CHECK(read.time == 6); // 15 a unit of time
}

TEST_CASE("blows go to who taunts first", "[M23b]") {
    const std::string loud =
        "[effect.loud]\ntaunts = true\n[item.bell]\nslot = \"head\"\ntrigger = [ { on = \"start\", "
        "effect = \"loud\", duration = 3 } ]\n[loadout.help]\ncharacter = \"hero\"\nworn = { head "
        "= "
        "\"bell\" }\n";
    const Armoury a = armoury(duel() +
                              with(biter(), "foes = [ { foe = \"biter\" } ]",
                                   "foes = [ { foe = \"biter\" } ]\nallies = [\"help\"]") +
                              loud);
    const Lines bites = lines(Bout(a, "bare", "bites").tell(), "hits");
    CHECK(count(bites, "2 biter.1 hits bite ally.help 10") == 1);
    CHECK(count(bites, "3 biter.1 hits bite hero 10") == 1);
    CHECK(count(bites, "bite ally.help") == 10); // at 0, 1 and 2, and once the hero has fallen
    const FightResult even = Bout(a, "bare", "bites").even(10);
    CHECK_THAT(even.time, WithinAbs(2, 1e-6)); // 100 a unit of time: the ally, then the hero
}

TEST_CASE("a pool shields health from its share, while it has any", "[M23c]") {
    const auto shielded = [](const std::string& share, const std::string& regen) {
        return armoury(with(duel(), "[pool.breath]\nmax = \"max_breath\"",
                            "[pool.breath]\nmax = \"max_breath\"\nshields = \"" + share +
                                "\"\nregen = \"" + regen + "\"") +
                       biter());
    };
    // 50 breath: of ten bites 5 each go to it, then 10 each to the 50 health that are left.
    const Armoury half = shielded("0.5", "0");
    CHECK(Bout(half, "bare", "bites").trial(0).time == 14);
    CHECK_THAT(Bout(half, "bare", "bites").even().time, WithinAbs(15, 1e-6));
    // What it regains goes on to shield: 2 a unit of time from when it is empty, after 50 / 3, at
    // which 100 − 5 × 50 / 3 health are left, of which 8 go a unit.
    const double emptied = 50.0 / 3;
    CHECK_THAT(Bout(shielded("0.5", "2"), "bare", "bites").even().time,
               WithinAbs(emptied + (100 - 5 * emptied) / 8, 1e-6));
    CHECK(Bout(shielded("2", "0"), "bare", "bites").trial(0).time == 14); // a share is 1 at most
    CHECK(Bout(shielded("0", "0"), "bare", "bites").trial(0).time == 9);
    CHECK(has(mistakes(read(with(duel(), "[pool.health]", "[pool.health]\nshields = \"1\""))),
              "'health' can't shield itself"));
}

TEST_CASE("what shields leave within rounding of nothing is nothing", "[M23c][M12a]") {
    // A shield of all takes 10 − 10 × 0.9 − what rounds of each bite: health loses nothing at all.
    const std::string two = with(
        duel(), "[pool.breath]\nmax = \"max_breath\"",
        "[pool.breath]\nmax = \"max_breath\"\nshields = \"0.9\"\n[stat.max_will]\n[pool.will]\n"
        "max = \"max_will\"\nshields = \"1\"");
    const Armoury a = armoury(
        with(with(two, "max_breath = 50 }", "max_breath = 50, max_will = 0.9999999999 }"),
             "[action.rest]",
             "[stat.max_rage]\n[pool.rage]\nmax = \"max_rage\"\nstart = 0\n[action.rest]") +
        "[action.lash]\nevery = 1\ndrains = { rage = \"1\" }\ndeals = { blunt = 10 }\n[foe.biter]\n"
        "base = { max_health = 1000, max_rage = 50 }\nactions = "
        "[\"lash\"]\n[encounter.bites]\nfoes = "
        "[ { foe = \"biter\" } ]\n");
    const Lines gained = lines(Bout(a, "bare", "bites").tell(), "restores");
    REQUIRE(!gained.empty());
    CHECK(gained.front() == "1 biter.1 restores lash rage 1"); // not at 0: the will took that
}

TEST_CASE("what a shield took was not lost by health, and drains nothing", "[M23c]") {
    // The hero's 10 a blow go half to the dummy's breath, 20 of which last for four blows.
    const Armoury a =
        armoury(with(with(with(duel(), "[pool.breath]\nmax = \"max_breath\"",
                               "[pool.breath]\nmax = \"max_breath\"\nshields = \"0.5\""),
                          "[foe.dummy]\nbase = { max_health = 100 }",
                          "[foe.dummy]\nbase = { max_health = 100, max_breath = 20 }"),
                     "[action.rest]",
                     "[stat.max_rage]\n[pool.rage]\nmax = \"max_rage\"\nstart = "
                     "0\n[action.lash]\nevery = 1\ndrains = { rage = \"1\" }\ndeals = "
                     "{ blunt = \"self.attack\" }\n[action.rest]") +
                "[item.whip]\nslot = \"hand\"\nactions = [\"lash\"]\nadd = { max_rage = 999 "
                "}\n[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"whip\" }\n");
    const Lines gained = lines(Bout(a, "l", "spar").tell(), "restores");
    CHECK(count(gained, "lash rage 5") == 4);
    CHECK(count(gained, "lash rage 10") == 8);
    const FightResult even = Bout(a, "l", "spar").even();
    CHECK_THAT(even.dealt[0], WithinAbs(120, 1e-6)); // all counts as dealt
    CHECK_THAT(even.restored[2], WithinAbs(100, 1e-6));
}

TEST_CASE("of a group between two numbers each number comes as often, and its middle by even luck",
          "[M65a]") {
    const Armoury a = armoury(duel() + "[encounter.crowd]\nfoes = [ { foe = \"dummy\", count = 1, "
                                       "up_to = 3 } ]\n");
    std::vector<int> seen(4, 0);
    for (std::uint64_t trial = 0; trial < 600; ++trial) {
        const FightResult result = Bout(a, "bare", "crowd").trial(trial);
        const auto came = static_cast<std::size_t>((result.time + 1) / 10 + 0.5);
        REQUIRE(came <= 3);
        CHECK(result.remainder == 1);
        ++seen[came];
    }
    for (std::size_t came = 1; came <= 3; ++came) CHECK(std::abs(seen[came] - 200) < 60);
    CHECK_THAT(Bout(a, "bare", "crowd").even().time, WithinAbs(20, 1e-6));
}

TEST_CASE("a margin of trials knows how many come", "[M65a][M70]") {
    const Armoury a = armoury(duel() + biter(100) +
                              "[encounter.pack]\nfoes = [ { foe = \"biter\" }, { foe = \"biter\", "
                              "count = 0, up_to = 1 } ]\n");
    bool alone = false, both = false;
    for (std::uint64_t trial = 0; trial < 20; ++trial) {
        Bout bout(a, "bare", "pack");
        const double margin = trial_margin(bout.engine, {1, trial}).value;
        alone = alone || margin > 0.9;
        both = both || margin < 0.7;
    }
    CHECK(alone);
    CHECK(both);
}
