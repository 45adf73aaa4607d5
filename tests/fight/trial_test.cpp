#include "support/armouries.h"

#include "fight/trials.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;
using Lines = std::vector<std::string>;

namespace {

/// The duel with a consumable and a loadout that packs it; `use` is the inside of its use table.
std::string with_use(const std::string& use, const std::string& rule = {}, int count = 3) {
    return duel() + "[item.vial]\nstack = 9\nuse = { " + use +
           " }\n[loadout.l]\ncharacter = \"hero\"\npack = { vial = " + std::to_string(count) +
           " }\n" +
           (rule.empty() ? "" : "[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"" + rule + "\"\n");
}

/// The events of one kind that the hero did.
Lines ours(const Timeline& told, const std::string& event = "hits") {
    Lines list;
    for (const std::string& line : lines(told, event))
        if (line.find(" hero ") != std::string::npos && line.find(" hero ") < line.find(event))
            list.push_back(line);
    return list;
}

} // namespace

TEST_CASE("blows land at the start of their time, the last one fells", "[M61][M62]") {
    const Armoury a = armoury(with(duel(), "base = { max_health = 100 }\nactions = [\"rest\"]",
                                   "base = { max_health = 35 }\nactions = [\"rest\"]"));
    Bout bout(a, "bare", "spar");
    const FightResult result = bout.trial(0);
    CHECK(result.won);
    CHECK(result.time == 3);
    CHECK(result.all_dealt() == 35);
    CHECK(result.overkill == 5);
    CHECK(ours(bout.tell()) ==
          Lines{"0 hero hits strike dummy.1 10", "1 hero hits strike dummy.1 10",
                "2 hero hits strike dummy.1 10", "3 hero hits strike dummy.1 5"});
}

TEST_CASE("a fight covers up to its limit: nothing happens at the limit, and it is not won",
          "[M65]") {
    const Armoury a =
        armoury(with(duel(), "health = \"health\"\n", "health = \"health\"\ntime_limit = 5\n"));
    Bout bout(a, "bare", "spar");
    const FightResult result = bout.trial(0);
    CHECK_FALSE(result.won);
    CHECK(result.timed_out);
    CHECK(result.time == 5);
    CHECK(result.all_dealt() == 50);
    CHECK(result.remainder == -0.5);
}

TEST_CASE("times add up in whole millionths: ties are ties", "[M60a]") {
    const Armoury a = armoury(
        with(with(duel(), "[action.strike]\nevery = \"1\"", "[action.strike]\nevery = \"0.1\""),
             "base = { max_health = 100 }", "base = { max_health = 1000 }"));
    const Lines hits = ours(Bout(a, "bare", "spar").tell());
    REQUIRE(hits.size() == 100);
    CHECK(hits[30].starts_with("3 hero"));
    CHECK(hits[99].starts_with("9.9 hero"));
}

TEST_CASE("at one instant the character's side goes first, or who has the higher order", "[M60]") {
    const std::string text =
        with(duel(), "base = { max_health = 100 }\nactions = [\"rest\"]",
             "base = { max_health = 10, attack = 100, haste = 1 }\nactions = [\"strike\"]");
    CHECK(Bout(armoury(text), "bare", "spar").trial(0).won);
    const Armoury faster = armoury(
        with(text, "health = \"health\"\n", "health = \"health\"\norder = \"self.haste\"\n"));
    CHECK_FALSE(Bout(faster, "bare", "spar").trial(0).won);
}

TEST_CASE("front is the first who stands, in the order of arrival, all are all", "[M62]") {
    const std::string text = with(duel(), "[encounter.spar]\nfoes = [ { foe = \"dummy\" } ]",
                                  "[encounter.spar]\nfoes = [ { foe = \"dummy\", count = 2 }, { "
                                  "foe = \"dummy\", at = 2.5 } ]");
    const std::string weak =
        with(text, "base = { max_health = 100 }\n", "base = { max_health = 20 }\n");
    CHECK(lines(Bout(armoury(weak), "bare", "spar").tell(), "falls") ==
          Lines{"1 dummy.1 falls   0", "3 dummy.2 falls   0", "5 dummy.3 falls   0"});
    const Armoury sweeping =
        armoury(with(weak, "deals = { blunt = \"self.attack\" }",
                     "deals = { blunt = \"self.attack\" }\ntargets = \"all\""));
    CHECK(lines(Bout(sweeping, "bare", "spar").tell(), "falls") ==
          Lines{"1 dummy.1 falls   0", "1 dummy.2 falls   0", "3.5 dummy.3 falls   0"});
    const Armoury two = armoury(with(weak, "deals = { blunt = \"self.attack\" }",
                                     "deals = { blunt = \"self.attack\" }\ntargets = 2"));
    CHECK(ours(Bout(two, "bare", "spar").tell()).size() == 6);
}

TEST_CASE("who has nobody to strike waits for an arrival", "[M61][M65]") {
    const Armoury a = armoury(with(
        with(duel(), "foes = [ { foe = \"dummy\" } ]", "foes = [ { foe = \"dummy\", at = 4.25 } ]"),
        "base = { max_health = 100 }\n", "base = { max_health = 15 }\n"));
    CHECK(ours(Bout(a, "bare", "spar").tell()) ==
          Lines{"4.25 hero hits strike dummy.1 10", "5.25 hero hits strike dummy.1 5"});
}

TEST_CASE("an action with a cooldown or a cost is passed over until it can be done", "[M61][M10]") {
    const std::string big = "[action.big]\nevery = \"1\"\ncooldown = 3\ncost = { breath = 20 "
                            "}\ndeals = { blunt = \"30\" }\n";
    const Armoury a =
        armoury(with(with(duel(), "actions = [\"strike\"]", "actions = [\"big\", \"strike\"]"),
                     "base = { max_health = 100 }\n", "base = { max_health = 500 }\n") +
                big);
    const Timeline told = Bout(a, "bare", "spar").tell();
    Lines bigs;
    for (const std::string& line : ours(told))
        if (line.find("big") != std::string::npos) bigs.push_back(line);
    CHECK(bigs == Lines{"0 hero hits big dummy.1 30",
                        "3 hero hits big dummy.1 30"}); // 50 breath pay for two
}

TEST_CASE("an action is done only when its condition holds", "[M61]") {
    const std::string finish = "[action.finish]\nevery = \"1\"\ndeals = { blunt = \"100\" }\nwhen "
                               "= \"other.health_share < 0.55\"\n";
    const Armoury a = armoury(
        with(duel(), "actions = [\"strike\"]", "actions = [\"finish\", \"strike\"]") + finish);
    const FightResult result = Bout(a, "bare", "spar").trial(0);
    CHECK(result.time == 5); // 100 → 50 after five blows, then one that finishes
    CHECK(result.overkill == 50);
}

TEST_CASE("actions of worn gear stand before the character's own", "[M61]") {
    const Armoury a =
        armoury(duel() + "[action.slam]\nevery = \"1\"\ndeals = { blunt = \"50\" "
                         "}\n[item.maul]\nslot = \"hand\"\nactions = [\"slam\"]\n"
                         "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"maul\" }\n");
    CHECK(Bout(a, "l", "spar").trial(0).time == 1);
}

TEST_CASE("a loadout says in which order actions are done, and which are not", "[M61]") {
    const std::string text = duel() +
                             "[action.slam]\nevery = \"1\"\ndeals = { blunt = \"50\" "
                             "}\n[item.maul]\nslot = \"hand\"\nactions = [\"slam\"]\n"
                             "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"maul\" }\n";
    const auto time = [&](const std::string& actions) {
        return Bout(armoury(text + "actions = " + actions + "\n"), "l", "spar").trial(0).time;
    };
    CHECK(time("[\"slam\", \"strike\"]") == 1);
    CHECK(time("[\"strike\", \"slam\"]") == 9);
    CHECK(time("[\"strike\"]") == 9);
    CHECK(has(mistakes(test::read(text + "actions = []\n")), "'l' does nothing at all"));
    CHECK(has(mistakes(test::read(text + "actions = [\"slan\"]\n")), "did you mean 'slam'?"));
}

TEST_CASE("mean damage follows from hits, crits and spread, within its interval", "[M62][M63]") {
    const std::string text = with(duel(), "health = \"health\"\n",
                                  "health = \"health\"\nhit = \"0.8\"\ncrit = "
                                  "\"0.25\"\ncrit_factor = \"2\"\nspread = 0.2\ntime_limit = 50\n");
    const Armoury a =
        armoury(with(text, "base = { max_health = 100 }\n", "base = { max_health = 1e6 }\n"));
    Bout bout(a, "bare", "spar");
    const TrialsSummary summary = run_trials(a, bout.setup, {2000, 1, 1});
    const double expected = 50 * 10 * 0.8 * (1 + 0.25);
    const Estimate dealt = estimate_mean(summary.dealt);
    CHECK(dealt.low < expected);
    CHECK(dealt.high > expected);
    CHECK(dealt.high - dealt.low < 0.02 * expected);
}

TEST_CASE("mitigation sees the amount and the target, less than 0 is 0", "[M62]") {
    const std::string text = with(duel(), "mitigated = \"amount\"",
                                  "mitigated = \"amount * 100 / (100 + other.guard) - 2\"");
    const Armoury a = armoury(with(text, "[foe.dummy]\nbase = { max_health = 100 }",
                                   "[foe.dummy]\nbase = { max_health = 100, guard = 25 }"));
    CHECK(Bout(a, "bare", "spar").trial(0).time == 16); // 10 → 8 − 2 = 6 a blow
    const Armoury wall = armoury(with(text, "[foe.dummy]\nbase = { max_health = 100 }",
                                      "[foe.dummy]\nbase = { max_health = 100, guard = 9999 }"));
    CHECK(Bout(wall, "bare", "spar").trial(0).all_dealt() == 0);
}

TEST_CASE("a drain gives a share of what the target lost", "[M62]") {
    const std::string text =
        with(duel(), "deals = { blunt = \"self.attack\" }",
             "deals = { blunt = \"self.attack\" }\ndrains = { breath = \"0.5\" }");
    const Armoury a =
        armoury(with(text, "max = \"max_breath\"", "max = \"max_breath\"\nstart = 0"));
    const FightResult result = Bout(a, "bare", "spar").trial(0);
    CHECK(result.restored[1] == 50); // ten blows of 10
    CHECK(result.wasted[1] == 0);
}

TEST_CASE("a tick falls in steps of its period, the first after one, the last at the end",
          "[M21]") {
    const std::string bleed = "[effect.bleed]\nper_time = { health = -3 }\nperiod = 2\n";
    const Armoury a = armoury(with(duel(), "deals = { blunt = \"self.attack\" }",
                                   "deals = { blunt = \"1\" }\ncooldown = 1000\napplies = { effect "
                                   "= \"bleed\", duration = 6 }") +
                              bleed);
    CHECK(lines(Bout(a, "bare", "spar").tell(), "tick") == Lines{"2 dummy.1 tick bleed dummy.1 6",
                                                                 "4 dummy.1 tick bleed dummy.1 6",
                                                                 "6 dummy.1 tick bleed dummy.1 6"});
    const Armoury finer = armoury(with(duel(), "deals = { blunt = \"self.attack\" }",
                                       "deals = { blunt = \"1\" }\ncooldown = 1000\napplies = { "
                                       "effect = \"bleed\", duration = 6 }") +
                                  with(bleed, "period = 2", "period = 1"));
    const Lines steps = lines(Bout(finer, "bare", "spar").tell(), "tick");
    CHECK(steps.size() == 6);
    CHECK(steps.front() == "1 dummy.1 tick bleed dummy.1 3");
}

TEST_CASE("regen falls at multiples of its period from the start", "[M21][M10]") {
    const std::string text =
        with(with(duel(), "max = \"max_breath\"",
                  "max = \"max_breath\"\nregen = \"4\"\nperiod = 2.5\nstart = 0"),
             "health = \"health\"\n", "health = \"health\"\ntime_limit = 9\n");
    const FightResult result = Bout(armoury(text), "bare", "spar").trial(0);
    CHECK(result.restored[1] == 30); // 10 at 2.5, 5 and 7.5
    CHECK(result.wasted[1] == 0);
}

TEST_CASE("a second application refreshes, extends, piles or is kept out", "[M20]") {
    const auto told = [](const std::string& again, int pile) {
        const std::string effect = "[effect.glow]\nadd = { keen = 1 }\nagain = \"" + again +
                                   "\"\npile_max = " + std::to_string(pile) + "\n";
        return armoury(with_use("effect = \"glow\", duration = 5, cooldown = 3", "1", 2) + effect);
    };
    const auto bars = [](const Armoury& a) {
        Bout bout(a, "l", "spar");
        Lines list;
        for (const EffectBar& bar : bout.tell().bars)
            list.push_back(std::to_string(static_cast<int>(bar.from)) + "-" +
                           std::to_string(static_cast<int>(bar.to)));
        std::sort(list.begin(), list.end());
        return list;
    };
    const Armoury refresh = told("refresh", 1);
    CHECK(bars(refresh) == Lines{"0-8"}); // used at 0 and 3
    CHECK(Bout(refresh, "l", "spar").trial(0).effects[0].cut == 2);
    CHECK(bars(told("extend", 1)) == Lines{"0-9"}); // the fight ends at 9; the effect would at 10
    CHECK(bars(told("pile", 2)) == Lines{"0-5", "3-8"});
    const Armoury one_pile = told("pile", 1);
    CHECK(bars(one_pile) == Lines{"0-3", "3-8"}); // past pile_max the oldest ends
    CHECK(Bout(one_pile, "l", "spar").trial(0).effects[0].cut == 2);
    const Armoury keep = told("keep", 1);
    CHECK(bars(keep) == Lines{"0-5", "5-9"}); // refused while it runs: it would do nothing
}

TEST_CASE("an effect acts on from t until before t + d and leaves stats bitwise as they were",
          "[M2][M21]") {
    const std::string text = with_use("effect = \"fury\", duration = 2.5", "1", 1) +
                             "[effect.fury]\npercent = { attack = 33 }\nadd = { attack = 0.1 }\n";
    const Lines hits = ours(Bout(armoury(text), "l", "spar").tell());
    CHECK(hits[0] == "0 hero hits strike dummy.1 13.433");
    CHECK(hits[2] == "2 hero hits strike dummy.1 13.433");
    CHECK(hits[3] == "3 hero hits strike dummy.1 10");
    const Armoury whole = armoury(with(text, "duration = 2.5", "duration = 3"));
    CHECK(ours(Bout(whole, "l", "spar").tell())[3] ==
          "3 hero hits strike dummy.1 10"); // ends before actions of its last instant
}

TEST_CASE("`always` does not end", "[M22]") {
    const Armoury a = armoury(with_use("effect = \"fury\", duration = \"always\"", "1", 2) +
                              "[effect.fury]\nadd = { attack = 10 }\n");
    const FightResult result = Bout(a, "l", "spar").trial(0);
    CHECK(result.time == 4);
    CHECK(result.uses[0].used == 1); // a second would do nothing
    CHECK(result.effects[0].uptime == 4);
}

TEST_CASE("uptime of a brew of 20 each 25 is 0.8", "[M30]") {
    const std::string text =
        with(with_use("effect = \"glow\", duration = 20, cooldown = 25", "1", 9),
             "health = \"health\"\n", "health = \"health\"\ntime_limit = 100\n");
    const Armoury a =
        armoury(with(text, "base = { max_health = 100 }\n", "base = { max_health = 1e6 }\n") +
                "[effect.glow]\nadd = { keen = 1 }\n");
    CHECK(Bout(a, "l", "spar").trial(0).effects[0].uptime == 80);
    CHECK(Bout(a, "l", "spar").even().effects[0].uptime == 80);
}

TEST_CASE("ceilings change before restoration, and are clamped at the end, what was healed stays",
          "[M11][M12]") {
    const std::string text =
        with_use("restore = { health = 30 }, effect = \"swell\", duration = 2.5", "time >= 1", 1) +
        "[effect.swell]\nadd = { max_health = 50 }\n" + biter();
    const Armoury a = armoury(text);
    const Timeline told = Bout(a, "l", "bites").tell();
    // Bitten at 0, 1, 2 and so on; used at 1, before the bite of 1: 90 → 120 under a ceiling of
    // 150.
    CHECK(lines(told, "restores") == Lines{"1 hero restores vial health 30"});
    const auto after = [&](double time) {
        double share = -1;
        for (const PoolSample& sample : told.samples)
            if (sample.time == time) share = sample.shares[0][0];
        return share;
    };
    CHECK(after(1) == Approx(110.0 / 150));
    CHECK(after(3.5) ==
          Approx(90.0 / 100)); // 90 at 3, the ceiling falls to 100 at 3.5: nothing is taken back
}

TEST_CASE("a rising ceiling keeps the amount, or the share where the pool says so", "[M11]") {
    const std::string text = with_use("effect = \"swell\", duration = 5", "time > 0", 1) +
                             "[effect.swell]\nadd = { max_breath = 50 }\n";
    const auto breath = [](const std::string& armoury_text) {
        const Timeline told = Bout(armoury(armoury_text), "l", "spar").tell();
        return told.samples[1].shares[0][1];
    };
    const std::string half =
        with(text, "max = \"max_breath\"", "max = \"max_breath\"\nstart = 0.5");
    CHECK(breath(half) == 0.25);
    CHECK(breath(with(half, "start = 0.5", "start = 0.5\non_ceiling = \"share\"")) == 0.5);
}

TEST_CASE("a use that would do nothing is refused and consumes nothing", "[M30]") {
    const Armoury a = armoury(with_use("restore = { health = 30 }", "1"));
    const FightResult result = Bout(a, "l", "spar").trial(0);
    CHECK(result.uses[0].used == 0);
    CHECK(result.uses[0].left == 3);
    CHECK(result.uses[0].refused == 1); // said once, while the reason stays the same
    CHECK(lines(Bout(a, "l", "spar").tell(), "use_refused").size() == 1);
}

TEST_CASE("a restoring use with an effect may be used at full health, the rest is wasted",
          "[M30]") {
    const Armoury a =
        armoury(with_use("restore = { health = 30 }, effect = \"glow\", duration = 500", "1", 1) +
                "[effect.glow]\nadd = { keen = 1 }\n");
    const FightResult result = Bout(a, "l", "spar").trial(0);
    CHECK(result.uses[0].used == 1);
    CHECK(result.wasted[0] == 30);
}

TEST_CASE("cooldowns hold, a group's too, their end is an instant", "[M30][M60]") {
    const std::string text =
        duel() + biter() +
        "[item.red]\nstack = 9\nuse = { restore = { health = 1 }, cooldown = 2.5, group = \"g\" }\n"
        "[item.blue]\nstack = 9\nuse = { restore = { health = 1 }, cooldown = 2.5, group = \"g\" "
        "}\n"
        "[loadout.l]\ncharacter = \"hero\"\npack = { red = 2, blue = 2 }\n"
        "[[loadout.l.use]]\nitem = \"blue\"\nwhen = \"1\"\n[[loadout.l.use]]\nitem = \"red\"\nwhen "
        "= \"1\"\n";
    const Lines uses = lines(Bout(armoury(text), "l", "bites").tell(), "uses");
    CHECK(uses == Lines{"0 hero uses blue hero 0", "2.5 hero uses blue hero 0",
                        "5 hero uses red hero 0", "7.5 hero uses red hero 0"});
}

TEST_CASE("a blow is answered at the instant at which it lands", "[M60]") {
    const Armoury a =
        armoury(with_use("restore = { health = 30 }", "self.health_share < 0.75", 1) + biter());
    CHECK(lines(Bout(a, "l", "bites").tell(), "uses") ==
          Lines{"2 hero uses vial hero 0"}); // 70 after the bite of 2
}

TEST_CASE("the default uses a restoring consumable when its worth is missing or little is left",
          "[M33]") {
    const Armoury a = armoury(with_use("restore = { health = 25 }") + biter());
    const Lines uses = lines(Bout(a, "l", "bites").tell(), "uses");
    CHECK(uses.front() == "2 hero uses vial hero 0"); // 30 missing
    const Armoury large = armoury(with_use("restore = { health = 90 }") + biter());
    CHECK(lines(Bout(large, "l", "bites").tell(), "uses").front() ==
          "6 hero uses vial hero 0"); // 30 left: under 35 %
    const Armoury brew = armoury(with_use("effect = \"glow\", duration = 4") +
                                 "[effect.glow]\nadd = { keen = 1 }\n" + biter());
    CHECK(lines(Bout(brew, "l", "bites").tell(), "uses") ==
          Lines{"0 hero uses vial hero 0", "4 hero uses vial hero 0", "8 hero uses vial hero 0"});
}

TEST_CASE("what drains a pool is answered by the rule that watches it", "[M21][M30]") {
    // 50 breath, and 5 less each second.
    const Armoury a = armoury(with_use("restore = { breath = 30 }", "self.breath_share < 0.4", 1) +
                              "[effect.leak]\nper_time = { breath = -5 }\n[action.hiss]\nevery = "
                              "\"60\"\napplies = { effect = \"leak\", duration = 60 }\n"
                              "[foe.hisser]\nbase = { max_health = 300 }\nactions = [\"hiss\"]\n"
                              "[encounter.hisses]\nfoes = [ { foe = \"hisser\" } ]\n");
    CHECK(lines(Bout(a, "l", "hisses").tell(), "uses") == Lines{"7 hero uses vial hero 0"});
}

TEST_CASE("what would prolong nothing yet is used at the next instant", "[M30]") {
    const std::string glow = "use = { effect = \"glow\", duration = 9, cooldown = 60 }\n";
    const Armoury a = armoury(duel() + "[effect.glow]\nadd = { keen = 1 }\n[item.brew]\n" + glow +
                              "[item.vial]\n" + glow +
                              "[loadout.l]\ncharacter = \"hero\"\npack = { brew = 1, vial = 1 }\n"
                              "[[loadout.l.use]]\nitem = \"brew\"\nwhen = \"1\"\n"
                              "[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"1\"\n");
    CHECK(lines(Bout(a, "l", "spar").tell(), "uses") ==
          Lines{"0 hero uses brew hero 0", "1 hero uses vial hero 0"});
}

TEST_CASE("a blow on an ally is answered at that instant, though nothing else befell the user",
          "[M32][M60]") {
    // The hero can't be hit, the ally always.
    std::string text =
        with(with_use("restore = { health = 30 }, to = \"allies\"", "1", 1) + biter(500) +
                 "[encounter.swarm]\nfoes = [ { foe = \"biter\" } ]\nallies = "
                 "[\"help\"]\n[character.friend]\nbase = { max_health = 100, "
                 "attack = 1 }\nactions = [\"strike\"]\n[loadout.help]\n"
                 "character = \"friend\"\n",
             "health = \"health\"\n",
             "health = \"health\"\nhit = \"1 - "
             "other.might / 10\"\n");
    text = with(text, "[action.bite]\n", "[action.bite]\ntargets = \"all\"\n");
    CHECK(lines(Bout(armoury(text), "l", "swarm").tell(), "uses") ==
          Lines{"0 hero uses vial hero 0"});
}

TEST_CASE("a use takes its weight away at once, and the band is made anew", "[M31]") {
    const std::string text =
        with(with_use("restore = { health = 30 }", "self.health_share < 0.95", 1), "[item.vial]",
             "[item.vial]\nweight = 5") +
        biter() +
        "[carry]\ncapacity = \"10\"\n[[carry.band]]\nname = \"Laden\"\nfrom = 0.5\nadd = { attack "
        "= -5 }\n";
    const Timeline told = Bout(armoury(text), "l", "bites").tell();
    CHECK(lines(told, "band") == Lines{"0 hero band none  0"});
    const Lines hits = lines(told, "hits");
    CHECK(hits[0] == "0 hero hits strike biter.1 5");
    CHECK(hits[1] == "0 biter.1 hits bite hero 10");
    CHECK(hits[2] == "1 hero hits strike biter.1 10");
}

TEST_CASE("a use that takes time holds the next action back", "[M32]") {
    const Armoury a =
        armoury(with_use("restore = { health = 30 }, takes = 1.5", "self.health_share < 0.95", 1) +
                biter());
    const Timeline told = Bout(a, "l", "bites").tell();
    CHECK(ours(told)[0].starts_with("0 "));
    CHECK(ours(told)[1].starts_with("1.5 ")); // used at 0, after the bite
}

TEST_CASE("who is felled does nothing more, at that instant too", "[M60]") {
    const Armoury a = armoury(
        with(with_use("restore = { health = 100 }", "self.health_share < 0.5", 1),
             "base = { max_health = 100, attack = 10", "base = { max_health = 10, attack = 10") +
        biter());
    const FightResult result = Bout(a, "l", "bites").trial(0);
    CHECK_FALSE(result.won);
    CHECK(result.time == 0);
    CHECK(result.uses[0].used == 0);
}

TEST_CASE("a formula that gives no number ends the fight and names its values", "[M66]") {
    const auto error = [](const std::string& from, const std::string& to) {
        const FightResult result = Bout(armoury(with(duel(), from, to)), "bare", "spar").trial(0);
        REQUIRE(result.error);
        CHECK(result.error->span.line > 0);
        CHECK_FALSE(result.won);
        return result.error->message;
    };
    CHECK(error("mitigated = \"amount\"", "mitigated = \"amount / other.guard\"") ==
          "the formula 'amount / other.guard' gives inf with amount = 10, other.guard = 0");
    CHECK(error("every = \"1\"", "every = \"self.haste\"") ==
          "'every' of 'strike' is 0 with self.haste = 0: time would stand still");
    CHECK(error("every = \"1\"", "every = \"1e-9 + self.haste\"").find("time would stand still") !=
          std::string::npos);
    CHECK(error("health = \"health\"\n", "health = \"health\"\nhit = \"ln(self.haste - 1)\"\n")
              .find("gives nan") != std::string::npos);
}

TEST_CASE("a fight of more events than the limit ends with an error, not a hang", "[M66]") {
    const std::string text = with(duel(), "health = \"health\"\n",
                                  "health = \"health\"\nevent_limit = 500\ntime_limit = 1000000\n");
    const FightResult result =
        Bout(armoury(with(text, "base = { max_health = 100 }\n", "base = { max_health = 1e9 }\n")),
             "bare", "spar")
            .trial(0);
    REQUIRE(result.error);
    CHECK(result.error->message.starts_with("more than 500 events by time"));
}

TEST_CASE("strength multiplies the foes' health and all that they deal", "[M69]") {
    const Armoury a = armoury(duel() + biter());
    Bout bout(a, "bare", "bites");
    const FightResult twice = bout.trial(0, 1, 2);
    CHECK(twice.time == 4); // 100 health against 20 a bite
    const Armoury tame = armoury(duel());
    CHECK(Bout(tame, "bare", "spar").trial(0, 1, 3).time == 29); // 300 health against 10 a blow
}

TEST_CASE("two loadouts under one seed share their luck", "[M67]") {
    const Armoury a = armoury(with(duel(), "health = \"health\"\n",
                                   "health = \"health\"\nhit = \"0.5\"\ncrit = \"0.3\"\n") +
                              "[item.cap]\nslot = \"head\"\nadd = { guard = 5, keen = 3 "
                              "}\n[loadout.l]\ncharacter = \"hero\"\nworn = { head = \"cap\" }\n");
    Bout bare(a, "bare", "spar");
    Bout capped(a, "l", "spar");
    for (std::uint64_t trial = 0; trial < 5; ++trial)
        CHECK(lines(bare.tell(trial)) == lines(capped.tell(trial)));
    CHECK(lines(bare.tell(0)) != lines(bare.tell(1)));
}

TEST_CASE("a result does not depend on what ran before", "[M67]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_early", "causeway", 6);
    const FightResult first = bout.trial(5);
    static_cast<void>(bout.even(3));
    static_cast<void>(bout.trial(9, 4, 0.5));
    const FightResult again = bout.trial(5);
    CHECK(first.time == again.time);
    CHECK(first.all_dealt() == again.all_dealt());
    CHECK(first.events == again.events);
}

TEST_CASE("pools stay between 0 and their ceilings, and units are conserved", "[M10][M12][M41a]") {
    const Armoury demo = demo_armoury();
    rc::prop("in any trial of the demo", [&] {
        const auto loadout = *rc::gen::inRange<std::size_t>(0, demo.loadouts.size());
        const auto encounter = *rc::gen::inRange<std::size_t>(0, demo.encounters.size());
        const int level = *rc::gen::inRange(16, 31);
        Engine engine(demo);
        const FightSetup setup = set_up_fight(demo, outfit_of(demo, demo.loadouts[loadout], level),
                                              EncounterId(encounter));
        engine.prepare(setup);
        const Luck luck{*rc::gen::arbitrary<std::uint64_t>(), 0};
        const double strength = *rc::gen::inRange(1, 40) / 8.0;
        const Timeline told = engine.tell(strength, luck);
        for (const PoolSample& sample : told.samples)
            for (const auto& actor : sample.shares)
                for (const double share : actor) RC_ASSERT(share >= 0.0 && share <= 1.0);
        const FightResult result = engine.run(strength, luck);
        RC_ASSERT(!result.error);
        const std::vector<PackedItem>& pack = setup.actors[0].pack;
        for (std::size_t i = 0; i < pack.size(); ++i)
            RC_ASSERT(result.uses[i].used + result.uses[i].left ==
                      static_cast<double>(pack[i].count));
    });
}

TEST_CASE("what a fallen foe had cooling down is no moment of the fight", "[M60][M61]") {
    // The spitter falls to the second strike, at 1 s; what it did at 0 would be ready at 2.5 s.
    const Armoury a = armoury(
        duel() + "[action.spit]\nevery = \"1\"\ncooldown = 2.5\ndeals = { blunt = \"1\" }\n"
                 "[foe.spitter]\nbase = { max_health = 20 }\nactions = [\"spit\"]\n"
                 "[encounter.two]\nfoes = [ { foe = \"spitter\" }, { foe = \"dummy\" } ]\n");
    const Timeline told = Bout(a, "bare", "two").tell();
    REQUIRE(told.samples.size() == 12); // the dummy falls to the twelfth
    for (std::size_t i = 0; i < told.samples.size(); ++i)
        CHECK(told.samples[i].time == static_cast<double>(i));
}

TEST_CASE("a cooldown that begins when nothing else cools down makes a moment of its end",
          "[M60][M61]") {
    const Armoury a = armoury(
        with(duel(), "actions = [\"strike\"]", "actions = [\"burst\"]") +
        "[action.burst]\nevery = \"1\"\ncooldown = 1.5\ndeals = { blunt = \"50\" }\n"
        "[encounter.late]\nfoes = [ { foe = \"dummy\", at = 3 }, { foe = \"dummy\", at = 3 } ]\n");
    const Timeline told = Bout(a, "bare", "late").tell();
    std::vector<double> times;
    for (const TimelineEvent& event : told.events)
        if (event.event == "hits" && event.source == "burst") times.push_back(event.time);
    CHECK(times == std::vector<double>{3, 4.5, 6, 7.5});
}
