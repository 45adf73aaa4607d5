#include "support/sheets.h"

#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// The duel, with more definitions and a loadout `l` of the hero.
Armoury wearing(const std::string& definitions, const std::string& loadout) {
    return armoury(duel() + definitions + "[loadout.l]\ncharacter = \"hero\"\n" + loadout);
}

std::string refused_with(const std::string& definitions, const std::string& loadout,
                         int level = 1) {
    return refused(sheet_of(wearing(definitions, loadout), "l", level));
}

const std::string two_handed =
    "[item.maul]\nslot = \"hand\"\ntakes = [\"hand\", \"head\"]\nadd = { attack = 9 }\n"
    "[item.cap]\nslot = \"head\"\nadd = { guard = 2 }\n";

const std::string inlaid = "[slot.inlay]\nsocket = true\n[slot.speck]\nsocket = true\n"
                           "[item.coat]\nslot = \"head\"\nsockets = [\"inlay\", \"inlay\"]\n"
                           "add = { guard = 1 }\nweight = 2\n"
                           "[item.bead]\nslot = \"inlay\"\nadd = { guard = 10 }\nweight = 0.5\n"
                           "[item.setting]\nslot = \"inlay\"\nsockets = [\"speck\"]\n"
                           "[item.dust]\nslot = \"speck\"\nadd = { guard = 100 }\n";

const std::string folk = "[set.folk]\n[[set.folk.step]]\ncount = 3\npercent = { guard = 100 }\n"
                         "[[set.folk.step]]\ncount = 2\nadd = { guard = 5 }\n"
                         "[item.a]\nslot = \"hand\"\nset = \"folk\"\nadd = { guard = 1 }\n"
                         "[item.b]\nslot = \"head\"\nset = \"folk\"\nadd = { guard = 1 }\n"
                         "[item.c]\nslot = \"charm\"\nset = \"folk\"\nadd = { guard = 1 }\n";

} // namespace

TEST_CASE("what takes several slots needs all of them free", "[M40]") {
    CHECK(refused_with(two_handed, "worn = { hand = \"maul\" }\n").empty());
    CHECK(refused_with(two_handed, "worn = { hand = \"maul\", head = \"cap\" }\n") ==
          "cap: head has 1 place, and maul is there already\n");
    const std::string both = "[item.bangle]\nslot = \"charm\"\ntakes = [\"charm\", \"charm\"]\n"
                             "[item.ring]\nslot = \"charm\"\n";
    CHECK(refused_with(both, "worn = { charm = \"bangle\" }\n").empty());
    CHECK(refused_with(both, "worn = { charm = [\"ring\", \"bangle\"] }\n") ==
          "bangle: charm has 2 places, and ring and bangle are there already\n");
}

TEST_CASE("sockets hold what fits them, to any depth, and all of it counts", "[M40]") {
    const std::string full = "worn = { head = { item = \"coat\", inlay = [\"bead\", { item = "
                             "\"setting\", speck = \"dust\" }] } }\n";
    const Armoury a = wearing(inlaid, full);
    const Sheet sheet = sheet_of(a);
    CHECK(sheet.refused.empty());
    CHECK(stat(a, sheet, "guard") == 111);
    CHECK(sheet.load.carried == 2500);
    CHECK(refused_with(inlaid, "worn = { head = { item = \"coat\", inlay = [\"bead\", \"bead\", "
                               "\"bead\"] } }\n") ==
          "bead: coat has 2 sockets inlay, and each holds one\n");
    CHECK(refused_with(inlaid, "worn = { head = { item = \"coat\", speck = \"dust\" } }\n") ==
          "dust: coat has no socket speck\n");
    CHECK(refused_with(inlaid, "worn = { head = { item = \"coat\", inlay = \"dust\" } }\n") ==
          "dust: it goes into speck, not into inlay\n");
    CHECK(refused_with(inlaid, "worn = { inlay = \"bead\" }\n") ==
          "bead: inlay is a socket: it is on items, not on hero\n");
}

TEST_CASE("a set's steps count different pieces, every step up to the count applies", "[M43]") {
    const auto guard = [](const std::string& worn) {
        const Armoury a = wearing(folk, "worn = { " + worn + " }\n");
        return stat(a, sheet_of(a), "guard");
    };
    CHECK(guard("hand = \"a\"") == 1);
    CHECK(guard("hand = \"a\", head = \"b\"") == 2 + 5);
    CHECK(guard("hand = \"a\", head = \"b\", charm = \"c\"") == (3 + 5) * 2);
    CHECK(guard("charm = [\"c\", \"c\"]") == 2); // twice the same is one piece
}

TEST_CASE("the sheet says how far a set has come and what is missing", "[M43]") {
    const Armoury a = wearing(folk, "worn = { hand = \"a\", head = \"b\" }\n");
    const Sheet sheet = sheet_of(a);
    REQUIRE(sheet.sets.size() == 1);
    CHECK(sheet.sets[0].pieces == 2);
    CHECK(sheet.sets[0].reached == 2);
    CHECK(sheet.sets[0].next == 3);
    CHECK(sheet.sets[0].missing == std::vector<ItemId>{find_id<ItemKind>(a.items, "c")});
}

TEST_CASE("of a unique group at most one is worn, also in a socket", "[M41]") {
    const std::string oaths =
        "[slot.inlay]\nsocket = true\n[item.coat]\nslot = \"head\"\nsockets = [\"inlay\"]\n"
        "[item.one]\nslot = \"charm\"\nunique = \"oath\"\n"
        "[item.two]\nslot = \"charm\"\nunique = \"oath\"\n"
        "[item.bead]\nslot = \"inlay\"\nunique = \"oath\"\n";
    CHECK(refused_with(oaths, "worn = { charm = [\"one\", \"two\"] }\n") ==
          "two: at most one of 'oath' is worn, and one is\n");
    CHECK(refused_with(oaths, "worn = { charm = [\"one\", \"one\"] }\n") ==
          "one: at most one of 'oath' is worn, and one is\n");
    CHECK(refused_with(oaths,
                       "worn = { charm = \"two\", head = { item = \"coat\", inlay = "
                       "\"bead\" } }\n") == "two: at most one of 'oath' is worn, and bead is\n");
    CHECK(refused_with(oaths, "worn = { charm = \"two\" }\npack = { one = 1 }\n").empty());
}

TEST_CASE("needs: level, calling, character and stats, every one of them told", "[M41][M42]") {
    const std::string needy = "[character.other]\ncalling = \"porter\"\nbase = { max_health = 1 "
                              "}\nactions = [\"strike\"]\n"
                              "[item.plate]\nslot = \"head\"\nlevel = 3\nneeds = { level = 5, "
                              "calling = \"porter\", stats = { might = 30, attack = 12 } }\n"
                              "[item.own]\nslot = \"hand\"\nneeds = { character = [\"other\"] }\n";
    const std::string worn = "worn = { head = \"plate\", hand = \"own\" }\n";
    CHECK(refused_with(needy, worn) ==
          "own: it is for other only; hero is of no calling\n"
          "plate: it is for level 5; hero is level 1\n"
          "plate: it is for porter only; hero is of no calling\n"
          "plate: it needs 12 attack; hero has 10 with nothing worn at level 1\n"
          "plate: it needs 30 might; hero has 10 with nothing worn at level 1\n");
    CHECK(refused_with(needy, worn, 5) ==
          "own: it is for other only; hero is of no calling\n"
          "plate: it is for porter only; hero is of no calling\n"
          "plate: it needs 30 might; hero has 10 with nothing worn at level 5\n");
}

TEST_CASE("needed stats are those with nothing worn, upgrades included", "[M41]") {
    const std::string strong =
        "[upgrade.lifting]\nmax = 5\nadd = { might = 2 }\n"
        "[item.belt]\nslot = \"charm\"\nadd = { might = 50 }\n"
        "[item.plate]\nslot = \"head\"\nneeds = { stats = { might = 14 } }\n";
    CHECK(refused_with(strong, "worn = { head = \"plate\", charm = \"belt\" }\n") ==
          "plate: it needs 14 might; hero has 10 with nothing worn at level 1\n");
    CHECK(
        refused_with(strong, "worn = { head = \"plate\" }\nupgrades = { lifting = 2 }\n").empty());
}

TEST_CASE("half steps of an upgrade stay half, and there are only so many levels", "[M6]") {
    const std::string lungs = "[upgrade.lungs]\nmax = 10\nadd = { max_breath = 2.5 }\n"
                              "[upgrade.sinews]\nmax = 3\npercent = { attack = 0.5 }\n";
    const Armoury a = wearing(lungs, "upgrades = { lungs = 3, sinews = 1 }\n");
    const Sheet sheet = sheet_of(a);
    CHECK(stat(a, sheet, "max_breath") == 57.5);
    CHECK(stat(a, sheet, "attack") == 10 * (1 + 0.5 / 100));
    CHECK(refused_with(lungs, "upgrades = { lungs = 11 }\n") ==
          "upgrade.lungs: 11 levels; there are 10\n");
}

TEST_CASE("gear grants room: in the bag and under the load", "[M50][M53]") {
    const std::string roomy =
        "[carry]\ncapacity = \"self.might\"\nbag = 1\nlimit = 1\n"
        "[item.satchel]\nslot = \"charm\"\ngrants = { bag = 2, capacity = 8 }\n"
        "[item.stone]\nweight = 6\n";
    CHECK(refused_with(roomy, "pack = { stone = 3 }\n") ==
          "pack: it makes 3 stacks; the bag holds 1\n"
          "load: 18 of 10 is a load of 180.0 %; nothing can be carried above 100.0 %\n");
    CHECK(refused_with(roomy, "worn = { charm = \"satchel\" }\npack = { stone = 3 }\n").empty());
    const Sheet sheet = sheet_of(
        wearing(roomy, "worn = { charm = [\"satchel\", \"satchel\"] }\npack = { stone = 1 }\n"));
    CHECK(sheet.bag == 5);
    CHECK(sheet.load.capacity == 26);
}

TEST_CASE("what an item contains is in the pack of who wears or carries it", "[M54]") {
    const std::string kit = "[carry]\ncapacity = \"100\"\nbag = 6\n"
                            "[item.kit]\nslot = \"charm\"\ncontains = { tin = 2 }\n"
                            "[item.tin]\ncontains = { pin = 3 }\nweight = 1\n"
                            "[item.pin]\nstack = 10\nweight = 0.1\n";
    const Armoury a = wearing(kit, "worn = { charm = \"kit\" }\npack = { pin = 1 }\n");
    const Outfit outfit = outfit_of(a, a.loadouts.back(), 1);
    const auto units = [&](const char* id) {
        std::int64_t count = 0;
        for (const PackedItem& packed : outfit.pack)
            if (packed.item == find_id<ItemKind>(a.items, id)) count += packed.count;
        return count;
    };
    CHECK(units("tin") == 2);
    CHECK(units("pin") == 7);
    const Sheet sheet = sheet_of(a);
    CHECK(sheet.stacks == 3);
    CHECK(sheet.load.carried == 2700);
}

TEST_CASE("a pack holds no more stacks of an item than the item allows", "[M53]") {
    const std::string vials = "[item.vial]\nstack = 5\nmax_stacks = 2\nuse = { restore = { health "
                              "= 5 } }\n";
    CHECK(refused_with(vials, "pack = { vial = 10 }\n").empty());
    CHECK(refused_with(vials, "pack = { vial = 11 }\n") ==
          "vial: 11 units make 3 stacks of 5; at most 2 are allowed\n");
}

TEST_CASE("a tier's factor reaches an item in a socket, and every bearer has its part",
          "[M44][M4]") {
    const std::string bearers =
        "[slot.inlay]\nsocket = true\n[item.coat]\nslot = \"head\"\nsockets = [\"inlay\"]\nadd = { "
        "guard = 1 }\nset = \"folk\"\n"
        "[item.bead]\nslot = \"inlay\"\ntier = \"fine\"\nadd = { guard = 3 }\nset = \"folk\"\n"
        "[set.folk]\n[[set.folk.step]]\ncount = 2\ntimes = { guard = 2 }\n"
        "[upgrade.skin]\nmax = 2\nadd = { guard = 0.5 }\n";
    const Armoury a = wearing(bearers, "worn = { head = { item = \"coat\", inlay = \"bead\" } "
                                       "}\nupgrades = { skin = 1 }\n");
    const Sheet sheet = sheet_of(a);
    const std::size_t guard = find_id<StatKind>(a.stats, "guard").index();
    std::vector<std::string> parts;
    for (const Part& part : sheet.stats[guard].parts) parts.push_back(part.bearer);
    CHECK(sheet.stats[guard].value == (0.5 + 6 + 1) * 2);
    CHECK(parts ==
          std::vector<std::string>{"upgrade.skin", "item.bead", "item.coat", "set.folk.2"});
    CHECK(compose(a.stats[guard], sheet.stats[guard].parts) == sheet.stats[guard].value);
    CHECK(stat(a, sheet, "keen") == 1); // the fine tier's own
}

TEST_CASE("an encounter asks for what is worn or carried, and says which", "[M42]") {
    const std::string asks =
        with(duel(), "foes = [ { foe = \"dummy\" } ]",
             "foes = [ { foe = \"dummy\" } ]\nrequires = { worn = [\"lamp\"], carried = "
             "[\"rope\"] }") +
        "[item.lamp]\nslot = \"charm\"\n[item.rope]\n[loadout.l]\ncharacter = \"hero\"\n";
    const auto missing = [&](const std::string& loadout) {
        const Armoury a = armoury(asks + loadout);
        Deriver deriver(a);
        return missing_for(deriver, outfit_of(a, a.loadouts.back(), 1), a.encounters[0]);
    };
    CHECK(missing("worn = { charm = \"lamp\" }\npack = { rope = 1 }\n").empty());
    CHECK(
        missing("pack = { lamp = 1 }\n") ==
        std::vector<std::string>{"spar asks for lamp to be worn; it is carried, which is not worn",
                                 "spar asks for rope to be carried; it is not there"});
    CHECK(missing("")[0] == "spar asks for lamp to be worn; it is not there");
}

TEST_CASE("any order of what is worn, socketed and bought gives one sheet, bitwise", "[M1]") {
    const Armoury demo = demo_armoury();
    Deriver deriver(demo);
    rc::prop("the demo's loadouts, shuffled", [&] {
        const Loadout& loadout =
            demo.loadouts[*rc::gen::inRange<std::size_t>(0, demo.loadouts.size())];
        Outfit outfit = outfit_of(demo, loadout, loadout.levels.last);
        const Sheet before = make_sheet(deriver, outfit);
        for (std::size_t i = outfit.worn.size(); i > 1; --i)
            std::swap(outfit.worn[i - 1], outfit.worn[*rc::gen::inRange<std::size_t>(0, i)]);
        std::reverse(outfit.upgrades.begin(), outfit.upgrades.end());
        std::reverse(outfit.pack.begin(), outfit.pack.end());
        const Sheet after = make_sheet(deriver, outfit);
        for (std::size_t i = 0; i < before.stats.size(); ++i)
            RC_ASSERT(before.stats[i].value == after.stats[i].value);
        RC_ASSERT(before.load.share == after.load.share);
        RC_ASSERT(before.stacks == after.stacks);
    });
}
