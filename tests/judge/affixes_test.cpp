// Affixes: one of each draw for each find, their mean everywhere else (M44b).
#include "journey/finds.h"
#include "journey/journey.h"
#include "judge/appraise/appraisal.h"
#include "judge/audit/audit.h"
#include "judge/paper/paper.h"
#include "model/budget.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>

using namespace panoplon;
using namespace panoplon::test;
using Catch::Matchers::WithinAbs;

namespace {

/// Three of a thing in four are blunt, one is sharp; what is of level 2 may be rare, too.
const std::string edges =
    "[affix.blunt]\ntags = [\"edge\"]\nweight = 3\n[affix.sharp]\ntags = [\"edge\"]\nadd = { "
    "attack "
    "= 8 }\n[affix.rare]\ntags = [\"edge\"]\nlevel = 2\nweight = 4\ntimes = { attack = 2 "
    "}\n[affix.stout]\nadd = { guard = 3 }\npercent = { attack = 10 }\n";

std::string blade(const std::string& keys = {}) {
    return piece("blade", "hand", "affixes = [\"edge\"]\n" + keys);
}

std::string wears(const std::string& what) {
    return "[loadout.found]\ncharacter = \"hero\"\nworn = { hand = " + what + " }\n";
}

const Item& blade_of(const Armoury& armoury) {
    return armoury.at(find_id<ItemKind>(armoury.items, "blade"));
}

/// What the hero of a loadout deals with a blow: 10, and what it wears adds.
double attack_of(const Armoury& a, const std::string& loadout = "found") {
    Deriver deriver(a);
    const LoadoutId id = find_id<LoadoutKind>(a.loadouts, loadout);
    const StatId attack = find_id<StatKind>(a.stats, "attack");
    return outfit_stats(deriver, outfit_of(a, a.at(id), 1), no_band)[attack.index()];
}

} // namespace

TEST_CASE("where no find is said, affixes count with their mean", "[M44b]") {
    CHECK(attack_of(armoury(duel() + edges + blade() + wears("\"blade\""))) == 10 + 8 / 4.0);
    // The tier's factor, 2, counts for what affixes add.
    CHECK(attack_of(armoury(duel() + edges + blade("tier = \"fine\"\n") + wears("\"blade\""))) ==
          10 + 2 * 8 / 4.0);
    // Of weights 3, 1 and 4: an eighth of 8, and half of twice as much.
    CHECK_THAT(attack_of(armoury(duel() + edges + blade("level = 2\n") + wears("\"blade\""))),
               WithinAbs((10 + 8 / 8.0) * 1.5, 1e-12));
}

TEST_CASE("affixes count for an item's budget with their mean", "[M44b]") {
    const Armoury a =
        armoury(with(duel(), "[stat.attack]\n", "[stat.attack]\ncost = 1\n") +
                "[budget]\npoints = \"10\"\n" + edges +
                piece("blade", "hand", "affixes = [\"edge\"]\nadd = { attack = 3 }\n"));
    CHECK(BudgetMeter(a)(blade_of(a)).value().spent == 3 + 8 / 4.0);
}

TEST_CASE("a loadout wears the find that it names", "[M44b]") {
    const auto attack = [&](const std::string& find) {
        return attack_of(
            armoury(duel() + edges +
                    piece("blade", "hand",
                          "level = 2\naffixes = [\"edge\", \"stout\"]\nadd = { attack = 2 }\n"
                          "add_up_to = { attack = 6 }\n") +
                    wears("{ item = \"blade\"" + find + " }")));
    };
    const double mean_of_edge = 8 / 8.0;
    CHECK_THAT(attack(""), WithinAbs((10 + 4 + mean_of_edge) * 1.1 * 1.5, 1e-12));
    CHECK_THAT(attack(", affixes = [\"sharp\"]"), WithinAbs((10 + 4 + 8) * 1.1, 1e-12));
    CHECK_THAT(attack(", affixes = [\"stout\", \"rare\"], rolled = { attack = 6 }"),
               WithinAbs((10 + 6) * 1.1 * 2, 1e-12));
}

TEST_CASE("what a find can't have counts as the nearest, or nothing, and keeps nobody from tuning",
          "[M44a][M44b]") {
    const std::string text =
        duel() + edges +
        piece("blade", "hand",
              "affixes = [\"stout\"]\nadd = { attack = 2 }\nadd_up_to = { attack = 6 }\n") +
        wears("{ item = \"blade\", rolled = { attack = 9, guard = 4 }, affixes = [\"sharp\", "
              "\"stout\"] }");
    CHECK_THAT(attack_of(armoury(text)), WithinAbs((10 + 6) * 1.1, 1e-12));
    CHECK_THAT(attack_of(armoury(with(text, "{ attack = 6 }", "{ attack = 2 }"))),
               WithinAbs((10 + 2) * 1.1, 1e-12));
}

TEST_CASE("a find has one affix of each draw, as often as weights say", "[M44b]") {
    const Armoury a = armoury(duel() + edges + blade("level = 2\n"));
    std::map<std::string, int> drawn;
    for (std::uint64_t fight = 0; fight < 4000; ++fight) {
        const Drawn find = draw_of_find(blade_of(a), {1, 0}, fight, 1);
        REQUIRE(find.affixes.size() == 1);
        ++drawn[a.at(find.affixes[0]).id];
    }
    CHECK(std::abs(drawn["blunt"] - 1500) < 120);
    CHECK(std::abs(drawn["sharp"] - 500) < 80);
    CHECK(std::abs(drawn["rare"] - 2000) < 130);
    const Armoury low = armoury(duel() + edges + blade());
    CHECK(blade_of(low).affixes.at(0).affixes.size() == 2); // the rare one comes at level 2
}

TEST_CASE("a journey puts on the better find, with what was drawn for it", "[M44b][M97]") {
    // 400 health: with 10 a blow too slow, with 18 in time. A find is sharp one time in four.
    const Armoury a = armoury(
        with(duel(), "[combat]\n", "[combat]\ntime_limit = 30\n") + edges +
        blade("source = \"drop\"\n") +
        "[foe.wall]\nbase = { max_health = 400 }\nactions = [\"rest\"]\n[encounter.wall]\nfoes = [ "
        "{ foe = \"wall\" } ]\n[encounter.dummy]\nfoes = [ { foe = \"dummy\" } "
        "]\n[drops.blades]\nitems = [\"blade\"]\n[journey.way]\ncharacter = \"hero\"\nstart = "
        "\"bare\"\nstage = [ { encounter = \"dummy\", drops = \"blades\" }, { encounter = "
        "\"wall\", tries = 1 } ]\n");
    const JourneySummary summary = run_journey(a, a.journeys[0], {2000, 1});
    REQUIRE_FALSE(summary.error);
    CHECK(std::abs(static_cast<double>(summary.finished) / 2000 - 0.25) < 0.04);
}

TEST_CASE("on paper the worst and the best of affixes are compared", "[M44b][M82]") {
    const auto outclassed = [](const std::string& one, const std::string& other) {
        const Armoury a =
            armoury(duel() + edges + piece("one", "hand", one) + piece("other", "hand", other));
        return ids(a, compare_on_paper(a)[0].outclassed_by) + "| " +
               ids(a, compare_on_paper(a)[0].twins);
    };
    const auto adds = [](const std::string& attack) {
        return "add = { attack = " + attack + " }\n";
    };
    const std::string edge = "affixes = [\"edge\"]\n";
    CHECK(outclassed(edge, edge) == "| other ");
    CHECK(outclassed(edge, edge + adds("1")) == "other | ");
    CHECK(outclassed(edge, adds("2")) == "| ");       // its mean, but never sharp
    CHECK(outclassed(edge, adds("8")) == "other | "); // as good as the best
    CHECK(outclassed(adds("1"), edge) == "| ");       // mostly blunt
}

TEST_CASE("a card tells the worst and the best find", "[M44b]") {
    const Armoury a = armoury(arena(edges + piece("blade", "hand", "affixes = [\"edge\"]\n") +
                                    wears("\"blade\"") + "[yardstick]\nencounter = \"bites\"\n"));
    const Appraisal appraisal =
        appraise(a, find_id<ItemKind>(a.items, "blade"), compare_on_paper(a));
    const Wearer& hero = appraisal.wearers.at(0);
    REQUIRE(hero.worst_rolled);
    CHECK(a.at(hero.ends.worst.affixes.at(0)).id == "blunt");
    CHECK(a.at(hero.ends.best.affixes.at(0)).id == "sharp");
    CHECK(*hero.worst_rolled == *hero.bare);
    CHECK(*hero.best_rolled > *hero.wearing);
}

TEST_CASE("an audit tells what affixes make of an item, as by giving them to it", "[M44b][M81]") {
    // Rotten by itself: of each draw the worst and the best, the rest in its middle.
    const std::string more =
        edges +
        "[affix.rotten]\ntags = [\"grip\"]\nadd = { attack = -3 }\n[affix.oiled]\ntags = "
        "[\"grip\"]\nadd = { attack = 1 }\n" +
        piece("rival", "hand", "add = { attack = 5 }\n");
    const auto judged = [&](const std::string& keys) {
        const Armoury a = armoury(flat(more + piece("found", "hand", keys)));
        const AuditResult result = audit(Judging(a), {});
        for (const ItemVerdict& one : result.items)
            if (a.at(one.item).id == "found") return one;
        FAIL("not judged");
        return ItemVerdict{};
    };
    const ItemVerdict found = judged("add = { attack = 2 }\naffixes = [\"edge\", \"grip\"]\n");
    REQUIRE(found.rolled);
    INFO(found.sentence);
    CHECK(found.rolled->worst == judged("add = { attack = -1 }\n").verdict);
    CHECK(found.rolled->best == judged("add = { attack = 11 }\n").verdict);
    CHECK_THAT(found.rolled->spread, WithinAbs(std::log(21.0 / 9), 1e-3));
    CHECK_FALSE(judged("add = { attack = 2 }\n").rolled);
}
