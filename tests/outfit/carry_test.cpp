#include "support/armouries.h"

#include "outfit/sheet.h"

#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

Carry carry_of(const std::vector<std::pair<double, bool>>& edges, double limit = 1e9) {
    Carry carry;
    carry.capacity = parse_formula("1", {}, {{}, {}, {}, false, false, false, false}).formula;
    carry.limit = limit;
    for (const auto& [edge, includes] : edges) {
        Band band;
        band.edge = edge;
        band.includes = includes;
        carry.bands.push_back(band);
    }
    return carry;
}

} // namespace

TEST_CASE("worn weight counts by the worn factor, packed weight in full", "[M50]") {
    const Armoury a = armoury(
        duel() +
        "[item.mail]\nslot = \"head\"\nweight = 7\nadd = { guard = 1 }\n[item.lamp]\nweight = "
        "3\n[carry]\ncapacity = \"20\"\nworn_factor = 0.5\n"
        "[loadout.l]\ncharacter = \"hero\"\nworn = { head = \"mail\" }\npack = { lamp = 2 }\n");
    Deriver deriver(a);
    const Load load = outfit_load(deriver, outfit_of(a, a.loadouts[1], 1));
    CHECK(load.carried == 9500);
    CHECK(load.share == 0.475);
}

TEST_CASE("a capacity that gear gives counts before the load is weighed", "[M50]") {
    const Armoury a = armoury(
        duel() +
        "[item.belt]\nslot = \"head\"\nweight = 1\nadd = { might = 5 }\n[carry]\ncapacity = \"2 * "
        "self.might\"\n[loadout.l]\ncharacter = \"hero\"\nworn = { head = \"belt\" }\n");
    Deriver deriver(a);
    CHECK(outfit_load(deriver, outfit_of(a, a.loadouts[1], 1)).capacity == 30);
}

TEST_CASE("the band of a load is the highest that applies, whatever the load", "[M51]") {
    const Carry carry = carry_of({{0.5, true}, {0.5, false}, {1.0, false}, {1.5, true}});
    rc::prop("in thousandths of a capacity of 10", [&] {
        const int carried = *rc::gen::inRange(0, 20001);
        const int band = band_at(carry, carried, 10);
        const int expected = carried >= 15000  ? 3
                             : carried > 10000 ? 2
                             : carried > 5000  ? 1
                             : carried == 5000 ? 0
                                               : no_band;
        RC_ASSERT(band == expected);
    });
}

TEST_CASE("a ramp grows evenly from nothing to all of it", "[M51a]") {
    const Armoury a =
        armoury(duel() + "[carry]\ncapacity = \"10\"\n[[carry.band]]\nname = "
                         "\"Laden\"\nabove = 0.5\nto = 1\nstep = 0.125\npercent = { "
                         "haste = -40 }\ntimes = { attack = 0.8 }\n[[carry.band]]\nname "
                         "= \"Stuck\"\nfrom = 2\nadd = { haste = -90 }\n");
    REQUIRE(a.carry.bands.size() == 5);
    const auto band = [&](std::size_t i) -> const Band& { return a.carry.bands[i]; };
    CHECK(band(0).name == "Laden 25 %");
    CHECK(band(0).edge == 0.625);
    CHECK(band(0).modifiers.percent[0].amount == -10);
    CHECK(band(0).modifiers.times[0].amount == Approx(0.95));
    CHECK(band(1).modifiers.percent[0].amount == -20);
    CHECK(band(3).edge == 1);
    CHECK(band(3).modifiers.percent[0].amount == -40);
    CHECK(band(3).modifiers.times[0].amount == Approx(0.8));
    CHECK_FALSE(band(3).includes);
    CHECK(band(4).name == "Stuck");
    CHECK(weigh(a.carry, 0, 5900, 10).band == no_band);
    CHECK(weigh(a.carry, 0, 8000, 10).band == 1);
}

TEST_CASE("a band reaches as far as the weights at which it is the band", "[M51]") {
    const Carry carry = carry_of({{0.5, true}, {0.5, false}, {1.0, false}, {1.5, true}});
    rc::prop("in thousandths of a capacity of 10", [&] {
        const BandReach reach = band_around(carry, *rc::gen::inRange(0, 20001), 10);
        const int within = *rc::gen::inRange(0, 20001);
        RC_ASSERT(reach.has(within) == (band_at(carry, within, 10) == reach.band));
        RC_ASSERT(band_at(carry, reach.from, 10) == reach.band);
        RC_ASSERT(band_at(carry, reach.to, 10) == reach.band);
        if (reach.band != no_band) RC_ASSERT(band_at(carry, reach.from - 1, 10) != reach.band);
        if (reach.band != 3) RC_ASSERT(band_at(carry, reach.to + 1, 10) != reach.band);
    });
}

TEST_CASE("the edges on either side enclose the load, and lie where they say", "[M55]") {
    const Carry carry = carry_of({{0.25, true}, {0.75, false}}, 1.25);
    rc::prop("in thousandths of a capacity of 8", [&] {
        const int carried = *rc::gen::inRange(0, 10001);
        const Load load = weigh(carry, 0, carried, 8);
        const double weight = carried / 1000.0;
        RC_ASSERT(load.over_limit == false);
        RC_ASSERT(load.above.has_value());
        RC_ASSERT(std::abs(weight + load.above->weight_away - load.above->load * 8) < 1e-9);
        RC_ASSERT(load.below.has_value() == (load.band != no_band));
        if (load.below)
            RC_ASSERT(std::abs(weight - load.below->weight_away - load.below->load * 8) < 1e-9);
        RC_ASSERT(load.above->limit == (load.band == 1));
    });
}

TEST_CASE("a load over nothing has no end, and nothing over nothing is none", "[M50]") {
    const Carry carry = carry_of({{0.5, true}});
    CHECK(std::isinf(weigh(carry, 0, 1, 0).share));
    CHECK(weigh(carry, 0, 0, 0).share == 0);
    CHECK(weigh(carry, 0, 5, HUGE_VAL).band == no_band);
    CHECK(weigh(Carry{}, 5, 5, 0).band == no_band); // an armoury that weighs nothing
}

TEST_CASE("a refused formula names itself", "[M66]") {
    const Armoury a = armoury(
        duel() +
        "[stat.ratio]\nvalue = \"self.attack / self.guard\"\nmax = 1e12\n[stat.root]\nvalue = "
        "\"sqrt(self.guard - 1)\"\n[loadout.l]\ncharacter = \"hero\"\n");
    Deriver deriver(a);
    const std::vector<Refusal> refused = refusals(deriver, outfit_of(a, a.loadouts[1], 1));
    REQUIRE(refused.size() ==
            1); // an endless ratio is clamped to the stat's cap; a root of −1 is no number
    CHECK(refused[0].thing == "stat.root");
    CHECK(refused[0].reasons ==
          std::vector<std::string>{"its formula 'sqrt(self.guard - 1)' gives no number"});
}
