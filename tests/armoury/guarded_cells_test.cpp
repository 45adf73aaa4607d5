// Cells that a spreadsheet would take for formulas.
#include "armoury/cells.h"
#include "show/armoury/show_export.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

TEST_CASE("a cell that a spreadsheet would compute is guarded, and numbers are not") {
    CHECK(csv_cell("=1+1") == "'=1+1");
    CHECK(csv_cell("@cmd") == "'@cmd");
    CHECK(csv_cell("+level") == "'+level");
    CHECK(csv_cell("-2 * level") == "'-2 * level");
    CHECK(csv_cell("-2.5") == "-2.5");
    CHECK(csv_cell("plain") == "plain");
    CHECK(csv_cell("it's = x") == "it's = x");
    CHECK(csv_cell("'=x") == "''=x");
    CHECK(csv_cell("=a,b") == "\"'=a,b\"");
}

TEST_CASE("a guard is taken off again, and nothing else is") {
    rc::prop("unguarded after guarded is what it was", [] {
        const auto letters = *rc::gen::container<std::string>(
            rc::gen::element('\'', '=', '+', '-', '@', '1', 'a', '.'));
        RC_ASSERT(unguarded(csv_cell(letters)) == letters);
    });
    CHECK(unguarded("'tis") == "'tis");
    CHECK(unguarded("=x") == "=x");
}

TEST_CASE("a formula in a table reads the same with a guard and without") {
    const std::string root = duel();
    for (const char* cell : {"-1 + level", "'-1 + level"}) {
        const ReadArmoury read =
            test::read(root, {{"stats.csv", std::string("stat,value\nodd,") + cell + "\n"}});
        CHECK(mistakes(read).empty());
        const Json resolved = resolved_json(read);
        CHECK(resolved["stat"]["odd"]["value"] == "-1 + level");
    }
}
