// The file of results by itself.
#include "store/history.h"
#include "support/armouries.h"
#include "support/tables.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

Run run_of(const std::string& hash, const std::string& time, const std::string& command = "audit") {
    return {command, "--level 3", "Marsh", hash, "0", 7, time, false};
}

Table verdicts(const std::vector<Texts>& rows) {
    return table_of_texts("audit", {"item", "verdict", "overstays"}, rows);
}

std::vector<std::vector<std::string>> rows_in(const std::string& path, std::int64_t run,
                                              const std::vector<std::string>& columns) {
    const auto rows = kept_rows(path, run, "audit", columns);
    REQUIRE(rows.ok());
    return rows.value();
}

std::vector<KeptRun> runs_in(const std::string& path) {
    auto runs = kept_runs(path, "Marsh");
    REQUIRE(runs.ok());
    return runs.take();
}

} // namespace

TEST_CASE("results: the same run takes the place of the former one, another state is kept beside") {
    const TempFolder folder;
    const std::string path = folder / "r.sqlite";
    REQUIRE(keep_run(path, run_of("aa", "2026-01-01T00:00:00Z"),
                     {verdicts({{"a", "sound", "false"}, {"b", "weak", "false"}})})
                .ok());
    REQUIRE(
        keep_run(path, run_of("bb", "2026-01-02T00:00:00Z"), {verdicts({{"a", "strong", "false"}})})
            .ok());
    REQUIRE(
        keep_run(path, run_of("aa", "2026-01-03T00:00:00Z"), {verdicts({{"a", "niche", "true"}})})
            .ok());
    const std::vector<KeptRun> runs = runs_in(path);
    REQUIRE(runs.size() == 2);
    CHECK(runs[0].hash == "bb");
    CHECK(runs[1].hash == "aa");
    CHECK(runs[1].time == "2026-01-03T00:00:00Z");
    CHECK(runs[1].seed == 7);
    CHECK(rows_in(path, runs[1].id, {"item", "verdict"}) ==
          std::vector<std::vector<std::string>>{{"a", "niche"}});
    CHECK(kept_runs(path, "Another").value().empty());
}

TEST_CASE("results: a column that came later is empty in what was kept before") {
    const TempFolder folder;
    const std::string path = folder / "r.sqlite";
    REQUIRE(keep_run(path, run_of("aa", "1"), {table_of_texts("audit", {"item"}, {{"a"}})}).ok());
    REQUIRE(keep_run(path, run_of("bb", "2"),
                     {table_of_texts("audit", {"item", "lift"}, {{"a", "0.5"}})})
                .ok());
    const auto runs = runs_in(path);
    CHECK(rows_in(path, runs[0].id, {"item", "lift"}) ==
          std::vector<std::vector<std::string>>{{"a", ""}});
    CHECK(rows_in(path, runs[1].id, {"lift"}) == std::vector<std::vector<std::string>>{{"0.5"}});
    CHECK(rows_in(path, runs[1].id, {"nowhere"}).empty());
}

TEST_CASE("results: cells come back as they were, whatever they look like") {
    const TempFolder folder;
    const std::string path = folder / "r.sqlite";
    const std::vector<std::vector<std::string>> cells = {
        {"007"}, {"1e5"}, {"1.50"}, {"-0"}, {"0.1"}, {"12"}, {"'; DROP TABLE run; --"},
        {""},    {"1.25"}};
    REQUIRE(
        keep_run(path, run_of("aa", "1"), {table_of_texts("audit", {"odd \"name\""}, cells)}).ok());
    CHECK(rows_in(path, runs_in(path)[0].id, {"odd \"name\""}) == cells);
}

TEST_CASE("results: a file that is none of ours is left as it is") {
    const TempFolder folder;
    folder.write("text.sqlite", std::string(4000, 'x'));
    CHECK_FALSE(keep_run(folder / "text.sqlite", run_of("aa", "1"), {}).ok());
    CHECK(folder.read("text.sqlite") == std::string(4000, 'x'));
    REQUIRE(write_sqlite(folder / "other.sqlite", {table_of_texts("run", {"id"}, {{"1"}})}).ok());
    const std::string before = folder.read("other.sqlite");
    const auto kept = keep_run(folder / "other.sqlite", run_of("aa", "1"), {});
    REQUIRE_FALSE(kept.ok());
    CHECK(kept.failure().cause == Cause::file);
    CHECK(has(kept.failure().message, "no file of results"));
    CHECK(folder.read("other.sqlite") == before);
    CHECK_FALSE(keep_run(folder / "nowhere/r.sqlite", run_of("aa", "1"), {}).ok());
    CHECK_FALSE(kept_runs(folder / "nowhere.sqlite", "Marsh").ok());
}

TEST_CASE("results: a run that can't be added leaves the former ones") {
    const TempFolder folder;
    const std::string path = folder / "r.sqlite";
    REQUIRE(keep_run(path, run_of("aa", "1"), {verdicts({{"a", "sound", "false"}})}).ok());
    // Two columns of one name: the table can't be added to.
    CHECK_FALSE(keep_run(path, run_of("aa", "2"),
                         {verdicts({{"a", "weak", "false"}}),
                          table_of_texts("odd", {"x", "x"}, {{"1", "2"}})})
                    .ok());
    const auto runs = runs_in(path);
    REQUIRE(runs.size() == 1);
    CHECK(runs[0].time == "1");
    CHECK(rows_in(path, runs[0].id, {"verdict"}) ==
          std::vector<std::vector<std::string>>{{"sound"}});
}

TEST_CASE("history: tells what moved between runs of the same arguments, and nothing else") {
    const TempFolder folder;
    const std::string path = folder / "r.sqlite";
    const auto keep = [&](const Run& run, const Table& table) {
        REQUIRE(keep_run(path, run, {table}).ok());
    };
    const std::vector<std::string> curve = {"name", "level", "even_luck"};
    keep(run_of("aa", "1"), verdicts({{"a", "useless", "false"}, {"b", "sound", "false"}}));
    keep(run_of("bb", "2"), verdicts({{"a", "sound", "true"}, {"b", "sound", "false"}}));
    keep(run_of("cc", "3"), verdicts({{"b", "sound", "false"}}));
    keep(run_of("aa", "4", "curve"),
         table_of_texts("curve", curve, {{"x", "1", "1.0"}, {"x", "2", "2.0"}, {"y", "1", "3"}}));
    keep(run_of("bb", "5", "curve"),
         table_of_texts("curve", curve,
                        {{"x", "1", "1.1"}, {"x", "2", "2.1"}, {"y", "1", "3.0003"}}));
    const auto history = find_history(path, "Marsh");
    REQUIRE(history.ok());
    REQUIRE(history.value().size() == 2);
    const HistorySeries& audits = history.value()[0];
    REQUIRE(audits.verdicts.size() == 1);
    CHECK(audits.verdicts[0].item == "a");
    CHECK(audits.verdicts[0].verdicts ==
          std::vector<std::string>{"useless", "sound, overstays", ""});
    CHECK(audits.curves.empty());
    const HistorySeries& curves = history.value()[1];
    REQUIRE(curves.curves.size() == 1);
    CHECK(curves.curves[0].name == "x");
    CHECK(curves.curves[0].level == std::vector<int>{0, 1});
    CHECK(curves.curves[0].ratio[1] == Approx(1.1));

    const Document document = show_history("Marsh", history.value());
    CHECK(has(document.text, "useless"));
    CHECK(has(document.text, "not there"));
    CHECK(has(document.text, "+10.0 % at 1"));
    CHECK(document.json["verdicts"].size() == 3);
    CHECK(document.json["curves"][0]["ratio"] == Approx(1.1));
}

TEST_CASE("history: one run has nothing to be compared with, and no run is said to be none") {
    const TempFolder folder;
    const std::string path = folder / "r.sqlite";
    REQUIRE(keep_run(path, run_of("aa", "1"), {verdicts({{"a", "sound", "false"}})}).ok());
    CHECK(has(show_history("Marsh", find_history(path, "Marsh").value()).text,
              "Nothing to compare yet"));
    CHECK(has(show_history("Bog", find_history(path, "Bog").value()).text, "no run of it"));
}
