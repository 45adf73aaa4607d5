// Who may use what and who gets it, allies, and changes of gear in a fight.
#include "support/armouries.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;
using Lines = std::vector<std::string>;

namespace {

const std::string helper = "[character.helper]\nname = \"helper\"\ncalling = \"porter\"\nbase = { "
                           "max_health = 80, attack = 5 }\nactions = [\"strike\"]\n"
                           "[loadout.help]\ncharacter = \"helper\"\n"
                           "[encounter.muster]\nfoes = [ { foe = \"biter\" } ]\nallies = "
                           "[\"help\"]\n";

/// The hero with two loadouts: `l`, that swaps to `other`.
std::string swapping(const std::string& swap, const std::string& more = {}) {
    return duel() + biter() +
           "[item.club]\nslot = \"hand\"\nadd = { attack = 10 }\nweight = 2\n"
           "[item.maul]\nslot = \"hand\"\nadd = { attack = 40 }\nweight = 6\n" +
           more +
           "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"club\" }\npack = { maul = 1 }\n"
           "[[loadout.l.swap]]\nto = \"other\"\n" +
           swap +
           "\n[loadout.other]\ncharacter = \"hero\"\nworn = { hand = \"maul\" }\npack = { club = 1 "
           "}\n";
}

Lines hero_blows(const std::string& text, const std::string& encounter = "bites") {
    Lines list;
    for (const std::string& line : lines(Bout(armoury(text), "l", encounter).tell(), "hits"))
        if (line.find("hero hits") != std::string::npos) list.push_back(line);
    return list;
}

} // namespace

TEST_CASE("who may use it and who gets it are two questions", "[M32a]") {
    const auto uses = [](const std::string& keys, const std::string& encounter) {
        const Armoury a =
            armoury(duel() + biter() + helper + "[item.vial]\nuse = { restore = { health = 30 }" +
                    keys + " }\n[loadout.l]\ncharacter = \"hero\"\npack = { vial = 1 }\n");
        Bout bout(a, "l", encounter);
        return std::pair{bout.trial(0).uses[0].used, lines(bout.tell(), "use_refused")};
    };
    CHECK(uses("", "bites").first == 1);
    const auto [none, refused] = uses(", only = { calling = \"porter\" }", "bites");
    CHECK(none == 0);
    CHECK(refused == Lines{"2 hero use_refused vial hero 0"});
    CHECK(uses(", only = { character = \"hero\" }", "bites").first == 1);
}

TEST_CASE("what goes to allies goes to everyone of the side that stands", "[M32a]") {
    const std::string text =
        duel() + biter() + helper +
        "[effect.glow]\nadd = { attack = 1 }\n[item.horn]\nuse = { effect = \"glow\", duration = "
        "99, to = \"allies\" }\n[loadout.l]\ncharacter = \"hero\"\npack = { horn = 1 }\n";
    CHECK(lines(Bout(armoury(text), "l", "muster").tell(), "effect") ==
          Lines{"0 hero effect glow hero 99", "0 ally.help effect glow ally.help 99"});
    const std::string own = with(text, ", to = \"allies\"", "");
    CHECK(lines(Bout(armoury(own), "l", "muster").tell(), "effect") ==
          Lines{"0 hero effect glow hero 99"});
}

TEST_CASE("allies strike too, are struck after the character, and outlast it", "[M65]") {
    const Armoury a = armoury(duel() + biter() + helper);
    Bout bout(a, "bare", "muster");
    const Timeline told = bout.tell();
    const Lines blows = lines(told, "hits");
    CHECK(std::count_if(blows.begin(), blows.end(), [](const std::string& line) {
              return line.find("ally.help hits strike biter.1 5") != std::string::npos;
          }) > 10);
    const Lines falls = lines(told, "falls");
    REQUIRE(falls.size() == 2);
    CHECK(falls[0].starts_with("9 hero falls"));
    CHECK(falls[1].starts_with("17 ally.help falls"));
}

TEST_CASE("a swap at a time changes what is worn from then on, and takes its time", "[M71]") {
    const Lines blows = hero_blows(swapping("at = 2\ntakes = 1.5"));
    CHECK(blows[0] == "0 hero hits strike biter.1 20");
    CHECK(blows[1] == "1 hero hits strike biter.1 20");
    CHECK(blows[2] == "3.5 hero hits strike biter.1 50");
    CHECK(blows[3] == "4.5 hero hits strike biter.1 50");
}

TEST_CASE("a swap on a condition comes when it holds; draw_time is added", "[M71]") {
    const std::string slow = "[item.belt]\nslot = \"charm\"\n";
    const std::string drawn = with(swapping("when = \"self.health_share < 0.75\"", slow),
                                   "weight = 6\n", "weight = 6\ndraw_time = 2\n");
    const Lines blows = hero_blows(drawn);
    // The third bite, at 2, leaves 70; the hero is free again at 3, and the maul is drawn by 5.
    CHECK(blows[2] == "2 hero hits strike biter.1 20");
    CHECK(blows[3] == "5 hero hits strike biter.1 50");
}

TEST_CASE("a swap keeps the pack, the effects and the cooldowns, and the weight", "[M71][M50]") {
    const std::string carry = "[carry]\ncapacity = \"20\"\n";
    const Armoury a = armoury(swapping("at = 1", carry));
    const Timeline told = Bout(a, "l", "bites").tell();
    std::vector<double> loads;
    for (const TimelineEvent& e : told.events) loads.push_back(e.load_share);
    for (const double load : loads) CHECK((load == Approx(0.4) || load == 0));
    CHECK(a.loadouts[1].worn.size() == 1); // the files' loadouts never change
}

TEST_CASE("what the gear before a swap had cooling down is no moment of the fight", "[M60][M71]") {
    // The club's knock, done at 0, would be ready at 2.5 s; it is put away at 1 s.
    const std::string text =
        with(swapping("at = 1"), "add = { attack = 10 }\n",
             "add = { attack = 10 }\nactions = [\"knock\"]\n") +
        "[action.knock]\nevery = \"1\"\ncooldown = 2.5\ndeals = { blunt = \"1\" }\n";
    const Timeline told = Bout(armoury(text), "l", "bites").tell();
    REQUIRE(told.samples.size() >= 3);
    for (const PoolSample& sample : told.samples) CHECK(sample.time == std::floor(sample.time));
}

TEST_CASE("what is not in the pack can't be swapped to, and that is said", "[M71][M90]") {
    const std::string text = with(swapping("at = 1"), "pack = { maul = 1 }", "pack = { club = 1 }");
    const Armoury a = armoury(text);
    const Lines refused = lines(Bout(a, "l", "bites").tell(), "swap_refused");
    REQUIRE(refused.size() == 1);
    CHECK(refused[0].starts_with("1 hero swap_refused other"));
    CHECK(hero_blows(text)[4] == "4 hero hits strike biter.1 20");
}

TEST_CASE("a ceiling that a swap lowers clamps the pool", "[M11][M71]") {
    const std::string text = with(swapping("at = 2"), "[item.club]\nslot = \"hand\"\n",
                                  "[item.club]\nslot = \"hand\"\npercent = { max_health = 50 }\n");
    const Armoury a = armoury(text);
    const Timeline told = Bout(a, "l", "bites").tell();
    double after = 0;
    for (const TimelineEvent& e : told.events)
        if (e.event == "swaps") after = e.pool_after;
    CHECK(after == 130); // 150 less two bites, told before the change
    double bitten = 0;
    for (const TimelineEvent& e : told.events)
        if (e.side == "foes" && e.event == "hits" && e.time == 2) bitten = e.pool_after;
    CHECK(bitten == 90); // clamped to 100, then bitten
}

TEST_CASE("even luck follows swaps, lives, wards and absorbs as a trial does", "[M68]") {
    const Armoury swap = armoury(swapping("at = 2\ntakes = 1.5"));
    const FightResult even = Bout(swap, "l", "spar").even();
    // 40 by 2, then nothing until 3.5, then 50 a second.
    CHECK(even.time == Approx(3.5 + 60.0 / 50));
    const Armoury lived = armoury(with(duel(), "health = \"health\"\n",
                                       "health = \"health\"\nlives = \"1\"\nrevive_share = 0.5\n") +
                                  biter());
    CHECK(Bout(lived, "bare", "bites").even().time == Approx(10 + 5));
    const std::string smoke = duel() + biter() +
                              "[effect.smoke]\nward = true\n[effect.wax]\nabsorbs = \"25\"\n"
                              "[item.bead]\nuse = { effect = \"smoke\", duration = 3 }\n"
                              "[item.wax]\nuse = { effect = \"wax\", duration = 90 }\n[loadout.l]\n"
                              "character = \"hero\"\npack = { bead = 1, wax = 1 }\n";
    CHECK(Bout(armoury(smoke), "l", "bites").even().time == Approx(3 + 2.5 + 10));
}
