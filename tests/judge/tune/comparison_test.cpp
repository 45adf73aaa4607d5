// What a change of an armoury does, against hand arithmetic.
#include "support/armouries.h"
#include "support/tables.h"

#include "judge/tune/comparison.h"
#include "show/tune/show_comparison.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Against a dummy that does nothing the margin goes with attack: 10 and what is worn.
std::string swords(double own) {
    return with(with(duel(), "levels = [1, 10]", "levels = [1, 1]"), "[loadout.bare]",
                "[item.rival]\nslot = \"hand\"\nadd = { attack = 5 }\n"
                "[item.own]\nslot = \"hand\"\nadd = { attack = " +
                    std::to_string(own) +
                    " }\n[loadout.armed]\ncharacter = \"hero\"\nworn = { hand = \"own\" }\n"
                    "[loadout.bare]");
}

struct Compared {
    ReadArmoury before, after;
    Comparison comparison;
    std::size_t answered = 0; ///< contexts that needed no search
};

Compared compared(const std::string& before, const std::string& after) {
    Compared result{test::read(before), test::read(after), {}, 0};
    REQUIRE(mistakes(result.before).empty());
    REQUIRE(mistakes(result.after).empty());
    AuditOptions scope;
    scope.levels = result.before.armoury.levels;
    scope.encounters = {EncounterId(0)};
    MemoryOfRun memory;
    result.comparison = compare_readings({result.before, scope}, {result.after, scope}, memory);
    result.answered = memory.answered();
    return result;
}

const CurveShift& curve(const Comparison& comparison, const std::string& loadout) {
    return *std::find_if(comparison.curves.begin(), comparison.curves.end(),
                         [&](const CurveShift& one) { return one.loadout == loadout; });
}

} // namespace

TEST_CASE("compare: sheets, curves, bests and verdicts move as the numbers do", "[M81a][M83]") {
    const Comparison c = compared(swords(5), swords(10)).comparison;
    REQUIRE(c.changes.size() == 1);
    CHECK(c.changes.front().id == "own");
    REQUIRE(c.sheets.size() == 1);
    CHECK(c.sheets.front().loadout == "armed");
    CHECK(c.sheets.front().before == 15);
    CHECK(c.sheets.front().after == 20);
    CHECK(curve(c, "armed").most().ratio() == Approx(20.0 / 15).epsilon(1e-3));
    CHECK(curve(c, "armed").moved());
    CHECK_FALSE(curve(c, "bare").moved());
    CHECK(c.furthest() == Approx(1.0 / 3).epsilon(1e-3));
    REQUIRE(c.bests.size() == 1);
    CHECK(c.bests.front().ratio() == Approx(20.0 / 15).epsilon(1e-3));
    const auto own = std::find_if(c.verdicts.begin(), c.verdicts.end(),
                                  [](const VerdictShift& shift) { return shift.id == "own"; });
    CHECK(own->before->verdict != Verdict::dominant);
    CHECK(own->after->verdict == Verdict::dominant);
    CHECK(own->moved());
    CHECK(c.calling_before() == 0);
    const auto newly = c.newly_calling();
    CHECK(std::any_of(newly.begin(), newly.end(),
                      [](const VerdictShift* shift) { return shift->id == "own"; }));
    CHECK(c.no_longer_calling().empty());
    CHECK(c.better() == std::optional<int>(-1));
    const Comparison back = compared(swords(10), swords(5)).comparison;
    CHECK(back.better() == std::optional<int>(1));
    CHECK(back.no_longer_calling().size() == newly.size());
}

TEST_CASE("compare: better is fewer that call and more curves that keep to their corridor") {
    Comparison c;
    CHECK(c.better() == std::optional<int>(0));
    c.corridors_before = {1, 4};
    c.corridors_after = {2, 4};
    CHECK(c.better() == std::optional<int>(1));
    VerdictShift worse;
    worse.after.emplace().verdict = Verdict::useless;
    c.verdicts.push_back(worse);
    CHECK_FALSE(c.better()); // one is better, the other worse
    c.corridors_after = {0, 4};
    CHECK(c.better() == std::optional<int>(-1));
}

TEST_CASE("compare: what is the same has moved in nothing and is searched once") {
    const Compared same = compared(swords(5), swords(5));
    const Comparison& c = same.comparison;
    CHECK(c.changes.empty());
    CHECK(c.sheets.empty());
    CHECK(c.furthest() == 0);
    CHECK(same.answered == c.contexts);
    for (const VerdictShift& shift : c.verdicts) CHECK_FALSE(shift.moved());
    const Document document = show_comparison({same.before, {}}, {same.after, {}}, "a", "b", c);
    CHECK(document.text.starts_with("No better and no worse: 0 → 0 things call for a hand"));
    CHECK(has(document.text, "No definition differs"));
    CHECK(document.json["worst"].is_null());
    CHECK(document.figures.empty());
}

TEST_CASE("compare: what is added, removed or refused is told, not compared") {
    const Comparison c =
        compared(swords(5), with(swords(5) + "[item.club]\nslot = \"hand\"\nadd = { attack = 4 }\n",
                                 "add = { attack = 5.000000 }\n[loadout.armed]",
                                 "level = 9\nadd = { attack = 5 }\n[loadout.armed]"))
            .comparison;
    const auto club = std::find_if(c.verdicts.begin(), c.verdicts.end(),
                                   [](const VerdictShift& shift) { return shift.id == "club"; });
    REQUIRE(club != c.verdicts.end());
    CHECK_FALSE(club->before);
    CHECK(club->moved());
    REQUIRE(c.incomparable.size() == 1);
    CHECK(has(c.incomparable.front(), "armed is refused after the change at level 1"));
    const Comparison gone =
        compared(swords(5), with(swords(5), "[loadout.bare]\ncharacter = \"hero\"\n", ""))
            .comparison;
    REQUIRE(gone.incomparable.size() == 1);
    CHECK(gone.incomparable.front() == "bare is not there after the change");
}

TEST_CASE("compare: the figure shows what moved, the furthest first") {
    const Compared result = compared(swords(5), swords(8));
    const auto figure = comparison_figure(result.before.armoury, "what", result.comparison);
    REQUIRE(figure);
    REQUIRE(figure->data.rows.size() == 2);
    CHECK(row_texts(figure->data, 0)[0] == "armed · spar · 1");
    CHECK(row_texts(figure->data, 1)[0] == "best hero · spar · 1");
    CHECK(figure->data.rows[0][3].number().value() == Approx(1.2).epsilon(1e-3)); // 18 for 15
}
