#include "base/text.h"

#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;

TEST_CASE("the edit distance counts insertions, deletions, replacements and swaps") {
    CHECK(edit_distance("guard", "guard") == 0);
    CHECK(edit_distance("gaurd", "guard") == 1);
    CHECK(edit_distance("gard", "guard") == 1);
    CHECK(edit_distance("", "abc") == 3);
    CHECK(edit_distance("kitten", "sitting") == 3);
}

TEST_CASE("a name is offered only when it is near") {
    const std::vector<std::string> names = {"guard", "attack", "haste"};
    CHECK(nearest_name("gaurd", names) == "guard");
    CHECK(nearest_name("hast", names) == "haste");
    CHECK(nearest_name("haed", std::vector<std::string>{"hand", "head"}) == "head");
    CHECK(nearest_name("zebra", names) == std::nullopt);
    CHECK(nearest_name(std::string(100000, 'x'), names) == std::nullopt);
}

TEST_CASE("the edit distance is a distance") {
    rc::prop("symmetric, and zero only for equals", [](const std::string& a, const std::string& b) {
        RC_ASSERT(edit_distance(a, b) == edit_distance(b, a));
        RC_ASSERT((edit_distance(a, b) == 0) == (a == b));
    });
}

TEST_CASE("numbers for people lose trailing zeros, not value") {
    CHECK(rounded(1.5) == "1.5");
    CHECK(rounded(2.0) == "2");
    CHECK(rounded(-0.001) == "0");
    CHECK(rounded(1234.5678, 3) == "1234.568");
    CHECK(rounded(100, 0) == "100");
    CHECK(shortest(0.1) == "0.1");
    CHECK(percent(0.153) == "15.3 %");
    CHECK(counted(1, "item") == "1 item");
    CHECK(counted(3, "item") == "3 items");
}

TEST_CASE("what is not UTF-8 is found where it begins") {
    CHECK(invalid_utf8("plain") == std::nullopt);
    CHECK(invalid_utf8("é – 日本") == std::nullopt);
    CHECK(invalid_utf8("ab\xff") == 2u);
    CHECK(invalid_utf8("\xc0\xaf") == 0u);     // overlong
    CHECK(invalid_utf8("\xed\xa0\x80") == 0u); // a surrogate
    CHECK(invalid_utf8("x\xe2\x82") == 1u);    // cut off
}

TEST_CASE("what would steer a terminal or the direction of reading is shown as it is written") {
    CHECK(printable("a\x1b[31mb") == "a\\u001B[31mb");
    CHECK(printable("tab\there\nand\rthere") == "tab here and there");
    CHECK(printable("c1\xc2\x9b"
                    "x\x7f") == "c1\\u009Bx\\u007F");
    CHECK(printable("é שלום 🛡") == "é שלום 🛡");
    CHECK(printable("a\u202Eb\u2066c\u200Fd\u061Ce") == "a\\u202Eb\\u2066c\\u200Fd\\u061Ce");
    CHECK(printable("\uFEFF \uFFFE \uFDD0 \U0001FFFF") == "\\uFEFF \\uFFFE \\uFDD0 \\U0001FFFF");
    CHECK(printable("cut \xe2\x82, wild \xff") == "cut \\xE2\\x82, wild \\xFF");
    CHECK(printable_lines("one\x1b\ntwo\n") == "one\\u001B\ntwo\n");
}

TEST_CASE("ids are lower-case letters, digits and underscores") {
    CHECK(is_id("reed_coat2"));
    CHECK_FALSE(is_id("Reed"));
    CHECK_FALSE(is_id(""));
    CHECK_FALSE(is_id("_x"));
    CHECK_FALSE(is_id("a b"));
}
