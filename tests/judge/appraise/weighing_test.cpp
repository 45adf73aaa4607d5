// The price of weight against arithmetic: the dummy does nothing, so margins go with attack.
#include "support/armouries.h"

#include "judge/appraise/weighing.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <utility>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// A bag of 20 and a band from half of it on, which takes half of the attack of 10; nuts of 1.
Armoury burdened(const std::string& pack, const std::string& edge = "from") {
    return armoury(with(duel(), "[loadout.bare]\n", "[loadout.bare]\npack = { " + pack + " }\n") +
                   "[carry]\ncapacity = \"20\"\nlimit = 1\n[[carry.band]]\nname = \"Laden\"\n" +
                   edge +
                   " = 0.5\nadd = { attack = -5 }\n"
                   "[item.nut]\nweight = 1\nstack = 99\nuse = { restore = { health = 1 } }\n"
                   "[item.brew]\nweight = 3\nstack = 2\nmax_stacks = 1\n"
                   "use = { effect = \"brave\", duration = 1000 }\n"
                   "[effect.brave]\nadd = { attack = 10 }\n");
}

Weighing weighed(const Armoury& armoury) {
    const Weighing weighing =
        find_price_of_weight(armoury, outfit_of(armoury, armoury.loadouts[0], 1), EncounterId(0));
    REQUIRE_FALSE(weighing.error);
    return weighing;
}

const ConsumableCurve& curve(const Armoury& armoury, const Weighing& weighing,
                             const std::string& id) {
    for (const ConsumableCurve& one : weighing.consumables)
        if (armoury.at(one.item).id == id) return one;
    FAIL("no curve of " << id);
    return weighing.consumables.front();
}

} // namespace

TEST_CASE("the margin steps where a band begins, as capacity grows", "[M51]") {
    const Armoury a = burdened("nut = 8");
    const Weighing weighing = weighed(a);
    CHECK(weighing.load.share == Approx(0.4));
    REQUIRE(weighing.capacities.size() > 20);
    for (const CapacityPoint& point : weighing.capacities) {
        const bool laden = 8 / point.capacity >= 0.5;
        CHECK((point.load.band != no_band) == laden);
        CHECK(point.margin / weighing.margin.value == Approx(laden ? 0.5 : 1).epsilon(1e-3));
    }
}

TEST_CASE("on the very edge `from` or `above` decides, and both sides are told", "[M51]") {
    for (const char* edge : {"from", "above"}) {
        const Armoury a = burdened("nut = 9", edge);
        const Weighing weighing = weighed(a);
        const ConsumableCurve& nuts = curve(a, weighing, "nut");
        CHECK(nuts.now == 9);
        REQUIRE(nuts.points.size() > 11);
        for (const UnitPoint& point : nuts.points)
            CHECK(point.across.has_value() == (point.count == 10));
        const bool applies = edge == std::string("from");
        const double whole = weighing.margin.value;
        CHECK(nuts.points[10].margin / whole == Approx(applies ? 0.5 : 1).epsilon(1e-3));
        CHECK(*nuts.points[10].across / whole == Approx(applies ? 1 : 0.5).epsilon(1e-3));
        CHECK(nuts.points[11].margin / whole == Approx(0.5).epsilon(1e-3));
    }
}

TEST_CASE("how many are worth carrying, and what fills the room that is left", "[M84]") {
    const Armoury a = burdened("nut = 2");
    const Weighing weighing = weighed(a);
    const ConsumableCurve& brews = curve(a, weighing, "brew");
    CHECK(brews.now == 0);
    CHECK(brews.best == 1); // a second is never drunk
    CHECK(brews.points[1].margin / weighing.margin.value == Approx(2).epsilon(1e-3));
    CHECK(brews.points.size() == 3);
    CHECK(brews.ends.find("at most") != std::string::npos);
    REQUIRE(weighing.fillings.size() == 1);
    CHECK(a.at(weighing.fillings[0].item).id == "brew");
    CHECK(weighing.fillings[0].units == 1);
    CHECK(curve(a, weighing, "nut").best == 0);
}

TEST_CASE("what pays but brings the next band on is no filling of the room", "[M51]") {
    const Armoury a = burdened("nut = 8"); // 11 of 20 with a brew, until it is drunk at once
    const Weighing weighing = weighed(a);
    const ConsumableCurve& brews = curve(a, weighing, "brew");
    CHECK(brews.best == 1);
    CHECK(brews.points[1].margin / weighing.margin.value == Approx(2).epsilon(1e-3));
    CHECK(weighing.fillings.empty());
}

TEST_CASE("each number gives the margin of a loadout that packs as many", "[M33]") {
    // Of one group, so that what stands first in the pack is drunk first.
    const auto shop = [](int ale, int tea) {
        const std::string shared = ", cooldown = 3, group = \"sips\" }\n";
        return armoury(with(duel(), "[loadout.bare]\n",
                            "[loadout.bare]\npack = { ale = " + std::to_string(ale) +
                                ", tea = " + std::to_string(tea) + " }\n") +
                       biter() + "[item.ale]\nstack = 9\nuse = { restore = { health = 40 }" +
                       shared + "[item.tea]\nstack = 99\nuse = { restore = { health = 12 }" +
                       shared);
    };
    const auto weigh_it = [](const Armoury& a) {
        return find_price_of_weight(a, outfit_of(a, a.loadouts[0], 1), EncounterId(1));
    };
    const Armoury a = shop(2, 70);
    const Weighing weighing = weigh_it(a);
    REQUIRE_FALSE(weighing.error);
    for (const char* id : {"ale", "tea"}) { // 70 is more than are tried one after the other
        const ConsumableCurve& one = curve(a, weighing, id);
        REQUIRE(one.at(one.now));
        CHECK(one.at(one.now)->margin == weighing.margin.value);
    }
    bool order_matters = false;
    for (const int ale : {1, 3}) {
        const Armoury other = shop(ale, 70);
        const double margin = weigh_it(other).margin.value;
        CHECK(curve(a, weighing, "ale").at(ale)->margin == Approx(margin).epsilon(2e-4));
        Outfit reversed = outfit_of(other, other.loadouts[0], 1);
        std::swap(reversed.pack[0], reversed.pack[1]);
        const double in_reverse =
            find_price_of_weight(other, reversed, EncounterId(1)).margin.value;
        order_matters = order_matters || std::abs(in_reverse / margin - 1) > 1e-3;
    }
    CHECK(order_matters);
}

TEST_CASE("where nothing is weighed there is no capacity to vary", "[M50]") {
    CHECK(weighed(armoury(duel())).capacities.empty());
}
