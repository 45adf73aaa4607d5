#include "support/program.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Json = nlohmann::ordered_json;

TEST_CASE("program: help teaches, usage errors exit 2") {
    const TempFolder folder;
    CHECK(run_program(folder, "").exit == 2);
    CHECK(has(run_program(folder, "--help").out, "usage: panoplon COMMAND ARMOURY"));
    CHECK(run_program(folder, "--version").out.starts_with("panoplon "));
    for (const char* command : {"demo", "new", "check", "explain", "list", "card", "equip", "fight",
                                "curve", "journey", "audit", "export"}) {
        const Run help = run_program(folder, std::string(command) + " --help");
        CHECK(help.exit == 0);
        CHECK(has(help.out, std::string("example:\n  panoplon ") + command));
    }
    CHECK(has(run_program(folder, "chekc x").err, "did you mean 'check'?"));
    for (const char* wrong : {"chekc x", "check", "check a b", "check a --loud", "fight a b",
                              "check a -o", "check a --threads 0"}) {
        INFO(wrong);
        CHECK(run_program(folder, wrong).exit == 2);
    }
}

TEST_CASE("program: check tells mistakes on standard error and exits 1") {
    const DemoFolder demo;
    const Run well = run_program(demo, "check a");
    CHECK(well.exit == 0);
    CHECK(has(well.out, "no mistakes, 6 doubts"));
    CHECK(well.err.empty());
    demo.write("a/more.toml", "[item.x]\nadd = { gaurd = 3 }\n");
    const Run wrong = run_program(demo, "check a");
    CHECK(wrong.exit == 1);
    CHECK(wrong.out.empty());
    CHECK(has(wrong.err, "more.toml:2:9: error: unknown stat 'gaurd'; did you mean 'guard'?\n    "
                         "add = { gaurd = 3 }\n            ^~~~~\n"));
    const Json json = Json::parse(run_program(demo, "check a --json").out);
    CHECK(json["mistakes"][0]["line"] == 2);
    CHECK(json["mistakes"][0]["file"] == "more.toml");
    // Every other command refuses such an armoury and writes nothing.
    for (const char* command : {"card a reed_coat", "equip a ringer_early",
                                "fight a ringer_early ford", "curve a", "audit a"}) {
        const Run refused = run_program(demo, std::string(command) + " -o out");
        CHECK(refused.exit == 1);
        CHECK(refused.out.empty());
        CHECK(has(refused.err, "did you mean 'guard'?"));
        CHECK_FALSE(demo.has("out"));
    }
}

TEST_CASE("program: an armoury that is not there or is none") {
    const TempFolder folder;
    CHECK(run_program(folder, "check nowhere").exit == 3);
    CHECK(has(run_program(folder, "check nowhere").err, "there is no folder 'nowhere'"));
    folder.write("empty/readme", "");
    CHECK(run_program(folder, "check empty").exit == 1);
    CHECK(has(run_program(folder, "check empty").err, "has no armoury.toml"));
    folder.write("file", "");
    CHECK(run_program(folder, "check file").exit == 3);
}

TEST_CASE("program: card") {
    const DemoFolder demo;
    const Run text = run_program(demo, "card a reed_coat wax_draught lamp");
    CHECK(text.exit == 0);
    CHECK(has(text.out, "Reed coat (reed_coat)"));
    CHECK(has(text.out, "7.5 of 7.4 points spent: 101.6 %"));
    CHECK(has(text.out, "restores 70 health, cooldown 12 (group draught)"));
    const Json json = Json::parse(run_program(demo, "card a reed_coat --json").out);
    const Json& item = json["items"][0];
    CHECK(json["command"] == "card");
    CHECK(item["slot"] == "body");
    CHECK(item["budget"]["spent"] == Approx(10 * 0.4 + 44 * 0.08));
    CHECK(item["budget"]["allowed"] == Approx(7.4));
    CHECK(item["wearable_by"] == Json({"ringer", "warden", "runner"}));
    CHECK(has(run_program(demo, "card a reed_cot").err, "did you mean 'reed_coat'?"));
    CHECK(run_program(demo, "card a reed_cot").exit == 1);
}

TEST_CASE("program: equip shows parts that sum up, the load and its edge", "[M4][M55]") {
    const DemoFolder demo;
    const Run text = run_program(demo, "equip a ringer_early --level 6");
    CHECK(text.exit == 0);
    CHECK(has(text.out, "34 character.ringer, +5 item.hand_bell, +5 item.oak_clapper"));
    CHECK(has(text.out, "7.4 more reaches Laden (from 75.0 %), which costs haste"));
    const Json json = Json::parse(run_program(demo, "equip a ringer_early --level 6 --json").out);
    CHECK(json["stats"]["attack"]["value"] == 54);
    CHECK(json["load"]["band"].is_null());
    CHECK(json["bag"]["stacks"] == 3);
    const Run refused = run_program(demo, "equip a ringer_late --level 5 --json");
    CHECK(refused.exit == 1);
    CHECK(Json::parse(refused.out)["refused"].size() == 10);
    CHECK(run_program(demo, "equip a ringer_early --level 31").exit == 1);
    CHECK(run_program(demo, "equip a ringer_early --level 3-4").exit == 2);
}

TEST_CASE("program: fight tells wins with their interval, writes a timeline and a figure") {
    const DemoFolder demo;
    const Run text = run_program(
        demo, "fight a warden_early ford --level 8 --trials 200 -o out --timeline told.csv");
    INFO(text.err);
    CHECK(text.exit == 0);
    CHECK(has(text.out, "of 200 trials"));
    CHECK(has(text.out, "wrote out/fight.png"));
    CHECK(demo.read("told.csv")
              .starts_with(
                  "time,side,actor,event,source,target,amount,pool_after,load_share,note\n0,"));
    CHECK(demo.read("told.csv") == demo.read("out/fight-timeline.csv"));
    const Json json = Json::parse(demo.read("out/fight.json"));
    CHECK(json["trials"] == 200);
    CHECK(json["wins"]["low"] <= json["wins"]["share"]);
    CHECK(json["time"]["p10"] <= json["time"]["p90"]);
    CHECK(json["uses"]["wax_draught"]["mean"].get<double>() +
              json["uses"]["wax_draught"]["left"].get<double>() ==
          Approx(10));
    CHECK(json["events_per_trial"] > 10);
    const Run refused = run_program(demo, "fight a warden_early ford --level 2");
    CHECK(refused.exit == 1);
    CHECK(has(refused.err, "can't be worn at level 2, so nothing is fought"));
    CHECK(run_program(demo, "fight a warden_early ford --even-luck").exit == 0);
    CHECK(run_program(demo, "fight a warden_early ford --trials x").exit == 2);
    const Run log = run_program(demo, "fight a warden_early ford --trials 5 --trial 3 --log");
    CHECK(has(log.out, "Trial 3:\n  seconds  who"));
    CHECK(has(log.out, "mire_ox.1  bash hits warden for"));
    CHECK(run_program(demo, "fight a warden_early ford --precision 0.2 --trials 20").exit == 0);
    for (const char* wrong : {"0", "x", "0.6", "1e-9", ""})
        CHECK(
            run_program(demo, std::string("fight a warden_early ford --precision '") + wrong + "'")
                .exit == 2);
    CHECK(has(run_program(demo, "fight a warden_early fjord").err, "did you mean 'ford'?"));
}

TEST_CASE("program: a fight that can't go on names the formula, its values and its place",
          "[M66]") {
    const DemoFolder demo;
    demo.write("a/fighters.toml",
               with(demo.read("a/fighters.toml"), "every = \"2.6\"", "every = \"self.haste - 3\""));
    for (const char* command : {"fight a warden_early ford", "curve a --even-luck --encounter ford",
                                "audit a --encounter ford --level 1"}) {
        const Run failed = run_program(demo, command);
        CHECK(failed.exit == 1);
        CHECK(has(failed.err, "fighters.toml:32:9: error: 'every' of 'bash' is -3 with self.haste "
                              "= 0: time would stand still"));
    }
}

TEST_CASE("program: curve writes a point a level and a figure an encounter") {
    const DemoFolder demo;
    const Run text =
        run_program(demo, "curve a --character ringer --level 20-21 --trials 10 -o out");
    CHECK(text.exit == 0);
    const Json json = Json::parse(demo.read("out/curve.json"));
    CHECK(json["curves"].size() == 18);
    CHECK(json["seed"] == 1);
    for (const char* figure : {"curve-power", "curve-causeway", "curve-ford", "curve-drip_cellar"})
        for (const char* ending : {".png", ".svg", ".csv", ".gp"})
            CHECK(demo.has(std::string("out/") + figure + ending));
    CHECK(has(demo.read("out/curve.csv"),
              "ringer_middle power proving_post,ringer,ringer_middle,proving_post,20,"));
    CHECK(run_program(demo, "curve a --loadout nobody").exit == 1);
}

TEST_CASE("program: audit writes verdicts, details and the map") {
    const DemoFolder demo;
    const Run text =
        run_program(demo, "audit a --level 19 --encounter ford -o out --detail rows.csv");
    CHECK(text.exit == 0);
    CHECK(has(text.out, "tally_charm — useless: "));
    CHECK(text.out.find("What to look at first") < text.out.find("  item "));
    CHECK(has(text.out, "  lost with     what is lost by wearing it"));
    CHECK_FALSE(has(text.out, "silver_bead"));
    const Json json = Json::parse(demo.read("out/audit.json"));
    CHECK(json["items"].size() == 132);
    CHECK(json["contexts"].size() == 3);
    CHECK(json["contexts_of_tiers"].size() > 0);
    const Run all = run_program(demo, "audit a --level 19 --encounter ford --trials 0 --all");
    CHECK(has(all.out, "Tiers: means over their items"));
    CHECK(has(all.out, "  wind_vest "));
    for (const char* key :
         {"id", "verdict", "confirmed", "contexts", "pick_share", "contested", "ban_loss",
          "force_loss", "grip", "shortfall", "overstays", "outclassed_by", "twins", "sentence",
          "unrivalled", "on_the_edge_of", "accepted", "successor", "judged_levels"})
        CHECK(json["items"][0].contains(key));
    CHECK(
        demo.read("rows.csv")
            .starts_with(
                "item,character,level,encounter,best,without,with,worth,grip,shortfall,contested"));
    CHECK(demo.has("out/audit-map-1.png"));
}

TEST_CASE("program: the same bytes for 1 and 2 threads", "[M67]") {
    const DemoFolder demo;
    for (const char* command :
         {"fight a ringer_early causeway --level 9 --trials 500 --json",
          "curve a --level 10-12 --trials 20 --json", "audit a --level 3-5 --json"}) {
        const Run one = run_program(demo, std::string(command) + " --threads 1");
        const Run two = run_program(demo, std::string(command) + " --threads 2");
        CHECK(one.exit == 0);
        CHECK(one.out == two.out);
        CHECK_FALSE(one.out.empty());
    }
}

TEST_CASE("program: another seed gives other trials") {
    const DemoFolder demo;
    CHECK(
        run_program(demo, "fight a ringer_early ford --level 9 --trials 100 --json").out !=
        run_program(demo, "fight a ringer_early ford --level 9 --trials 100 --seed 2 --json").out);
}

TEST_CASE("program: a changed number matters") {
    const DemoFolder demo;
    const auto margin = [&] {
        return Json::parse(
                   run_program(demo, "fight a ringer_early ford --level 9 --even-luck --json")
                       .out)["even_luck"]["margin"]
            .get<double>();
    };
    const double before = margin();
    demo.write("a/fighters.toml",
               with(demo.read("a/fighters.toml"), "max_health = 320, attack = 22",
                    "max_health = 320, attack = 40"));
    CHECK(margin() > before * 1.05);
}

TEST_CASE("program: what can't be written exits 3 and leaves nothing half done") {
    const DemoFolder demo;
    CHECK(run_program(demo, "check a -o /proc/nowhere").exit == 3);
    demo.write("out", "a file in the way");
    CHECK(run_program(demo, "check a -o out").exit == 3);
    CHECK(demo.read("out") == "a file in the way");
    const Run full = run_program(demo, "check a", "true;");
    CHECK(full.exit == 0);
    const int status = std::system(
        ("cd '" + demo.path() + "' && '" PANOPLON_BINARY "' check a >/dev/full 2>err.txt").c_str());
    CHECK(WEXITSTATUS(status) == 3);
}

TEST_CASE("program: without gnuplot the figures are refused, and said so") {
    const DemoFolder demo;
    const Run run_without =
        run_program(demo, "fight a ringer_early ford --level 9 --trials 10 -o out",
                    "mkdir -p bin && ln -s /usr/bin/timeout bin/timeout && env PATH=\"$PWD/bin\"");
    CHECK(run_without.exit == 3);
    CHECK(has(run_without.err, "can't run gnuplot"));
}

TEST_CASE("program: Ctrl-C, and what ends a process, keep what is finished, marked partial") {
    const DemoFolder demo;
    const std::string signal = GENERATE("INT", "TERM", "HUP");
    const std::string command =
        "cd '" + demo.path() + "' && { timeout --preserve-status -s " + signal +
        " 2 '" PANOPLON_BINARY
        "' audit a --threads 1 --json >out.txt 2>err.txt; echo $? >code.txt; }";
    CHECK(std::system(command.c_str()) == 0);
    const Json json = Json::parse(demo.read("out.txt"));
    CHECK(json["partial"] == true);
    CHECK(json["contexts"].size() >= 1);
    CHECK(demo.read("code.txt") == "130\n");
    CHECK(has(demo.read("err.txt"), "what is shown is partial"));
}

TEST_CASE("program: demo refuses a folder that is not empty") {
    const DemoFolder demo;
    const Run refused = run_program(demo, "demo a");
    CHECK(refused.exit == 1);
    CHECK(has(refused.err, "is not an empty folder"));
}
