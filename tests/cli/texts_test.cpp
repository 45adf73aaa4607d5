// What commands say at the size of real games, and to words that mean something else.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Json = nlohmann::ordered_json;

TEST_CASE("program: check tells the first doubts of a kind, and of many others their things") {
    const DuelFolder folder;
    std::string gear;
    for (int i = 0; i < 12; ++i)
        gear += "[item.cap_" + std::to_string(i) +
                "]\nslot = \"head\"\nadd = { max_health = " + std::to_string(10 + i) +
                " }\nnote = \"x\"\n[item.twin_" + std::to_string(i) +
                "]\nslot = \"head\"\nadd = { max_health = " + std::to_string(10 + i) + " }\n";
    folder.write("a/gear.toml", gear);
    const Run run = run_program(folder, "check a");
    CHECK(run.exit == 0);
    const auto count = [&](const std::string& words) {
        std::size_t times = 0;
        for (std::size_t at = run.out.find(words); at != std::string::npos;
             at = run.out.find(words, at + 1))
            ++times;
        return times;
    };
    CHECK(count("doubt (twin)") == 3);
    CHECK(count(" more of twin: item.") == 1);
    const Json json = Json::parse(run_program(folder, "check a --json").out);
    CHECK(json["doubts"].size() == json["doubt_count"]);
    CHECK(has(run.out, "no mistakes, " + std::to_string(json["doubts"].size()) + " doubts"));
}

TEST_CASE("program: a curve by even luck has one margin, and what lies elsewhere is one line") {
    const DemoFolder demo;
    const Run run = run_program(demo, "curve a --even-luck --level 6");
    CHECK(run.exit == 0);
    CHECK(!has(run.out, "p50"));
    CHECK(!has(run.out, "wins"));
    CHECK(has(run.out, "No level that is asked for is one of: ringer_middle, "));
    CHECK(has(run_program(demo, "curve a --trials 5 --level 6 --loadout ringer_early").out, "p50"));
    const Json json = Json::parse(run_program(demo, "curve a --even-luck --level 6 --json").out);
    CHECK(json["curves"][0]["points"][0].contains("margin"));
}

TEST_CASE("program: lists tell what a foe is and who is met, and what else a word may mean") {
    const DemoFolder demo;
    const Run foes = run_program(demo, "list a foe");
    CHECK(has(foes.out, "max_health "));
    CHECK(has(foes.out, "attack "));
    CHECK(has(run_program(demo, "list a encounter").out, "1 "));
    const Run charms = run_program(demo, "list a charms");
    CHECK(charms.exit == 2);
    CHECK(has(charms.err, "panoplon list ARMOURY item --slot charm"));
    const Run potions = run_program(demo, "list a potions");
    CHECK(potions.exit == 2);
    CHECK(has(potions.err, "are of the kind item"));
}

TEST_CASE("program: a what-if that lacks its kind says what it should have") {
    const DemoFolder demo;
    const Run run = run_program(demo, "check a --set ash_striker.attack=2");
    CHECK(run.exit == 1);
    CHECK(has(run.err, "did you mean 'item.ash_striker.attack'?"));
    CHECK(run_program(demo, "check a --set item.ash_striker.attack=2").exit == 0);
    CHECK(has(run_program(demo, "check a --set nothing.attack=2").err, "unknown kind 'nothing'"));
}

TEST_CASE("program: equip leaves out stats that nothing gives, and says how many") {
    const DuelFolder folder;
    folder.write("a/more.toml", "[stat.shine]\n[stat.gloom]\n");
    const Run run = run_program(folder, "equip a bare");
    CHECK(run.exit == 0);
    CHECK(!has(run.out, "shine"));
    CHECK(has(run.out, " that nothing gives, and that are 0"));
    CHECK(Json::parse(run_program(folder, "equip a bare --json").out)["stats"].contains("shine"));
}
