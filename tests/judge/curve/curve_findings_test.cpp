// What curves show, on numbers that are set by hand and on armouries with something planted.
#include "support/armouries.h"

#include "judge/curve/findings.h"
#include "judge/paper/paper.h"
#include "judge/search/ladder.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// A curve of the duel's `bare` through these margins, from level 1 on.
Curve curve_of(const std::vector<double>& margins) {
    Curve curve;
    curve.character = CharacterId(0);
    curve.loadout = LoadoutId(0);
    curve.encounter = EncounterId(0);
    for (std::size_t i = 0; i < margins.size(); ++i) {
        CurvePoint point;
        point.level = static_cast<int>(i) + 1;
        point.p10 = point.p50 = point.p90 = margins[i];
        point.hits = {{static_cast<int>(100 / margins[i])}, {5}};
        curve.points.push_back(point);
    }
    return curve;
}

/// "kind@level" of what is found, but for kinds that are left out.
std::vector<std::string> found(const Armoury& armoury, CurveResult& result,
                               const std::vector<std::string>& leave_out = {"hits", "flat"}) {
    find_all(armoury, result);
    std::vector<std::string> list;
    for (const Finding& finding : result.findings)
        if (std::find(leave_out.begin(), leave_out.end(), finding.kind) == leave_out.end())
            list.push_back(finding.kind + "@" + std::to_string(finding.level));
    return list;
}

std::vector<double> growing(double factor, std::size_t levels) {
    std::vector<double> margins;
    for (std::size_t i = 0; i < levels; ++i)
        margins.push_back(std::pow(factor, static_cast<double>(i)));
    return margins;
}

using Strings = std::vector<std::string>;

} // namespace

TEST_CASE("an even curve jumps nowhere; one step beyond its neighbours is a jump or a dip",
          "[M96]") {
    const Armoury a = armoury(duel());
    CurveResult even;
    even.curves.push_back(curve_of(growing(1.05, 12)));
    CHECK(found(a, even).empty());
    for (const double step : {1.3, 0.8}) {
        std::vector<double> margins = growing(1.05, 12);
        for (std::size_t i = 6; i < margins.size(); ++i) margins[i] *= step;
        CurveResult one;
        one.curves.push_back(curve_of(margins));
        CHECK(found(a, one) == Strings{step > 1 ? "jump@7" : "dip@7"});
        CHECK(one.findings.back().size >= 0);
        for (const Finding& finding : one.findings)
            if (finding.kind == "jump" || finding.kind == "dip")
                CHECK(finding.size == Approx(std::abs(std::log(step))).margin(1e-9));
    }
}

TEST_CASE("a curve as restless everywhere jumps nowhere", "[M96]") {
    const Armoury a = armoury(duel());
    std::vector<double> margins = growing(1.05, 14);
    for (std::size_t i = 1; i < margins.size(); i += 2) margins[i] *= 1.2;
    CurveResult result;
    result.curves.push_back(curve_of(margins));
    CHECK(found(a, result).empty());
}

TEST_CASE("curves cross where one passes the other by more than a touch", "[M96]") {
    const Armoury a = armoury(duel());
    CurveResult result;
    result.curves.push_back(curve_of({1, 1.1, 1.2, 1.3, 1.4}));
    result.curves.push_back(curve_of({0.9, 1.05, 1.201, 1.4, 1.6}));
    CHECK(found(a, result) == Strings{"crossing@4"}); // at level 3 they only touch
    CHECK(result.findings.front().curve == 1);
    CurveResult touching;
    touching.curves.push_back(curve_of({1, 1.1, 1.2}));
    touching.curves.push_back(curve_of({0.995, 1.102, 1.198}));
    CHECK(found(a, touching).empty());
}

TEST_CASE("what a player counts steps, or stays for a window of levels", "[M92]") {
    const Armoury a = armoury(duel());
    Curve curve = curve_of(growing(1, 8));
    for (CurvePoint& point : curve.points) point.hits = {{point.level < 3 ? 4 : 3}, {7}};
    CurveResult result;
    result.curves.push_back(curve);
    CHECK(found(a, result, {}) == Strings{"hits@3", "flat@3"});
    CHECK(result.findings[0].sentence == "bare against spar: hits that fell dummy: 4, 3 from "
                                         "level 3");
    CHECK(result.findings[1].size == 5);
}

TEST_CASE("a load band is told from the level on at which it binds", "[M51]") {
    const Armoury a =
        armoury(duel() + "[carry]\ncapacity = \"10\"\n[[carry.band]]\nname = \"Laden\"\nfrom "
                         "= 0.5\nadd = { haste = -5 }\n");
    Curve curve = curve_of(growing(1.01, 4));
    curve.points[2].band = curve.points[3].band = 0;
    CurveResult result;
    result.curves.push_back(curve);
    CHECK(found(a, result) == Strings{"band@3"});
    CHECK(has(result.findings[0].sentence, "the load is Laden from level 3 on"));
}

namespace {

/// Charms that come at levels 1, 3 and 5, each better; the one of 3 is fine, that of 5 plain.
std::string charms() {
    return arena(
        "[item.tin]\nslot = \"charm\"\ntier = \"plain\"\nadd = { attack = 2 }\n"
        "[item.gem]\nslot = \"charm\"\ntier = \"fine\"\nlevel = 3\nadd = { attack = 10 }\n"
        "[item.bell]\nslot = \"charm\"\ntier = \"plain\"\nlevel = 5\nadd = { attack = 6 }\n"
        "[yardstick]\nencounter = \"spar\"\n");
}

CurveOptions ladder_options() {
    CurveOptions options;
    options.by = CurveBy::tier;
    options.levels = {1, 10};
    options.trials = 0;
    return options;
}

} // namespace

TEST_CASE("the tier ladder never falls from rung to rung, and each rung wears only its tiers",
          "[M80]") {
    const Armoury a = armoury(charms());
    CurveOptions options = ladder_options();
    options.encounters = {find_id<EncounterKind>(a.encounters, "bites")};
    const CurveResult result = draw_curves(a, options);
    REQUIRE(result.curves.size() == 2);
    const Curve& plain = result.curves[0];
    const Curve& fine = result.curves[1];
    REQUIRE(plain.points.size() == fine.points.size());
    for (std::size_t i = 0; i < plain.points.size(); ++i) {
        CHECK(fine.points[i].p50 >= plain.points[i].p50);
        for_each_worn(plain.points[i].outfit.worn,
                      [&](const WornItem& worn) { CHECK(a.at(worn.item).id != "gem"); });
        if (plain.points[i].level < 3) CHECK(fine.points[i].p50 == plain.points[i].p50);
        if (plain.points[i].level >= 3) CHECK(fine.points[i].p50 > plain.points[i].p50);
    }
}

TEST_CASE("the demo's tier ladder is monotone too", "[M80]") {
    const Armoury demo = demo_armoury();
    CurveOptions options = ladder_options();
    options.levels = {12, 15};
    options.characters = {CharacterId(2)};
    options.encounters = {demo.yardstick};
    const CurveResult result = draw_curves(demo, options);
    REQUIRE(result.curves.size() == demo.tiers.size());
    for (std::size_t c = 1; c < result.curves.size(); ++c)
        for (std::size_t i = 0; i < result.curves[c].points.size(); ++i)
            CHECK(result.curves[c].points[i].p50 >= result.curves[c - 1].points[i].p50);
}

TEST_CASE("levels at which nothing new is worth wearing are told, and a tier's worth in levels",
          "[M96]") {
    const Armoury a = armoury(charms());
    CurveOptions options = ladder_options();
    options.encounters = {find_id<EncounterKind>(a.encounters, "bites")};
    const CurveResult result = draw_curves(a, options);
    std::vector<std::string> stalls;
    for (const Finding& finding : result.findings)
        if (finding.kind == "stall")
            stalls.push_back(curve_subject(a, result.curves[finding.curve]) + "@" +
                             std::to_string(finding.level));
    CHECK(stalls == Strings{"hero in plain and below@5", "hero in fine and below@3"});
}

TEST_CASE("a tier is worth as many levels as the one below needs to come as far", "[M96]") {
    Armoury a = armoury(charms());
    a.yardstick = EncounterId(0);
    CurveResult result;
    for (const double ahead : {1.0, std::pow(1.05, 3)}) {
        std::vector<double> margins = growing(1.05, 12);
        for (double& margin : margins) margin *= ahead;
        Curve curve = curve_of(margins);
        curve.by = CurveBy::tier;
        curve.tier = TierId(result.curves.size());
        curve.power = true;
        result.curves.push_back(curve);
    }
    find_all(a, result);
    const auto step = std::find_if(result.findings.begin(), result.findings.end(),
                                   [](const Finding& f) { return f.kind == "tier_step"; });
    REQUIRE(step != result.findings.end());
    CHECK(step->size == Approx(3));
    CHECK(has(step->sentence, "hero: fine over plain is worth 3 levels"));
}

TEST_CASE("levels that matter: the ends, the steps, and where something new can be worn", "[M95]") {
    const Armoury a = armoury(charms());
    CHECK(levels_that_matter(a, CharacterId(0), {1, 10}, 4) == std::vector<int>{1, 3, 5, 9, 10});
    CHECK(levels_that_matter(a, CharacterId(0), {6, 8}, 10) == std::vector<int>{6, 8});
}

TEST_CASE("curves by character and by encounter are of the best of all", "[M80]") {
    const Armoury a = armoury(charms());
    for (const CurveBy by : {CurveBy::character, CurveBy::encounter}) {
        CurveOptions options = ladder_options();
        options.by = by;
        options.levels = {5, 5};
        options.encounters = {find_id<EncounterKind>(a.encounters, "bites")};
        const CurveResult result = draw_curves(a, options);
        REQUIRE(result.curves.size() == 1);
        std::string worn;
        for_each_worn(result.curves[0].points.at(0).outfit.worn,
                      [&](const WornItem& one) { worn += a.at(one.item).id + " "; });
        CHECK(worn == "gem gem ");
        CHECK(curve_subject(a, result.curves[0]) == "hero at best");
    }
}

TEST_CASE("hits that nobody counts are flat, whatever they are", "[M96]") {
    const Armoury a = armoury(duel());
    Curve curve = curve_of(growing(1, 8));
    for (CurvePoint& point : curve.points) point.hits = {{20 + point.level}, {7}};
    CurveResult result;
    result.curves.push_back(curve);
    CHECK(found(a, result, {}) == Strings{"flat@1"});
}

TEST_CASE("who can't hurt anybody has a curve too", "[M92][M95]") {
    const Armoury a = armoury(with(duel(), "actions = [\"strike\"]", "actions = [\"rest\"]"));
    CurveOptions options;
    options.levels = {1, 3};
    options.trials = 0;
    options.encounters = {EncounterId(0)};
    const CurveResult result = draw_curves(a, options);
    REQUIRE(result.curves.size() == 1);
    for (const CurvePoint& point : result.curves[0].points)
        CHECK(point.hits == HitCounts{{0}, {0}});
}

TEST_CASE("a ladder that was stopped before its first rung says nothing and breaks nothing",
          "[M95]") {
    const Armoury a = armoury(charms());
    const std::atomic<bool> stop = true;
    Watch watch;
    watch.stop = &stop;
    CurveOptions options = ladder_options();
    options.encounters = {a.yardstick};
    const CurveResult result = draw_curves(a, options, watch);
    CHECK(result.partial);
    CHECK(result.findings.empty());
}

TEST_CASE("the jumps and dips that are planted in the demo are found, and no others", "[M96]") {
    const Armoury demo = demo_armoury();
    CurveOptions options;
    options.levels = demo.levels;
    options.encounters = {find_id<EncounterKind>(demo.encounters, "flood_gate")};
    for (const std::uint64_t seed : {1, 2, 3}) {
        options.seed = seed;
        const CurveResult result = draw_curves(demo, options);
        Strings list;
        for (const Finding& finding : result.findings)
            if (finding.kind == "jump" || finding.kind == "dip")
                list.push_back(curve_subject(demo, result.curves[finding.curve]) + " " +
                               finding.kind + "@" + std::to_string(finding.level));
        std::sort(list.begin(), list.end());
        CHECK(list == Strings{"ringer_early dip@10", "ringer_middle jump@18", "runner_early dip@10",
                              "runner_middle jump@18", "warden_bell jump@18", "warden_early dip@10",
                              "warden_middle jump@18"});
    }
}

TEST_CASE("the stalls of the demo's lower tiers are found", "[M96]") {
    const Armoury demo = demo_armoury();
    CurveOptions options;
    options.by = CurveBy::tier;
    options.levels = {1, 16};
    options.trials = 1;
    options.characters = {find_id<CharacterKind>(demo.characters, "ringer")};
    options.encounters = {demo.yardstick};
    const CurveResult result = draw_curves(demo, options);
    Strings list;
    for (const Finding& finding : result.findings)
        if (finding.kind == "stall")
            list.push_back(curve_subject(demo, result.curves[finding.curve]) + "@" +
                           std::to_string(finding.level));
    // No gear of `plain` is for more than level 8.
    CHECK(list == Strings{"ringer in plain and below@8"});
}
