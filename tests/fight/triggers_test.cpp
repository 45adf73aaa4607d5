#include "support/armouries.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Lines = std::vector<std::string>;

namespace {

/// The biter, and two effects.
const std::string bitten =
    biter() + "[effect.glow]\nadd = { keen = 1 }\n[effect.dim]\nadd = { attack = -4 }\n";
/// A charm with a trigger, worn by the hero against the biter.
Armoury charmed(const std::string& trigger, const std::string& more = {}) {
    return armoury(duel() + bitten + more +
                   "[item.charm]\nslot = \"charm\"\n[[item.charm.trigger]]\n" + trigger +
                   "\n[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" }\n");
}

double uptime(const FightResult& result, const Armoury& armoury, const std::string& effect) {
    return result.effects[find_id<EffectKind>(armoury.effects, effect).index()].uptime;
}

} // namespace

TEST_CASE("a trigger on start fires once, at time 0", "[M62]") {
    const Armoury a = charmed("on = \"start\"\neffect = \"glow\"\nduration = 3");
    Bout bout(a, "l", "spar");
    CHECK(lines(bout.tell(), "effect") == Lines{"0 hero effect glow hero 3"});
    CHECK(uptime(bout.trial(0), a, "glow") == 3);
}

TEST_CASE("a chance of 0 never fires, of 1 always, and one between as often as it says", "[M63]") {
    const auto fired = [](const std::string& chance) {
        const Armoury a =
            charmed("on = \"hit\"\nchance = " + chance + "\neffect = \"glow\"\nduration = 0.5");
        std::size_t times = 0;
        for (std::uint64_t trial = 0; trial < 100; ++trial)
            times += count(lines(Bout(a, "l", "spar").tell(trial), "trigger"), "charm");
        return times;
    };
    CHECK(fired("0") == 0);
    CHECK(fired("1") == 100 * 9); // the tenth blow fells, and the fight is over
    // 900 draws of 0.3: five standard deviations are 69.
    CHECK(fired("0.3") > 270 - 69);
    CHECK(fired("0.3") < 270 + 69);
}

TEST_CASE("a trigger cools down, and fires again at the end of it", "[M62]") {
    const Armoury a = charmed("on = \"hit\"\ncooldown = 3\neffect = \"glow\"\nduration = 1", "");
    CHECK(lines(Bout(a, "l", "spar").tell(), "trigger") == Lines{"0 hero trigger charm hero 0",
                                                                 "3 hero trigger charm hero 0",
                                                                 "6 hero trigger charm hero 0"});
}

TEST_CASE("hurt fires on who is hurt, and `other` is who did it", "[M62]") {
    const Armoury a = charmed("on = \"hurt\"\ncooldown = 100\neffect = \"dim\"\nduration = 2\nto = "
                              "\"other\"");
    const Timeline told = Bout(a, "l", "bites").tell();
    CHECK(lines(told, "effect") == Lines{"0 biter.1 effect dim biter.1 2"});
    const Lines bites = lines(told, "hits");
    CHECK(count(bites, "0 biter.1 hits bite hero 10") >= 1); // the blow itself was whole
    CHECK(count(bites, "1 biter.1 hits bite hero 6") == 1);
    CHECK(count(bites, "2 biter.1 hits bite hero 10") == 1);
}

TEST_CASE("crit, kill, use and life_lost fire when they happen", "[M62][M64]") {
    const auto first = [](const std::string& on, const std::string& text) {
        const Armoury a = armoury(text +
                                  "[item.charm]\nslot = \"charm\"\n[[item.charm.trigger]]\non "
                                  "= \"" +
                                  on +
                                  "\"\neffect = \"glow\"\nduration = 1\n[loadout.l]\ncharacter = "
                                  "\"hero\"\nworn = { charm = \"charm\" }\npack = { vial = 1 }\n");
        const Lines fired = lines(Bout(a, "l", "bites").tell(), "trigger");
        return fired.empty() ? std::string("never") : fired.front();
    };
    const std::string vial = "[item.vial]\nuse = { restore = { health = 30 } }\n";
    const std::string base = duel() + bitten + vial;
    const auto combat = [&](const std::string& keys) {
        return with(duel(), "health = \"health\"\n", "health = \"health\"\n" + keys) + bitten +
               vial;
    };
    CHECK(first("crit", base) == "never");
    CHECK(first("crit", combat("crit = \"1\"\n")) == "0 hero trigger charm hero 0");
    CHECK(first("use", base) == "2 hero trigger charm hero 0"); // 30 are missing
    CHECK(first("life_lost", base) == "never");
    CHECK(first("life_lost", combat("lives = \"1\"\n")) == "12 hero trigger charm hero 0");
    const std::string two = with(base, "foes = [ { foe = \"biter\" } ]",
                                 "foes = [ { foe = \"dummy\" }, { foe = \"biter\" } ]");
    CHECK(first("kill", two) == "9 hero trigger charm hero 0");
}

TEST_CASE("every kind of bearer can trigger", "[M62]") {
    const std::string on = "on = \"start\"\neffect = \"glow\"\nduration = 1\n";
    const auto fires = [&](const std::string& text, const std::string& loadout) {
        const Armoury a = armoury(
            text + "[effect.glow]\nadd = { keen = 1 }\n[loadout.l]\ncharacter = \"hero\"\n" +
            loadout);
        return lines(Bout(a, "l", "spar").tell(), "trigger");
    };
    CHECK(fires(with(duel(), "[foe.dummy]", "[[character.hero.trigger]]\n" + on + "[foe.dummy]"),
                "") == Lines{"0 hero trigger hero hero 0"});
    CHECK(fires(duel() + "[upgrade.lungs]\n[[upgrade.lungs.trigger]]\n" + on,
                "upgrades = { lungs = 1 }\n") == Lines{"0 hero trigger lungs hero 0"});
    CHECK(fires(duel() +
                    "[item.cap]\nslot = \"head\"\ntier = \"grand\"\n[tier.grand]\nrank = "
                    "3\n[[tier.grand.trigger]]\n" +
                    on,
                "worn = { head = \"cap\" }\n") == Lines{"0 hero trigger grand hero 0"});
    CHECK(fires(duel() +
                    "[item.cap]\nslot = \"head\"\nset = \"s\"\n[set.s]\n[[set.s.step]]\ncount "
                    "= 1\n[[set.s.step.trigger]]\n" +
                    on,
                "worn = { head = \"cap\" }\n") == Lines{"0 hero trigger s.1 hero 0"});
    CHECK(fires(duel() +
                    "[carry]\ncapacity = \"10\"\n[[carry.band]]\nname = \"Laden\"\nfrom = "
                    "0.5\n[[carry.band.trigger]]\n" +
                    on + "[item.rock]\nweight = 6\n",
                "pack = { rock = 1 }\n") == Lines{"0 hero trigger Laden hero 0"});
    CHECK(fires(duel() +
                    "[effect.first]\nadd = { keen = 1 }\n[[effect.first.trigger]]\non = "
                    "\"hit\"\ncooldown = 99\neffect = \"glow\"\nduration = 1\n[item.cap]\nslot "
                    "= \"head\"\n[[item.cap.trigger]]\non = \"start\"\neffect = "
                    "\"first\"\nduration = 5\n",
                "worn = { head = \"cap\" }\n") ==
          Lines{"0 hero trigger cap hero 0", "0 hero trigger first hero 0"});
}

TEST_CASE("by even luck a trigger's chance is saved up with the blow's own", "[M68]") {
    const std::string half = with(duel(), "health = \"health\"\n",
                                  "health = \"health\"\nhit = "
                                  "\"0.5\"\n");
    const Armoury a = armoury(half + bitten +
                              "[item.charm]\nslot = \"charm\"\n[[item.charm.trigger]]\non = "
                              "\"hit\"\nchance = 0.5\neffect = \"glow\"\nduration = "
                              "1\n[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" "
                              "}\n");
    // Twenty blows fell the dummy; each fourth makes the account whole.
    CHECK(uptime(Bout(a, "l", "spar").even(), a, "glow") == Approx(5).epsilon(0.21));
}

TEST_CASE("triggers that trigger each other end with an error that names the limit", "[M66]") {
    const Armoury a = armoury(
        with(duel(), "health = \"health\"\n", "health = \"health\"\nevent_limit = 500\n") +
        "[effect.ping]\nadd = { keen = 1 }\nagain = \"pile\"\n[[effect.ping.trigger]]\non = "
        "\"hit\"\neffect = \"pong\"\nduration = 50\n[effect.pong]\nadd = { keen = 1 }\nagain = "
        "\"pile\"\npile_max = 900\n[[effect.pong.trigger]]\non = \"hit\"\neffect = "
        "\"pong\"\nduration = 50\n[item.cap]\nslot = \"head\"\n[[item.cap.trigger]]\non = "
        "\"start\"\neffect = \"ping\"\nduration = 90\n[loadout.l]\ncharacter = \"hero\"\nworn = { "
        "head = \"cap\" }\n");
    const FightResult result = Bout(a, "l", "spar").trial(0);
    CHECK((result.error.has_value() || result.time <= 180));
}

TEST_CASE("a ward takes no blow, no hostile tick and no hostile effect", "[M23]") {
    const std::string stung =
        duel() + bitten +
        "[effect.sting]\nper_time = { health = -3 }\n[action.sting]\nevery = \"1\"\ndeals = { "
        "blunt "
        "= \"10\" }\napplies = { effect = \"sting\", duration = 1.5 }\n"
        "[foe.wasp]\nbase = { max_health = 1000 }\nactions = [\"sting\"]\n"
        "[encounter.wasps]\nfoes = [ { foe = \"wasp\" } ]\n[effect.smoke]\nward = true\n"
        "[item.bead]\nuse = { effect = \"smoke\", duration = 2.5 }\n[loadout.l]\ncharacter = "
        "\"hero\"\npack = { bead = 1 }\n[[loadout.l.use]]\nitem = \"bead\"\nwhen = \"time >= 1\"\n";
    const Timeline told = Bout(armoury(stung), "l", "wasps").tell();
    const Lines hurts = [&] {
        Lines list;
        for (const TimelineEvent& e : told.events)
            if (e.side == "foes" && e.event == "hits") list.push_back(std::to_string(int(e.time)));
        return list;
    }();
    // Smoke holds on [1, 3.5): blows at 1 to 3 are warded, and the tick of 1 came before the use.
    CHECK(hurts[0] == "0");
    CHECK(hurts[1] == "4");
    CHECK(lines(told, "tick").front() == "1 hero tick sting hero 3");
    CHECK(lines(told, "tick").at(1).starts_with("5 hero tick sting"));
    CHECK(count(lines(told, "warded"), "wasp.1 warded sting hero") == 3);
}

TEST_CASE("absorbs take blows first, the oldest before the younger", "[M23]") {
    const std::string shielded =
        duel() + bitten +
        "[effect.wax]\nabsorbs = \"self.might * 1.5\"\n[effect.oil]\nabsorbs = \"12\"\n"
        "[item.wax]\nuse = { effect = \"wax\", duration = \"always\" }\n[item.oil]\nuse = { effect "
        "= \"oil\", duration = 90 }\n[loadout.l]\ncharacter = \"hero\"\npack = { wax = 1, oil = 1 "
        "}\n[[loadout.l.use]]\nitem = \"wax\"\nwhen = \"time >= 0\"\n[[loadout.l.use]]\nitem = "
        "\"oil\"\nwhen = \"time >= 1\"\n";
    const Armoury a = armoury(shielded);
    const Timeline told = Bout(a, "l", "bites").tell();
    std::vector<double> health;
    for (const TimelineEvent& e : told.events)
        if (e.side == "foes" && e.event == "hits") health.push_back(e.pool_after);
    // 15 + 12 are absorbed: blows of 10 at 0, 1 and 2 leave 100, 100 and 97 health.
    REQUIRE(health.size() > 3);
    CHECK(health[0] == 100);
    CHECK(health[1] == 100);
    CHECK(health[2] == 97);
    const FightResult result = Bout(a, "l", "bites").trial(0);
    CHECK(result.all_taken() == Approx(100 + 27)); // absorbed counts as taken (M62)
}

TEST_CASE("what an effect absorbs is found without the one that makes room for it", "[M20][M23]") {
    const std::string waxed =
        duel() + bitten +
        "[effect.wax]\nagain = \"pile\"\nabsorbs = \"self.might\"\nadd = { might = -7 }\n"
        "[item.wax]\nstack = 2\nuse = { effect = \"wax\", duration = \"always\", cooldown = 2 }\n"
        "[loadout.l]\ncharacter = \"hero\"\npack = { wax = 2 }\n"
        "[[loadout.l.use]]\nitem = \"wax\"\nwhen = \"time >= 0\"\n";
    std::vector<double> health;
    for (const TimelineEvent& e : Bout(armoury(waxed), "l", "bites").tell().events)
        if (e.side == "foes" && e.event == "hits") health.push_back(e.pool_after);
    // Blows of 10 at 0, 1, 2 …; with a might of 10 each of the two, at 0 and at 2, absorbs one.
    REQUIRE(health.size() > 3);
    CHECK(health[0] == 100);
    CHECK(health[1] == 90);
    CHECK(health[2] == 90);
    CHECK(health[3] == 80);
}

TEST_CASE("restore factors multiply all that is restored to who has the effect", "[M23]") {
    const std::string soured =
        duel() + bitten +
        "[effect.sour]\nrestore_factor = 0.5\n[effect.sad]\nrestore_factor = 0.5\n"
        "[item.charm]\nslot = \"charm\"\n[[item.charm.trigger]]\non = \"start\"\neffect = "
        "\"sour\"\nduration = \"always\"\n[[item.charm.trigger]]\non = \"start\"\neffect = "
        "\"sad\"\nduration = \"always\"\n[item.vial]\nuse = { restore = { health = 40 } }\n"
        "[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" }\npack = { vial = 1 }\n";
    CHECK(lines(Bout(armoury(soured), "l", "bites").tell(), "restores") ==
          Lines{"3 hero restores vial health 10"});
}

TEST_CASE("a life lost gives back its share of health, at most one an instant", "[M64]") {
    const std::string lived =
        with(duel(), "health = \"health\"\n",
             "health = \"health\"\nlives = \"self.might / 5\"\nrevive_share = 0.25\n") +
        "[action.bite]\nevery = \"1\"\ndeals = { blunt = \"60\" }\n[foe.biter]\nbase = { "
        "max_health "
        "= 1e6 }\nactions = [\"bite\"]\n[encounter.bites]\nfoes = [ { foe = \"biter\", count = 3 } "
        "]\n";
    const Timeline told = Bout(armoury(lived), "bare", "bites").tell();
    // Two of three bites of 0 take the 100; the third finds a life just lost. At 1 the first takes
    // the 25, and the last life; at 2 it is over.
    CHECK(lines(told, "life_lost") == Lines{"0 hero life_lost   0", "1 hero life_lost   0"});
    const Lines falls = lines(told, "falls");
    REQUIRE(falls.size() == 1);
    CHECK(falls[0].starts_with("2 hero falls"));
    for (const TimelineEvent& e : told.events)
        if (e.event == "life_lost") CHECK(e.pool_after == 25);
}
