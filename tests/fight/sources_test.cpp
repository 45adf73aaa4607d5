// The ledger by source (M91), and what a player notices (M92).
#include "support/armouries.h"

#include "fight/trials.h"

#include <catch2/catch.hpp>
#include <numeric>

using namespace panoplon;
using namespace panoplon::test;

namespace {

double sum_of(const std::vector<double>& values) {
    return std::accumulate(values.begin(), values.end(), 0.0);
}

/// What every source gave of a pool, restored and wasted.
Given sum_given(const FightResult& result, std::size_t pool) {
    Given sum;
    for (std::size_t s = 0; s < result.shape.sources(); ++s) {
        const Given& given = result.given[s * result.shape.pools + pool];
        sum.restored += given.restored;
        sum.wasted += given.wasted;
    }
    return sum;
}

void check_sums(const Armoury& armoury, const FightResult& result) {
    const std::size_t types = armoury.damages.size();
    for (std::size_t t = 0; t < types; ++t) {
        double dealt = 0;
        double taken = 0;
        for (std::size_t a = 0; a < armoury.actions.size(); ++a) {
            dealt += result.dealt_by_action[a * types + t];
            taken += result.taken_by_action[a * types + t];
        }
        CHECK(dealt == Approx(result.dealt[t]).margin(1e-9));
        CHECK(taken == Approx(result.taken[t]).margin(1e-9));
    }
    double by_action = 0;
    for (const ActionCount& count : result.actions) by_action += count.dealt;
    CHECK(by_action + sum_of(result.dealt_by_effect) == Approx(result.all_dealt()));
    for (std::size_t p = 0; p < armoury.pools.size(); ++p) {
        CHECK(sum_given(result, p).restored == Approx(result.restored[p]).margin(1e-6));
        CHECK(sum_given(result, p).wasted == Approx(result.wasted[p]).margin(1e-6));
    }
}

} // namespace

TEST_CASE("what each source did adds up to what was done, by trials and by even luck",
          "[M91][M68]") {
    const Armoury demo = demo_armoury();
    struct Where {
        const char *loadout, *encounter;
        int level;
    };
    for (const Where& where :
         {Where{"ringer_late", "drip_cellar", 26}, Where{"warden_middle", "long_watch", 18},
          Where{"runner_late", "skim_reach", 28}, Where{"warden_early", "muster", 9}}) {
        INFO(where.loadout << " against " << where.encounter);
        Bout bout(demo, where.loadout, where.encounter, where.level);
        for (std::uint64_t trial = 0; trial < 5; ++trial) check_sums(demo, bout.trial(trial));
        check_sums(demo, bout.even());
    }
}

TEST_CASE("every blow of a trial is a hit, a miss or warded off", "[M62]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "runner_middle", "skim_reach", 18);
    for (std::uint64_t trial = 0; trial < 5; ++trial) {
        const FightResult result = bout.trial(trial);
        for (std::size_t a = 0; a < demo.actions.size(); ++a) {
            const ActionCount& count = result.actions[a];
            CHECK(count.crits <= count.hits);
            if (demo.actions[a].targets == 1)
                CHECK(count.hits + count.misses + count.warded == count.done);
        }
    }
}

TEST_CASE("a consumable has what it restored and wasted, and the time it cut off", "[M91][M20]") {
    // Used at 0, 4 and 8: each renewal cuts 6 of 10 off; 100 are missing from nobody.
    const std::string text =
        with(duel(), "base = { max_health = 100 }\n", "base = { max_health = 120 }\n") +
        "[effect.glow]\nadd = { keen = 1 }\n"
        "[item.vial]\nuse = { restore = { health = 30 }, effect = \"glow\", duration = 10, "
        "cooldown = 4 }\n"
        "[loadout.l]\ncharacter = \"hero\"\npack = { vial = 3 }\n"
        "[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"1\"\n";
    const Armoury a = armoury(text);
    const FightResult result = Bout(a, "l", "spar").trial(0);
    CHECK(result.uses[0].used == 3);
    CHECK(result.uses[0].left == 0);
    CHECK(result.uses[0].cut == 12);
    CHECK(result.effects[0].cut == 12);
    CHECK(result.given_by(Origin::Kind::packed, 0, PoolId(0)).wasted == 90);
    CHECK(result.given_by(Origin::Kind::packed, 0, PoolId(0)).restored == 0);
}

TEST_CASE("what a renewed regen of an effect gives stands under the effect", "[M91]") {
    const std::string text = duel() + biter() +
                             "[effect.balm]\nper_time = { health = 3 }\n"
                             "[item.vial]\nuse = { effect = \"balm\", duration = 4 }\n"
                             "[loadout.l]\ncharacter = \"hero\"\npack = { vial = 1 }\n";
    const Armoury a = armoury(text);
    Bout bout(a, "l", "bites");
    // Falls 1, 2, 3 and 4 of 3 each, after a bite of 10 at every whole time.
    CHECK(bout.trial(0).given_by(Origin::Kind::effect, 0, PoolId(0)).restored == 12);
    CHECK(bout.even().given_by(Origin::Kind::effect, 0, PoolId(0)).restored == Approx(12));
}

TEST_CASE("how many hits fell whom is health over damage, rounded up", "[M92]") {
    const Armoury a = armoury(
        with(duel(), "[combat]\n", "[combat]\ncrit = \"0.1\"\ncrit_factor = \"2\"\n") + biter(95));
    const std::vector<BlowCount> blows = Bout(a, "bare", "bites").engine.blows();
    REQUIRE(blows.size() == 2);
    CHECK(blows[0].target == "biter");
    CHECK(blows[0].plain == 10);
    CHECK(blows[0].plain_hits() == 10); // nine leave 5
    CHECK(blows[0].critical_hits() == 5);
    CHECK(blows[1].actor == "biter");
    CHECK(blows[1].plain_hits() == 10); // ten tens are all of 100
}

TEST_CASE("hits that do nothing never fell", "[M92]") {
    CHECK_FALSE(BlowCount::hits(100, 0).has_value());
    CHECK_FALSE(BlowCount::hits(1e12, 1).has_value());
    CHECK(BlowCount::hits(0.3, 0.1) == 3); // three tenths over a tenth is a hair over 3
    CHECK(BlowCount::hits(5, 100) == 1);
}

TEST_CASE("foes of one kind are counted once, and allies are no foes", "[M92]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "warden_early", "muster", 9);
    std::vector<std::string> targets;
    for (const BlowCount& blow : bout.engine.blows()) targets.push_back(blow.target);
    CHECK(std::count(targets.begin(), targets.end(), "fogling") ==
          static_cast<std::ptrdiff_t>(bout.setup.actors[0].actions.size()));
    CHECK(targets.back() == "warden");
}
