// Files are whole or absent, whatever happens while they are written; results are kept.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Json = nlohmann::ordered_json;

TEST_CASE("program: where files may not grow, the former ones stay and nothing is left over") {
    const TempFolder folder;
    REQUIRE(run_program(folder, "new a").exit == 0);
    REQUIRE(run_program(folder, "report a -o out -q --trials 5").exit == 0);
    const std::string page = folder.read("out/report.html");
    const std::string results = folder.read("out/results.sqlite");
    const Run full = run_program(folder, "report a -o out -q --trials 6", "ulimit -f 60;");
    CHECK(full.exit == 3);
    CHECK(has(full.err, "is the disk full?"));
    CHECK(folder.read("out/report.html") == page);
    CHECK(folder.read("out/results.sqlite") == results);
    CHECK(leftovers(folder / "out").empty());
}

TEST_CASE("program: Ctrl-C keeps what is finished, marked partial, in results too") {
    const DemoFolder demo;
    const Run run = run_program(demo, "audit a --trials 0 -o out -q",
                                "timeout --preserve-status -s INT " + seconds(2));
    CHECK(run.exit == 130);
    CHECK(has(run.err, "partial"));
    CHECK(Json::parse(demo.read("out/audit.json"))["partial"] == true);
    CHECK(run_command(demo, "sqlite3 out/results.sqlite 'select command, partial from run'").out ==
          "audit|1\n");
}

TEST_CASE("program: a report that is stopped is marked on the page too") {
    const DemoFolder demo;
    const Run run =
        run_program(demo, "report a -o out -q", "timeout --preserve-status -s INT " + seconds(2));
    CHECK(run.exit == 130);
    CHECK(has(demo.read("out/report.html"), "<strong>Partial:</strong>"));
    CHECK(Json::parse(demo.read("out/report.json"))["partial"] == true);
    CHECK(demo.read("out/report.xlsx").substr(0, 2) == "PK");
}

TEST_CASE("program: results are read by SQL, and history tells what moved") {
    const TempFolder folder;
    REQUIRE(run_program(folder, "new a").exit == 0);
    const std::string audit = "audit a -o results -q --trials 0";
    REQUIRE(run_program(folder, audit).exit == 0);
    REQUIRE(run_program(folder, audit).exit == 0);
    const auto select = [&](const std::string& query) {
        return run_command(folder, "sqlite3 results/results.sqlite \"" + query + "\"").out;
    };
    CHECK(select("select count(*) from run") == "1\n");
    CHECK(select("select verdict from audit where item = 'ash_club'") == "dominant\n");
    CHECK(select("select typeof(level), typeof(grip) from audit limit 1") != "text|text\n");
    CHECK(has(run_program(folder, "history a").out, "Nothing to compare yet"));

    std::string gear = folder.read("a/gear.csv");
    const std::size_t row = gear.find("ash_club,");
    const std::size_t end = gear.find('\n', row);
    std::string line = gear.substr(row, end - row);
    line = with(line, ",4,8,5,", ",4,8,1,");
    folder.write("a/gear.csv", gear.replace(row, end - row, line));
    REQUIRE(run_program(folder, audit).exit == 0);
    const Run told = run_program(folder, "history a --json");
    CHECK(told.exit == 0);
    const Json json = Json::parse(told.out);
    CHECK(json["runs"].size() == 2);
    REQUIRE_FALSE(json["verdicts"].empty());
    CHECK(json["verdicts"][0]["verdict"] == "dominant");
    CHECK(has(run_program(folder, "history a").out, "Verdicts that moved: audit --trials 0"));
    CHECK(run_program(folder, "history a -o out -q").exit == 0);
    CHECK(folder.has("out/history-verdicts.csv"));
    CHECK_FALSE(folder.has("out/results.sqlite"));
}

TEST_CASE("program: history asked where nothing is says so") {
    const TempFolder folder;
    REQUIRE(run_program(folder, "new a").exit == 0);
    const Run none = run_program(folder, "history a");
    CHECK(none.exit == 3);
    CHECK(has(none.err, "results.sqlite"));
    folder.write("odd/results.sqlite", "no database");
    CHECK(run_program(folder, "history a --results odd").exit == 3);
    CHECK(run_program(folder, "check a -o odd -q").exit == 3);
    CHECK(folder.read("odd/results.sqlite") == "no database");
}

TEST_CASE("program: nothing is written into the armoury that is read, however it is named") {
    const DemoFolder demo;
    const auto within = [&](const std::string& arguments) {
        return run_command(demo, "(cd a && timeout 60 '" PANOPLON_BINARY "' " + arguments + ")");
    };
    for (const char* arguments :
         {"fight . ringer_early ford --level 8 --trials 5 -o out", "report .",
          "fight ../a ringer_early ford --level 8 --trials 5 -o ./deep/out",
          "fight . ringer_early ford --level 8 --trials 5 --timeline new.csv"}) {
        INFO(arguments);
        const Run run = within(arguments);
        CHECK(run.exit == 1);
        CHECK(has(run.err, "into which nothing is written"));
    }
    CHECK(run_program(demo, "check a").exit == 0);
    CHECK(within("fight . ringer_early ford --level 8 --trials 5 -o ../out -q").exit == 0);
}

TEST_CASE("program: folders of results in an armoury are left out, and that is said once") {
    const DemoFolder demo;
    REQUIRE(run_program(demo, "fight a ringer_early ford --level 8 --trials 5 -o out -q").exit ==
            0);
    REQUIRE(run_command(demo, "mkdir -p a/old && cp -r out a/old/kept").exit == 0);
    const Run check = run_program(demo, "check a");
    CHECK(check.exit == 0);
    CHECK(has(check.err, "note: left out, since it holds results: old/kept\n"));
    CHECK(check.err.find("left out") == check.err.rfind("left out"));
}
