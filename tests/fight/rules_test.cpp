#include "support/armouries.h"

#include "fight/setup.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Lines = std::vector<std::string>;

namespace {

/// A foe that lays an effect on the hero with every blow, for so long.
std::string poisoner(const std::string& effect, const std::string& duration = "100") {
    return "[action.spit]\nevery = \"1\"\ncooldown = 1000\napplies = { effect = \"venom\", "
           "duration = " +
           duration + " }\n[effect.venom]\n" + effect +
           "\n[foe.snake]\nbase = { max_health = 1000 }\nactions = "
           "[\"spit\"]\n[encounter.den]\nfoes = [ { foe = \"snake\" } ]\n";
}

double share_at(const Timeline& told, double time, std::size_t actor, std::size_t pool) {
    for (const PoolSample& sample : told.samples)
        if (sample.time == time) return sample.shares[actor][pool];
    FAIL("no instant at " << time);
    return 0;
}

Lines who(const Timeline& told, const std::string& event) {
    Lines list;
    for (const TimelineEvent& e : told.events)
        if (e.event == event) list.push_back(e.actor);
    return list;
}

} // namespace

TEST_CASE("a tick may fell, the hero too, and ends the fight at once", "[M60][M65]") {
    const Armoury a = armoury(duel() + poisoner("per_time = { health = -40 }"));
    Bout bout(a, "bare", "den");
    const FightResult result = bout.trial(0);
    CHECK_FALSE(result.won);
    CHECK_FALSE(result.timed_out);
    CHECK(result.time == 3);
    CHECK(result.taken_by_effect[0] == 100);
    CHECK(result.all_taken() == 100);
    CHECK(bout.even().time == Approx(2.5));
}

TEST_CASE("a felled foe's last tick is overkill, not damage", "[M62]") {
    const std::string text =
        with(duel(), "deals = { blunt = \"self.attack\" }",
             "cooldown = 1000\napplies = { effect = \"rot\", duration = 100 }");
    const Armoury a = armoury(text + "[effect.rot]\nper_time = { health = -30 }\n");
    const FightResult result = Bout(a, "bare", "spar").trial(0);
    CHECK(result.won);
    CHECK(result.time == 4);
    CHECK(result.dealt_by_effect[0] == 100);
    CHECK(result.overkill == 20);
}

TEST_CASE("strength multiplies the ticks of what foes laid on the character, not its own",
          "[M69]") {
    const Armoury hostile = armoury(duel() + poisoner("per_time = { health = -10 }"));
    CHECK(Bout(hostile, "bare", "den").trial(0).time == 10);
    CHECK(Bout(hostile, "bare", "den").trial(0, 1, 2).time == 5);
    CHECK(Bout(hostile, "bare", "den").even(2).time == Approx(5));
    const std::string own = duel() +
                            "[effect.fever]\nper_time = { health = -10 }\n[item.vial]\nuse = { "
                            "effect = \"fever\", duration = \"always\" }\n"
                            "[loadout.l]\ncharacter = \"hero\"\npack = { vial = 1 }\n";
    const Armoury self = armoury(with(own, "[foe.dummy]\nbase = { max_health = 100 }",
                                      "[foe.dummy]\nbase = { max_health = 1e6 }"));
    CHECK(Bout(self, "l", "spar").trial(0, 1, 2).time == 10);
    CHECK(Bout(self, "l", "spar").even(2).time == Approx(10));
}

TEST_CASE("an effect on another pool takes it down to 0 and no further", "[M12][M21]") {
    const Armoury a = armoury(duel() + poisoner("per_time = { breath = -20 }", "4"));
    const Timeline told = Bout(a, "bare", "den").tell();
    CHECK(share_at(told, 2, 0, 1) == 0.2);
    CHECK(share_at(told, 3, 0, 1) == 0);
    CHECK(share_at(told, 4, 0, 1) == 0);
}

TEST_CASE("a regen below 0 takes away, and may fell", "[M12][M21]") {
    const std::string text = with(with(duel(), "[stat.mending]", "[stat.mending]\nmin = -100"),
                                  "base = { max_health = 100, attack = 10",
                                  "base = { mending = -40, max_health = 100, attack = 1");
    const Armoury a = armoury(text);
    const FightResult result = Bout(a, "bare", "spar").trial(0);
    CHECK(result.time == 3);
    CHECK_FALSE(result.won);
    CHECK(Bout(a, "bare", "spar").even().time == Approx(2.5));
}

TEST_CASE("regen of an actor that comes later counts from its arrival", "[M21]") {
    const std::string text = with(
        with(duel(), "foes = [ { foe = \"dummy\" } ]", "foes = [ { foe = \"dummy\", at = 0.5 } ]"),
        "[foe.dummy]\nbase = { max_health = 100 }",
        "[foe.dummy]\nbase = { max_health = 100, mending = 3 }");
    const Armoury a = armoury(text);
    Lines regen;
    for (const TimelineEvent& e : Bout(a, "bare", "spar").tell().events)
        if (e.event == "restores" && e.actor == "dummy.1" && regen.size() < 2)
            regen.push_back(std::to_string(e.time).substr(0, 3));
    CHECK(regen == Lines{"1.5", "2.5"});
}

TEST_CASE("at one instant: ticks, then ends, then uses, then actions", "[M60]") {
    // The venom's last tick falls at 3, its end is at 3, the vial is wanted from 3 on.
    const std::string text =
        duel() + poisoner("per_time = { health = -10 }\nadd = { attack = -5 }", "3") +
        "[item.vial]\nuse = { restore = { health = 5 } }\n[loadout.l]\ncharacter = \"hero\"\npack "
        "= { vial = 1 }\n[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"time >= 3\"\n";
    Lines order;
    for (const TimelineEvent& e : Bout(armoury(text), "l", "den").tell().events)
        if (e.time == 3) order.push_back(e.event);
    CHECK(order == Lines{"tick", "effect_ends", "uses", "restores", "hits",
                         "use_refused"}); // the vial was the last
}

TEST_CASE("a tick comes before the regen of its instant", "[M60]") {
    const std::string text = with(duel(), "base = { max_health = 100, attack = 10",
                                  "base = { mending = 30, max_health = 100, attack = 10");
    const Armoury a = armoury(text + poisoner("per_time = { health = -40 }"));
    CHECK(share_at(Bout(a, "bare", "den").tell(), 1, 0, 0) ==
          0.9); // 100 − 40 + 30; the other way 60
}

TEST_CASE("an order that follows a pool is looked at again at every instant", "[M60]") {
    // Who has less health strikes first: the hero from the moment at which it is behind.
    const std::string text = with(
        with(duel(), "health = \"health\"\n", "health = \"health\"\norder = \"0 - self.health\"\n"),
        "base = { max_health = 100 }\nactions = [\"rest\"]",
        "base = { max_health = 90, attack = 15 }\nactions = [\"strike\"]");
    const Lines strikers = who(Bout(armoury(text), "bare", "spar").tell(), "hits");
    REQUIRE(strikers.size() > 8);
    CHECK(Lines(strikers.begin(), strikers.begin() + 6) ==
          Lines{"dummy.1", "hero", "dummy.1", "hero", "hero", "dummy.1"});
}

TEST_CASE("what is applied to oneself acts on oneself, and needs a hit", "[M62]") {
    const std::string rage = "[effect.rage]\nadd = { attack = 5 }\n";
    const auto hits = [&](const std::string& chance) {
        const std::string text =
            with(with(duel(), "deals = { blunt = \"self.attack\" }",
                      "deals = { blunt = \"self.attack\" }\napplies = { effect = \"rage\", "
                      "duration = 1.5, to = \"self\" }"),
                 "health = \"health\"\n", "health = \"health\"\nhit = \"" + chance + "\"\n");
        return lines(Bout(armoury(text + rage), "bare", "spar").tell(), "effect");
    };
    CHECK(hits("1").front() == "0 hero effect rage hero 1.5");
    CHECK(hits("0").empty());
}

TEST_CASE("level in a formula is the level of who acts; foes have their encounter's", "[M60]") {
    const std::string text =
        with(with(duel(), "foes = [ { foe = \"dummy\" } ]",
                  "foe_level = \"level * 2 + 0.6\"\nfoes = [ { foe = \"dummy\" } ]"),
             "[foe.dummy]\nbase = { max_health = 100 }",
             "[foe.dummy]\nbase = { max_health = 100 }\ngrowth = { max_health = 10 }");
    const Armoury a =
        armoury(with(text, "deals = { blunt = \"self.attack\" }", "deals = { blunt = \"level\" }"));
    CHECK(foe_level(a.encounters[0], 3) == 7);
    Bout bout(a, "bare", "spar", 3);
    CHECK(bout.setup.actors[1].level == 7);
    CHECK(bout.trial(0).time == 53); // 160 health against 3 a blow: the 54th fells
    Encounter plain;
    CHECK(foe_level(plain, 12) == 12);
}

TEST_CASE("foes of one kind are numbered, in the order of arrival", "[M62]") {
    const std::string text =
        with(duel(), "foes = [ { foe = \"dummy\" } ]",
             "foes = [ { foe = \"late\", at = 5 }, { foe = \"dummy\", count = 2 } ]");
    const Armoury a = armoury(text + "[foe.late]\nbase = { max_health = 1 }\n");
    const std::vector<ActorSetup> foes = set_up_others(a, a.encounters[0], 1);
    REQUIRE(foes.size() == 3);
    CHECK(foes[0].name == "dummy.1");
    CHECK(foes[1].name == "dummy.2");
    CHECK(foes[2].name == "late.1");
    CHECK(foes[2].arrival == to_ticks(5));
}

TEST_CASE("even luck: waves come one after the other, and each use has its time", "[M68]") {
    const std::string text = with(duel(), "foes = [ { foe = \"dummy\" } ]",
                                  "foes = [ { foe = \"dummy\" }, { foe = \"dummy\", at = 3 }, { "
                                  "foe = \"dummy\", at = 40 } ]");
    const Armoury a = armoury(text);
    Bout bout(a, "bare", "spar");
    const Timeline told = bout.engine.tell(1, std::nullopt);
    std::vector<double> falls;
    for (const TimelineEvent& e : told.events)
        if (e.event == "falls") falls.push_back(e.time);
    REQUIRE(falls.size() == 3);
    CHECK(falls[0] == Approx(10));
    CHECK(falls[1] == Approx(20));
    CHECK(falls[2] == Approx(50));
}

TEST_CASE("even luck: a stat that changes counts from the next blow on", "[M68]") {
    const std::string text = duel() +
                             "[item.vial]\nuse = { effect = \"fury\", duration = \"always\" "
                             "}\n[effect.fury]\nadd = { attack = 10 }\n"
                             "[loadout.l]\ncharacter = \"hero\"\npack = { vial = 1 "
                             "}\n[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"time > 2.5\"\n";
    CHECK(Bout(armoury(text), "l", "spar").even().time == Approx(3 + 70.0 / 20));
}

TEST_CASE("even luck: a drain flows with the damage", "[M68]") {
    const std::string text =
        with(with(duel(), "deals = { blunt = \"self.attack\" }",
                  "deals = { blunt = \"self.attack\" }\ndrains = { breath = \"0.2\" }"),
             "max = \"max_breath\"", "max = \"max_breath\"\nstart = 0");
    const FightResult result = Bout(armoury(text), "bare", "spar").even();
    CHECK(result.restored[1] == Approx(20));
    CHECK(result.wasted[1] == Approx(0).margin(1e-9));
}

TEST_CASE("even luck: costs and cooldowns are as in any fight", "[M68][M61]") {
    const std::string big = "[action.big]\nevery = \"1\"\ncooldown = 3\ncost = { breath = 20 "
                            "}\ndeals = { blunt = \"30\" }\n";
    const Armoury a =
        armoury(with(duel(), "actions = [\"strike\"]", "actions = [\"big\", \"strike\"]") + big);
    // 30 + 10 + 10, then 30 + 10, and the last 10 at once after.
    CHECK(Bout(a, "bare", "spar").even().time == Approx(6));
    CHECK(Bout(a, "bare", "spar")
              .even()
              .actions[find_id<ActionKind>(a.actions, "big").index()]
              .done == 2);
}

TEST_CASE("a tick that a fall took the place of does not stop the ticks after it", "[M21][M64]") {
    // Two effects tick at once; the first takes the life, so the second falls in vain that time.
    const std::string text =
        with(with(duel(), "health = \"health\"\n",
                  "health = \"health\"\nlives = \"1\"\nrevive_share = 0.5\ntime_limit = 4\n"),
             "base = { max_health = 100, attack = 10", "base = { max_health = 100, attack = 0") +
        "[effect.a]\nper_time = { health = -100 }\nagain = \"keep\"\n[effect.b]\nper_time = { "
        "health = -7 }\nagain = \"keep\"\n[item.charm]\nslot = \"charm\"\n"
        "[[item.charm.trigger]]\non = \"start\"\neffect = \"a\"\nduration = 1\n"
        "[[item.charm.trigger]]\non = \"start\"\neffect = \"b\"\nduration = 3\n"
        "[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" }\n";
    CHECK(lines(Bout(armoury(text), "l", "spar").tell(), "tick") ==
          Lines{"1 hero tick a hero 100", "2 hero tick b hero 7", "3 hero tick b hero 7"});
}

TEST_CASE("amounts of a blow are those of its beginning, whatever its first type does", "[M62]") {
    const std::string text =
        with(with(duel(), "[damage.blunt]", "[damage.tone]\n[damage.blunt]"),
             "deals = { blunt = \"self.attack\" }",
             "deals = { blunt = \"other.health / 2\", tone = \"other.health / 4\" }");
    const Lines hits = lines(Bout(armoury(text), "bare", "spar").tell(), "hits");
    REQUIRE_FALSE(hits.empty());
    CHECK(hits[0] == "0 hero hits strike dummy.1 75");
}
