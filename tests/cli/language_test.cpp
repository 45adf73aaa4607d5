// The commands around definitions: what-ifs, explain, list, new, export, equip with changes.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Json = nlohmann::ordered_json;

namespace {

/// A line of Python over the two files of an export, by Debian's python3-jsonschema.
int validates(const TempFolder& folder, const std::string& data) {
    folder.write(
        "validate.py",
        "import json, sys\nimport jsonschema\n"
        "schema = json.load(open('out/armoury.schema.json'))\n"
        "jsonschema.Draft202012Validator.check_schema(schema)\n"
        "jsonschema.Draft202012Validator(schema).validate(json.load(open(sys.argv[1])))\n");
    const int status = std::system(("cd '" + folder.path() + "' && /usr/bin/python3 validate.py " +
                                    data + " >/dev/null 2>validated.txt")
                                       .c_str());
    return WEXITSTATUS(status);
}

} // namespace

TEST_CASE("program: --set changes a run, on every command that reads an armoury") {
    const DemoFolder demo;
    const auto json = [&](const std::string& command) {
        const Run run = run_program(demo, command + " --json");
        INFO(run.err);
        CHECK(run.exit == 0);
        return Json::parse(run.out);
    };
    CHECK(json("card a reed_coat --set item.reed_coat.add.guard=30")["items"][0]["modifiers"][0]
                                                                    ["amount"] == 30);
    CHECK(json("equip a ringer_early --level 6 --set item.oak_clapper.attack=25 --set "
               "item.hand_bell.attack=15")["stats"]["attack"]["value"] == 54 + 20 + 10);
    CHECK(json("list a item --set item.reed_coat.level=2 --level 2")["items"].dump().find(
              "reed_coat") != std::string::npos);
    const auto margin = [&](const std::string& set) {
        return json("fight a ringer_early ford --level 8 --even-luck" + set)["even_luck"]["margin"]
            .get<double>();
    };
    CHECK(margin(" --set foe.mire_ox.base.attack=20") > margin("") * 1.1);
    CHECK(json("check a --set item.peddler_pack.todo=")["doubt_count"] == 5);
    for (const char* command :
         {"check a", "card a reed_coat", "equip a ringer_early", "fight a ringer_early ford",
          "curve a", "audit a", "list a", "export a", "explain a item.reed_coat"}) {
        const Run wrong =
            run_program(demo, std::string(command) + " --set item.reed_coat.add.gaurd=3");
        INFO(command);
        CHECK(wrong.exit == 1);
        CHECK(has(wrong.err, "--set:1:20: error: unknown stat 'gaurd'; did you mean 'guard'?"));
        CHECK(wrong.out.empty());
    }
}

TEST_CASE("program: explain says what a word is, wherever it comes from") {
    const DemoFolder demo;
    const auto says = [&](const std::string& words) {
        const Run run = run_program(demo, "explain " + words);
        INFO(words << "\n" << run.out << run.err);
        CHECK(run.exit == 0);
        return run.out;
    };
    CHECK(has(says("item.use.cooldown"), "time before it can be used again"));
    CHECK(has(says("cooldown"), "key of action")); // every key of that name
    CHECK(has(says("cooldown"), "key of item"));
    CHECK(has(says("M51"), "The highest that applies, applies"));
    CHECK(has(says("twin"), "doubt"));
    CHECK(has(says("dominant"), "verdict"));
    CHECK(has(says("margin"), "strength at which"));
    CHECK(has(says("audit"), "panoplon audit"));
    CHECK(has(says("tier"), "a rarity"));
    CHECK(has(says(""), "commands"));
    CHECK(has(run_program(demo, "explain cooldwon").err, "did you mean 'cooldown'?"));
    CHECK(run_program(demo, "explain cooldwon").exit == 1);
}

TEST_CASE("program: every row that `explain` lists can be explained") {
    const DemoFolder demo;
    const Json all = Json::parse(run_program(demo, "explain --json").out);
    std::size_t words = 0;
    for (const auto& [what, list] : all.items())
        for (const auto& word : list.is_array() ? list : Json::array()) {
            if (++words % 7 != 0) continue; // one of seven, for time
            const Run run = run_program(demo, "explain '" + word.get<std::string>() + "'");
            INFO(what << " " << word);
            CHECK(run.exit == 0);
        }
    CHECK(words > 150);
}

TEST_CASE("program: explain a thing: what counts, what doesn't, who names it, what it can do") {
    const DemoFolder demo;
    const std::string coat = run_program(demo, "explain a reed_coat").out;
    CHECK(has(coat, "loadout.ringer_early (worn)"));
    CHECK(has(coat, "be worn by warden, levels 1–30"));
    const std::string bell = run_program(demo, "explain a item.oath_bell").out;
    CHECK(has(bell, "It can't:"));
    CHECK(has(bell, "90 might"));
    CHECK(run_program(demo, "explain a nothing_such").exit == 1);
    const Json json = Json::parse(run_program(demo, "explain a item.tower_bell --json").out);
    CHECK(json["keys"].size() > 8);
}

TEST_CASE("program: list has every kind, filters items and shows the grid's holes") {
    const DemoFolder demo;
    const Json kinds = Json::parse(run_program(demo, "list a --json").out);
    CHECK(kinds["kinds"]["item"] == 145);
    for (const char* kind :
         {"stat", "pool", "damage", "tier", "slot", "set", "pattern", "effect", "upgrade", "action",
          "character", "foe", "loadout", "encounter", "drops", "journey", "carry", "audit"}) {
        const Run run = run_program(demo, std::string("list a ") + kind);
        INFO(kind);
        CHECK(run.exit == 0);
        CHECK(run.out.size() > 20);
    }
    const Json hands = Json::parse(
        run_program(demo, "list a item --slot main_hand --tier plain --sort attack --json").out);
    REQUIRE(hands["items"].size() >= 2);
    CHECK(hands["items"][0]["id"] == "oak_clapper"); // the most first
    CHECK(hands["grid"]["main_hand"].size() == 1);
    CHECK(has(run_program(demo, "list a items --slot body --tier chorus").out, "3 items"));
    CHECK(has(run_program(demo, "list a item --tag rede").err, "did you mean 'reed'?"));
    CHECK(has(run_program(demo, "list a itme").err, "did you mean 'item'?"));
    CHECK(run_program(demo, "list a item --tier palin").exit == 1);
    CHECK(has(run_program(demo, "list a stat").out, "upgrade.straps"));
}

TEST_CASE("program: new starts an armoury without a doubt, and a table with its headers") {
    const DemoFolder demo;
    CHECK(run_program(demo, "new first").exit == 0);
    CHECK(run_program(demo, "check first --strict").exit == 0);
    CHECK(has(run_program(demo, "check first").out, "no mistakes, no doubts"));
    CHECK(run_program(demo, "fight first first gate --level 5 --trials 20").exit == 0);
    CHECK(run_program(demo, "new first").exit == 1);
    CHECK(run_program(demo, "new first.csv").exit == 2);
    CHECK(run_program(demo, "new more.csv --table item --for a").exit == 0);
    const std::string table = demo.read("more.csv");
    CHECK(table.starts_with("item,name,"));
    CHECK(has(table, ",max_breath,"));
    CHECK(run_program(demo, "new more.csv --table item").exit == 1);
    CHECK(demo.read("more.csv") == table);
    demo.write("a/more.csv", table);
    CHECK(run_program(demo, "check a").exit == 0); // an empty table is no mistake
    CHECK(has(run_program(demo, "new x.csv --table itm").err, "did you mean 'item'?"));
    CHECK(run_program(demo, "new /proc/none/x.csv --table foe").exit == 3);
}

TEST_CASE("program: check --strict fails on doubts, and a doubt can be allowed in its file") {
    const DemoFolder demo;
    CHECK(run_program(demo, "check a --strict").exit == 1);
    CHECK(run_program(demo, "check a").exit == 0);
    demo.write("a/gear.csv",
               with(demo.read("a/gear.csv"), "\nhorn_knot,Horn knot,", "\nhorn_knob,Horn knot,"));
    const Json doubts = Json::parse(run_program(demo, "check a --json").out)["doubts"];
    CHECK(doubts[0]["kind"] == "twin");
    CHECK(doubts[0]["thing"] == "item.horn_knob");
}

TEST_CASE("program: export reads back to the same armoury, and its JSON is valid by its schema",
          "[export]") {
    const DemoFolder demo;
    CHECK(run_program(demo, "export a -o out").exit == 0);
    const auto resolved = [&](const std::string& folder) {
        Json json = Json::parse(run_program(demo, "export " + folder + " --json").out);
        json["armoury"].erase("hash");
        return json;
    };
    CHECK(resolved("out/as-toml") == resolved("a"));
    CHECK(resolved("out/as-csv") == resolved("a"));
    CHECK(validates(demo, "out/armoury.json") == 0);
    Json broken = Json::parse(demo.read("out/armoury.json"));
    broken["item"]["reed_coat"]["weight"] = "heavy";
    demo.write("broken.json", broken.dump());
    CHECK(validates(demo, "broken.json") == 1);
    CHECK(has(demo.read("validated.txt"), "'heavy' is not of type 'number'"));
    Json unknown = Json::parse(demo.read("out/armoury.json"));
    unknown["item"]["reed_coat"]["wieght"] = 3;
    demo.write("unknown.json", unknown.dump());
    CHECK(validates(demo, "unknown.json") == 1);
}

TEST_CASE("program: what is exported fights the same fights", "[export][M67]") {
    const DemoFolder demo;
    CHECK(run_program(demo, "export a -o out -q").exit == 0);
    const auto fight = [&](const std::string& folder) {
        return run_program(demo,
                           "fight " + folder + " warden_middle long_watch --level 18 --trials 30")
            .out;
    };
    CHECK(fight("out/as-csv") == fight("a"));
    CHECK(fight("out/as-toml") == fight("a"));
}

TEST_CASE("program: equip tries things on: what was in the way goes to the pack", "[M41a]") {
    const DemoFolder demo;
    const Run worn = run_program(demo, "equip a ringer_early --level 11 --wear bronze_clapper");
    CHECK(worn.exit == 0);
    CHECK(has(worn.out, "oak_clapper goes to the pack"));
    CHECK(has(worn.out, "bronze_clapper is put on"));
    const Run refused = run_program(demo, "equip a ringer_early --level 6 --wear bronze_clapper");
    CHECK(refused.exit == 1);
    CHECK(has(refused.err, "--wear bronze_clapper is refused: bronze_clapper: it is for level 11"));
    const Run found = run_program(demo, "equip a ringer_early --level 6 --find wax_draught=7");
    CHECK(
        has(found.out, "5 of 7 wax_draught taken up; 2 left: at most 2 stacks of it are allowed"));
    CHECK(run_program(demo, "equip a ringer_early --find wax_draught=x").exit != 0);
    CHECK(has(run_program(demo, "equip a ringer_early --off bronze_clapper").err, "is not worn"));
}

TEST_CASE("program: equip more than two side by side, and who of them is refused") {
    const DemoFolder demo;
    const Run text = run_program(demo, "equip a ringer_early ringer_middle ringer_late --level 14");
    CHECK(text.exit == 1); // the last is for later levels
    CHECK(has(text.out, "place      ringer_early  ringer_middle   ringer_late\n"));
    CHECK(has(text.out, "ringer_late:\n  refused: storm_mallet\n    it is for level 21"));
    const Json json =
        Json::parse(run_program(demo, "equip a ringer_early ringer_middle warden_early --level 14 "
                                      "--json")
                        .out);
    const Json two =
        Json::parse(run_program(demo, "equip a ringer_early ringer_middle --level 14 --json").out);
    CHECK(json["stats"]["attack"]["ringer_middle"] == two["stats"]["attack"]["second"]);
    CHECK(json["power"]["ringer_middle"] == two["power"]["second"]);
    CHECK(json["places"][0]["worn"]["ringer_early"] == "oak_clapper");
    CHECK(run_program(demo, "equip a ringer_early ringer_middle ringer_late --off tin_bell").exit ==
          2);
}

TEST_CASE("program: equip two side by side: by place, by stat, each change alone and together") {
    const DemoFolder demo;
    const Run text = run_program(demo, "equip a ringer_early ringer_middle --level 14");
    CHECK(text.exit == 0);
    CHECK(has(text.out, "oak_clapper   bronze_clapper"));
    CHECK(has(text.out, "each change alone"));
    CHECK(has(text.out, "all together"));
    const Json json =
        Json::parse(run_program(demo, "equip a ringer_early ringer_middle --level 14 --json").out);
    CHECK(json["stats"]["noise"]["better"] == "first"); // lower is better
    CHECK(json["stats"]["attack"]["better"] == "second");
    CHECK(json["changes"].size() >= 8);
    CHECK(has(run_program(demo, "equip a ringer_early ringer_midle").err,
              "did you mean 'ringer_middle'?"));
}
