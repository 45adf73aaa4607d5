// docs/results.md says what the file of results has.
#include "support/program.h"

#include "base/text.h"

#include <catch2/catch.hpp>
#include <fstream>
#include <map>
#include <sstream>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// What the page says of each table.
std::map<std::string, std::string> documented() {
    std::ifstream file(PANOPLON_SOURCE "/docs/results.md");
    std::map<std::string, std::string> tables;
    for (std::string line; std::getline(file, line);)
        if (line.starts_with("| `")) {
            const std::size_t end = line.find('`', 3);
            tables[line.substr(3, end - 3)] = line.substr(end + 1);
        }
    return tables;
}

} // namespace

TEST_CASE("results: every table and column that commands keep is in docs/results.md") {
    const DemoFolder demo;
    const std::string narrow = " --character ringer --encounter ford --level 19-20 -o out -q";
    for (const std::string command :
         {"check a -o out -q", "list a item -o out -q", "card a reed_coat -o out -q",
          "explain a tower_bell -o out -q", "equip a ringer_early --level 6 -o out -q",
          "equip a ringer_early ringer_middle --level 14 -o out -q",
          "equip a ringer_early ringer_middle ringer_early --level 14 -o out -q",
          "fight a ringer_early causeway --level 6 --trials 20 -o out -q",
          "fight a ringer_early causeway --level 6 --trials 20 --other warden_early -o out -q",
          "curve a --level 6 --even-luck -o out -q", "journey a marsh_road --trials 5 -o out -q",
          "weigh a warden_middle long_watch --level 18 -o out -q"})
        CHECK(run_program(demo, command).exit == 0);
    for (const char* command :
         {"best a", "audit a --trials 0 --by tag --pairs", "audit a --trials 0 --by tier",
          "tune a felt_gloves add.guard --alone", "compare a --set item.felt_gloves.add.guard=1"})
        CHECK(run_program(demo, command + narrow).exit == 0);

    const auto pages = documented();
    const Run columns = run_command(
        demo, "sqlite3 -separator ' ' out/results.sqlite \"select m.name, p.name from "
              "sqlite_master m join pragma_table_info(m.name) p where m.type = 'table'\"");
    std::istringstream lines(columns.out);
    std::map<std::string, int> seen;
    for (std::string table, column; lines >> table >> column;) {
        INFO(table << "." << column);
        ++seen[table];
        REQUIRE(pages.contains(table));
        const std::string& page = pages.at(table);
        const bool named = has(page, "`" + column + "`") || (table != "run" && column == "run") ||
                           (table == "tune" && column.starts_with("picks_"));
        CHECK(named);
    }
    CHECK(seen.size() >= 28);
}
