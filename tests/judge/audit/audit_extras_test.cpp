// Upgrades, groups and pairs against closed forms: the margin goes with attack.
#include "support/armouries.h"
#include "support/audits.h"

#include "judge/audit/group_worth.h"
#include "judge/audit/pairs.h"
#include "judge/audit/upgrade_worth.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const std::string two_pieces = piece("blade", "hand", "add = { attack = 5 }\ntags = [\"red\"]") +
                               piece("cap", "head", "add = { attack = 5 }\ntags = [\"red\"]");

} // namespace

TEST_CASE("an upgrade adds what it multiplies the margin of the best by, level by level", "[M84]") {
    const Armoury a = armoury(flat(two_pieces + "[upgrade.arms]\nmax = 2\nadd = { attack = 5 }\n"
                                                "cost = \"10 * 2^bought\"\n"
                                                "[upgrade.idle]\nadd = { keen = 1 }\n"));
    const std::vector<UpgradeWorth> worth = judge_upgrades(a, audited(a));
    REQUIRE(worth.size() == 3);
    CHECK(worth[0].gain == Approx(25.0 / 20 - 1).epsilon(1e-3));
    CHECK(worth[1].gain == Approx(30.0 / 25 - 1).epsilon(1e-3));
    CHECK(worth[0].cost == 10);
    CHECK(worth[1].cost == 20);
    CHECK(*worth[1].per_hundred() == Approx(0.2 * 100 / 20).epsilon(1e-3));
    CHECK(worth[0].contexts == 2);
    CHECK(worth[0].least == Approx(worth[0].most).epsilon(1e-3));
    CHECK(worth[2].gain == Approx(0).margin(2e-4));
    CHECK(worth[2].cost == 0); // as the format has it where none is given
    CHECK_FALSE(worth[2].per_hundred());
}

TEST_CASE("a group is banned as one, and what stands in for it is found", "[M82]") {
    const Armoury a = armoury(flat(two_pieces + piece("stick", "hand", "add = { attack = 2 }") +
                                   piece("lone", "head", "tags = [\"alone\"]")));
    const AuditResult result = audited(a);
    const std::vector<GroupWorth> tags = judge_groups(a, result, GroupBy::tag);
    REQUIRE(tags.size() == 1); // one item is no group
    CHECK(tags[0].group.name == "red");
    CHECK(ids(a, tags[0].group.items) == "blade cap ");
    CHECK(tags[0].contexts == 2);
    CHECK(tags[0].picked == 1);
    CHECK(tags[0].pieces == 2);
    CHECK(tags[0].ban_loss == Approx(1 - 12.0 / 20).epsilon(1e-3));
    CHECK(tags[0].worst == Approx(1 - 12.0 / 20).epsilon(1e-3));
    CHECK(judge_groups(a, result, GroupBy::pattern).empty());
    CHECK(judge_groups(a, result, GroupBy::set).empty());
}

TEST_CASE("groups by pattern and by set hold what is like the pattern and what is of the set") {
    const Armoury a = armoury(
        flat("[pattern.p]\nadd = { attack = 1 }\n[set.s]\n[[set.s.step]]\ncount = 2\n"
             "add = { attack = 1 }\n" +
             piece("one", "hand", "like = \"p\"\nset = \"s\"") +
             piece("two", "head", "like = \"p\"\nset = \"s\"") + piece("other", "head", "")));
    for (const GroupBy by : {GroupBy::pattern, GroupBy::set}) {
        const std::vector<ItemGroup> groups = item_groups(a, by);
        REQUIRE(groups.size() == 1);
        CHECK(ids(a, groups[0].items) == "one two ");
    }
}

TEST_CASE("groups by tier stand by rank") {
    const Armoury a = armoury(flat(
        "[tier.a_high]\nrank = 9\n[tier.b_low]\nrank = 0\n" +
        piece("one", "hand", "tier = \"a_high\"") + piece("two", "head", "tier = \"a_high\"") +
        piece("three", "hand", "tier = \"b_low\"") + piece("four", "head", "tier = \"b_low\"")));
    const std::vector<ItemGroup> groups = item_groups(a, GroupBy::tier);
    REQUIRE(groups.size() == 2);
    CHECK(groups[0].name == "b_low");
    CHECK(groups[1].name == "a_high");
}

TEST_CASE("two sums take from each other, two factors do not, and a set's two pieces help",
          "[M93]") {
    const auto pairs_of = [](const std::string& more) {
        const Armoury a = armoury(flat(more));
        return find_pairs(a, {}, audited(a));
    };
    const std::vector<PairWorth> sums = pairs_of(two_pieces);
    REQUIRE(sums.size() == 1);
    CHECK(sums[0].together.mean == Approx(20.0 * 10 / (15 * 15) - 1).epsilon(1e-2));
    CHECK(sums[0].first_gain == Approx(20.0 / 15 - 1).epsilon(1e-2));
    CHECK(sums[0].seen >= 5);
    CHECK(pairs_of(piece("blade", "hand", "times = { attack = 1.5 }") +
                   piece("cap", "head", "times = { attack = 1.5 }"))
              .empty());
    const std::vector<PairWorth> set =
        pairs_of("[set.s]\n[[set.s.step]]\ncount = 2\ntimes = { attack = 1.5 }\n" +
                 piece("blade", "hand", "set = \"s\"\ntimes = { attack = 1.2 }") +
                 piece("cap", "head", "set = \"s\"\ntimes = { attack = 1.2 }"));
    REQUIRE(set.size() == 1);
    CHECK(set[0].together.mean == Approx(0.5).epsilon(1e-2));
}

TEST_CASE("pairs are the same for the same seed, and none are found where it was stopped") {
    const Armoury a = armoury(flat(two_pieces));
    const AuditResult result = audited(a);
    const auto one = find_pairs(a, {4, 7}, result);
    const auto two = find_pairs(a, {4, 7}, result);
    REQUIRE(one.size() == two.size());
    CHECK(one[0].together.mean == two[0].together.mean);
    const std::atomic<bool> stop = true;
    Watch stopped;
    stopped.stop = &stop;
    CHECK(find_pairs(a, {4, 7}, result, stopped).empty());
    CHECK(judge_groups(a, result, GroupBy::tag, stopped).empty());
}
