// The edges of doubts: what is near one and none.
#include "support/armouries.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// The doubts of the duel with more definitions: "kind thing", one a line.
std::string doubts(const std::string& definitions) {
    const ReadArmoury result = read(duel() + definitions);
    INFO(mistakes(result));
    REQUIRE(result.usable());
    std::string text;
    for (const Diagnostic& d : result.sink.sorted(Severity::doubt))
        text += d.kind + " " + d.thing + "\n";
    return text;
}

} // namespace

TEST_CASE("what does something in any way is not doubted for doing nothing") {
    const std::string ways[] = {
        "add = { guard = 1 }",   "percent = { guard = 1 }", "times = { guard = 2 }",
        "actions = [\"rest\"]",  "grants = { bag = 1 }",    "contains = { rock = 1 }",
        "sockets = [\"inlay\"]", "tier = \"fine\"",         "set = \"folk\""};
    const std::string words = "[item.rock]\n[slot.inlay]\nsocket = true\n[set.folk]\n"
                              "[[set.folk.step]]\ncount = 1\nadd = { guard = 1 }\n";
    for (const std::string& way : ways) {
        INFO(way);
        CHECK_FALSE(
            has(doubts(words + "[item.x]\nslot = \"head\"\n" + way + "\n"), "does_nothing item.x"));
    }
    CHECK(has(doubts(words + "[item.x]\nslot = \"head\"\ntier = \"plain\"\n"),
              "does_nothing item.x"));
}

TEST_CASE("twins are equal in all that counts, also when one says it by a pattern") {
    const std::string one = "[item.one]\nslot = \"head\"\nadd = { guard = 2 }\nweight = 1\n";
    const auto twin = [&](const std::string& other) {
        return has(doubts(one + other), "twin item.");
    };
    CHECK(twin("[item.two]\nslot = \"head\"\nadd = { guard = 2 }\nweight = 1\n"));
    CHECK(twin("[pattern.p]\nslot = \"head\"\nadd = { guard = 2 }\n[item.two]\nlike = "
               "\"p\"\nweight = 1\n"));
    CHECK(twin("[item.two]\nslot = \"head\"\nadd = { guard = 2, keen = 0 }\nweight = 1\nvalue = "
               "9\n"));
    CHECK_FALSE(twin("[item.two]\nslot = \"head\"\nadd = { guard = 2 }\nweight = 1.001\n"));
    CHECK_FALSE(twin("[item.two]\nslot = \"head\"\nadd = { guard = 2 }\nweight = 1\nlevel = 2\n"));
    CHECK_FALSE(twin("[item.two]\nslot = \"charm\"\nadd = { guard = 2 }\nweight = 1\n"));
    CHECK_FALSE(twin("[item.two]\nslot = \"head\"\nadd = { guard = 2 }\nweight = 1\nunique = "
                     "\"oath\"\n"));
}

TEST_CASE("an item that says nothing but its names is its pattern") {
    const std::string pattern = "[pattern.p]\nslot = \"head\"\nadd = { guard = 2 }\n";
    CHECK(has(doubts(pattern + "[item.x]\nlike = \"p\"\nname = \"X\"\nabout = \"An x.\"\n"),
              "as_pattern item.x"));
    CHECK_FALSE(has(doubts(pattern + "[item.x]\nlike = \"p\"\nlevel = 2\n"), "as_pattern"));
}

TEST_CASE("an upgrade may bring the might that an item needs") {
    const std::string plate =
        "[item.plate]\nslot = \"head\"\nadd = { guard = 1 }\nneeds = { stats = { "
        "might = 14 } }\n";
    CHECK(has(doubts(plate), "never_worn item.plate"));
    CHECK_FALSE(has(doubts(plate + "[upgrade.lifting]\nmax = 2\nadd = { might = 2 }\n"),
                    "never_worn item.plate"));
}

TEST_CASE("a source is asked for where any is given, and drops and loadouts are sources") {
    const std::string two = "[item.a]\nslot = \"head\"\nadd = { guard = 1 }\n[item.b]\nslot = "
                            "\"head\"\nadd = { guard = 2 }\n";
    CHECK_FALSE(has(doubts(two), "source_unknown"));
    const std::string said =
        two + "[item.c]\nslot = \"head\"\nadd = { guard = 3 }\nsource = \"shop\"\n";
    CHECK(has(doubts(said), "source_unknown item.a"));
    CHECK(has(doubts(said + "[loadout.l]\ncharacter = \"hero\"\nworn = { head = \"a\" }\n"),
              "source_unknown item.b"));
    CHECK_FALSE(has(doubts(said + "[loadout.l]\ncharacter = \"hero\"\nworn = { head = \"a\" }\n"),
                    "source_unknown item.a"));
}

TEST_CASE("a set's step is reachable as far as its pieces go on together") {
    const auto unreachable = [](const std::string& pieces, int count) {
        return has(doubts("[set.s]\n[[set.s.step]]\ncount = " + std::to_string(count) +
                          "\nadd = { guard = 1 }\n" + pieces),
                   "step_unreachable set.s");
    };
    const auto piece = [](const std::string& id, const std::string& slot) {
        return "[item." + id + "]\nslot = \"" + slot + "\"\nset = \"s\"\nadd = { keen = 1 }\n";
    };
    const std::string three = piece("a", "charm") + piece("b", "charm") + piece("c", "charm");
    CHECK_FALSE(unreachable(three, 2)); // there are two places for charms
    CHECK(unreachable(three, 3));
    CHECK_FALSE(unreachable(three + piece("d", "head"), 3));
}
