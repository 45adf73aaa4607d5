// Edges: what happens at one and the same moment, at the last unit, and with numbers that nobody
// means.
#include "support/armouries.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Lines = std::vector<std::string>;

namespace {

/// The hero with vials against the biter; `use` is the inside of their use table.
Armoury with_vials(const std::string& use, const std::string& when, int count) {
    return armoury(duel() + biter() +
                   "[effect.glow]\nadd = { attack = 4 }\n[effect.dim]\nadd = { attack = -3 }\n"
                   "[item.vial]\nuse = { " +
                   use +
                   " }\n[item.flask]\nuse = { effect = \"dim\", duration = 3, cooldown = 50 }\n"
                   "[loadout.l]\ncharacter = \"hero\"\npack = { vial = " +
                   std::to_string(count) +
                   ", flask = 1 }\n[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"" + when + "\"\n");
}

Lines hero_hits(const Timeline& told) {
    Lines list;
    for (const TimelineEvent& e : told.events)
        if (e.actor == "hero" && e.event == "hits")
            list.push_back(std::to_string(static_cast<int>(e.amount)));
    return list;
}

} // namespace

TEST_CASE("two effects that end together both end, and leave what was before", "[M2][M21]") {
    // Both are on from 0 until before 3: the blows at 0, 1 and 2 have both, that at 3 has neither.
    const Armoury a = with_vials("effect = \"glow\", duration = 3, cooldown = 50", "time >= 0", 1);
    const Timeline told = Bout(a, "l", "bites").tell();
    const Lines hits = hero_hits(told);
    REQUIRE(hits.size() >= 4);
    CHECK(Lines(hits.begin(), hits.begin() + 4) == Lines{"11", "11", "11", "10"});
    CHECK(lines(told, "effect_ends").size() == 2);
    for (const TimelineEvent& e : told.events)
        if (e.event == "effect_ends") CHECK(e.time == 3);
}

TEST_CASE("an effect that ends when a blow lands no longer counts for it", "[M21][M60]") {
    const Armoury a = with_vials("effect = \"glow\", duration = 2, cooldown = 50", "time >= 0", 1);
    const Lines hits = hero_hits(Bout(a, "l", "bites").tell());
    CHECK(hits[1] == "11"); // 10 + 4 − 3
    CHECK(hits[2] == "7");  // the glow has ended, the dim has not
}

TEST_CASE("a blow that leaves one point is answered, one that leaves none is not", "[M60][M30]") {
    // Bites of 10 at 0, 1, …: 10 are left at 8, none at 9.
    const Armoury answered =
        with_vials("restore = { health = 30 }, cooldown = 90", "self.health <= 10", 1);
    CHECK(lines(Bout(answered, "l", "bites").tell(), "uses")[1] == "8 hero uses vial hero 0");
    const Armoury late =
        with_vials("restore = { health = 30 }, cooldown = 90", "self.health <= 9", 1);
    const Timeline told = Bout(late, "l", "bites").tell();
    CHECK(lines(told, "uses").size() == 1); // the flask
    CHECK(lines(told, "falls") == Lines{"9 hero falls   0"});
}

TEST_CASE("a stock that runs out is refused once, and its rule does nothing from then on",
          "[M30][M31]") {
    const Armoury a = with_vials("restore = { health = 1 }, cooldown = 1", "1", 2);
    Bout bout(a, "l", "bites");
    const FightResult result = bout.trial(0);
    CHECK(result.uses[0].used == 2);
    CHECK(result.uses[0].left == 0);
    Lines refused;
    for (const TimelineEvent& e : bout.tell().events)
        if (e.event == "use_refused" && e.source == "vial" && e.note == "none left")
            refused.push_back(e.note);
    CHECK(refused.size() == 1);
}

TEST_CASE("rounds are a clock like seconds: each once a round, by order", "[M60]") {
    const std::string text =
        with(with(duel(), "levels = [1, 10]", "levels = [1, 10]\nclock = \"rounds\""),
             "health = \"health\"\n", "health = \"health\"\norder = \"self.haste\"\n") +
        with(biter(), "attack = 10 }", "attack = 10, haste = 5 }");
    const Armoury a = armoury(text);
    const Lines hits = lines(Bout(a, "bare", "bites").tell(), "hits");
    // The biter is the faster: it bites first in every round.
    CHECK(Lines(hits.begin(), hits.begin() + 4) ==
          Lines{"0 biter.1 hits bite hero 10", "0 hero hits strike biter.1 10",
                "1 biter.1 hits bite hero 10", "1 hero hits strike biter.1 10"});
}

TEST_CASE("a thousand foes are a fight like any other", "[M66]") {
    const std::string text = duel() + with(biter(1), "foes = [ { foe = \"biter\" } ]",
                                           "foes = [ { foe = \"biter\", count = 1000 } ]");
    const Armoury all = armoury(with(text, "deals = { blunt = \"self.attack\" }",
                                     "deals = { blunt = \"self.attack\" }\ntargets = \"all\""));
    const FightResult won = Bout(all, "bare", "bites").trial(0);
    CHECK(won.won);
    CHECK(won.dealt[0] == 1000);
    CHECK(won.overkill == 9000);
    const FightResult lost = Bout(armoury(text), "bare", "bites").trial(0);
    CHECK_FALSE(lost.won);
    CHECK(lost.taken[0] == 100);
}

TEST_CASE("too many events name what they are", "[M66]") {
    const Armoury a = armoury(
        with(with(duel(), "health = \"health\"\n", "health = \"health\"\nevent_limit = 120\n"),
             "mitigated = \"amount\"", "mitigated = \"0\""));
    const FightResult result = Bout(a, "bare", "spar").trial(0);
    REQUIRE(result.error);
    CHECK(has(result.error->message, "more than 120 events"));
    CHECK(has(result.error->message, "most of them the action '"));
}

TEST_CASE("numbers at the bounds of a double's whole numbers still end a fight", "[M66]") {
    for (const char* health : {"1e-12", "1e12"}) {
        const std::string text =
            with(duel(), "base = { max_health = 100 }\nactions = [\"rest\"]",
                 std::string("base = { max_health = ") + health + " }\nactions = [\"rest\"]");
        const Armoury a = armoury(text);
        Bout bout(a, "bare", "spar");
        const FightResult trial = bout.trial(0);
        CHECK_FALSE(trial.error);
        CHECK(trial.won == (std::string(health) == "1e-12"));
        CHECK_FALSE(bout.even().error);
    }
}
