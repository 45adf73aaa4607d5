// Changing an armoury with the built program: compare and tune.
#include "support/program.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Json = nlohmann::ordered_json;

namespace {

/// One context of the demo: quick, and with something dominant in it.
const std::string narrow = " --character ringer --encounter long_watch --level 19 -q";

} // namespace

TEST_CASE("program: compare tells a what-if, and fails where it went too far") {
    const DemoFolder demo;
    const std::string change = "compare a --set item.rope_harness.add.attack=60" + narrow;
    const Run run = run_program(demo, change + " -o out");
    CHECK(run.exit == 0);
    CHECK(has(run.out, "item.rope_harness add.attack: 5 → 60"));
    CHECK(has(run.out, "Loadouts: margins by even luck that moved"));
    for (const char* file : {"compare.json", "compare.png", "compare.svg", "compare-changes.csv",
                             "compare-verdicts.csv", "compare-curves.csv", "compare-best.csv"})
        CHECK(demo.has(std::string("out/") + file));
    const Json json = Json::parse(demo.read("out/compare.json"));
    CHECK(json["items"][0]["id"] == "rope_harness");
    CHECK(json["items"][0]["keys"][0]["after"] == "60");
    CHECK(json["worst"]["ratio"] > 1);
    for (const char* key : {"name", "level", "before", "after", "ratio"})
        CHECK(json["curves"][0].contains(key));

    const Run failed = run_program(demo, change + " --tolerance 1");
    CHECK(failed.exit == 4);
    CHECK(has(failed.err, "over the tolerance of 1 %"));
    CHECK(run_program(demo, change + " --tolerance 500").exit == 0);
    CHECK(run_program(demo, "compare a a" + narrow).exit == 0);
}

TEST_CASE("program: compare asked wrongly says so") {
    const DemoFolder demo;
    CHECK(run_program(demo, "compare a").exit == 2);
    CHECK(run_program(demo, "compare a nowhere").exit == 3);
    CHECK(run_program(demo, "compare a a a").exit == 2);
    CHECK(run_program(demo, "compare a a --tolerance many").exit == 2);
    const Run unknown = run_program(demo, "compare a --set item.rope_harnes.add.guard=60");
    CHECK(unknown.exit == 1);
    CHECK(has(unknown.err, "did you mean 'rope_harness'?"));
}

TEST_CASE("program: what one run found the next need not search, whichever command asks") {
    const DemoFolder demo;
    const std::string scope = " a --character ringer --encounter ford --level 1-9";
    const Run cold = run_program(demo, "audit" + scope + " --json");
    CHECK_FALSE(has(cold.err, "known"));
    const Run warm = run_program(demo, "audit" + scope + " --json");
    CHECK(has(warm.err, "4 of 4 searches were known from before; --anew searches again"));
    CHECK(warm.out == cold.out);
    const Run anew = run_program(demo, "audit" + scope + " --json --anew");
    CHECK_FALSE(has(anew.err, "known"));
    CHECK(anew.out == cold.out);
    const Run changed =
        run_program(demo, "audit" + scope + " --json --set item.rope_grips.add.guard=1");
    CHECK(has(changed.err, "of 4 searches were known"));
    CHECK_FALSE(has(changed.err, "4 of 4"));
    const Run best = run_program(demo, "best" + scope + " --json");
    CHECK(run_program(demo, "best" + scope + " --json").out == best.out);
    const Run curve = run_program(demo, "curve" + scope + " --by character --even-luck --json");
    const Run again = run_program(demo, "curve" + scope + " --by character --even-luck --json");
    CHECK(has(curve.err, "known from before")); // an audit found some of its bests
    CHECK(again.out == curve.out);
}

TEST_CASE("program: a memory that is damaged costs time and nothing else") {
    const DemoFolder demo;
    const std::string audit = "audit a --character ringer --encounter ford --level 1-9 --trials 0";
    const Run first = run_program(demo, audit);
    REQUIRE(demo.has("cache/panoplon/known.sqlite"));
    demo.write("cache/panoplon/known.sqlite", "{ broken");
    const Run again = run_program(demo, audit);
    CHECK(again.exit == 0);
    CHECK(again.out == first.out);
    CHECK(has(again.err, "begun anew"));
    const Run third = run_program(demo, audit);
    CHECK(has(third.err, " searches were known"));
    CHECK(third.out == first.out);
}

TEST_CASE("program: a run that is killed leaves what it found") {
    const DemoFolder demo;
    const Run killed = run_and_kill(demo, "audit a --threads 1 --trials 0 -q", seconds(3));
    CHECK(killed.exit == 137);
    const Run next = run_program(demo, "audit a --threads 1 --trials 0 --level 1-3 --json");
    CHECK(has(next.err, "were known from before"));
    CHECK(next.out == run_program(demo, "audit a --trials 0 --level 1-3 --json --anew").out);
}

TEST_CASE("program: without a cache folder nothing is kept, and where it can't be, that is said") {
    const DemoFolder demo;
    const std::string best = "best a --character ringer --encounter ford --level 3";
    const Run none = run_program(demo, best, "env XDG_CACHE_HOME= HOME=");
    CHECK(none.exit == 0);
    CHECK(none.err.empty());
    const Run denied = run_program(demo, best, "env XDG_CACHE_HOME=/proc");
    CHECK(denied.exit == 0);
    CHECK(has(denied.err, "what is found can't be kept in '/proc/panoplon/known.sqlite'"));
    CHECK(denied.out == none.out);
}

TEST_CASE("program: tune finds the fair range, and prints the change as a patch") {
    const DemoFolder demo;
    const std::string before = demo.read("a/gear.csv");
    const Run run = run_program(demo, "tune a wind_vest add.attack --write -o out" + narrow);
    CHECK(run.exit == 0);
    CHECK(has(run.out, "dominant"));
    CHECK(has(run.out, "-wind_vest,"));
    CHECK(has(run.out, "+wind_vest,"));
    CHECK(demo.read("a/gear.csv") == before);
    for (const char* file : {"tune.json", "tune.csv", "tune-range.png", "tune-range.svg"})
        CHECK(demo.has(std::string("out/") + file));
    const Json json = Json::parse(demo.read("out/tune.json"));
    for (const char* key :
         {"item", "stat", "now", "useless_below", "fair", "dominant_above", "sentence"})
        CHECK(json.contains(key));
    REQUIRE(json["fair"].is_array());
    CHECK(json["proposal"] <= json["fair"][1]);
    CHECK(json["upset"].is_array());
}

TEST_CASE("program: tune asked wrongly says so") {
    const DemoFolder demo;
    CHECK(run_program(demo, "tune a").exit == 2);
    CHECK(run_program(demo, "tune a reed_coat --at 3").exit == 2);
    CHECK(run_program(demo, "tune a reed_coat guard attack").exit == 2);
    CHECK(run_program(demo, "tune a reed_coat guard --all").exit == 2);
    CHECK(has(run_program(demo, "tune a reed_coat gard").err, "did you mean 'guard'?"));
    CHECK(has(run_program(demo, "tune a reed_cot guard").err, "did you mean 'reed_coat'?"));
    CHECK(run_program(demo, "tune a reed_coat guard --at much").exit == 2);
}

TEST_CASE("program: tune without a number tries each and takes the smallest change", "[M87]") {
    const DemoFolder demo;
    const Run run = run_program(
        demo, "tune a deep_clapper --alone --json -q --character ringer --encounter causeway "
              "--level 22");
    REQUIRE(run.exit == 0);
    const Json json = Json::parse(run.out);
    REQUIRE(json["numbers"].size() >= 3);
    double least = 1e9;
    std::string smallest;
    for (const Json& one : json["numbers"]) {
        if (one["proposal"].is_null()) continue;
        const double now = one["now"];
        const double change = std::abs(one["proposal"].get<double>() - now) / std::abs(now);
        CHECK(one["proposal"] == std::floor(one["proposal"].get<double>())); // whole columns
        if (change < least) smallest = one["number"];
        least = std::min(least, change);
    }
    CHECK(json["stat"] == smallest);
    CHECK(has(json["smallest"], "The smallest change that makes deep_clapper fair: " + smallest));
    const Run fair = run_program(demo, "tune a plank_coat --alone" + narrow);
    CHECK(fair.exit == 0);
    CHECK(has(fair.out, "plank_coat is fair: no number has to change."));
    const Run idle = run_program(demo, "tune a marsh_lantern --alone --level 5");
    CHECK(has(idle.out, "marsh_lantern is idle, whatever its numbers are: No formula of a fight"));
    CHECK_FALSE(has(idle.out, "smallest change"));
}

TEST_CASE("program: tune of what nobody can wear says why no number helps") {
    const DemoFolder demo;
    const Run run = run_program(demo, "tune a oath_bell attack --alone" + narrow);
    CHECK(run.exit == 0);
    CHECK(has(run.out, "oath_bell is unreachable, with any add.attack: Nobody gets to wear it"));
}

TEST_CASE("program: where no patch can be made, what was found is shown all the same") {
    const DemoFolder demo;
    const Run run =
        run_program(demo, "tune a wind_vest times.attack --at 1.5 --alone --write" + narrow);
    CHECK(run.exit == 1);
    CHECK(has(run.err, "gear.csv has no column for times.attack"));
    CHECK(has(run.out, "wind_vest is"));
}
