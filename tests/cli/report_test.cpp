// The report of the built program: as files, in a browser, in a spreadsheet program.
#include "support/program.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Json = nlohmann::ordered_json;

namespace {

const std::string long_name(200, 'w');

/// The armoury that `new` starts with, and items whose names are traps.
void write_hostile(const TempFolder& folder) {
    REQUIRE(run_program(folder, "new a").exit == 0);
    folder.write("a/traps.toml", R"(
[item.scripted]
name = "<script>document.title = 'taken'</script><b title=\"x\">`touch trap`"
about = "</table><img src=x onerror=alert(1)> {{title}} & \u001b[31m red"
slot = "hand"
tier = "fine"
note = "=1+1"
add = { attack = 1 }
[item.formula]
name = "=cmd|' /C calc'!A0"
slot = "hand"
tier = "plain"
add = { attack = -3 }
[item.backwards]
name = "\u202eflow \u0627\u0644\u062c\u0631\u0633 z\u0351\u0363\u0363\u036d"
slot = "body"
add = { guard = 1 }
[item.long]
name = ")" + long_name + R"("
slot = "body"
add = { guard = 2 }
)");
}

/// What the page says of itself once a script has driven it: sorted a table, filtered it, followed
/// a link to a card.
const std::string driver = R"(<script>
window.addEventListener("load", async () => {
  const said = {};
  const table = document.getElementById("table-verdicts");
  const level = Array.from(table.tHead.rows[0].cells).find((h) => h.textContent === "level");
  const levels = () => Array.from(table.tBodies[0].rows)
    .map((row) => Number(row.cells[level.cellIndex].dataset.value));
  level.querySelector("button").click();
  said.falling = levels();
  level.querySelector("button").click();
  said.rising = levels();
  said.aria = level.getAttribute("aria-sort");
  said.told = document.getElementById("said").textContent;
  const input = document.querySelector("input[aria-controls='table-verdicts']");
  input.value = "BODY fine";
  input.dispatchEvent(new Event("input"));
  said.shown = Array.from(table.tBodies[0].rows).filter((row) => !row.hidden)
    .map((row) => row.cells[1].textContent + " " + row.cells[2].textContent);
  said.rows = table.tBodies[0].rows.length;
  document.querySelector(".call a").click();
  await new Promise((done) => setTimeout(done, 50));
  said.hash = location.hash;
  const card = document.querySelector(".card:target");
  said.card = card && card.id;
  said.title = document.title;
  said.loaded = performance.getEntriesByType("resource").map((one) => one.name);
  said.width = innerWidth;
  said.overflow = document.documentElement.scrollWidth - innerWidth;
  said.ground = getComputedStyle(document.body).backgroundColor;
  said.nested = document.querySelectorAll("img, b[title]").length;
  said.headings = Array.from(document.querySelectorAll("section")).every((section) =>
    section.firstElementChild.tagName === "H2");
  said.captions = Array.from(document.querySelectorAll("table")).every((one) => one.caption);
  said.hovers = Array.from(document.querySelectorAll("figure svg g > title"))
    .map((one) => one.textContent).filter((text) => text.includes("shortfall")).length;
  const ids = Array.from(document.querySelectorAll("[id]")).map((one) => one.id);
  said.doubled = ids.filter((id, at) => ids.indexOf(id) !== at);
  const out = document.createElement("pre");
  out.id = "driven";
  out.textContent = "BEGIN" + JSON.stringify(said) + "END";
  document.body.append(out);
});
</script></body>)";

const std::string browser = "timeout 120 chromium --headless=new --no-sandbox --disable-gpu "
                            "--user-data-dir=profile --enable-logging=stderr ";

Json drive(const TempFolder& folder, const std::string& options) {
    const Run run = run_command(folder, browser + options +
                                            " --virtual-time-budget=4000 --dump-dom "
                                            "file://" +
                                            (folder / "driven.html"));
    CHECK_FALSE(has(run.err, "CONSOLE"));
    const std::size_t begin = run.out.rfind("BEGIN{");
    const std::size_t end = run.out.rfind("}END");
    REQUIRE(begin != std::string::npos);
    REQUIRE(end != std::string::npos);
    std::string text = run.out.substr(begin + 5, end - begin - 4);
    for (const auto& [from, to] : {std::pair{"&lt;", "<"}, {"&gt;", ">"}, {"&amp;", "&"}})
        for (std::size_t at = 0; (at = text.find(from, at)) != std::string::npos;)
            text.replace(at, std::string(from).size(), to);
    return Json::parse(text);
}

} // namespace

TEST_CASE("program: a report's page works in a browser, wide and narrow, light and dark") {
    const TempFolder folder;
    write_hostile(folder);
    const Run run = run_program(folder, "report a -o out -q --trials 20");
    INFO(run.err);
    REQUIRE(run.exit == 0);
    const std::string page = folder.read("out/report.html");
    for (const char* outside : {"src=\"", "href=\"http", "@import", "url(http"})
        CHECK_FALSE(has(page, outside));
    folder.write("driven.html", with(page, "</body>", driver));

    const Json wide = drive(folder, "--window-size=1280,800");
    std::vector<double> levels = wide["falling"];
    CHECK(std::is_sorted(levels.rbegin(), levels.rend()));
    levels = wide["rising"].get<std::vector<double>>();
    CHECK(std::is_sorted(levels.begin(), levels.end()));
    CHECK(levels.size() == 12);
    CHECK(wide["aria"] == "ascending");
    CHECK(has(wide["told"], "sorted by level"));
    REQUIRE_FALSE(wide["shown"].empty());
    CHECK(wide["shown"].size() < wide["rows"]);
    for (const std::string row : wide["shown"]) CHECK(row == "body fine");
    CHECK(wide["hash"].get<std::string>().starts_with("#item-"));
    CHECK("#" + wide["card"].get<std::string>() == wide["hash"]);
    CHECK(wide["title"] == "A first armoury: gear report");
    CHECK(wide["loaded"].empty());
    CHECK(wide["nested"] == 0);
    CHECK(wide["headings"] == true);
    CHECK(wide["captions"] == true);
    CHECK(wide["hovers"] > 10);
    CHECK(wide["doubled"].empty());
    CHECK(wide["overflow"] <= 0);

    const Json narrow =
        drive(folder, "--window-size=390,800 --blink-settings=preferredColorScheme=0");
    CHECK(narrow["width"] <= 500);
    CHECK(narrow["overflow"] <= 0);
    CHECK(narrow["ground"] != wide["ground"]);

    CHECK(
        run_command(folder, browser + "--print-to-pdf=page.pdf file://" + (folder / "driven.html"))
            .exit == 0);
    CHECK(folder.read("page.pdf").substr(0, 5) == "%PDF-");
    CHECK_FALSE(folder.has("trap"));
}

TEST_CASE("program: a report's page, figures and workbook are well formed, whatever the names") {
    const TempFolder folder;
    write_hostile(folder);
    const Run run = run_program(
        folder, "report a -o out --trials 20 --title '<i>Title</i>' --only first,verdicts,curves,"
                "map,fights,loadouts,items,doubts");
    REQUIRE(run.exit == 0);
    CHECK_FALSE(has(run.out, "\x1b"));
    const Run checked = run_command(folder, "tidy -q -e out/report.html");
    CHECK(checked.exit == 0);
    CHECK(checked.err.empty());
    const Run drawings =
        run_command(folder, "find out/figures -name '*.svg' -exec xmllint --noout {} +");
    CHECK(drawings.exit == 0);
    CHECK(drawings.err.empty());
    CHECK(has(folder.read("out/report.html"), "<title>&lt;i&gt;Title"));
    CHECK(has(folder.read("out/report.html"), long_name));
    CHECK_FALSE(folder.has("trap"));

    const Run sheets = run_command(folder, "ssconvert -S out/report.xlsx sheet_%n.csv");
    CHECK(sheets.exit == 0);
    CHECK(has(folder.read("sheet_0.csv"), "item,name,verdict,why"));
    bool curves = false;
    bool formula = false;
    for (int i = 0; folder.has("sheet_" + std::to_string(i) + ".csv"); ++i) {
        const std::string sheet = folder.read("sheet_" + std::to_string(i) + ".csv");
        curves = curves || has(sheet, "even luck");
        formula = formula || has(sheet, "=cmd|' /C calc'!A0");
    }
    CHECK(curves);
    CHECK(formula); // the text of the cell, and no result of it
    const Run raw = run_command(folder, "unzip -p out/report.xlsx 'xl/worksheets/*.xml'");
    CHECK_FALSE(has(raw.out, "<f>"));
    CHECK(has(raw.out, "<autoFilter"));
    CHECK(has(raw.out, "state=\"frozen\""));
    CHECK(has(run_command(folder, "unzip -l out/report.xlsx").out, "xl/charts/chart1.xml"));
}

TEST_CASE("program: the tables of cards guard names that are formulas") {
    const TempFolder folder;
    write_hostile(folder);
    REQUIRE(run_program(folder, "card a formula -o out -q").exit == 0);
    CHECK(has(folder.read("out/card.csv"), "formula,'=cmd|' /C calc'!A0,"));
    REQUIRE(run_program(folder, "export a -o out -q --sqlite a.sqlite").exit == 0);
    CHECK(run_program(folder, "card out/as-csv formula").out ==
          run_program(folder, "card a formula").out);
    CHECK(run_command(folder, "sqlite3 a.sqlite \"select name from item where id = 'formula'\"")
              .out == "=cmd|' /C calc'!A0\n");
}

TEST_CASE("program: a report of what there is, however little") {
    const TempFolder folder;
    folder.write("bare/armoury.toml",
                 "[armoury]\nformat = 1\nname = \"Bare\"\nlevels = [1, 2]\n"
                 "[combat]\nhealth = \"h\"\n[stat.s]\n[pool.h]\nmax = \"s\"\n");
    const Run run = run_program(folder, "report bare -o out -q");
    INFO(run.err);
    CHECK(run.exit == 0);
    CHECK(has(folder.read("out/report.html"), "Bare"));
    CHECK(run_command(folder, "tidy -q -e out/report.html").err.empty());
}

TEST_CASE("program: a report compares with an older armoury, and shows only what is asked for") {
    const TempFolder folder;
    REQUIRE(run_program(folder, "new a").exit == 0);
    const Run run = run_program(folder, "report a -o out -q --only changes,doubts --compare a "
                                        "--set item.ash_club.add.attack=30 --json");
    REQUIRE(run.exit == 0);
    std::vector<std::string> sections;
    const Json told = Json::parse(run.out);
    for (const Json& section : told["sections"]) sections.push_back(section["id"]);
    CHECK(sections == std::vector<std::string>{"changes", "doubts", "about"});
    CHECK(has(folder.read("out/report.html"), "ash_club"));
}

TEST_CASE("program: a report asked wrongly says so, and writes nothing") {
    const TempFolder folder;
    REQUIRE(run_program(folder, "new a").exit == 0);
    const Run unknown = run_program(folder, "report a -o out --only verdict");
    CHECK(unknown.exit == 2);
    CHECK(has(unknown.err, "did you mean 'verdicts'?"));
    CHECK(run_program(folder, "report a -o out --compare nowhere").exit == 3);
    const Run lacking = run_program(folder, "report a -o out --only changes");
    CHECK(lacking.exit == 2);
    CHECK(has(lacking.err, "--compare OLD"));
    CHECK(run_program(folder, "report nowhere -o out").exit == 3);
    CHECK_FALSE(folder.has("out"));
    for (const char* inside : {"a", "a/out", "a/../a/x/y"}) {
        const Run run = run_program(folder, std::string("report a -o ") + inside);
        CHECK(run.exit == 1);
        CHECK(has(run.err, "into which nothing is written"));
    }
    CHECK_FALSE(folder.has("a/out"));
    CHECK(run_program(folder, "check a -o a/out").exit == 1);
    CHECK(run_program(folder, "audit a --detail a/detail.csv").exit == 1);
    CHECK(run_program(folder, "fight a first gate --timeline a/t.csv").exit == 1);
    CHECK(run_program(folder, "export a --sqlite a/t.sqlite").exit == 1);
    std::size_t files = 0;
    for (const auto& file : std::filesystem::recursive_directory_iterator(folder / "a"))
        files += file.is_regular_file();
    CHECK(files == 2);
}
