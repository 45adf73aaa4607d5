#include "support/armouries.h"

#include "judge/audit/audit.h"
#include "judge/curve/curve.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>
#include <set>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Ten items of one slot with small random numbers, so that many pairs are comparable.
Armoury random_items() {
    Armoury a =
        armoury(with(duel(), "[stat.haste]", "[stat.burden]\nbetter = \"lower\"\n[stat.haste]"));
    for (int i = 0; i < 10; ++i) {
        Item item;
        item.id = "i" + std::to_string(i);
        item.slot = SlotId(*rc::gen::inRange<std::size_t>(0, 2));
        item.level = *rc::gen::inRange(1, 3);
        item.weight = *rc::gen::inRange(0, 2);
        for (const char* stat : {"attack", "burden"})
            if (*rc::gen::arbitrary<bool>())
                item.modifiers.add.push_back({find_id<StatKind>(a.stats, stat),
                                              static_cast<double>(*rc::gen::inRange(0, 3))});
        a.items.push_back(item);
    }
    return a;
}

/// The rule itself, for the two stats of random_items().
bool outclasses(const Armoury& a, const Item& one, const Item& two) {
    const auto amount = [&](const Item& item, const char* stat) {
        double total = 0;
        for (const Amount& added : item.modifiers.add)
            if (a.at(added.stat).id == stat) total += added.amount;
        return total;
    };
    const double differences[] = {static_cast<double>(two.level - one.level),
                                  static_cast<double>(two.weight - one.weight),
                                  amount(one, "attack") - amount(two, "attack"),
                                  amount(two, "burden") - amount(one, "burden")};
    const bool no_worse = std::all_of(std::begin(differences), std::end(differences),
                                      [](double d) { return d >= 0; });
    const bool better =
        std::any_of(std::begin(differences), std::end(differences), [](double d) { return d > 0; });
    return one.slot == two.slot && no_worse && better;
}

} // namespace

TEST_CASE("paper says what the rule says of each pair, and never both ways", "[M82]") {
    rc::prop("random items", [] {
        const Armoury a = random_items();
        const std::vector<PaperVerdict> verdicts = compare_on_paper(a);
        for (std::size_t i = 0; i < a.items.size(); ++i)
            for (std::size_t j = 0; j < a.items.size(); ++j) {
                const auto& by = verdicts[j].outclassed_by;
                const bool said = std::find(by.begin(), by.end(), ItemId(i)) != by.end();
                RC_ASSERT(said == (i != j && outclasses(a, a.items[i], a.items[j])));
            }
        const std::vector<ItemId> groups = twin_groups(verdicts);
        for (std::size_t i = 0; i < a.items.size(); ++i)
            for (const ItemId twin : verdicts[i].twins)
                RC_ASSERT(groups[twin.index()] == groups[i]);
    });
}

TEST_CASE("power rises with level where only levels change", "[M70]") {
    const Armoury demo = demo_armoury();
    CurveOptions options;
    options.levels = demo.levels;
    options.encounters = {demo.yardstick};
    options.trials = 0;
    for (const Curve& curve : draw_curves(demo, options).curves)
        for (std::size_t i = 1; i < curve.points.size(); ++i)
            CHECK(curve.points[i].even.value > curve.points[i - 1].even.value);
}

TEST_CASE("a curve has no level at which its encounter is not met") {
    const Armoury a =
        armoury(with(duel(), "[encounter.spar]\n", "[encounter.spar]\nlevels = [3, 5]\n"));
    CurveOptions options;
    options.levels = a.levels;
    options.trials = 0;
    const CurveResult result = draw_curves(a, options);
    REQUIRE(result.curves.at(0).points.size() == 3);
    CHECK(result.curves[0].points.front().level == 3);
    CHECK(result.curves[0].points.back().level == 5);
}

TEST_CASE("a point of a curve counts wins and what is beyond reach", "[M70]") {
    const auto point = [](const std::string& attack) {
        const Armoury a =
            armoury(with(duel(), "attack = 10, might", "attack = " + attack + ", might"));
        CurveOptions options;
        options.levels = {1, 1};
        options.trials = 10;
        return draw_curves(a, options).curves.at(0).points.at(0);
    };
    CHECK(point("0.1").win_share == 0); // 18 of 100 health until the limit
    CHECK(point("0.1").p50 == Approx(0.18).epsilon(0.01));
    CHECK(point("0.1").beyond == 0);
    CHECK(point("1").win_share == 1);
    CHECK(point("1000").beyond == 10);
    CHECK(point("1000").p90 == 64);
    CHECK(point("0").beyond == 10);
    CHECK(point("0").even.reach == Reach::below);
}

TEST_CASE("an audit looks at every step-th level, and only where the encounter is met", "[M80]") {
    const Armoury a =
        armoury(with(duel(), "[encounter.spar]\n", "[encounter.spar]\nlevels = [1, 8]\n") +
                "[item.x]\nslot = \"hand\"\nadd = { attack = 5 }\n[item.y]\nslot = \"hand\"\nadd = "
                "{ attack = 4 }\n");
    AuditOptions options;
    options.levels = a.levels;
    options.step = 3;
    const AuditResult result = audit(a, options);
    std::vector<int> levels;
    for (const ContextRow& row : result.contexts) levels.push_back(row.context.level);
    CHECK(levels == std::vector<int>{1, 4, 7});
    CHECK(result.items.at(0).contexts == 2); // 1 and 4 lie in its window of five
    REQUIRE(result.remarks.size() == 1);
    CHECK(result.remarks[0].starts_with("only some levels of 1–10 were looked at"));
}

TEST_CASE(
    "an audit names who and against whom, and leaves out the yardstick and what weighs nothing",
    "[M80]") {
    const std::string text =
        with(duel(), "foes = [ { foe = \"dummy\" } ]",
             "foes = [ { foe = \"dummy\" } ]\nweight = 2.5") +
        "[encounter.idle]\nweight = 0\nfoes = [ { foe = \"dummy\" } ]\n[encounter.post]\nfoe_level "
        "= \"1\"\nfoes = [ { foe = \"dummy\" } ]\n[yardstick]\nencounter = \"post\"\n"
        "[character.other]\nbase = { max_health = 50, attack = 3 }\nactions = "
        "[\"strike\"]\n[item.x]\nslot = \"hand\"\nadd = { attack = 5 }\n";
    const Armoury a = armoury(text);
    AuditOptions options;
    options.levels = {2, 2};
    const AuditResult all = audit(a, options);
    REQUIRE(all.contexts.size() == 2);
    CHECK(all.contexts[0].weight == 2.5);
    CHECK(all.contexts[0].outfit.worn.size() == 1);
    options.characters = {CharacterId(1)};
    options.encounters = {find_id<EncounterKind>(a.encounters, "post")};
    const AuditResult one = audit(a, options);
    REQUIRE(one.contexts.size() == 1);
    CHECK(one.contexts[0].context.character == CharacterId(1));
}

TEST_CASE("an audit whose fights can't go on says where, and judges nobody there", "[M66]") {
    const Armoury a =
        armoury(with(duel(), "mitigated = \"amount\"", "mitigated = \"amount / other.guard\"") +
                "[item.x]\nslot = \"hand\"\nadd = { attack = 5 }\n");
    AuditOptions options;
    options.levels = {1, 2};
    const AuditResult result = audit(a, options);
    CHECK(result.rows.empty());
    REQUIRE(result.contexts.size() == 2);
    CHECK(result.contexts[0].error.has_value());
    CHECK(std::any_of(result.remarks.begin(), result.remarks.end(), [](const std::string& r) {
        return r.starts_with("hero at level 1 against spar: the formula");
    }));
    CHECK(result.items.at(0).verdict == Verdict::unjudged);
}

TEST_CASE("a consumable is packed from its level on", "[M41]") {
    const std::string text =
        with(duel(), "foes = [ { foe = \"dummy\" } ]", "foes = [ { foe = \"biter\" } ]") +
        "[action.bite]\nevery = \"1\"\ndeals = { blunt = \"9\" }\n[foe.biter]\nbase = { max_health "
        "= 100 }\nactions = [\"bite\"]\n"
        "[item.vial]\nlevel = 3\nstack = 5\nuse = { restore = { health = 30 } }\n[carry]\ncapacity "
        "= \"9\"\nbag = 1\n";
    const Armoury a = armoury(text);
    AuditOptions options;
    options.levels = {2, 3};
    const AuditResult result = audit(a, options);
    CHECK(result.contexts[0].outfit.pack.empty());
    REQUIRE(result.contexts[1].outfit.pack.size() == 1);
    CHECK(result.contexts[1].outfit.pack[0].count == 5);
}
