// What is rolled for each find: the middle everywhere, the ends in cards and audits (M44a).
#include "journey/finds.h"
#include "judge/appraise/appraisal.h"
#include "judge/audit/audit.h"
#include "judge/paper/paper.h"
#include "outfit/change.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>

using namespace panoplon;
using namespace panoplon::test;
using Catch::Matchers::WithinAbs;

namespace {

const Item& item_of(const Armoury& armoury, const std::string& id) {
    return armoury.at(find_id<ItemKind>(armoury.items, id));
}

const ItemVerdict& verdict_of(const Armoury& armoury, const AuditResult& result,
                              const std::string& id) {
    for (const ItemVerdict& one : result.items)
        if (armoury.at(one.item).id == id) return one;
    FAIL(id << " is not judged");
    return result.items.front();
}

} // namespace

TEST_CASE("what is rolled counts with its middle, and knows its worse end", "[M44a]") {
    const Armoury a =
        armoury(with(duel(), "[stat.haste]\n", "[stat.haste]\nbetter = \"lower\"\n") +
                piece("blade", "hand",
                      "add = { attack = 4, guard = 1 }\nadd_up_to = { attack = 9, haste = "
                      "3 }\n"));
    const Item& blade = item_of(a, "blade");
    REQUIRE(blade.rolls.size() == 2);
    CHECK(blade.rolls[0] == Roll{find_id<StatKind>(a.stats, "attack"), 4, 9, 1});
    CHECK(blade.rolls[1] == Roll{find_id<StatKind>(a.stats, "haste"), 3, 0, 1});
    CHECK(blade.modifiers.add.size() == 3);
    CHECK(blade.modifiers.add[0].amount == 6.5);
    // By even luck 16.5 a blow: 100 health last for 100 / 16.5.
    const Armoury worn =
        armoury(duel() +
                piece("blade", "hand",
                      "add = { attack = 4 }\nadd_up_to = { "
                      "attack = 9 }\n") +
                "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"blade\" }\n");
    CHECK_THAT(Bout(worn, "l", "spar").even().time, WithinAbs(100 / 16.5, 1e-6));
}

TEST_CASE("what stats say of rolls does not hang on which file is read first", "[M44a]") {
    const ReadArmoury result =
        read(with(duel(), "[stat.haste]\n", "[stat.haste]\nbetter = \"lower\"\nstep = 2\n"),
             {{"a_gear.toml",
               piece("blade", "hand", "add = { haste = 1 }\nadd_up_to = { haste = 7 }\n")}});
    INFO(mistakes(result));
    REQUIRE(result.usable());
    CHECK(item_of(result.armoury, "blade").rolls.at(0) ==
          Roll{find_id<StatKind>(result.armoury.stats, "haste"), 7, 1, 2});
}

TEST_CASE("one that is worn with its own rolls counts with those", "[M44a]") {
    const Armoury a = armoury(duel() + piece("blade", "hand",
                                             "tier = \"fine\"\nadd = { attack = 4 "
                                             "}\nadd_up_to = { attack = 9 }\n"));
    Deriver deriver(a);
    Outfit outfit = outfit_of(a, a.loadouts[0], 1);
    const ItemId blade = find_id<ItemKind>(a.items, "blade");
    REQUIRE(
        put_on(deriver, outfit, blade, {{{find_id<StatKind>(a.stats, "attack"), 8}}, {}}).done());
    CHECK(outfit_stats(deriver, outfit, no_band)[0] == 10 + 2 * 8); // the tier's factor counts too
    REQUIRE(put_on(deriver, outfit, blade).done());
    CHECK(outfit_stats(deriver, outfit, no_band)[0] == 10 + 2 * 6.5);
}

TEST_CASE("a find rolls each of its numbers, every value as often", "[M44a]") {
    const Armoury a =
        armoury(with(duel(), "[stat.keen]\n", "[stat.keen]\nstep = 2\n") +
                piece("blade", "hand",
                      "add = { attack = 4, guard = 0.5, keen = 10 }\nadd_up_to = { attack = "
                      "8, guard = 1.5, keen = 4 }\n"));
    const Item& blade = item_of(a, "blade");
    std::map<double, int> attacks, keens;
    double least = 9, most = 0;
    for (std::uint64_t fight = 0; fight < 2000; ++fight) {
        const std::vector<Amount> rolled = draw_of_find(blade, {1, 0}, fight, 1).rolled;
        REQUIRE(rolled.size() == 3);
        ++attacks[rolled[0].amount];
        least = std::min(least, rolled[1].amount);
        most = std::max(most, rolled[1].amount);
        ++keens[rolled[2].amount];
    }
    CHECK(attacks.size() == 5);
    for (const auto& [value, times] : attacks) CHECK(std::abs(times - 400) < 90);
    CHECK(keens.size() == 4); // 4, 6, 8 and 10
    CHECK(keens.begin()->first == 4);
    CHECK(least >= 0.5);
    CHECK(least < 0.51);
    CHECK(most < 1.5);
    CHECK(most > 1.49);
    CHECK(draw_of_find(blade, {1, 0}, 5, 1) != draw_of_find(blade, {1, 0}, 5, 2));
}

TEST_CASE("on paper ends are compared with ends", "[M44a][M82]") {
    const auto outclassed = [](const std::string& one, const std::string& other) {
        const Armoury a =
            armoury(duel() + piece("one", "hand", one) + piece("other", "hand", other));
        return ids(a, compare_on_paper(a)[0].outclassed_by) + "| " +
               ids(a, compare_on_paper(a)[0].twins);
    };
    const auto rolled = [](const std::string& low, const std::string& high) {
        return "add = { attack = " + low + " }\nadd_up_to = { attack = " + high + " }\n";
    };
    CHECK(outclassed(rolled("5", "9"), rolled("6", "10")) == "other | ");
    CHECK(outclassed(rolled("5", "9"), rolled("4", "12")) == "| "); // its worst is worse
    CHECK(outclassed(rolled("5", "9"), rolled("5", "9")) == "| other ");
    CHECK(outclassed(rolled("5", "9"), "add = { attack = 7 }\n") == "| ");
    CHECK(outclassed(rolled("5", "9"), "add = { attack = 9 }\n") == "other | ");
}

TEST_CASE("an audit tells what the rolls make of an item, as by setting them", "[M44a][M81]") {
    // The margin goes with attack: 10 bare, 15 with the rival, 12 to 20 with what rolls.
    const std::string rival = piece("rival", "hand", "add = { attack = 5 }\n");
    const auto judged = [&](const std::string& keys) {
        const Armoury a = armoury(flat(rival + piece("found", "hand", keys)));
        const AuditResult result = audit(Judging(a), {});
        const ItemVerdict& verdict = verdict_of(a, result, "found");
        CHECK_FALSE(verdict_of(a, result, "rival").rolled);
        return verdict;
    };
    const ItemVerdict rolled =
        judged("add = { guard = 1, attack = 2 }\nadd_up_to = { attack = 10 }\n");
    REQUIRE(rolled.rolled);
    INFO(rolled.sentence << " | " << judged("add = { guard = 1, attack = 2 }\n").sentence);
    CHECK(rolled.rolled->worst == judged("add = { guard = 1, attack = 2 }\n").verdict);
    CHECK(rolled.rolled->best == judged("add = { guard = 1, attack = 10 }\n").verdict);
    CHECK_THAT(rolled.rolled->spread, WithinAbs(std::log(20.0 / 12), 1e-3));
    CHECK_THAT(rolled.rolled->thing, WithinAbs(std::log(16.0 / 10), 1e-3));
    CHECK(rolled.rolled->outweigh());
    CHECK(has(rolled.sentence, "With its worst rolls it is"));
    CHECK(has(rolled.sentence, "The rolls matter more than the thing: from the worst to the best "
                               "they move the margin by 66.7 %, having it by 60.0 %."));
    const ItemVerdict steady =
        judged("add = { guard = 1, attack = 6 }\nadd_up_to = { attack = 6.2 }\n");
    REQUIRE(steady.rolled);
    INFO(steady.sentence);
    CHECK_FALSE(steady.rolled->outweigh());
    CHECK_FALSE(has(steady.sentence, "rolls"));
    CHECK_FALSE(judged("add = { guard = 1, attack = 6 }\nadd_up_to = { attack = 6 }\n").rolled);
}
