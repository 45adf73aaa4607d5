#include "support/armouries.h"

#include "fight/trials.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numeric>

using namespace panoplon;
using namespace panoplon::test;

namespace {

double sum(const Timeline& told, const std::string& side, const std::vector<std::string>& events) {
    double total = 0;
    for (const TimelineEvent& e : told.events)
        if (e.side == side && std::find(events.begin(), events.end(), e.event) != events.end())
            total += e.amount;
    return total;
}

double all(const std::vector<double>& values) {
    return std::accumulate(values.begin(), values.end(), 0.0);
}

} // namespace

TEST_CASE("the ledger of a trial is the sum of its timeline", "[M62][M91]") {
    const Armoury demo = demo_armoury();
    for (const char* encounter : {"causeway", "ford", "drip_cellar"}) {
        Bout bout(demo, "warden_late", encounter, 26);
        for (std::uint64_t trial = 0; trial < 10; ++trial) {
            const FightResult result = bout.trial(trial);
            const Timeline told = bout.tell(trial);
            CHECK(sum(told, "character", {"hits", "crits"}) == Approx(all(result.dealt)));
            CHECK(sum(told, "foes", {"hits", "crits"}) == Approx(all(result.taken)));
            CHECK(sum(told, "character", {"tick"}) == Approx(all(result.taken_by_effect)));
            CHECK(sum(told, "character", {"restores"}) == Approx(all(result.restored)));
        }
    }
}

TEST_CASE("what a trial takes and gives back is what the health shows", "[M10][M12]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_early", "drip_cellar", 8);
    for (std::uint64_t trial = 0; trial < 20; ++trial) {
        const FightResult result = bout.trial(trial);
        const Timeline told = bout.tell(trial);
        const double ceiling = 76 + 44 + 61 + 92 + 320 + 26 * 7;
        const double left =
            ceiling - result.all_taken() + result.restored[demo.combat.health.index()];
        CHECK(told.samples.back().shares[0][demo.combat.health.index()] * ceiling ==
              Approx(left).margin(1e-6));
    }
}

TEST_CASE("a won fight has dealt all the foes' health, by trials and by even luck", "[M65][M68]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "warden_late", "causeway", 26);
    const double foes = 5 * std::floor(70 + 15 * 25 * 1.75);
    const FightResult trial = bout.trial(1);
    REQUIRE(trial.won);
    CHECK(trial.all_dealt() == Approx(foes));
    const FightResult even = bout.even();
    REQUIRE(even.won);
    CHECK(even.all_dealt() == Approx(foes));
    CHECK(even.overkill == 0);
    CHECK(std::accumulate(even.actions.begin(), even.actions.end(), 0.0,
                          [](double total, const ActionCount& action) {
                              return total + action.dealt;
                          }) == Approx(foes));
}

TEST_CASE("by even luck regen of a full pool restores nothing and is no waste", "[M68][M91]") {
    const std::string text = with(duel(), "base = { max_health = 100, attack = 10",
                                  "base = { mending = 5, max_health = 100, attack = 10");
    const Armoury a = armoury(text);
    const FightResult result = Bout(a, "bare", "spar").even();
    CHECK(result.time == Approx(10));
    CHECK(result.restored[0] == Approx(0).margin(1e-9));
    CHECK(result.wasted[0] == 0);
}

TEST_CASE("sums over trials are the sums of the trials", "[M67]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_early", "ford", 8);
    const TrialsSummary summary = run_trials(demo, bout.setup, {150, 9, 1});
    Moments time, dealt;
    std::uint64_t won = 0;
    double used = 0;
    const std::size_t draught = 0; // it is packed first
    for (std::uint64_t trial = 0; trial < 150; ++trial) {
        const FightResult result = bout.trial(trial, 9);
        time.add(result.time);
        dealt.add(result.all_dealt());
        won += result.won;
        used += result.uses[draught].used;
    }
    CHECK(summary.trials == 150);
    CHECK(summary.won == won);
    CHECK(summary.time.mean() == Approx(time.mean()));
    CHECK(summary.dealt.squares == Approx(dealt.squares));
    CHECK(summary.sums.uses[draught].used == used);
    CHECK(summary.times().size() == 150);
    CHECK(summary.times_won.size() == won);
    const std::vector<double> times = summary.times();
    CHECK(std::is_sorted(times.begin(), times.end()));
}

TEST_CASE("a stopped run has whole trials only, and says so") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_early", "ford", 8);
    std::atomic<bool> stop = false;
    Watch watch;
    watch.stop = &stop;
    watch.progress = [&](std::size_t, std::size_t) { stop = true; };
    const TrialsSummary summary = run_trials(demo, bout.setup, {100000, 1, 1}, watch);
    CHECK(summary.partial);
    CHECK(summary.trials >= 64);
    CHECK(summary.trials < 100000);
    CHECK(summary.trials == summary.times().size());
}

TEST_CASE("the outcome alone is the outcome of the full ledger") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_late", "drip_cellar", 18);
    for (const double strength : {0.5, 1.0, 1.5, 2.0, 4.0}) {
        const FightResult full = bout.even(strength);
        const FightResult quick = bout.engine.run(strength, std::nullopt, Detail::outcome);
        CHECK(full.won == quick.won);
        CHECK(full.time == quick.time);
        CHECK(full.remainder == quick.remainder);
    }
}

TEST_CASE("uptime over trials is a share of the fight", "[M20]") {
    const std::string text =
        with(duel(), "health = \"health\"\n", "health = \"health\"\ntime_limit = 40\n") +
        "[effect.glow]\nadd = { keen = 1 }\n[item.vial]\nuse = { effect = \"glow\", duration = 10 "
        "}\n"
        "[loadout.l]\ncharacter = \"hero\"\npack = { vial = 1 }\n";
    const Armoury a =
        armoury(with(text, "base = { max_health = 100 }\n", "base = { max_health = 1e6 }\n"));
    const FightSetup setup = set_up_fight(a, outfit_of(a, a.loadouts[1], 1), EncounterId(0));
    const TrialsSummary summary = run_trials(a, setup, {70, 1, 1});
    CHECK(summary.uptime[0].mean() == 0.25);
    CHECK(summary.timed_out == 70);
    CHECK(summary.per_trial(summary.sums.uses[0].used) == 1);
}

TEST_CASE("trials go on until the share of wins is known as closely as asked", "[M94]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_early", "ford", 6);
    const TrialsSummary within = run_trials_within(demo, bout.setup, {200, 3, 1}, 0.025, 100000);
    const Estimate wins =
        estimate_share(static_cast<double>(within.won), static_cast<double>(within.trials));
    CHECK(wins.high - wins.mean <= 0.025);
    CHECK(wins.mean - wins.low <= 0.025);
    CHECK(within.trials == 1600); // 800 give ± 3.3 %
    const TrialsSummary at_once = run_trials(demo, bout.setup, {1600, 3, 1});
    CHECK(within.won == at_once.won);
    CHECK(within.times() == at_once.times());
    CHECK(within.time.mean() == Approx(at_once.time.mean()));
    CHECK(run_trials_within(demo, bout.setup, {200, 3, 1}, 0.001, 500).trials == 500);
    CHECK(run_trials_within(demo, bout.setup, {200, 3, 1}, 0.5, 500).trials == 200);
}
