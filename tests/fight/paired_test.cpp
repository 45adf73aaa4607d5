// Two fights under the same luck (M67), and whether trials tell them apart (M94).
#include "support/armouries.h"

#include "fight/paired.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <tbb/global_control.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// The hero against a biter that misses now and then, so that luck decides something.
std::string chancy(const std::string& attack) {
    const std::string luck = with(duel(), "[combat]\n", "[combat]\nhit = \"0.8\"\nspread = 0.2\n");
    return with(luck, "attack = 10, might", "attack = " + attack + ", might") + biter(100);
}

struct Pair {
    Pair(const std::string& one, const std::string& other)
        : first(armoury(one)),
          second(armoury(other)),
          one_bout(first, "bare", "bites"),
          other_bout(second, "bare", "bites") {}

    PairedTrials run(std::uint64_t trials) {
        return run_paired({first, one_bout.setup}, {second, other_bout.setup}, {trials, 1, 1});
    }

    Armoury first, second;
    Bout one_bout, other_bout;
};

} // namespace

TEST_CASE("a fight and itself differ in nothing", "[M67][M94]") {
    const PairedTrials same = Pair(chancy("10"), chancy("10")).run(200);
    for (const Moments& difference : same.differences) {
        CHECK(difference.count == 200);
        CHECK(difference.squares == 0);
        const Difference found = find_difference(difference);
        CHECK_FALSE(found.told);
        CHECK_FALSE(found.needed.has_value());
    }
    CHECK(same.first_margins == same.second_margins);
}

TEST_CASE("each side of a pair is the run of its own", "[M67]") {
    Pair pair(chancy("10"), chancy("12"));
    const PairedTrials both = pair.run(300);
    const TrialsSummary alone = run_trials(pair.second, pair.other_bout.setup, {300, 1, 1});
    CHECK(both.second.won == alone.won);
    CHECK(both.second.times_won == alone.times_won);
    CHECK(both.second.dealt.squares == alone.dealt.squares);
    CHECK(both.of(Measure::time).sum == Approx(both.second.time.sum - both.first.time.sum));
    CHECK(both.of(Measure::wins).sum ==
          static_cast<double>(both.second.won) - static_cast<double>(both.first.won));
}

TEST_CASE("a stronger attack is told, by its own size", "[M94][M70]") {
    // Half as much again each blow: no luck makes that less.
    const PairedTrials trials = Pair(chancy("10"), chancy("15")).run(300);
    const Difference margin = find_difference(trials.of(Measure::log_margin));
    CHECK(margin.told);
    CHECK(margin.estimate.low > 0);
    // Margins scale both health and damage, so half as much damage more is its root.
    CHECK(std::exp(margin.estimate.mean) == Approx(std::sqrt(1.5)).margin(0.05));
    CHECK(find_difference(trials.of(Measure::wins)).told);
}

TEST_CASE("where trials can't tell, the number that is named does", "[M94]") {
    Pair pair(chancy("10"), chancy("10.1"));
    const Difference few = find_difference(pair.run(100).of(Measure::wins));
    REQUIRE_FALSE(few.told);
    REQUIRE(few.needed.has_value());
    CHECK(*few.needed > 100);
    // The named number is an estimate; twice as many leave room for its error.
    const auto enough = static_cast<std::uint64_t>(2 * *few.needed);
    CHECK(find_difference(pair.run(enough).of(Measure::wins)).told);
}

TEST_CASE("a pair is the same for any number of threads", "[M67]") {
    Pair pair(chancy("10"), chancy("11"));
    const PairedTrials two = pair.run(500);
    const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
    const PairedTrials alone = pair.run(500);
    for (std::size_t m = 0; m < measure_count; ++m) {
        CHECK(two.differences[m].sum == alone.differences[m].sum);
        CHECK(two.differences[m].squares == alone.differences[m].squares);
    }
    CHECK(two.first_margins == alone.first_margins);
}

TEST_CASE("pairs go on until the difference of wins is known as closely as asked", "[M94]") {
    Pair pair(chancy("10"), chancy("11"));
    const PairedTrials within =
        run_paired_within({pair.first, pair.one_bout.setup}, {pair.second, pair.other_bout.setup},
                          {100, 1, 1}, 0.03, 100000);
    const Estimate wins = estimate_mean(within.of(Measure::wins));
    CHECK(wins.high - wins.mean <= 0.03);
    CHECK(within.first.trials == within.second.trials);
    const PairedTrials at_once = pair.run(within.first.trials);
    CHECK(at_once.of(Measure::wins).sum == within.of(Measure::wins).sum);
    CHECK(at_once.first_margins == within.first_margins);
}

TEST_CASE("a difference has its interval, and how many would tell it", "[M94]") {
    Moments moments;
    for (const double x : {-1.0, 0.0, 2.0, 3.0}) moments.add(x);
    const Difference found = find_difference(moments);
    CHECK(found.estimate.mean == 1);
    CHECK_FALSE(found.told);
    const double half = found.estimate.high - 1;
    CHECK(*found.needed == std::ceil(4 * half * half));
    Moments none;
    for (int i = 0; i < 5; ++i) none.add(0);
    CHECK_FALSE(find_difference(none).needed.has_value());
}

TEST_CASE("as many trials are won as have a margin of at least 1", "[M70]") {
    Pair pair(chancy("10"), chancy("10"));
    const PairedTrials trials = pair.run(400);
    const auto matched = static_cast<double>(
        trials.first_margins.end() -
        std::lower_bound(trials.first_margins.begin(), trials.first_margins.end(), 1.0));
    // Only margins within the half percent that a bisection leaves open may be on the other side.
    const auto open = static_cast<double>(
        std::upper_bound(trials.first_margins.begin(), trials.first_margins.end(), 1.005) -
        std::lower_bound(trials.first_margins.begin(), trials.first_margins.end(), 0.995));
    CHECK(std::abs(matched - static_cast<double>(trials.first.won)) <= open);
    CHECK(trials.first.won > 0);
    CHECK(trials.first.won < 400);
}
