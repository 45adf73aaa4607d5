// Conditions that read the time come true at their own moment, whatever else happens (M60b).
#include "support/armouries.h"

#include "fight/time_turns.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const std::vector<std::string> stats_read = {"attack", "guard"};
const std::vector<std::string> pools_read = {"health"};

/// The moments at which a condition is looked at, up to ten units.
std::vector<double> turns_of(const std::string& condition) {
    const double amounts[] = {7, 2};
    const double pools[] = {50};
    Environment environment;
    environment.self = {amounts, pools, pools};
    const ParsedFormula parsed =
        parse_formula(condition, {}, {stats_read, pools_read, {}, true, true, true, false});
    REQUIRE(parsed.mistakes.empty());
    TimeTurns turns(parsed.formula);
    std::vector<double> moments;
    Ticks now = 0;
    while ((now = turns.next(now, environment)) <= 10 * ticks_per_unit)
        moments.push_back(to_units(now));
    return moments;
}

} // namespace

TEST_CASE("a comparison of the time turns where both sides meet, or just after", "[M60b]") {
    using Moments = std::vector<double>;
    CHECK(turns_of("time >= 5") == Moments{5});
    CHECK(turns_of("5 <= time") == Moments{5});
    CHECK(turns_of("time > 5") == Moments{5.000001});
    CHECK(turns_of("(5 < time)") == Moments{5.000001});
    CHECK(turns_of("time < 5 || self.health < 3") == Moments{5});
    CHECK(turns_of("time <= 5") == Moments{5.000001});
    CHECK(turns_of("time == 5") == Moments{5, 5.000001});
    CHECK(turns_of("time >= 2.5 && time < self.attack + 1") == Moments{2.5, 8});
    CHECK(turns_of("time >= max(self.attack, 3) ? 1 : time > 9") == Moments{7, 9.000001});
    CHECK(turns_of("self.health < 3").empty());
    CHECK(turns_of("time >= 1 / 3") == Moments{0.333334});
}

TEST_CASE("any other look at the time may turn at every tenth", "[M60b]") {
    CHECK(turns_of("time - 10 * floor(time / 10) >= 3").size() == 100);
    CHECK(turns_of("time >= self.health / 10").size() == 100);
    CHECK(turns_of("time / 2 >= 3")[2] == 0.3);
}

TEST_CASE("a potion for second 5.3 is drunk then, by even luck too", "[M60b][M68]") {
    // Blows land every 1, bites every 0.7: nothing else happens at 5.3.
    const Armoury a = armoury(
        with(duel() + biter(), "[action.bite]\nevery = \"1\"", "[action.bite]\nevery = \"0.7\"") +
        "[item.vial]\nuse = { restore = { health = 30 } }\n[loadout.l]\ncharacter = "
        "\"hero\"\npack = { vial = 1 }\n[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"time "
        ">= 5.3\"\n");
    Bout bout(a, "l", "bites");
    CHECK(lines(bout.tell(), "uses") == std::vector<std::string>{"5.3 hero uses vial hero 0"});
    const Timeline even = bout.engine.tell(1, std::nullopt);
    CHECK(lines(even, "uses") == std::vector<std::string>{"5.3 hero uses vial hero 0"});
}

TEST_CASE("sides that both wait for a moment meet then, by trials and by even luck", "[M60b]") {
    std::string text = with(duel() + biter(50), "deals = { blunt = \"self.attack\" }\n",
                            "deals = { blunt = \"self.attack\" }\nwhen = \"time >= 4\"\n");
    text = with(text, "[action.bite]\n", "[action.bite]\nwhen = \"time >= 4\"\n");
    const Armoury a = armoury(text);
    Bout bout(a, "bare", "bites");
    CHECK(bout.trial(0).time == 8); // blows at 4, 5, 6, 7 and 8
    CHECK(bout.even().time == Approx(9));
}

TEST_CASE("a swap waits for its moment and nothing else", "[M60b][M71]") {
    const Armoury a = armoury(
        with(duel(), "deals = { blunt = \"self.attack\" }\n",
             "deals = { blunt = \"self.attack\" }\nwhen = \"time >= 9\"\n") +
        "[item.club]\nslot = \"hand\"\nadd = { attack = 40 }\n[loadout.l]\ncharacter = "
        "\"hero\"\npack = { club = 1 }\n[[loadout.l.swap]]\nto = \"armed\"\nwhen = \"time > 3.5\"\n"
        "[loadout.armed]\ncharacter = \"hero\"\nworn = { hand = \"club\" }\n");
    Bout bout(a, "l", "spar");
    const std::vector<std::string> swapped = {"3.500001 hero swaps armed hero 0"};
    CHECK(lines(bout.tell(), "swaps") == swapped);
    CHECK(lines(bout.engine.tell(1, std::nullopt), "swaps") == swapped);
}
