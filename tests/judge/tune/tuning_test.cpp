// The fair range of a number against hand arithmetic, and what makes everything fair.
#include "support/armouries.h"

#include "armoury/files.h"
#include "judge/tune/numbers_tried.h"
#include "judge/tune/tune_all.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <fmt/format.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Against a dummy that does nothing the margin goes with attack: 10 with nothing worn. Two swords,
/// one that adds 5, and one that is tuned.
std::string swords(const std::string& tuned) {
    return with(duel(), "levels = [1, 10]", "levels = [1, 1]") +
           "[item.rival]\nslot = \"hand\"\nadd = { attack = 5 }\n"
           "[item.tuned]\nslot = \"hand\"\n" +
           tuned;
}

/// Everything that is unfair in the first encounter, tuned.
struct AllTuned {
    explicit AllTuned(const std::string& text)
        : read(test::read(text)),
          what_ifs(sources_of(text), {}) {
        scope.levels = read.armoury.levels;
        scope.encounters = {EncounterId(0)};
        MemoryOfRun memory;
        Unwatched stages;
        all = tune_all(what_ifs, scope, memory, stages);
    }
    static Sources sources_of(const std::string& text) {
        Sources sources;
        sources.add("armoury.toml", text);
        return sources;
    }

    ReadArmoury read;
    WhatIfs what_ifs;
    ContextScope scope;
    TuneAll all;
};

struct Tuned {
    ReadArmoury read;
    Tuning tuning;
};

Tuned tuned(const std::string& text, const std::string& word, const TuneScope& how_much = {}) {
    Tuned result{test::read(text), {}};
    REQUIRE(mistakes(result.read).empty());
    const Armoury& armoury = result.read.armoury;
    Sources sources;
    sources.add("armoury.toml", text);
    const WhatIfs what_ifs(sources, {});
    ItemId item;
    for (std::size_t i = 0; i < armoury.items.size(); ++i)
        if (armoury.items[i].id == "tuned") item = ItemId(i);
    const Result<TunedNumber> number = find_number(result.read, item, word);
    REQUIRE(number.ok());
    ContextScope scope;
    scope.levels = armoury.levels;
    scope.encounters = {EncounterId(0)};
    ItemJudge judge(armoury, scope, item);
    const JudgedItem present = judge.judge(armoury);
    result.tuning = tune(result.read, what_ifs, number.value(), judge, present, how_much);
    return result;
}

std::string refusal(const std::string& text, const std::string& word) {
    const ReadArmoury read = test::read(text);
    const Result<TunedNumber> number = find_number(read, ItemId(1), word);
    return number.ok() ? "" : number.failure().message;
}

/// Shortfall is ln(15 / (10 + x)) / ln(15 / 10): a half where 10 + x is the root of 10 × 15.
const double useless_below = std::sqrt(150.0) - 10;
/// Grip is ln((10 + x) / 15) / ln((10 + x) / 10): 0.2 where (10 + x) / 10 is 1.5 to the 1 / 0.8.
const double dominant_above = 10 * std::pow(1.5, 1.25) - 10;

} // namespace

TEST_CASE("the fair range of a sword ends where shortfall and grip cross their thresholds",
          "[M81a][M83]") {
    const Tuned result = tuned(swords("add = { attack = 9, keen = 1 }\n"), "attack");
    const Tuning& tuning = result.tuning;
    CHECK(tuning.now().verdict.verdict == Verdict::dominant);
    const double step = resolution(result.read.armoury, tuning.number);
    REQUIRE(tuning.low);
    REQUIRE(tuning.high);
    CHECK(tuning.low->beyond == Fit::weak);
    CHECK(tuning.high->beyond == Fit::dominant);
    CHECK(std::abs(tuning.low->value - useless_below) <= step * 1.1);
    CHECK(std::abs(tuning.high->value - dominant_above) <= step * 1.1);
    REQUIRE(tuning.proposal);
    CHECK(*tuning.proposal <= tuning.high->value);
    CHECK(*tuning.proposal >= dominant_above - 0.7);
    CHECK(fit_of(tuning.proposed->verdict) == Fit::fair);
}

TEST_CASE("the range found at a glance is that of every value searched", "[M83]") {
    // A belt goes best with one of two swords: with which hangs on the number that is tuned.
    const std::string belts = "[item.belt]\nslot = \"head\"\nadd = { attack = 2 }\n"
                              "[item.sash]\nslot = \"head\"\npercent = { attack = 15 }\n";
    for (int attack = 0; attack <= 14; ++attack) {
        const std::string text =
            swords(fmt::format("add = {{ attack = {}, keen = 1 }}\n", attack)) + belts;
        CAPTURE(attack);
        const Tuning whole = tuned(text, "attack").tuning;
        const Tuning quick = tuned(text, "attack", {false}).tuning;
        REQUIRE(whole.low.has_value() == quick.low.has_value());
        REQUIRE(whole.low);
        const double step = 1.1 * resolution(test::read(text).armoury, whole.number);
        CHECK(std::abs(whole.low->value - quick.low->value) <= step);
        CHECK(std::abs(whole.high->value - quick.high->value) <= step);
        CHECK(whole.low->beyond == quick.low->beyond);
        CHECK(whole.high->beyond == quick.high->beyond);
        CHECK(whole.proposal == quick.proposal);
        const auto searched = [](const Tuning& tuning) {
            return std::count_if(tuning.points.begin(), tuning.points.end(),
                                 [](const TunePoint& point) { return !point.glanced; });
        };
        CHECK(searched(quick) * 2 < searched(whole));
    }
}

TEST_CASE("of a number that does nothing only the ends are looked at, if not all is asked for",
          "[M83]") {
    const std::string text = swords("add = { attack = 9, might = 3 }\n");
    const Tuning tuning = tuned(text, "might", {false}).tuning;
    CHECK(tuning.points.size() == 3); // and the present value
    CHECK_FALSE(tuning.proposal);
}

TEST_CASE("a range further off than is asked for is not looked for", "[M83]") {
    const std::string text = swords("add = { attack = 9, keen = 1 }\n"); // fair from some 6.6 down
    CHECK(tuned(text, "attack", {false, 3}).tuning.proposal);
    CHECK_FALSE(tuned(text, "attack", {false, 1}).tuning.proposal);
}

TEST_CASE("what an audit knows of an item is what its own search finds", "[M80b][M83]") {
    const std::string text = with(duel(), "levels = [1, 10]", "levels = [1, 3]") +
                             "[item.rival]\nslot = \"hand\"\nadd = { attack = 5 }\n"
                             "[item.tuned]\nslot = \"hand\"\nadd = { attack = 4, keen = 1 }\n"
                             "[item.cap]\nslot = \"head\"\nadd = { attack = 2 }\n"
                             "[item.hood]\nslot = \"head\"\npercent = { attack = 15 }\n";
    const ReadArmoury read = test::read(text);
    ContextScope scope;
    scope.levels = read.armoury.levels;
    scope.encounters = {EncounterId(0)};
    MemoryOfRun memory;
    const AuditResult all = audit(read.armoury, AuditOptions{scope, {}}, {}, Recall(memory, read));
    const std::size_t answered = memory.answered();
    for (const ItemVerdict& one : all.items) {
        ItemJudge searching(read.armoury, scope, one.item);
        ItemJudge recalling(read.armoury, scope, one.item);
        const ItemVerdict searched = searching.judge(read.armoury).verdict;
        const ItemVerdict known = recalling.judge(read.armoury, {}, Recall(memory, read)).verdict;
        CAPTURE(read.armoury.at(one.item).id);
        CHECK(known.verdict == one.verdict);
        CHECK(known.sentence == searched.sentence);
        CHECK(known.grip.mean == Approx(one.grip.mean).margin(1e-6));
        CHECK(known.shortfall.mean == Approx(one.shortfall.mean).margin(1e-6));
    }
    CHECK(memory.answered() == answered + 3 * all.items.size());
}

TEST_CASE("what is useless is raised, what is fair is left alone", "[M83]") {
    const Tuning weak = tuned(swords("add = { attack = 1, keen = 1 }\n"), "attack").tuning;
    CHECK(weak.now().verdict.verdict == Verdict::useless);
    REQUIRE(weak.proposal);
    CHECK(*weak.proposal >= useless_below);
    CHECK(*weak.proposal == std::ceil(useless_below)); // all others are whole
    const Tuning fair = tuned(swords("add = { attack = 5.5, keen = 1 }\n"), "attack").tuning;
    CHECK_FALSE(fair.proposal);
    CHECK(fair.low->value <= 5.5);
    CHECK(fair.high->value >= 5.5);
}

TEST_CASE("what is added to a stat with a step is proposed in multiples of it", "[M87]") {
    const std::string weak = swords("add = { attack = 1, keen = 1 }\n");
    const auto proposal = [&](const char* step) {
        const std::string text = with(weak, "[stat.attack]", std::string("[stat.attack]\n") + step);
        return tuned(text, "attack").tuning.proposal.value();
    };
    CHECK(proposal("") == std::ceil(useless_below)); // about 2.25, and all others are whole
    CHECK(proposal("step = 2.5") == 2.5);
    CHECK(proposal("step = 2") == 4);
}

TEST_CASE("what another outclasses is weak too, however little it loses", "[M82][M83]") {
    const Tuning tuning = tuned(swords("add = { attack = 9 }\n"), "attack").tuning;
    REQUIRE(tuning.low);
    CHECK(tuning.low->value == Approx(5)); // a twin of the rival
    CHECK(tuning.low->verdict == Verdict::outclassed);
}

TEST_CASE("a number that changes nothing makes nothing fair", "[M83]") {
    const Tuning tuning = tuned(swords("add = { attack = 9, might = 3 }\n"), "might").tuning;
    CHECK_FALSE(tuning.low);
    CHECK_FALSE(tuning.proposal);
    for (const TunePoint& point : tuning.points) CHECK(point.verdict.verdict == Verdict::dominant);
}

TEST_CASE("less may be more: the range of a stat that takes away", "[M83]") {
    const std::string text = with(swords("add = { attack = 9, sloth = 1 }\n"), "[stat.guard]",
                                  "[stat.guard]\n[stat.sloth]\nbetter = \"lower\"\n");
    const std::string slow = with(text, "deals = { blunt = \"self.attack\" }",
                                  "deals = { blunt = \"self.attack / (1 + self.sloth / 10)\" }");
    const Tuning tuning = tuned(slow, "sloth").tuning;
    CHECK(tuning.now().verdict.verdict == Verdict::dominant);
    REQUIRE(tuning.low);
    CHECK(tuning.low->beyond == Fit::dominant);
    CHECK(tuning.high->beyond == Fit::weak);
}

TEST_CASE("the number of another definition can be tuned for an item", "[M84]") {
    const std::string brews =
        with(duel(), "levels = [1, 10]", "levels = [1, 1]") +
        "[item.rival]\nmax_stacks = 1\nuse = { effect = \"mild\", duration = 1000, cooldown = "
        "1000, group = \"brew\" }\n[effect.mild]\nadd = { attack = 5 }\n"
        "[item.tuned]\nmax_stacks = 1\nuse = { effect = \"wild\", duration = 1000, cooldown = "
        "1000, group = \"brew\" }\n[effect.wild]\nadd = { attack = 9 }\n";
    const Tuned result = tuned(brews, "effect.wild.add.attack");
    CHECK(result.tuning.number.name() == "effect.wild.add.attack");
    REQUIRE(result.tuning.high);
    CHECK(std::abs(result.tuning.high->value - dominant_above) <=
          resolution(result.read.armoury, result.tuning.number) * 1.1);
}

TEST_CASE("words for numbers: what is none is refused with what was meant") {
    const std::string text = swords("add = { attack = 9 }\npercent = { attack = 3 }\n");
    CHECK(has(refusal(text, "attack"), "more than one modifier of attack"));
    CHECK(has(refusal(text, "atack"), "did you mean 'attack'?"));
    CHECK(has(refusal(text, "wieght"), "did you mean 'weight'?"));
    CHECK(has(refusal(text, "slot"), "no number"));
    CHECK(has(refusal(text, "add"), "no number"));
    CHECK(has(refusal(text, "add.nothing"), "no number"));
    CHECK(has(refusal(text, "item.tunde.weight"), "unknown item 'tunde'"));
    CHECK(refusal(text, "percent.attack").empty());
    CHECK(refusal(text, "keen").empty());
    CHECK(refusal(text, "weight").empty());
}

TEST_CASE("where no number is named each is tried, and the cause is told", "[M87]") {
    const auto tried = [](const std::string& text) {
        const ReadArmoury read = test::read(text);
        REQUIRE(mistakes(read).empty());
        Sources sources;
        sources.add("armoury.toml", text);
        ContextScope scope;
        scope.levels = read.armoury.levels;
        scope.encounters = {EncounterId(0)};
        const ItemId item = find_id<ItemKind>(read.armoury.items, "tuned");
        ItemJudge judge(read.armoury, scope, item);
        return try_numbers(read, WhatIfs(sources, {}), judge, judge.judge(read.armoury),
                           every_number);
    };
    // Its own five would be as good as the rival's: what a whole set gives for it alone is not.
    const NumbersTried of_set =
        tried(swords("add = { attack = 4.9, keen = 1 }\nset = \"folk\"\n[set.folk]\n"
                     "[[set.folk.step]]\ncount = 1\npercent = { attack = 80 }\n"));
    REQUIRE(of_set.smallest);
    const Tuning& step = of_set.tried[*of_set.smallest];
    CHECK(step.number.kind == "set");
    CHECK(verdict_without(step) == Verdict::sound);
    CHECK(of_set.poor_rivals.empty());

    const std::string budget = "[budget]\npoints = \"9\"\ntolerance = 0.2\n";
    const std::string costly = with(swords("add = { attack = 9, keen = 1 }\n"), "[stat.attack]",
                                    "[stat.attack]\ncost = 1");
    const NumbersTried poor = tried(costly + budget);
    REQUIRE(poor.smallest);
    CHECK(poor.tried[*poor.smallest].number.key == "add.attack");
    CHECK_FALSE(verdict_without(poor.tried[*poor.smallest]));
    CHECK(poor.poor_rivals == std::vector<ItemId>{ItemId(0)}); // which spends 5 points of 9
    CHECK(tried(costly + with(budget, "0.2", "0.5")).poor_rivals.empty());
}

TEST_CASE("values to try run from nothing to absurd, with the present one among them") {
    const ReadArmoury read = test::read(swords("add = { attack = 9, keen = -4 }\nlevel = 1\n"));
    const auto values = [&](const char* word) {
        return values_to_try(read.armoury, find_number(read, ItemId(1), word).value());
    };
    CHECK(values("attack").front() == 0);
    CHECK(values("attack").back() == 72);
    const std::vector<double> attacks = values("attack");
    CHECK(std::count(attacks.begin(), attacks.end(), 9) == 1);
    CHECK(values("keen").front() == -32);
    CHECK(values("keen").back() == 8);
    for (const double level : values("level")) CHECK(level == std::floor(level));
    CHECK(values("times.attack").front() == 0);
    CHECK(on_grid(3 * 0.1, 0.1) == 0.3);
}

TEST_CASE("tuning all begins with what is dominant, which makes others look useless", "[M83]") {
    // The spear is so much better that the other, which is found first, looks useless.
    const std::string text = swords("add = { attack = 5, keen = 1 }\n") +
                             "[item.spear]\nslot = \"hand\"\nadd = { attack = 15 }\n";
    const AllTuned tuned(text);
    const TuneAll& all = tuned.all;
    CHECK(all.left().empty());
    CHECK(all.irreducible);
    REQUIRE(all.changes.size() == 1);
    CHECK(tuned.read.armoury.at(all.changes[0].item).id == "spear");
}

TEST_CASE("tuning all takes back what a later change makes needless", "[M83]") {
    // The cap is raised a little; then the bonus of its set is, for the blade, and with that the
    // cap would have done as it was.
    const auto item = [](const char* id, const char* slot, const char* attack) {
        return fmt::format("[item.{}]\nslot = \"{}\"\nadd = {{ attack = {} }}\n", id, slot, attack);
    };
    const std::string text = with(duel(), "levels = [1, 10]", "levels = [1, 1]") +
                             item("cap", "head", "5.3") + "set = \"kit\"\n" +
                             item("hood", "head", "12") + item("helm", "head", "11.5") +
                             item("blade", "hand", "0.2") + "set = \"kit\"\n" +
                             item("club", "hand", "12") + item("mace", "hand", "11.5") +
                             "[set.kit]\n[[set.kit.step]]\ncount = 2\nadd = { attack = 10 }\n";
    const AllTuned tuned(text);
    const TuneAll& all = tuned.all;
    const auto unfair = [](const ItemVerdict& one) { return is_unfair(one.verdict); };
    CHECK(std::count_if(all.before.items.begin(), all.before.items.end(), unfair) == 2);
    CHECK(all.left().empty());
    CHECK(all.irreducible);
    REQUIRE(all.changes.size() == 1);
    CHECK(tuned.read.armoury.at(all.changes[0].item).id == "blade");
}

TEST_CASE("tuning all: one number each, and an audit finds nothing unfair any more", "[M83]") {
    const std::string text = swords("add = { attack = 9, keen = 1 }\n") +
                             "[item.crown]\nslot = \"head\"\nadd = { attack = 6, keen = 2 }\n"
                             "[item.cap]\nslot = \"head\"\nadd = { attack = 2, keen = 3 }\n"
                             "[item.rag]\nslot = \"head\"\nadd = { attack = 1, keen = 4 }\n";
    const AllTuned tuned(text);
    const TuneAll& all = tuned.all;
    CHECK(all.left().empty());
    CHECK(all.unsolved.empty());
    REQUIRE_FALSE(all.changes.empty());
    std::vector<std::string> what_ifs;
    for (const TunedItem& one : all.changes) {
        CHECK(is_unfair(one.before));
        CHECK_FALSE(is_unfair(one.after));
        what_ifs.push_back(one.number.what_if(one.then));
    }
    const ReadArmoury after = tuned.what_ifs.read(what_ifs);
    for (const ItemVerdict& one : audit(after.armoury, AuditOptions{tuned.scope, {}}).items)
        CHECK_FALSE(is_unfair(one.verdict));
}
