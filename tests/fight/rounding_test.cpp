// What sums leave within rounding of nothing is nothing, and of all is all (M12a).
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// The duel with `strike` in parts of two types that sum to a hair under 100.
std::string two_damages() {
    return with(duel(), "deals = { blunt = \"self.attack\" }",
                "deals = { blunt = \"100 * 0.7\", cold = \"30 - 0.00000000000001\" }") +
           "[damage.cold]\nmitigated = \"amount\"\n";
}

} // namespace

TEST_CASE("a foe with a hair of health left falls", "[M12a][M62]") {
    const Armoury a = armoury(two_damages());
    const FightResult result = Bout(a, "bare", "spar").trial(0);
    CHECK(result.won);
    CHECK(result.time == 0);
    CHECK(result.actions[0].hits == 1);
    CHECK(result.overkill >= 0);
}

TEST_CASE("thirds of a pool pay for what costs the whole of it", "[M12a][M61]") {
    // Three thirds of breath restored, one a unit, come to a hair under 1 of 1 by sums.
    const Armoury a = armoury(
        with(with(duel(), "max_breath = 50", "max_breath = 1"), "max = \"max_breath\"",
             "max = \"max_breath\"\nstart = 0\nregen = \"0.1\"") +
        "[action.shout]\nevery = \"1\"\ncost = { breath = 1 }\ndeals = { blunt = \"1000\" }\n"
        "[character.loud]\nbase = { max_health = 100, max_breath = 1 }\nactions = [\"shout\"]\n"
        "[loadout.l]\ncharacter = \"loud\"\n");
    // Ten tenths are 0.9999999999999999.
    CHECK(Bout(a, "l", "spar").trial(0).time == 10);
}

TEST_CASE("a threshold that sums have brought a hair under is not passed", "[M12a][M33]") {
    // Bites of 10 % of 100, seven of them: 30 are left, and 30 are not less than 0.3 of 100.
    const auto uses_at = [](const std::string& when) {
        const Armoury a =
            armoury(with(duel() + biter(), "attack = 10 }\nactions = [\"bite\"]",
                         "attack = 0.1 }\nactions = [\"bite\"]") +
                    "[item.vial]\nuse = { restore = { health = 1 }, cooldown = 900 }\n"
                    "[loadout.l]\ncharacter = \"small\"\npack = { vial = 1 }\n"
                    "[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"" +
                    when +
                    "\"\n[character.small]\nbase = { max_health = 1, attack = 1 }\nactions = "
                    "[\"strike\"]\n");
        const auto told = lines(Bout(a, "l", "bites").tell(), "uses");
        return told.empty() ? std::string() : told.front().substr(0, told.front().find(' '));
    };
    CHECK(uses_at("self.health_share < 0.3") == "7"); // bites at 0 to 6 leave 0.3
    CHECK(uses_at("self.health_share <= 0.3") == "6");
    CHECK(uses_at("self.health < 0.7") == "3");
    CHECK(uses_at("self.health <= 0.7") == "2");
}

TEST_CASE("an absorb that is used up but for a hair is used up", "[M12a][M23]") {
    const std::string text =
        duel() + biter() +
        "[effect.shell]\nabsorbs = \"0.3\"\n[item.vial]\nuse = { effect = \"shell\", duration = "
        "100, cooldown = 900 }\n[loadout.l]\ncharacter = \"hero\"\npack = { vial = 1 }\n";
    const Armoury a = armoury(
        with(text, "attack = 10 }\nactions = [\"bite\"]", "attack = 0.1 }\nactions = [\"bite\"]"));
    // 0.3 − 0.1 − 0.1 − 0.1 is 2.8e-17: the fourth bite takes all of its 0.1 from health.
    const Timeline told = Bout(a, "l", "bites").tell();
    std::vector<double> left;
    for (const TimelineEvent& e : told.events)
        if (e.actor == "biter.1" && e.event == "hits") left.push_back(e.pool_after);
    REQUIRE(left.size() > 4);
    CHECK(left[2] == 100);
    CHECK(left[3] == 100 - 0.1);
}

TEST_CASE("by even luck an absorb of a hair does not hold up the time", "[M12a][M68]") {
    const ReadArmoury read = panoplon::test::read(data("endless_even_luck.toml"));
    REQUIRE(read.usable());
    Bout bout(read.armoury, "l", "e", 2);
    const Margin margin = bout.margin();
    REQUIRE_FALSE(margin.error);
    CHECK(margin.value == Approx(2.379).epsilon(1e-3));
    CHECK(bout.trial(0).won);
}

TEST_CASE("regen past a full pool is nobody's waste, by trials and by even luck", "[M91]") {
    const Armoury a = armoury(with(duel() + biter(), "might = 10", "might = 10, mending = 15") +
                              "[loadout.l]\ncharacter = \"hero\"\n");
    Bout bout(a, "l", "bites");
    CHECK(bout.trial(0).restored[0] > 0);
    CHECK(bout.trial(0).wasted[0] == 0);
    CHECK(bout.even().wasted[0] == 0);
}
