#include "support/sheets.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const std::string worn_gear = R"(
[item.blade]
slot = "hand"
add = { attack = 5 }
percent = { attack = 10 }
weight = 4
[item.cap]
slot = "head"
tier = "fine"
add = { guard = 3 }
level = 3
weight = 1.5
[item.ring]
slot = "charm"
times = { attack = 1.5 }
weight = 0.1
[item.bead]
slot = "charm"
percent = { attack = 0.5 }
[item.drop]
use = { restore = { health = 20 } }
stack = 5
weight = 0.1
level = 2
[item.lamp]
weight = 2
)";

const std::string carry =
    "[carry]\ncapacity = \"self.might\"\nbag = 3\nlimit = 1.5\n"
    "[[carry.band]]\nname = \"Laden\"\nfrom = 0.5\nadd = { haste = -10 }\n"
    "[[carry.band]]\nname = \"Overladen\"\nabove = 1.0\nadd = { haste = -40 }\n";

} // namespace

TEST_CASE("a stat is (base + adds) × (1 + percents) × times", "[M1]") {
    const Armoury a = armoury(duel() + worn_gear +
                              "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"blade\", charm "
                              "= [\"ring\", \"bead\"] }\n");
    const Sheet sheet = sheet_of(a, "l", 1);
    CHECK(stat(a, sheet, "attack") == (10.0 + 5) * (1 + 10.5 / 100) * 1.5);
    CHECK(sheet.refused.empty());
}

TEST_CASE("a stat is rounded and clamped as it says", "[M1][M6]") {
    const auto value = [](const std::string& rule, const std::string& base) {
        const Armoury a = armoury(with(duel(), "[stat.keen]", "[stat.keen]\n" + rule) +
                                  "[character.c]\nbase = { max_health = 1, keen = " + base +
                                  " }\nactions = []\n[loadout.l]\ncharacter = \"c\"\n");
        return stat(a, sheet_of(a, "l", 1), "keen");
    };
    CHECK(value("round = \"down\"", "2.9") == 2);
    CHECK(value("round = \"nearest\"", "2.5") == 3);
    CHECK(value("round = \"none\"", "2.5") == 2.5);
    CHECK(value("max = 2", "2.5") == 2);
    CHECK(value("min = 4", "2.5") == 4);
}

TEST_CASE("a derived stat is reckoned from the others, then modified", "[M3]") {
    const Armoury a = armoury(
        duel() +
        "[stat.threat]\nvalue = \"self.attack * 2 + self.fear\"\n[stat.fear]\nvalue = \"level\"\n"
        "[item.mask]\nslot = \"head\"\npercent = { threat = 50 }\nadd = { threat = 1 }\n"
        "[loadout.l]\ncharacter = \"hero\"\nworn = { head = \"mask\" }\n");
    CHECK(stat(a, sheet_of(a, "l", 3), "threat") == (12.0 * 2 + 3 + 1) * 1.5);
}

TEST_CASE("base and growth: a number a level above the first, or a formula", "[vocabulary]") {
    const Armoury a =
        armoury(duel() + "[character.c]\nbase = { max_health = 10, attack = 5 }\ngrowth = { "
                         "max_health = \"level ^ 2\", attack = 2.5 }\nactions = []\n"
                         "[loadout.l]\ncharacter = \"c\"\n");
    CHECK(stat(a, sheet_of(a, "l", 1), "attack") == 5);
    CHECK(stat(a, sheet_of(a, "l", 4), "attack") == 12.5);
    CHECK(stat(a, sheet_of(a, "l", 4), "max_health") == 26);
}

TEST_CASE("a tier is a bearer, and scales the item's own adds", "[M44]") {
    const Armoury a = armoury(duel() + worn_gear +
                              "[loadout.l]\ncharacter = \"hero\"\nworn = { head = \"cap\" }\n");
    const Sheet sheet = sheet_of(a, "l", 3);
    CHECK(stat(a, sheet, "guard") == 6);
    CHECK(stat(a, sheet, "keen") == 1);
}

TEST_CASE("parts reproduce the value, bitwise", "[M4]") {
    const Armoury demo = demo_armoury();
    Deriver deriver(demo);
    for (const Loadout& loadout : demo.loadouts)
        for (int level = demo.levels.first; level <= demo.levels.last; ++level) {
            const Sheet sheet = make_sheet(deriver, outfit_of(demo, loadout, level));
            for (std::size_t i = 0; i < sheet.stats.size(); ++i)
                CHECK(compose(demo.stats[i], sheet.stats[i].parts) == sheet.stats[i].value);
        }
}

TEST_CASE("any order of wearing and any order of files gives one sheet", "[M1]") {
    const Armoury demo = demo_armoury();
    Deriver deriver(demo);
    rc::prop("random outfits, shuffled", [&] {
        Outfit outfit{CharacterId(0), 30, {}, {}, {}, {}, {}};
        for (std::size_t i = 0; i < demo.items.size(); ++i)
            if (demo.items[i].worn() && *rc::gen::inRange(0, 3) == 0)
                outfit.worn.push_back({demo.items[i].slot, ItemId(i), {}, {}});
        const Sheet before = make_sheet(deriver, outfit);
        for (std::size_t i = outfit.worn.size(); i > 1; --i)
            std::swap(outfit.worn[i - 1], outfit.worn[*rc::gen::inRange<std::size_t>(0, i)]);
        const Sheet after = make_sheet(deriver, outfit);
        for (std::size_t i = 0; i < before.stats.size(); ++i)
            RC_ASSERT(before.stats[i].value == after.stats[i].value);
    });
    const std::string one = "[item.b]\nslot = \"hand\"\nadd = { attack = 0.1 }\n";
    const std::string two = "[item.a]\nslot = \"head\"\nadd = { attack = 0.7 }\n[item.c]\nslot = "
                            "\"charm\"\nadd = { attack = 1e-9 }\n";
    const std::string wear =
        "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"b\", head = \"a\", charm = \"c\" }\n";
    const Armoury first = armoury(duel() + one + two + wear);
    const Armoury second = armoury(duel() + wear + two + one);
    CHECK(stat(first, sheet_of(first, "l", 1), "attack") ==
          stat(second, sheet_of(second, "l", 1), "attack"));
}

TEST_CASE("taking all off gives bitwise the base", "[M2]") {
    const Armoury demo = demo_armoury();
    Deriver deriver(demo);
    const Sheet sheet = make_sheet(deriver, {CharacterId(0), 17, {}, {}, {}, {}, {}});
    const std::vector<double> base = base_stats(demo, demo.characters[0], 17);
    for (std::size_t i = 0; i < base.size(); ++i)
        if (!demo.stats[i].value.given() && demo.stats[i].rounding == Rounding::none)
            CHECK(sheet.stats[i].value == base[i]);
}

TEST_CASE("everything that can't be worn is refused, with all reasons", "[M40][M41][M42]") {
    const Armoury a = armoury(duel() + worn_gear + carry +
                              "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = [\"cap\", "
                              "\"blade\"], charm = [\"ring\", \"lamp\"] }\npack = { drop = 16 }\n");
    CHECK(refused(sheet_of(a, "l", 1)) == "cap: it goes on head, not on hand\n"
                                          "cap: it is for level 3; hero is level 1\n"
                                          "blade: hand has 1 place, and cap is there already\n"
                                          "lamp: it has no slot: it is carried, not worn\n"
                                          "drop: it is for level 2; hero is level 1\n"
                                          "pack: it makes 4 stacks; the bag holds 3\n");
    CHECK(refused(sheet_of(a, "l", 3)).find("it is for level") == std::string::npos);
}

TEST_CASE("weights are summed in thousandths: ten times 0.1 is 1", "[M50]") {
    const Armoury a = armoury(
        duel() + worn_gear + carry +
        "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"blade\" }\npack = { drop = 10 }\n");
    const Sheet sheet = sheet_of(a, "l", 2);
    CHECK(sheet.load.carried == 5000);
    CHECK(sheet.load.share == 0.5);
    CHECK(sheet.stacks == 2);
}

TEST_CASE("at an edge, `from` applies and `above` does not", "[M51]") {
    const auto band = [](const std::string& might, const std::string& edges) {
        const Armoury a =
            armoury(duel() + "[item.lamp]\nweight = 10\n[carry]\ncapacity = \"" + might + "\"\n" +
                    edges + "[loadout.l]\ncharacter = \"hero\"\npack = { lamp = 1 }\n");
        const int index = sheet_of(a, "l", 1).load.band;
        return index == no_band ? std::string("none")
                                : a.carry.bands[static_cast<std::size_t>(index)].name;
    };
    const std::string from = "[[carry.band]]\nname = \"f\"\nfrom = 1\n";
    const std::string above = "[[carry.band]]\nname = \"a\"\nabove = 1\n";
    CHECK(band("10", from) == "f");
    CHECK(band("10", above) == "none");
    CHECK(band("9.999", above) == "a");
    CHECK(band("10.001", from) == "none");
    CHECK(band("10", above + from) == "f");
    CHECK(band("9", above + from) == "a");
    // A load of 7 thirds at an edge of 7 thirds is on it, whatever their quotient rounds to.
    CHECK(band("30 / 7", "[[carry.band]]\nname = \"f\"\nfrom = " +
                             std::string("2.3333333333333335") + "\n") == "f");
}

TEST_CASE("the capacity is made without the band, then the band acts", "[M50]") {
    const Armoury a = armoury(duel() + worn_gear + carry +
                              "[loadout.l]\ncharacter = \"hero\"\npack = { lamp = 3 }\n");
    const Sheet sheet = sheet_of(a, "l", 1);
    CHECK(sheet.load.share == 0.6);
    CHECK(stat(a, sheet, "haste") == -10);
    CHECK(compose(a.stats[find_id<StatKind>(a.stats, "haste").index()],
                  sheet.stats[find_id<StatKind>(a.stats, "haste").index()].parts) == -10);
}

TEST_CASE("a load tells its next edge on either side and what crossing costs", "[M55]") {
    const Armoury a = armoury(duel() + worn_gear + carry +
                              "[loadout.l]\ncharacter = \"hero\"\npack = { lamp = 3 }\n");
    const Sheet sheet = sheet_of(a, "l", 1);
    REQUIRE(sheet.load.above);
    CHECK(sheet.load.above->load == 1.0);
    CHECK_FALSE(sheet.load.above->includes);
    CHECK(sheet.load.above->weight_away == Approx(4));
    REQUIRE(sheet.load.below);
    CHECK(sheet.load.below->weight_away == Approx(1));
    REQUIRE(sheet.beyond_edge.size() == 1);
    CHECK(sheet.beyond_edge[0].now == -10);
    CHECK(sheet.beyond_edge[0].then == -40);
}

TEST_CASE("above the limit nothing can be carried", "[M52]") {
    const auto loaded = [](int lamps) {
        const Armoury a = armoury(
            duel() + worn_gear + carry +
            "[loadout.l]\ncharacter = \"hero\"\npack = { lamp = " + std::to_string(lamps) + " }\n");
        return refused(sheet_of(a, "l", 1)).find("nothing can be carried above") !=
               std::string::npos;
    };
    CHECK_FALSE(loaded(7));
    CHECK(loaded(8)); // 16 of 10
    const Armoury at_limit = armoury(duel() + "[item.lamp]\nweight = 15\n" + carry +
                                     "[loadout.l]\ncharacter = \"hero\"\npack = { lamp = 1 }\n");
    CHECK(refused(sheet_of(at_limit, "l", 1)).empty());
}

TEST_CASE("stacks are counted up, and unlimited ones are one", "[M53]") {
    Item item;
    item.stack = 5;
    CHECK(stacks_of(item, 0) == 0);
    CHECK(stacks_of(item, 5) == 1);
    CHECK(stacks_of(item, 6) == 2);
    item.stack = unlimited;
    CHECK(stacks_of(item, 1'000'000) == 1);
}
