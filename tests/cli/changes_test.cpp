// Changing an armoury with the built program: compare and tune.
#include "support/program.h"

#include <catch2/catch.hpp>
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

TEST_CASE("program: a second audit into the same folder searches only what has changed") {
    const DemoFolder demo;
    const std::string audit = "audit a --character ringer --encounter ford --level 1-9 -q -o out";
    const Run first = run_program(demo, audit);
    const Run second = run_program(demo, audit);
    CHECK(has(second.out, "3 of 3 contexts were known from before"));
    const Run changed = run_program(demo, audit + " --set item.rope_grips.add.guard=1");
    CHECK(has(changed.out, "of 3 contexts were known from before"));
    CHECK_FALSE(has(changed.out, "3 of 3"));
    demo.write("out/audit-known.json", "{ broken");
    const Run again = run_program(demo, audit);
    CHECK(again.exit == 0);
    CHECK(first.out == again.out);
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
    CHECK(run_program(demo, "tune a reed_coat").exit == 2);
    CHECK(run_program(demo, "tune a reed_coat guard --all").exit == 2);
    CHECK(has(run_program(demo, "tune a reed_coat gard").err, "did you mean 'guard'?"));
    CHECK(has(run_program(demo, "tune a reed_cot guard").err, "did you mean 'reed_coat'?"));
    CHECK(run_program(demo, "tune a reed_coat guard --at much").exit == 2);
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
