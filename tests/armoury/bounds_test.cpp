// What is beyond the bounds of an armoury is refused with a word that names the bound.
#include "armoury/bounds.h"
#include "armoury/deep_keys.h"
#include "support/program.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <fmt/format.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

std::string key_of(std::size_t parts, const std::string& part = "a",
                   const std::string& between = ".") {
    std::string key = part;
    for (std::size_t i = 1; i < parts; ++i) key += between + part;
    return key;
}

/// What is wrong with the duel when a further file holds this.
std::string wrong_with(const std::string& text, const std::string& file = "more.toml") {
    return mistakes(read(duel(), {{file, text}}));
}

/// n definitions, each with its number and that of the one before.
template <class Format>
std::string chain(int n, const Format& one) {
    std::string text;
    for (int i = 1; i <= n; ++i) text += one(i, i - 1);
    return text;
}

} // namespace

TEST_CASE("a key of too many parts is found in the text, wherever it stands") {
    for (const std::string& deep :
         {key_of(33), key_of(33, "\"a b\""), key_of(33, "'a.b'"), key_of(33, "a", " . "),
          key_of(33, "1-2"), "\"" + std::string("x\\\"") + "\"." + key_of(32), key_of(100'000)}) {
        INFO(deep.substr(0, 60));
        CHECK(find_deep_key(deep + " = 1\n"));
        CHECK(find_deep_key("[" + deep + "]\n"));
        CHECK(find_deep_key("x = 1\ny = { " + deep + " = 1 }\n"));
        CHECK(find_deep_key("x = \"\"\"two\n\"lines\"\"\"\"\n" + deep + " = 1\n"));
        CHECK(has(wrong_with(deep + " = 1\n"), "a key of more than 32 parts"));
    }
    for (const std::string& fine :
         {key_of(32) + " = 1", "x = \"" + key_of(40) + "\"", "x = '" + key_of(40) + "'",
          "# " + key_of(40), "x = \"\"\"\n" + key_of(40) + "\n\"\"\"",
          "x = '''\n" + key_of(40) + "'''", "x = [" + key_of(40, "1.5", ", ") + "]",
          key_of(40, "a = 1", "\n"), std::string("\"unfinished") + "\n" + key_of(32) + " = 1",
          std::string(".\"'")}) {
        INFO(fine.substr(0, 60));
        CHECK_FALSE(find_deep_key(fine));
    }
    const DuelFolder folder;
    const Run deep = run_program(folder, "check a --set item." + key_of(30'000) + "=1");
    CHECK(deep.exit == 1);
    CHECK(has(deep.err, "a key of more than 32 parts"));
}

TEST_CASE("chains of definitions have an end, and circles too") {
    const auto patterns = [](int n) {
        return chain(n, [](int i, int before) {
            return fmt::format("[pattern.p{}]\n", i) +
                   (before > 0 ? fmt::format("like = \"p{}\"\n", before) : "");
        });
    };
    CHECK(wrong_with(patterns(32)).empty());
    CHECK(
        has(wrong_with(patterns(33)), "'p33' is like one that is like others, more than 32 deep"));
    CHECK(has(wrong_with(patterns(2000)), "more than 32 deep"));
    const auto boxes = [](int n, bool forwards) {
        return chain(n, [&](int i, int before) {
            const int inner = forwards ? (i < n ? i + 1 : 0) : before;
            return fmt::format("[item.b{}]\n", i) +
                   (inner > 0 ? fmt::format("contains = {{ b{} = 1 }}\n", inner) : "");
        });
    };
    for (const bool forwards : {true, false}) {
        CHECK(wrong_with(boxes(32, forwards)).empty());
        CHECK(has(wrong_with(boxes(34, forwards)), "contains what contains others, more than 32"));
        CHECK(has(wrong_with(boxes(5000, forwards)), "more than 32 deep"));
    }
    const auto stats = [](int n) {
        return chain(n, [&](int i, int) {
            return fmt::format("[stat.s{}]\n", i) +
                   (i < n ? fmt::format("value = \"self.s{} + 1\"\n", i + 1) : "");
        });
    };
    CHECK(wrong_with(stats(33)).empty());
    CHECK(has(wrong_with(stats(34)), "'s1' needs 's33' through more than 31 other stats"));
    CHECK(has(wrong_with(stats(1900)), "through more than 31 other stats"));
    // Each stat needs all before it: as many ways as there are subsets, and none is walked twice.
    std::string ways = "[stat.s0]\n";
    for (int i = 1; i < 31; ++i) {
        ways += fmt::format("[stat.s{}]\nvalue = \"0", i);
        for (int j = 0; j < i; ++j) ways += fmt::format(" + self.s{}", j);
        ways += "\"\n";
    }
    CHECK(wrong_with(ways +
                     "[carry]\ncapacity = \"self.s30\"\n[[carry.band]]\nname = \"Full\"\nfrom = "
                     "1\nadd = { guard = 1 }\n")
              .empty());
}

TEST_CASE("numbers of things have bounds") {
    std::string rows = "item,slot\n";
    for (std::size_t i = 0; i < most_definitions + 2; ++i) rows += fmt::format("i{},hand\n", i);
    CHECK(has(wrong_with(rows, "gear.csv"), "more than 100000 rows"));
    CHECK(has(wrong_with("item,a\nx" + std::string(most_cells, ',') + "\n", "gear.csv"),
              "more than 2000000 cells"));
    std::string half = "item,slot\n";
    for (std::size_t i = 0; i < most_definitions / 2; ++i) half += fmt::format("i{},hand\n", i);
    std::string other = "item,slot\n";
    for (std::size_t i = 0; i < most_definitions / 2; ++i) other += fmt::format("j{},hand\n", i);
    CHECK(has(mistakes(read(duel(), {{"a.csv", half}, {"b.csv", other}})),
              "b.csv: with it the armoury has more than 100000 definitions"));
    std::string stats;
    for (std::size_t i = 0; i < most_stats; ++i) stats += fmt::format("[stat.s{}]\n", i);
    CHECK(has(wrong_with(stats), "stats; at most 2000 are read"));
    CHECK(has(wrong_with("[encounter.herd]\nfoes = [ { foe = \"dummy\", count = 900 }, { foe = "
                         "\"dummy\", count = 1, up_to = 101 } ]\n"),
              "1001 foes come to the encounter 'herd'; at most 1000 may"));
    CHECK(wrong_with("[item." + std::string(100, 'x') + "]\n").empty());
    CHECK(has(wrong_with("[item." + std::string(101, 'x') + "]\n"), "is not an id"));
    CHECK(has(wrong_with("item,slot\n" + std::string(101, 'x') + ",hand\n", "gear.csv"),
              "is not an id"));
}

TEST_CASE("files and folders have bounds") {
    const DuelFolder folder;
    std::filesystem::path deep = folder / "a";
    for (int i = 0; i < 33; ++i) deep /= "f";
    std::filesystem::create_directories(deep);
    const Run nested = run_program(folder, "check a");
    CHECK(nested.exit == 1);
    CHECK(has(nested.err, "folders in 'a' lie more than 32 deep"));
    std::filesystem::remove_all(folder / "a/f");
    for (std::size_t i = 0; i < most_files; ++i) folder.write(fmt::format("a/m/{}.toml", i), "");
    const Run many = run_program(folder, "check a");
    CHECK(many.exit == 1);
    CHECK(has(many.err, "'a' has more than 10000 files"));
}
