#include "support/armouries.h"

#include "fight/margin.h"
#include "fight/trials.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

TEST_CASE("by even luck damage flows, and a health ends between two blows", "[M68]") {
    const std::string text =
        with(duel(), "base = { max_health = 100 }\n", "base = { max_health = 35 }\n");
    CHECK(Bout(armoury(text), "bare", "spar").even().time == Approx(3.5));
    const std::string chancy = with(
        text, "health = \"health\"\n",
        "health = \"health\"\nhit = \"0.8\"\ncrit = \"0.25\"\ncrit_factor = \"3\"\nspread = 0.5\n");
    CHECK(Bout(armoury(chancy), "bare", "spar").even().time == Approx(35 / (10 * 0.8 * 1.5)));
}

TEST_CASE("crits go through mitigation on their own", "[M68]") {
    const std::string text =
        with(with(duel(), "mitigated = \"amount\"", "mitigated = \"amount - 8\""),
             "health = \"health\"\n", "health = \"health\"\ncrit = \"0.5\"\ncrit_factor = \"2\"\n");
    CHECK(Bout(armoury(text), "bare", "spar").even().time == Approx(100 / (0.5 * 2 + 0.5 * 12)));
}

TEST_CASE("what a fallen target leaves of a blow goes on to the next", "[M68]") {
    const std::string text = with(
        with(duel(), "foes = [ { foe = \"dummy\" } ]", "foes = [ { foe = \"dummy\", count = 2 } ]"),
        "base = { max_health = 100 }\n", "base = { max_health = 35 }\n");
    CHECK(Bout(armoury(text), "bare", "spar").even().time == Approx(7));
    const Armoury sweeping =
        armoury(with(text, "deals = { blunt = \"self.attack\" }",
                     "deals = { blunt = \"self.attack\" }\ntargets = \"all\""));
    CHECK(Bout(sweeping, "bare", "spar").even().time == Approx(3.5));
    const Armoury late =
        armoury(with(text, "foes = [ { foe = \"dummy\", count = 2 } ]",
                     "foes = [ { foe = \"dummy\" }, { foe = \"dummy\", at = 10 } ]"));
    CHECK(Bout(late, "bare", "spar").even().time == Approx(13.5));
}

TEST_CASE("ticks and regen flow", "[M68]") {
    const std::string text = with(duel(), "[foe.dummy]\nbase = { max_health = 100 }",
                                  "[foe.dummy]\nbase = { max_health = 100, mending = 4 }");
    CHECK(Bout(armoury(text), "bare", "spar").even().time == Approx(100.0 / 6));
    const std::string bleeding = with(text, "deals = { blunt = \"self.attack\" }",
                                      "deals = { blunt = \"self.attack\" }\napplies = { effect = "
                                      "\"bleed\", duration = 1000 }") +
                                 "[effect.bleed]\nper_time = { health = -2 }\n";
    CHECK(Bout(armoury(bleeding), "bare", "spar").even().time == Approx(100.0 / 8));
}

TEST_CASE("who falls by itself, beside the flows, hurts nobody any more", "[M68]") {
    // The ailing one bites 10 a second and loses 10 of its 50; the dummy in front of it takes 10
    // seconds to fell.
    const std::string text = with(with(duel(), "[stat.mending]\n", "[stat.mending]\nmin = -99\n"),
                                  "foes = [ { foe = \"dummy\" } ]",
                                  "foes = [ { foe = \"dummy\" }, { foe = \"biter\" } ]") +
                             with(biter(50), "attack = 10 }", "attack = 10, mending = -10 }");
    const FightResult result = Bout(armoury(text), "bare", "spar").even();
    CHECK(result.time == Approx(10));
    CHECK(result.all_taken() == Approx(50));
    CHECK(result.remainder == Approx(0.5)); // of 100
}

TEST_CASE("a chance is saved up and comes true when it reaches 1", "[M68]") {
    const std::string text = with(duel(), "deals = { blunt = \"self.attack\" }",
                                  "deals = { blunt = \"self.attack\" }\napplies = { effect = "
                                  "\"mark\", chance = 0.4, duration = 0.5 }");
    const Armoury a =
        armoury(with(text, "base = { max_health = 100 }\n", "base = { max_health = 95 }\n") +
                "[effect.mark]\nadd = { keen = 1 }\n");
    Bout bout(a, "bare", "spar");
    std::vector<double> began;
    for (const EffectBar& bar : bout.engine.tell(1, std::nullopt).bars) began.push_back(bar.from);
    CHECK(began == std::vector<double>{2, 4, 7, 9}); // accounts of 1.2, 1.0, 1.2 and 1.0
}

TEST_CASE("a use that takes time does not stretch the blow before it", "[M32][M68]") {
    const std::string text = duel() +
                             "[item.vial]\nuse = { effect = \"glow\", duration = 1, takes = 1.5 "
                             "}\n[effect.glow]\nadd = { keen = 1 }\n"
                             "[loadout.l]\ncharacter = \"hero\"\npack = { vial = 1 "
                             "}\n[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"time >= 2.5\"\n";
    // The third blow ends at 3; the next begins when the use is done, at 4.
    CHECK(Bout(armoury(text), "l", "spar").even().time == Approx(11));
}

TEST_CASE("ten tenths are one", "[M68]") {
    const std::string text = with(duel(), "deals = { blunt = \"self.attack\" }",
                                  "deals = { blunt = \"self.attack\" }\napplies = { effect = "
                                  "\"mark\", chance = 0.1, duration = 0.5 }");
    const Armoury a =
        armoury(with(text, "base = { max_health = 100 }\n", "base = { max_health = 105 }\n") +
                "[effect.mark]\nadd = { keen = 1 }\n");
    Bout bout(a, "bare", "spar");
    const Timeline told = bout.engine.tell(1, std::nullopt);
    REQUIRE(told.bars.size() == 1);
    CHECK(told.bars[0].from == 9);
}

TEST_CASE("the margin against a harmless foe is the damage until the limit over its health",
          "[M70]") {
    const Armoury a = armoury(duel());
    Bout bout(a, "bare", "spar");
    CHECK(even_margin(bout.engine).value ==
          Approx(18).epsilon(2e-4)); // 10 a second for 180 seconds
    CHECK(trial_margin(bout.engine, {1, 0}).value == Approx(18).epsilon(5e-3));
    CHECK(even_margin(bout.engine, 0.02).value == Approx(18).epsilon(2e-4));
    CHECK(even_margin(bout.engine, 60).value == Approx(18).epsilon(2e-4));
}

TEST_CASE("an even match has a margin of 1", "[M69][M70]") {
    const Armoury a = armoury(duel() + biter(100));
    Bout bout(a, "bare", "bites");
    CHECK(even_margin(bout.engine).value == Approx(1).epsilon(2e-4));
    CHECK(std::abs(bout.even(0.999).remainder) < 0.01);
    CHECK(bout.even(0.999).won);
    CHECK_FALSE(bout.even(1.001).won);
}

TEST_CASE("a margin beyond reach is told as such, not as the bound", "[M70]") {
    const Armoury strong = armoury(with(duel(), "attack = 10, might", "attack = 10000, might"));
    CHECK(Bout(strong, "bare", "spar").margin().reach == Reach::above);
    const Armoury weak = armoury(with(duel(), "attack = 10, might", "attack = 0, might"));
    CHECK(Bout(weak, "bare", "spar").margin().reach == Reach::below);
    CHECK(Bout(weak, "bare", "spar").margin_of_trial().reach == Reach::below);
}

TEST_CASE("the share of margins of at least 1 is the share of wins", "[M70]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_early", "ford", 6);
    constexpr std::uint64_t trials = 300;
    const TrialsSummary summary = run_trials(demo, bout.setup, {trials, 3, 1});
    const MarginTrials margins = run_margin_trials(demo, bout.setup, {trials, 3, 1}, 1);
    REQUIRE(margins.margins.size() == trials);
    std::uint64_t over = 0;
    std::uint64_t at_one = 0; // within the precision of a margin, either way
    for (const Margin& margin : margins.margins) {
        over += margin.value >= 1;
        at_one += std::abs(margin.value - 1) < 0.005;
    }
    CHECK(summary.won > trials / 20);
    CHECK(summary.won < trials - trials / 20);
    CHECK(std::max(over, summary.won) - std::min(over, summary.won) <= at_one);
}

TEST_CASE("a small change of any number changes the margin a little, and in its own direction",
          "[M68]") {
    const std::string text = duel() + biter(100) +
                             "[item.blade]\nslot = \"hand\"\nadd = { attack = 0 "
                             "}\n[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"blade\" }\n";
    Armoury a = armoury(text);
    rc::prop("attack", [&] {
        const double attack = *rc::gen::inRange(0, 3000) / 100.0;
        const auto margin = [&](double add) {
            a.items[0].modifiers.add[0].amount = add;
            return Bout(a, "l", "bites").margin().value;
        };
        const double before = margin(attack);
        const double after = margin(attack + 0.05);
        RC_ASSERT(after > before * (1 - 2e-4));
        RC_ASSERT(after < before * 1.006);
    });
}

TEST_CASE("trials and even luck agree where nothing is at an edge", "[M68]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "warden_late", "ford", 24);
    MarginTrials margins = run_margin_trials(demo, bout.setup, {100, 1, 1}, 1);
    double log_sum = 0;
    for (const Margin& margin : margins.margins) log_sum += std::log(margin.value);
    const double even = even_margin(bout.engine).value;
    CHECK(std::exp(log_sum / 100) == Approx(even).epsilon(0.06));
}

TEST_CASE("a margin says so when its fights can't go on", "[M66]") {
    const Armoury a =
        armoury(with(duel(), "mitigated = \"amount\"", "mitigated = \"amount / other.guard\""));
    CHECK(Bout(a, "bare", "spar").margin().error.has_value());
    CHECK(Bout(a, "bare", "spar").margin_of_trial().error.has_value());
    Bout again(a, "bare", "spar");
    for (int i = 0; i < 3; ++i) CHECK(again.trial(1).error.has_value());
    for (int i = 0; i < 3; ++i) CHECK(again.margin().error.has_value());
}
