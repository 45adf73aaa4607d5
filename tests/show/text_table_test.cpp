// Text that fits a width.
#include "show/text_table.h"

#include <catch2/catch.hpp>

using namespace panoplon;

namespace {

/// The program's width for the length of a test.
struct Width {
    explicit Width(std::size_t width) { set_text_width(width); }
    ~Width() { set_text_width(0); }
};

TextTable table() {
    TextTable table({{"thing"}, {"n", Align::right}, {"what happened to it"}});
    table.row({"draught", "12", "drunk at full health, by and by, all of it"});
    table.row({"a", "3.5", "short"});
    return table;
}

} // namespace

TEST_CASE("a table without a bound has a line a row") {
    CHECK(table().text() == "  thing      n  what happened to it\n"
                            "  draught   12  drunk at full health, by and by, all of it\n"
                            "  a        3.5  short\n");
}

TEST_CASE("a table that is too wide folds its widest column of words, and no number") {
    const Width width(38);
    CHECK(table().text() == "  thing      n  what happened to it\n"
                            "  draught   12  drunk at full health,\n"
                            "                by and by, all of it\n"
                            "  a        3.5  short\n");
}

TEST_CASE("prose is fitted, tables and what a caret points at are not") {
    CHECK(fitted("one two three four five six", 16) == "one two three\n  four five six");
    CHECK(fitted("  one two three four", 18) == "  one two three\n    four");
    CHECK(fitted("one  two  three  four  five", 10) == "one  two  three  four  five");
    CHECK(fitted("some code that is long\n     ^~~~", 10) == "some code that is long\n     ^~~~");
    CHECK(fitted("one two three four five six", 0) == "one two three four five six");
    CHECK(fitted("a\n\nb\n", 5) == "a\n\nb\n");
}
