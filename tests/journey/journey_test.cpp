// Journeys and what they find: drop tables against their closed form, a forced path against
// arithmetic, units conserved.
#include "support/armouries.h"

#include "journey/finds.h"
#include "journey/journey.h"
#include "journey/progress.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numeric>
#include <tbb/global_control.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Gear of two tiers that drops, and a way with two stages. The hero fells the dummy in 10 blows of
/// 10, the last at time 9; the dummy does nothing, so every fight is won.
std::string road(const std::string& keys = {}, const std::string& stage_keys = {}) {
    const std::string tiers =
        with(with(duel(), "[tier.plain]\nrank = 1\n", "[tier.plain]\nrank = 1\ndrop_weight = 60\n"),
             "[tier.fine]\nrank = 2\n", "[tier.fine]\nrank = 2\ndrop_weight = 20\n");
    return tiers +
           "[item.club]\nslot = \"hand\"\ntier = \"plain\"\ntags = [\"wood\"]\n"
           "[item.stick]\nslot = \"hand\"\ntier = \"plain\"\ntags = [\"wood\"]\n"
           "[item.rod]\nslot = \"hand\"\ntier = \"fine\"\ntags = [\"wood\"]\nadd = { attack = 1 }\n"
           "[item.staff]\nslot = \"hand\"\ntier = \"fine\"\nlevel = 9\ntags = [\"wood\"]\n"
           "[item.nut]\nstack = 99\nuse = { restore = { breath = 1 } }\n"
           "[upgrade.grit]\nmax = 3\nadd = { guard = 1 }\ncost = \"10 + 5 * bought\"\n"
           "[drops.grove]\nrolls = 1\nitems = { tags = [\"wood\"], level_band = 4 }\n" +
           keys +
           "\n[journey.way]\ncharacter = \"hero\"\nstart = \"bare\"\npolicy = \"first\"\n"
           "[[journey.way.stage]]\nencounter = \"spar\"\nwins = 3\nlevel_gain = 2\n" +
           stage_keys + "\n[[journey.way.stage]]\nencounter = \"spar\"\nwins = 2\n";
}

JourneySummary play(const Armoury& armoury, std::uint64_t trials = 64) {
    const JourneySummary summary = run_journey(armoury, armoury.journeys[0], {trials, 1});
    if (summary.error) FAIL(summary.error->message);
    return summary;
}

const ItemSummary& item(const Armoury& armoury, const JourneySummary& summary,
                        const std::string& id) {
    return summary.items[find_id<ItemKind>(armoury.items, id).index()];
}

double share(const Armoury& armoury, const FindTable& table, double luck, const std::string& id) {
    for (const FindTable::Entry& entry : table.entries(luck))
        if (armoury.at(entry.item).id == id) return entry.share;
    return 0;
}

} // namespace

TEST_CASE("finds draw a tier by its weight, then one of its items", "[M97]") {
    const Armoury a = armoury(road());
    const FindTable low(a, a.drops[0], 1);
    // 60 to 20; two plain items, and of the fine ones the staff is too high.
    CHECK(share(a, low, 0, "club") == Approx(0.375));
    CHECK(share(a, low, 0, "stick") == Approx(0.375));
    CHECK(share(a, low, 0, "rod") == Approx(0.25));
    CHECK(share(a, low, 0, "staff") == 0);
    const FindTable higher(a, a.drops[0], 5);
    // 60 to 40, and the staff is within the band.
    CHECK(share(a, higher, 1, "club") == Approx(0.3));
    CHECK(share(a, higher, 1, "staff") == Approx(0.2));
    CHECK(share(a, higher, -1, "rod") == 0);
    CHECK(share(a, higher, -1, "club") == Approx(0.5));
}

TEST_CASE("where nothing has a weight, nothing is found", "[M97]") {
    const Armoury a =
        armoury(with(road(), "rank = 1\ndrop_weight = 60\n", "rank = 1\ndrop_weight = 0\n"));
    const FindTable table(a, a.drops[0], 1);
    CHECK(share(a, table, 0, "rod") == 1);
    CHECK(table.entries(-1).empty());
    CHECK_FALSE(table.pick(-1, 0.5));
}

TEST_CASE("what a draw picks is as often as its share", "[M97]") {
    const Armoury a = armoury(road());
    const FindTable table(a, a.drops[0], 1);
    const double luck = 0.3;
    const std::vector<FindTable::Entry> entries = table.entries(luck);
    CHECK(table.pick(luck, 0) == entries.front().item);
    CHECK(table.pick(luck, std::nextafter(1, 0)) == entries.back().item);
    std::vector<double> counts(a.items.size(), 0);
    constexpr int draws = 20000;
    for (int i = 0; i < draws; ++i)
        counts[table.pick(luck, find_draw({1, 0}, static_cast<std::uint64_t>(i), 0))->index()] += 1;
    for (const FindTable::Entry& entry : entries) {
        // Five standard deviations.
        const double five = 5 * std::sqrt(draws * entry.share * (1 - entry.share));
        CHECK(std::abs(counts[entry.item.index()] - draws * entry.share) < five);
    }
}

TEST_CASE("the mean of finds is what the rolls say", "[M97]") {
    CHECK(count_finds(2, 0.99) == 2);
    CHECK(count_finds(0, 0) == 0);
    CHECK(count_finds(1.25, 0.2) == 2);
    CHECK(count_finds(1.25, 0.25) == 1);
}

TEST_CASE("a way on which nothing is left to chance is as arithmetic has it", "[M97]") {
    const Armoury a = armoury(road("", "coin = 10"));
    const JourneySummary summary = play(a);
    CHECK(summary.trials == 64);
    CHECK(summary.finished == 64);
    CHECK(summary.fights == 64 * 5);
    const StageSummary& first = summary.stages[0];
    CHECK(first.tries.mean() == 3);
    CHECK(first.level.mean() == 3);
    // Ten blows of 10, the last at 9; at level 3 nine of 12, the last at 8.
    CHECK(first.time.mean() == 27);
    CHECK(summary.stages[1].time.mean() == 27 + 2 * 8);
    // 30 coin: 10 and 15 are spent, 5 are left; the second stage gives none.
    CHECK(first.coin.mean() == 5);
    CHECK(summary.upgrades[0] == 64 * 2);
    CHECK(summary.fights_at[0] == 64 * 3);
    CHECK(summary.fights_at[2] == 64 * 2);
}

TEST_CASE("a stage that is not won within its tries ends the journey there", "[M97]") {
    const std::string text = with(road(), "[encounter.spar]\nfoes = [ { foe = \"dummy\" } ]",
                                  "[encounter.spar]\nfoes = [ { foe = \"biter\" } ]") +
                             biter(1000);
    const Armoury a = armoury(with(text, "level_gain = 2\n", "level_gain = 2\ntries = 7\n"));
    const JourneySummary summary = play(a);
    CHECK(summary.finished == 0);
    CHECK(summary.stages[0].passed == 0);
    CHECK(summary.stages[0].tries.mean() == 7);
    CHECK(summary.stages[1].reached == 0);
}

TEST_CASE("policies: first, higher tier, best", "[M97]") {
    const auto worn = [](const std::string& policy, const std::string& id) {
        const Armoury a = armoury(with(road("", "drops = \"grove\""), "policy = \"first\"",
                                       "policy = \"" + policy + "\""));
        const JourneySummary summary = play(a, 512);
        return item(a, summary, id);
    };
    // Whoever wears what came first keeps it.
    CHECK(worn("first", "club").worn_in == worn("first", "club").kept_in);
    CHECK(worn("first", "rod").worn_in < worn("first", "rod").found_in);
    // A rod is the higher tier, and the better one: nobody who finds it goes without.
    for (const char* policy : {"tier", "best"}) {
        const ItemSummary rod = worn(policy, "rod");
        CHECK(rod.worn_in == rod.found_in);
        CHECK(std::accumulate(rod.fights_worn_at.begin(), rod.fights_worn_at.end(), 0.0) ==
              rod.fights_worn);
        CHECK(rod.kept_in == rod.worn_in);
        CHECK(worn(policy, "club").kept_in < worn(policy, "club").found_in);
    }
    // A club does nothing, so the best is not to bother.
    CHECK(worn("best", "club").worn_in == 0);
    CHECK(worn("tier", "club").worn_in > 0);
}

TEST_CASE("units are conserved, and a full bag leaves what it can't hold", "[M41a][M54][M97]") {
    const std::string nuts =
        with(road("count = { nut = 60 }\n", "drops = \"grove\""),
             "items = { tags = [\"wood\"], level_band = 4 }", "items = [\"nut\"]") +
        "[carry]\ncapacity = \"1000\"\nbag = 1\n";
    const Armoury a = armoury(nuts);
    const JourneySummary summary = play(a); // a unit too many or too few is an error
    // Three finds of 60 and one stack of 99.
    CHECK(item(a, summary, "nut").found.mean() == 180);
    CHECK(item(a, summary, "nut").left.mean() == 81);
}

TEST_CASE("who finds what it carries puts that on, and leaves the other", "[M41a][M97]") {
    const std::string carried = with(road("", "drops = \"grove\""), "[loadout.bare]\n",
                                     "[loadout.bare]\npack = { rod = 1 }\n");
    const Armoury a = armoury(with(carried, "policy = \"first\"", "policy = \"best\""));
    const JourneySummary summary = play(a, 256); // a unit too many is an error
    CHECK(item(a, summary, "rod").worn_in > 0);
    CHECK(item(a, summary, "rod").left.sum == item(a, summary, "rod").found.sum);
}

TEST_CASE("journeys are the same for any number of threads", "[M67]") {
    const Armoury demo = demo_armoury();
    const JourneySummary two = run_journey(demo, demo.journeys[0], {130, 3});
    const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
    const JourneySummary alone = run_journey(demo, demo.journeys[0], {130, 3});
    REQUIRE_FALSE(two.error); // its units are conserved too
    CHECK(two.finished == alone.finished);
    CHECK(two.fights == alone.fights);
    for (std::size_t s = 0; s < two.stages.size(); ++s) {
        CHECK(two.stages[s].power == alone.stages[s].power);
        CHECK(two.stages[s].time.sum == alone.stages[s].time.sum);
    }
    for (std::size_t i = 0; i < two.items.size(); ++i)
        CHECK(two.items[i].fights_worn == alone.items[i].fights_worn);
}

namespace {

/// Trials that stood at these points: level, time, power.
JourneySummary stood(std::vector<Way> ways) {
    JourneySummary summary;
    summary.trials = ways.size();
    summary.ways = std::move(ways);
    return summary;
}

} // namespace

TEST_CASE("progress by level: when it was first reached, and the power it was left with", "[M97]") {
    const JourneySummary summary =
        stood({{{1, 0, 1}, {1, 10, 2}, {3, 20, 3}, {3, 40, 5}}, {{1, 0, 1}, {1, 12, 4}}});
    const std::vector<LevelProgress> levels = progress_by_level(summary);
    REQUIRE(levels.size() == 2);
    CHECK(levels[0].level == 1);
    CHECK(levels[0].reached == 2);
    CHECK(levels[0].time.p90 == 0);
    CHECK(levels[0].power->p50 == 3); // 2 and 4
    CHECK(levels[1].level == 3);
    CHECK(levels[1].reached == 1);
    CHECK(levels[1].time.p50 == 20);
    CHECK(levels[1].power->p50 == 5);
}

TEST_CASE("progress over time: who is still under way, and where it last stood", "[M97]") {
    const JourneySummary summary =
        stood({{{1, 0, 1}, {1, 10, 2}, {2, 100, 3}}, {{1, 0, 1}, {1, 10, 4}}});
    const std::vector<TimeProgress> moments = progress_over_time(summary, 11);
    REQUIRE(moments.size() == 11);
    CHECK(moments.front().under_way == 2);
    CHECK(moments.front().power.p50 == 1);
    // The tenth of the trials that is longest under way ends at 91.
    CHECK(moments.back().time == Approx(91));
    CHECK(moments[1].time == Approx(9.1));
    CHECK(moments[1].under_way == 2);
    CHECK(moments[1].power.p90 == 1);
    CHECK(moments[2].under_way == 1); // the other ended at 10
    CHECK(moments[2].power.p50 == 2);
    CHECK(progress_over_time(stood({{{1, 0, 0}, {1, 10, 0}}}), 11).empty()); // no yardstick
}

TEST_CASE("a journey's power is held against the corridor of its level", "[M96][M97]") {
    const Armoury a = armoury(with(road(), "[encounter.spar]\n",
                                   "[yardstick]\nencounter = \"spar\"\nwanted_low = \"level\"\n"
                                   "wanted_high = \"2 * level\"\n[encounter.spar]\n"));
    const auto level = [](int at, double power) {
        LevelProgress progress;
        progress.level = at;
        progress.power = Percentiles{power, power, power};
        return progress;
    };
    const std::vector<Straying> list =
        find_straying(a, {level(1, 1.5), level(2, 1.9), level(3, 2.9), level(4, 9), level(5, 10)});
    REQUIRE(list.size() == 2);
    CHECK(list[0].level == 2);
    CHECK(list[0].side == -1);
    CHECK(list[0].low == 2);
    CHECK(list[1].level == 4);
    CHECK(list[1].side == 1);
    CHECK(list[1].high == 8);
}

TEST_CASE("power on the way is that of what is worn and of the level by then", "[M97]") {
    const Armoury a =
        armoury(with(with(road("", "drops = \"grove\""), "[encounter.spar]\n",
                          "[yardstick]\nencounter = \"spar\"\n[encounter.spar]\n"),
                     "items = { tags = [\"wood\"], level_band = 4 }", "items = [\"rod\"]"));
    const Way way = play(a, 1).ways.front();
    REQUIRE(way.size() == 3);
    // The dummy does nothing, so power goes with attack: 10; 12 at level 3, and 2 by the rod of a
    // tier that doubles what it adds.
    CHECK(way[1].power / way[0].power == Approx(1.4).epsilon(1e-3));
    CHECK(way[2].power == way[1].power);
}

TEST_CASE("a journey that ends for want of gear says which", "[M97]") {
    const std::string text =
        with(road(), "[encounter.spar]\n",
             "[encounter.gate]\nfoes = [ { foe = \"dummy\" } ]\n"
             "requires = { worn = [], carried = [\"rod\"] }\n[encounter.spar]\n");
    const Armoury a = armoury(with(text, "[[journey.way.stage]]\nencounter = \"spar\"\nwins = 2",
                                   "[[journey.way.stage]]\nencounter = \"gate\"\nwins = 2"));
    const JourneySummary summary = play(a);
    CHECK(summary.stages[0].missing.empty());
    REQUIRE(summary.stages[1].missing.size() == 1);
    CHECK(summary.stages[1].missing.begin()->first ==
          "gate asks for rod to be carried; it is not there");
    CHECK(summary.stages[1].missing.begin()->second == 64);
    CHECK(summary.stages[1].passed == 0);
}

TEST_CASE("stocks are what is in the pack at the end of a stage", "[M97]") {
    const Armoury a =
        armoury(with(road("count = { nut = 4 }\n", "drops = \"grove\""),
                     "items = { tags = [\"wood\"], level_band = 4 }", "items = [\"nut\"]"));
    const JourneySummary summary = play(a);
    const std::size_t nut = find_id<ItemKind>(a.items, "nut").index();
    // Three finds of four, in each trial; breath is never short, so none is used.
    CHECK(summary.stages[0].stock[nut] == 64 * 12);
    CHECK(summary.stages[1].stock[nut] == 64 * 12);
}
