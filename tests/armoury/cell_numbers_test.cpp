// Numbers as people and spreadsheets write them.
#include "armoury/cell_numbers.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>
#include <rapidcheck/catch.h>

using namespace panoplon;

namespace {

/// "value", "value|other", with a "%" behind, or "none".
std::string read_as(std::string_view text, bool decimal_commas = false) {
    const CellNumber number = number_of_cell(text, decimal_commas);
    if (!number.value) return "none";
    return fmt::format("{}{}{}", *number.value,
                       number.other ? fmt::format("|{}", *number.other) : "",
                       number.percentage ? "%" : "");
}

} // namespace

TEST_CASE("numbers of cells: plain, with signs, percentages") {
    CHECK(read_as("3") == "3");
    CHECK(read_as("+3") == "3");
    CHECK(read_as("-3.5") == "-3.5");
    CHECK(read_as("\xe2\x88\x92"
                  "4") == "-4"); // a minus sign
    CHECK(read_as("1e3") == "1000");
    CHECK(read_as(".5") == "0.5");
    CHECK(read_as("5%") == "5%");
    CHECK(read_as("5 %") == "5%");
    CHECK(read_as("5\xc2\xa0%") == "5%"); // a space that does not break
    CHECK(read_as("-12,5 %") == "-12.5%");
}

TEST_CASE("numbers of cells: decimals after a comma, thousands") {
    CHECK(read_as("2,5") == "2.5");
    CHECK(read_as("0,125") == "0.125");
    CHECK(read_as("1,25") == "1.25");
    CHECK(read_as("1.200,50") == "1200.5");
    CHECK(read_as("1,200.50") == "1200.5");
    CHECK(read_as("1,234,567") == "1234567");
    CHECK(read_as("1.234.567") == "1234567");
    CHECK(read_as("1\xc2\xa0"
                  "200") == "1200");
    CHECK(read_as("1 200,5") == "1200.5");
}

TEST_CASE("numbers of cells: what could be two is both") {
    CHECK(read_as("1,200") == "1.2|1200");
    CHECK(read_as("-1,200") == "-1.2|-1200");
    CHECK(read_as("1.200") == "1.2");
    CHECK(read_as("1.200", true) == "1.2|1200");
    CHECK(read_as("1.25", true) == "1.25");
    CHECK(read_as("1000.250", true) == "1000.25"); // four digits are no group
}

TEST_CASE("numbers of cells: what is none") {
    for (const char* text : {"", "-", "+", "%", "n/a", "3 swords", "1,2,3", "1.2.3", "12,34,567",
                             "1,20.50", "2 * level", "1-2", "2026-01-31", "1 20"}) {
        INFO(text);
        CHECK(read_as(text) == "none");
    }
}

TEST_CASE("numbers of cells: a decimal comma is one for certain, or is not told") {
    for (const char* text : {"2,5", "0,125", "-3,25", "1.200,5", "12,3 %"}) {
        INFO(text);
        CHECK(is_decimal_comma(text));
    }
    for (const char* text : {"1,200", "1,200.5", "1,234,567", "2.5", "3", "a,b"}) {
        INFO(text);
        CHECK_FALSE(is_decimal_comma(text));
    }
}

TEST_CASE("numbers of cells: what the program writes it reads, with a comma, too") {
    rc::prop("a number comes back, and never as two unless three digits follow one", [] {
        const double value =
            *rc::gen::inRange(-100000, 100000) / *rc::gen::element(1.0, 10.0, 100.0, 1000.0);
        std::string text = fmt::format("{}", value);
        RC_ASSERT(number_of_cell(text, false).value == value);
        const std::size_t point = text.find('.');
        if (point == std::string::npos) return;
        text[point] = ',';
        const CellNumber number = number_of_cell(text, false);
        RC_ASSERT(number.value == value);
        RC_ASSERT(!number.other || text.size() - point == 4);
    });
}
