// One table in every form: what each shows of a column and of a cell.
#include "report/page.h"
#include "show/column_meanings.h"
#include "show/table.h"
#include "store/results_file.h"
#include "support/armouries.h"
#include "support/tables.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Everything that a column and a cell can be.
Table sample() {
    Table table{"sample",
                {as::item("item", "thing").json("id"), as::whole("level", "level"),
                 as::share("picks", "picks", 0, 4).on_page("picked", "how often"),
                 as::gain("gain", "gain", 1, 5).json("change/mean"),
                 as::number("low", 3).json("change/low"), as::amount("", "weight", 2),
                 as::text("sound"), as::text("twins"), as::json("worn").if_any(),
                 as::text("").without_title()}};
    table.row({"reed_coat", 4, Cell(0.98765).shown_if(false), -0.056, 1.23456, 2.5, true,
               std::vector<std::string>{"a", "b"}, Cell::of({{"body", "reed_coat"}}), "note"});
    table.row({"oak, \"old\"", 12, 0.5, {}, 7.0, 30.0, false, std::vector<std::string>(), {}, ""});
    return table;
}

} // namespace

TEST_CASE("columns of files say on a page what they mean") {
    const Table stages{"journey-stages", {as::whole("reached"), as::text("encounter")}, {}};
    const Table page = page_of_files(stages, "road-stages", "Stages");
    CHECK(page.columns[0].about == "trials that come to the stage");
    CHECK(page.columns[1].about.empty()); // the word says it
    CHECK(meaning_of_column("curve", "p10") == meaning_of_column("another", "p10"));
    CHECK(meaning_of_column("curve", "left").empty());
}

TEST_CASE("table: a terminal shows what has a header, as people read it") {
    CHECK(terminal_text(sample()) == "  thing       level  picks    gain  weight\n"
                                     "  reed_coat       4      —  -5.6 %     2.5  note\n"
                                     "  oak, \"old\"     12   50 %       —      30\n");
    CHECK(terminal_text(Table{"t", {as::text("", "x")}}).empty());
}

TEST_CASE("table: CSV has what has a key, in the column's decimals") {
    CHECK(csv_text(sample()) == "item,level,picks,gain,low,sound,twins\n"
                                "reed_coat,4,0.9877,-0.056,1.235,true,a;b\n"
                                "\"oak, \"\"old\"\"\",12,0.5,,7,false,\n");
}

TEST_CASE("table: JSON has every value in full, nests, and leaves out only what it is told to") {
    const Json rows = rows_json(sample());
    CHECK(rows[0] == Json({{"id", "reed_coat"},
                           {"level", 4},
                           {"picks", 0.98765},
                           {"change", {{"mean", -0.056}, {"low", 1.23456}}},
                           {"sound", true},
                           {"twins", {"a", "b"}},
                           {"worn", {{"body", "reed_coat"}}}}));
    CHECK(rows[1]["change"]["mean"].is_null());
    CHECK_FALSE(rows[1].contains("worn"));
    CHECK(rows_json(Table{"t", {as::text("x")}}) == Json::array());
}

TEST_CASE(
    "table: a page has its own headers, and of files their columns with the places they need") {
    const Table page = page_table(sample(), "name", "Caption");
    REQUIRE(page.columns.size() == 5);
    CHECK(page.columns[2].header == "picked");
    CHECK(page.columns[2].about == "how often");
    CHECK(page.caption == "Caption");
    const Table files = page_of_files(sample(), "name", "Caption");
    REQUIRE(files.columns.size() == 7);
    CHECK(files.columns[4].header == "low");
    CHECK(words_of(files.columns[4], files.rows[1][4], "—") == "7.000");
    CHECK(words_of(files.columns[2], files.rows[1][2], "—") == "50 %");
    CHECK(words_of(files.columns[3], files.rows[1][3], "—") == "—");
}

TEST_CASE("table: SQLite has numbers as numbers, in full, and nothing as nothing") {
    const TempFolder folder;
    const std::string path = folder / "r.sqlite";
    REQUIRE(keep_run(path, {"audit", "", "Marsh", "aa", "0", 1, "1", false}, {sample()}).ok());
    const auto run = kept_runs(path, "Marsh").value().front().id;
    const auto rows = kept_rows(path, run, "sample", {"item", "level", "low", "gain", "twins"});
    REQUIRE(rows.ok());
    CHECK(rows.value()[0] == Texts{"reed_coat", "4", "1.23456", "-0.056", "a;b"});
    CHECK(rows.value()[1] == Texts{"oak, \"old\"", "12", "7.0", "", ""});
}

TEST_CASE("table: words said in place of a value are people's alone, and colours the page's") {
    Table table{"t", {as::whole("from", "from level"), as::text("tier", "tier")}};
    table.row({Cell(0).said("never"), Cell("fine").in({0x123456, std::nullopt})});
    CHECK(has(terminal_text(table), "never"));
    CHECK(csv_text(table) == "from,tier\n0,fine\n");
    CHECK(rows_json(table)[0]["from"] == 0);
    const Report report{"", "", "", false, {{"s", "S", {{page_table(table, "t", "T")}}}}};
    const std::string page = page_text(report);
    CHECK(has(page, ">never<"));
    CHECK(has(page, "#123456"));
}
