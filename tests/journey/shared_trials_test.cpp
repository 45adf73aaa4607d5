// Trials that several ranks do together are those that one does alone: fights, pairs of fights,
// margins, journeys.
#include "support/armouries.h"
#include "support/local_post.h"

#include "fight/trial_bytes.h"
#include "journey/journey_bytes.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// What the work comes to on each of so many ranks, as bytes.
template <class Work>
std::vector<std::string> told_on(std::size_t count, const Work& work) {
    std::vector<std::string> told(count);
    on_ranks(count, [&](std::size_t rank, Ranks& all) {
        told[rank] = bytes_of(work());
        all.leave();
    });
    return told;
}

/// That it is the same on any number of ranks as alone.
template <class Work>
void check_shared(const Work& work) {
    const std::string alone = bytes_of(work());
    for (const std::size_t count : {1, 2, 3, 5}) {
        CAPTURE(count);
        for (const std::string& told : told_on(count, work)) CHECK((told == alone));
    }
}

} // namespace

TEST_CASE("trials of a fight are the same on any number of ranks", "[M67][M98]") {
    const Armoury demo = demo_armoury();
    const Bout bout(demo, "ringer_early", "causeway", 6);
    for (const std::uint64_t trials : {1, 64, 65, 1000, 20000}) {
        CAPTURE(trials);
        check_shared([&] { return run_trials(demo, bout.setup, {trials, 5, 1}); });
    }
    check_shared([&] { return run_trials_within(demo, bout.setup, {200, 3, 1}, 0.01, 5000); });
    check_shared([&] { return run_margin_trials(demo, bout.setup, {300, 5, 1}, 1).margins; });
}

TEST_CASE("pairs of fights are the same on any number of ranks", "[M67][M98]") {
    const Armoury demo = demo_armoury();
    const Bout one(demo, "ringer_early", "causeway", 6);
    const Bout other(demo, "warden_early", "causeway", 6);
    check_shared([&] { return run_paired({demo, one.setup}, {demo, other.setup}, {500, 5, 1}); });
}

TEST_CASE("journeys are the same on any number of ranks", "[M67][M98]") {
    const Armoury demo = demo_armoury();
    check_shared([&] { return run_journey(demo, demo.journeys[0], {130, 3}); });
}

TEST_CASE("a fight that can't go on says so on every rank", "[M66][M98]") {
    const Armoury a =
        armoury(with(duel(), "mitigated = \"amount\"", "mitigated = \"amount / other.guard\""));
    const Bout bout(a, "bare", "spar");
    REQUIRE(run_trials(a, bout.setup, {200, 1, 1}).error);
    check_shared([&] { return run_trials(a, bout.setup, {200, 1, 1}); });
}

TEST_CASE("trials that are stopped are the first ones, each whole", "[M67][M98]") {
    const Armoury demo = demo_armoury();
    const Bout bout(demo, "ringer_early", "causeway", 6);
    TrialsSummary summary;
    on_ranks(3, [&](std::size_t rank, Ranks& all) {
        std::atomic<bool> stopped = false;
        const Watch watch{[&](std::size_t done, std::size_t) { stopped = done >= 2000; }, &stopped};
        const TrialsSummary found = run_trials(demo, bout.setup, {1000000, 5, 1}, watch);
        if (rank == 0) summary = found;
        all.leave();
    });
    REQUIRE(summary.partial);
    REQUIRE(summary.trials >= 2000);
    CHECK(summary.trials < 900000);
    TrialsSummary again = run_trials(demo, bout.setup, {summary.trials, 5, 1});
    again.partial = true;
    CHECK((bytes_of(summary) == bytes_of(again)));
}
