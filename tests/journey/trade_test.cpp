// What a journey brings besides finds: what foes leave, rewards, shops, pools that carry over, and
// what wears out.
#include "journey/finds.h"
#include "journey/journey.h"
#include "outfit/change.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <map>

using namespace panoplon;
using namespace panoplon::test;
using Catch::Matchers::WithinAbs;
using Lines = std::vector<std::string>;

namespace {

/// A journey of these stages against a gnat of 30 health that bites for 10: it is struck three
/// times, at 0, 1 and 2, and bites twice.
Armoury way(const std::string& stages, const std::string& more = {}, const std::string& keys = {}) {
    return armoury(duel() + biter() +
                   "[foe.gnat]\nbase = { max_health = 30, attack = 10 }\nactions = [\"bite\"]\n" +
                   more +
                   "[encounter.gnat]\nfoes = [ { foe = \"gnat\" } ]\n[journey.way]\ncharacter = "
                   "\"hero\"\nstart = \"bare\"\n" +
                   keys + "stage = [ " + stages + " ]\n");
}

JourneySummary go(const Armoury& armoury, std::uint64_t trials = 1) {
    JourneySummary summary = run_journey(armoury, armoury.journeys[0], {trials, 1});
    if (summary.error) FAIL(summary.error->message);
    return summary;
}

const ItemSummary& of(const Armoury& armoury, const JourneySummary& summary,
                      const std::string& id) {
    return summary.items[find_id<ItemKind>(armoury.items, id).index()];
}

} // namespace

TEST_CASE("a pool that carries over is as the last fight left it, and full after a lost one",
          "[M97b]") {
    // 100, 80, 60 and 40 are enough; with 20 it falls, and begins anew with 100.
    const std::string six = "{ encounter = \"gnat\", wins = 6, tries = 9 }";
    CHECK(go(way(six)).stages[0].tries.mean() == 6);
    CHECK(go(way(six, "", "carries_over = [\"health\"]\n")).stages[0].tries.mean() == 7);
    CHECK(go(way(six, "", "carries_over = [\"breath\"]\n")).stages[0].tries.mean() == 6);
    // From stage to stage too, but after a rest.
    const std::string four = "{ encounter = \"gnat\", wins = 4, tries = 9 }";
    const auto tries = [&](const std::string& then) {
        const JourneySummary summary =
            go(way(four + ", " + then, "", "carries_over = [\"health\"]\n"));
        return summary.stages[1].tries.mean();
    };
    CHECK(tries("{ encounter = \"gnat\", wins = 1, tries = 9 }") == 2);
    CHECK(tries("{ encounter = \"gnat\", wins = 1, tries = 9, rest = true }") == 1);
}

TEST_CASE("each foe that came leaves its own, besides what the stage has", "[M97a]") {
    const std::string finds =
        "[item.shell]\nstack = 99\n[item.pearl]\nstack = 99\n[drops.shells]\nitems = "
        "[\"shell\"]\nrolls = 2\n[drops.pearls]\nitems = [\"pearl\"]\n";
    const std::string snail =
        "[foe.snail]\nbase = { max_health = 10 }\nactions = "
        "[\"rest\"]\ndrops = \"shells\"\n[encounter.snails]\nfoes = [ { foe = "
        "\"snail\", count = 1, up_to = 3 }, { foe = \"dummy\" } ]\n";
    const Armoury a = way("{ encounter = \"snails\", wins = 400, tries = 400, drops = \"pearls\" }",
                          finds + snail);
    const JourneySummary summary = go(a);
    CHECK(of(a, summary, "pearl").found.mean() == 400);
    // Two each of two snails in the mean.
    CHECK_THAT(of(a, summary, "shell").found.mean(), WithinAbs(1600, 100));
}

TEST_CASE("weights by entry stand in place of the tiers'", "[M97a]") {
    const Armoury a = armoury(
        duel() + piece("pin", "hand", "tier = \"plain\"\n") +
        piece("axe", "hand", "tier = \"fine\"\n") + piece("cap", "head", "tier = \"fine\"\n") +
        "[drops.all]\nitems = [\"pin\", \"axe\", \"cap\"]\nweights = { pin = 6, axe = 3 }\n");
    const FindTable table(a, a.drops[0], 1);
    std::map<std::string, double> shares;
    for (const FindTable::Entry& entry : table.entries(0))
        shares[a.at(entry.item).id] = entry.share;
    CHECK_THAT(shares["pin"], WithinAbs(0.6, 1e-12));
    CHECK_THAT(shares["axe"], WithinAbs(0.3, 1e-12));
    CHECK_THAT(shares["cap"], WithinAbs(0.1, 1e-12));
    std::map<std::string, int> found;
    for (int i = 0; i < 1000; ++i) ++found[a.at(*table.pick(0, (i + 0.5) / 1000)).id];
    CHECK(found["pin"] == 600);
    CHECK(found["axe"] == 300);
    CHECK(found["cap"] == 100);
    // Luck of 1 doubles a tier's weight for each tier below it: 6 to 8.
    for (const FindTable::Entry& entry : table.entries(1))
        if (a.at(entry.item).id == "pin") CHECK_THAT(entry.share, WithinAbs(6.0 / 14, 1e-12));
}

TEST_CASE("a stage rewards at its end, with gear, consumables and upgrades", "[M97a]") {
    const Armoury a =
        way("{ encounter = \"gnat\", gives = { blade = 1, salve = 2 }, gains = { grit = 2 } }, { "
            "encounter = \"gnat\" }",
            piece("blade", "hand", "add = { attack = 20 }\nsource = \"quest\"\n") +
                "[item.salve]\nstack = 9\nuse = { restore = { health = 10 } }\n[upgrade.grit]\nmax "
                "= 9\ncost = \"99\"\nadd = { might = 1 }\n");
    const JourneySummary summary = go(a);
    CHECK(of(a, summary, "blade").worn_in == 1);
    CHECK(of(a, summary, "salve").found.mean() == 2);
    CHECK(summary.upgrades[0] == 2);
    // With 30 a blow the second gnat falls at once, and bites nobody.
    CHECK(summary.stages[1].time.mean() == summary.stages[0].time.mean());
}

TEST_CASE("a shop sells what is wanted for its value, and pays for what is not worn", "[M97c]") {
    const std::string goods =
        "[tier.dear]\nrank = 7\nvalue_factor = 2\n" +
        piece("knife", "hand", "value = 30\nadd = { attack = 2 }\n") +
        piece("blade", "hand", "value = 10\ntier = \"dear\"\nadd = { attack = 20 }\n") +
        piece("twig", "hand", "value = 1\nadd = { might = 1 }\n") +
        "[item.salve]\nstack = 9\nvalue = 4\nuse = { restore = { health = 40 } }\n";
    const auto played = [&](int coin) {
        const Armoury a = way(
            "{ encounter = \"gnat\", gives = { knife = 1, twig = 2 } }, { encounter = \"gnat\", "
            "stock = { salve = 2, blade = 1, twig = 1 }, price = 1.5, pays = 0.5 }, { encounter = "
            "\"gnat\", pays = 0.5 }",
            goods, "coin = " + std::to_string(coin) + "\n");
        const JourneySummary summary = go(a);
        std::map<std::string, double> got;
        got["coin"] = summary.stages[2].coin.mean();
        for (const char* id : {"knife", "blade", "twig", "salve"}) {
            got[std::string(id) + " bought"] = of(a, summary, id).bought.mean();
            got[std::string(id) + " sold"] = of(a, summary, id).sold.mean();
        }
        return got;
    };
    // Two twigs are sold for 1; a blade costs 10 × 2 × 1.5, and the knife that it replaces brings
    // 15 at the next shop. Nothing was packed at the start, so no salve is bought.
    std::map<std::string, double> rich = played(29);
    CHECK(rich["blade bought"] == 1);
    CHECK(rich["twig sold"] == 2);
    CHECK(rich["knife sold"] == 1);
    CHECK(rich["coin"] == 29 + 1 - 30 + 15);
    CHECK(rich["salve bought"] == 0);
    CHECK(rich["twig bought"] == 0);
    std::map<std::string, double> poor = played(28);
    CHECK(poor["blade bought"] == 0);
    CHECK(poor["coin"] == 29);
}

TEST_CASE("a shop fills the pack up to what it was at the start, as far as coin goes", "[M97c]") {
    const std::string salve =
        "[item.salve]\nstack = 9\nvalue = 4\nuse = { restore = { health = 20 }, when = "
        "\"self.health < 90\" }\n[loadout.packed]\ncharacter = \"hero\"\npack = { salve = 2 }\n";
    const auto bought = [&](int coin, int stock) {
        const std::string text =
            with(duel() + biter() +
                     "[foe.gnat]\nbase = { max_health = 30, attack = 10 }\nactions = "
                     "[\"bite\"]\n[encounter.gnat]\nfoes = [ { foe = \"gnat\" } ]\n" +
                     salve,
                 "[combat]", "[combat]") +
            "[journey.way]\ncharacter = \"hero\"\nstart = \"packed\"\ncoin = " +
            std::to_string(coin) +
            "\nstage = [ { encounter = \"gnat\", wins = 3 }, { encounter = \"gnat\", stock = { "
            "salve = " +
            std::to_string(stock) + " } } ]\n";
        const Armoury a = armoury(text);
        return of(a, go(a), "salve").bought.mean();
    };
    CHECK(bought(99, 9) == 2);
    CHECK(bought(99, 1) == 1);
    CHECK(bought(7, 9) == 1);
    CHECK(bought(3, 9) == 0);
}

TEST_CASE("what lasts so many fights breaks after them, unless it is mended", "[M97d]") {
    const std::string worn =
        piece("stick", "hand", "value = 20\nlasts = 3\nadd = { attack = 20 }\n") +
        "[loadout.armed]\ncharacter = \"hero\"\nworn = { hand = \"stick\" }\n";
    const auto played = [&](const std::string& stages) {
        const std::string text =
            duel() + biter() + worn +
            "[encounter.dummy]\nfoes = [ { foe = \"dummy\" } ]\n[journey.way]\n"
            "character = \"hero\"\nstart = \"armed\"\ncoin = 10\nstage = [ " +
            stages + " ]\n";
        const Armoury a = armoury(text);
        const JourneySummary summary = go(a);
        return std::pair(of(a, summary, "stick"), summary.stages.back().coin.mean());
    };
    const auto [broken, all] = played("{ encounter = \"dummy\", wins = 5 }");
    CHECK(broken.broken.mean() == 1);
    CHECK(broken.used.mean() == 1);
    CHECK(broken.fights_worn == 3);
    CHECK(all == 10);
    // Two thirds worn out, at half the value: 20 × 0.5 × 2 / 3.
    const auto [mended, left] = played("{ encounter = \"dummy\", wins = 2 }, { encounter = "
                                       "\"dummy\", wins = 2, mends = 0.5 }");
    CHECK(mended.broken.mean() == 0);
    CHECK_THAT(left, WithinAbs(10 - 20 * 0.5 * 2 / 3, 1e-9));
    CHECK(
        played("{ encounter = \"dummy\", wins = 2 }, { encounter = \"dummy\", wins = 2, mends = 1 "
               "}")
            .first.broken.mean() == 1); // 13.3 is not there
}

TEST_CASE("what is cursed can't be taken off, by hand or by a swap", "[M41b]") {
    const Armoury a = armoury(
        duel() + piece("grave_ring", "hand", "cursed = true\nadd = { attack = 9 }\n") +
        piece("blade", "hand", "add = { attack = 20 }\n") +
        "[loadout.ring]\ncharacter = \"hero\"\nworn = { hand = \"grave_ring\" }\npack = { blade = "
        "1 }\nswap = [ { to = \"blade\", at = 2 } ]\n[loadout.blade]\ncharacter = \"hero\"\nworn = "
        "{ hand = \"blade\" }\n");
    Deriver deriver(a);
    Outfit outfit = outfit_of(a, a.loadouts[1], 1);
    const ItemId blade = find_id<ItemKind>(a.items, "blade");
    const ChangeOutcome put = put_on(deriver, outfit, blade);
    REQUIRE_FALSE(put.done());
    CHECK(put.refused[0].reasons[0] == "grave_ring is cursed: it can't be taken off");
    CHECK_FALSE(take_off(deriver, outfit, find_id<ItemKind>(a.items, "grave_ring")).done());
    CHECK(outfit.worn[0].item != blade);
    CHECK(lines(Bout(a, "ring", "spar").tell(), "swap_refused") ==
          Lines{"2 hero swap_refused blade hero 0"});
}

TEST_CASE("what an encounter asks for has to be there before each of its fights", "[M97d]") {
    const Armoury a = armoury(
        duel() + piece("stick", "hand", "lasts = 2\n") +
        "[loadout.armed]\ncharacter = \"hero\"\nworn = { hand = \"stick\" "
        "}\n[encounter.gate]\nfoes = "
        "[ { foe = \"dummy\" } ]\nrequires = { worn = [\"stick\"] }\n[journey.way]\ncharacter = "
        "\"hero\"\nstart = \"armed\"\nstage = [ { encounter = \"gate\", wins = 5 } ]\n");
    const JourneySummary summary = go(a);
    CHECK(summary.stages[0].tries.mean() == 2);
    CHECK(summary.stages[0].passed == 0);
    CHECK(summary.stages[0].missing.size() == 1);
}

TEST_CASE("what grows gives the more, the more foes were felled with it on", "[M97e]") {
    // Three dummies a fight, twice each four of them, and no more.
    const std::string axe =
        piece("axe", "hand",
              "tier = \"fine\"\nadd = { attack = 1 }\ngrows = { kills = 4, most = 2, "
              "add = { attack = 3 } }\n");
    const std::string encounter = "[encounter.three]\nfoes = [ { foe = \"dummy\", count = 3 } ]\n";
    const auto grown = [&](int wins) {
        const Armoury a = armoury(
            duel() + axe + encounter +
            "[loadout.armed]\ncharacter = \"hero\"\nworn = { hand = \"axe\" }\n[journey.way]\n"
            "character = \"hero\"\nstart = \"armed\"\nstage = [ { encounter = \"three\", wins = " +
            std::to_string(wins) + " } ]\n");
        const JourneySummary summary = go(a);
        // A fight of three dummies of 100 health each takes 300 / (10 + what the axe adds) blows.
        return std::pair(of(a, summary, "axe").grown.mean(), summary.stages[0].time.mean());
    };
    CHECK(grown(1).first == 0);
    CHECK(grown(2).first == 1);
    CHECK(grown(3).first == 2);
    CHECK(grown(9).first == 2);
    // A blow each 1, the first at 0: with the tier's factor 12 a blow, then 18, then 24.
    const auto time_of = [](double blow) { return 3 * std::ceil(100 / blow) - 1; };
    CHECK(grown(1).second == time_of(12));
    CHECK(grown(3).second - grown(2).second == time_of(18));
    CHECK(grown(5).second - grown(4).second == time_of(24));
    // A loadout may say how far it is; lost fights and what is taken off count nothing.
    const auto stated = [&](const std::string& felled) {
        const Armoury a = armoury(duel() + axe + encounter +
                                  "[loadout.armed]\ncharacter = \"hero\"\nworn = { hand = { " +
                                  "item = \"axe\", felled = " + felled + " } }\n");
        return Bout(a, "armed", "three").trial(0).time;
    };
    CHECK(stated("0") == time_of(12));
    CHECK(stated("7") == time_of(18));
    CHECK(stated("900") == time_of(24));
}

TEST_CASE("a fight that is lost fells nobody for what grows", "[M97e]") {
    const Armoury a =
        armoury(duel() + biter(100000) +
                piece("axe", "hand", "grows = { kills = 1, most = 9, add = { attack = 3 } }\n") +
                "[loadout.armed]\ncharacter = \"hero\"\nworn = { hand = \"axe\" "
                "}\n[encounter.both]\nfoes = [ { "
                "foe = \"dummy\" }, { foe = \"biter\", at = 20 } ]\n[journey.way]\ncharacter = "
                "\"hero\"\nstart = "
                "\"armed\"\nstage = [ { encounter = \"both\", tries = 3 } ]\n");
    CHECK(of(a, go(a), "axe").grown.mean() == 0);
}
