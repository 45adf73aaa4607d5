#include "support/armouries.h"

#include "judge/audit/verdict.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// One context of an item's window, as a table row.
struct Seen {
    double shortfall;
    double grip;
    int encounter = 0;
    bool contested = true;
    bool harms = false;
};

/// Judges an item of level 1 by contexts made up here.
struct Judged {
    explicit Judged(const std::vector<Seen>& window, int level = 1, const std::string& audit = {})
        : armoury_(armoury(duel() +
                           "[encounter.second]\nfoes = [ { foe = \"dummy\" } ]\n[item.x]\nslot = "
                           "\"hand\"\nadd = { attack = 1 }\nlevel = " +
                           std::to_string(level) + "\n" +
                           "[item.better]\nslot = \"hand\"\nadd = { attack = 2 }\nvalue = 100\n" +
                           audit)) {
        for (const Seen& seen : window) {
            ContextRow context;
            context.context.encounter = EncounterId(static_cast<std::size_t>(seen.encounter));
            ItemContextRow row;
            row.item = ItemId(0);
            row.context = contexts.size();
            row.best = row.with = row.without = 1;
            row.shortfall = seen.shortfall;
            row.grip = seen.grip;
            row.contested = seen.contested;
            row.worth = 1;
            row.in_window = row.judged = true;
            row.harms = seen.harms;
            rows.push_back(row);
            contexts.push_back(context);
        }
    }
    [[nodiscard]] ItemVerdict judge() const {
        return judge_item(armoury_, ItemId(0), rows, contexts);
    }
    [[nodiscard]] std::string name() const { return verdict_name(judge().verdict); }

    Armoury armoury_;
    std::vector<ItemContextRow> rows;
    std::vector<ContextRow> contexts;
};

std::vector<Seen> times(int n, Seen seen, std::vector<Seen> more = {}) {
    more.insert(more.begin(), static_cast<std::size_t>(n), seen);
    return more;
}

} // namespace

TEST_CASE("verdicts stand at their thresholds, the first that applies", "[M83]") {
    CHECK(Judged(times(5, {1.1, 0, 0, true, true})).name() == "burden");
    CHECK(Judged(times(4, {1.2, 0, 0, true, true}, {{1.0, 0}})).name() == "useless");
    CHECK(Judged(times(5, {0.5, 0})).name() == "useless");
    CHECK(Judged(times(4, {0.6, 0}, {{0.49, 0}})).name() == "weak");
    CHECK(Judged(times(4, {0.6, 0}, {{0.25, 0}})).name() == "sound");
    CHECK(Judged(times(5, {0.0, 0.2})).name() == "dominant");
    CHECK(Judged(times(5, {0.0, 0.19})).name() == "strong");
    CHECK(Judged(times(5, {0.0, 0.1})).name() == "strong"); // half of what makes it dominant
    CHECK(Judged(times(5, {0.0, 0.09})).name() == "sound"); // others come close
    CHECK(Judged(times(4, {0.05, 0.3}, {{0.06, 0.0}})).name() ==
          "dominant"); // picks are up to 0.05
    CHECK(Judged(times(3, {0.0, 0.9}, times(2, {0.3, 0}))).name() == "strong"); // 60 % of picks
}

TEST_CASE("where weight binds, a burden says what it weighs", "[M83][M86c]") {
    Judged judged(times(5, {1.1, 0, 0, true, true}));
    judged.armoury_.items[0].weight = 9 * to_thousandths(1);
    CHECK_FALSE(has(judged.judge().sentence, "weighs"));
    for (std::size_t i = 0; i < 3; ++i) judged.contexts[i].limiting.weight_binds = true;
    CHECK(has(judged.judge().sentence, " Weight binds there, and it weighs 9."));
    judged.armoury_.items[0].weight = 0;
    CHECK_FALSE(has(judged.judge().sentence, "weighs"));
}

TEST_CASE("what is close to the best elsewhere is no niche", "[M83]") {
    const auto elsewhere = [](double shortfall) {
        return Judged(times(6, {shortfall, 0, 0}, times(2, {0, 0.1, 1})));
    };
    CHECK(elsewhere(0.26).name() == "niche");
    CHECK(elsewhere(0.24).name() == "sound");
    CHECK(has(elsewhere(0.24).judge().sentence, "elsewhere it loses 24 % of what hand is worth"));
    CHECK(Judged(times(11, {0.26, 0}, {{0.0, 0.1}})).name() == "niche"); // 8 % of picks
    CHECK(Judged(times(11, {0.1, 0}, {{0.0, 0.1}})).name() == "sound");
}

TEST_CASE("picks count everywhere; only beside rivals is an item dominant", "[M83]") {
    std::vector<Seen> window = times(4, {0.3, 0, 0, false});
    window.push_back({0.0, 0.5});
    const ItemVerdict verdict = Judged(window).judge();
    CHECK(verdict.pick_share == Approx(0.2));
    CHECK(verdict.contested_pick_share == 1);
    CHECK(verdict.contested == 1);
    CHECK(verdict.verdict == Verdict::dominant);
    const ItemVerdict alone = Judged(times(5, {0.0, 0.9, 0, false})).judge();
    CHECK(alone.verdict == Verdict::sound);
    CHECK(alone.unrivalled);
    CHECK(alone.sentence ==
          "Best in 100 % of its contexts at level 1: the one to wear on hand. It has no rival.");
}

TEST_CASE("what lies within noise of a threshold is on the edge of it", "[M83]") {
    Judged judged(times(5, {0.4999, 0}));
    for (ContextRow& context : judged.contexts) context.roughness = 0.001;
    CHECK(judged.judge().verdict == Verdict::weak);
    REQUIRE(judged.judge().edge_of);
    CHECK(*judged.judge().edge_of == Verdict::useless);
    CHECK(judged.judge().sentence.find("On the edge of useless") != std::string::npos);
    for (ItemContextRow& row : judged.rows) row.shortfall = 0.4;
    CHECK_FALSE(judged.judge().edge_of);
}

TEST_CASE("what is accepted and what no longer is so", "[M83]") {
    Judged judged(times(5, {0.8, 0}));
    CHECK_FALSE(judged.judge().accepted);
    judged.armoury_.items[0].accept = {"useless", "overstays"};
    CHECK(judged.judge().accepted);
    CHECK(judged.judge().untrue_accept == std::vector<std::string>{"overstays"});
    for (ItemContextRow& row : judged.rows) row.shortfall = 0;
    CHECK_FALSE(judged.judge().accepted);
    CHECK(judged.judge().untrue_accept.size() == 2);
}

TEST_CASE("what gives nothing that a fight reads is idle", "[M83]") {
    const Armoury a = armoury(duel() + "[item.lamp]\nslot = \"hand\"\nadd = { keen = 3 }\n");
    const ItemVerdict verdict = judge_item(a, ItemId(0), {}, {});
    CHECK(verdict.verdict == Verdict::idle);
    CHECK(verdict.sentence == "No formula of a fight reads keen: fights say nothing of it.");
}

TEST_CASE("a niche is seldom, or one encounter of several", "[M83]") {
    CHECK(Judged(times(11, {0.3, 0}, {{0.0, 0}})).name() == "niche");
    CHECK(Judged(times(3, {0.0, 0}, times(7, {0.3, 0}))).name() == "sound");
    CHECK(Judged(times(3, {0.0, 0, 0}, times(7, {0.3, 0, 1}))).name() == "niche");
    CHECK(Judged(times(3, {0.0, 0, 0}, times(6, {0.3, 0, 1}, {{0.0, 0, 1}}))).name() == "sound");
    // 11 of 100 picks are more than seldom.
    CHECK(Judged(times(11, {0.0, 0, 0}, times(88, {0.3, 0, 1}, {{0.0, 0, 1}}))).name() == "sound");
    CHECK(Judged(times(8, {0.0, 0, 0}, times(91, {0.3, 0, 1}, {{0.0, 0, 1}}))).name() == "niche");
}

TEST_CASE("thresholds are the armoury's", "[M83]") {
    const std::string strict =
        "[audit]\ndominant = { share = 0.5, grip = 0.1 }\nuseless = { shortfall = 0.3 }\n";
    CHECK(Judged(times(5, {0.0, 0.1}), 1, strict).name() == "dominant");
    CHECK(Judged(times(5, {0.35, 0}), 1, strict).name() == "useless");
}

TEST_CASE("what no level reaches, what nobody looked at, what is beaten on paper", "[M82][M83]") {
    const Judged late({}, 11);
    CHECK(late.name() == "unreachable");
    CHECK(late.judge().sentence ==
          "Nobody gets to wear it: it is for level 11; the armoury ends at 10.");
    CHECK(Judged({}).name() == "unjudged");
    CHECK(Judged({}).judge().sentence == "No context in levels 1–5 was looked at.");
    CHECK(Judged(times(5, {0.0, 0})).name() == "sound"); // what outclasses it is dearer
    Judged dear(times(5, {0.0, 0}));
    dear.armoury_.items[0].value = 100;
    CHECK(dear.name() == "outclassed");
    CHECK(dear.judge().sentence.starts_with("better is no worse in anything"));
}

TEST_CASE("overstays looks at the levels after the window only", "[M83]") {
    Judged judged(times(3, {0.4, 0}, times(4, {0.0, 0})));
    for (std::size_t i = 3; i < judged.rows.size(); ++i) {
        judged.rows[i].in_window = false;
        judged.rows[i].after_window = true;
    }
    CHECK(judged.judge().overstays);
    CHECK(judged.judge().contexts == 3);
    judged.rows[3].shortfall = judged.rows[4].shortfall = judged.rows[5].shortfall = 0.3;
    CHECK_FALSE(judged.judge().overstays);
}

TEST_CASE("encounters weigh in means and shares", "[M83]") {
    Judged judged({{0.0, 0.4}, {0.4, 0.0}});
    judged.contexts[0].weight = 3;
    const ItemVerdict verdict = judged.judge();
    CHECK(verdict.pick_share == 0.75);
    CHECK(verdict.shortfall.mean == Approx(0.1));
    CHECK(verdict.grip.mean == Approx(0.3));
    CHECK(verdict.shortfall.max == 0.4);
}

TEST_CASE("places of no worth and errors are left out", "[M81a]") {
    Judged judged(times(2, {0.0, 0.5}, times(2, {9.0, 0})));
    judged.rows[2].judged = judged.rows[3].judged = false;
    CHECK(judged.judge().contexts == 2);
    CHECK(judged.name() == "dominant");
}

TEST_CASE("every verdict has a name and a meaning of its own") {
    CHECK(verdict_rows().size() == 11);
    for (const VerdictRow& row : verdict_rows()) {
        CHECK(std::string(verdict_name(row.verdict)) == row.name);
        CHECK(std::string(row.meaning).size() > 10);
    }
}
