// What has changed between two readings, and what has not.
#include "support/armouries.h"

#include "armoury/content.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const std::string gear = "[pattern.tool]\nslot = \"hand\"\nadd = { attack = 2 }\n"
                         "[item.axe]\nlike = \"tool\"\nname = \"Axe\"\n"
                         "[item.pick]\nlike = \"tool\"\nadd = { keen = 1 }\n";

std::string changes(const std::string& before, const std::string& after) {
    std::string text;
    for (const DefinitionChange& change : differences(read(before), read(after))) {
        text += change.kind + "." + change.id + " " +
                definition_change_names[static_cast<int>(change.what)] + "\n";
        for (const auto& key : change.keys)
            text += "  " + key.path + ": " + key.before + " > " + key.after + "\n";
    }
    return text;
}

} // namespace

TEST_CASE("content: an item's number is its own, with its pattern's; words don't count") {
    const Content before = content_of(read(duel() + gear));
    REQUIRE(before.items.size() == 2);
    const Content renamed =
        content_of(read(duel() + with(gear, "name = \"Axe\"", "about = \"Sharp.\"")));
    CHECK(renamed.items == before.items);
    CHECK(renamed.rules == before.rules);
    const Content keener = content_of(read(duel() + with(gear, "keen = 1", "keen = 2")));
    CHECK(keener.items[0] == before.items[0]);
    CHECK(keener.items[1] != before.items[1]);
    CHECK(keener.rules == before.rules);
    const Content pattern = content_of(read(duel() + with(gear, "attack = 2", "attack = 3")));
    CHECK(pattern.items[0] != before.items[0]);
    CHECK(pattern.items[1] != before.items[1]);
    const Content rules =
        content_of(read(with(duel() + gear, "[stat.keen]", "[stat.keen]\ncost = 3")));
    CHECK(rules.items == before.items);
    CHECK(rules.rules != before.rules);
}

TEST_CASE("content: the order in which an item's keys stand says nothing") {
    const std::string one = "[item.axe]\nslot = \"hand\"\nweight = 2\n";
    const std::string other = "[item.axe]\nweight = 2\nslot = \"hand\"\n";
    CHECK(content_of(read(duel() + one)).items == content_of(read(duel() + other)).items);
}

TEST_CASE("differences are told key by key, with what a pattern changes in its items") {
    CHECK(changes(duel() + gear, duel() + gear).empty());
    CHECK(changes(duel() + gear, duel() + with(gear, "keen = 1", "keen = 2, might = 1")) ==
          "item.pick changed\n  add.keen: 1 > 2\n  add.might:  > 1\n");
    CHECK(changes(duel() + gear, duel() + with(gear, "attack = 2", "attack = 3")) ==
          "item.axe changed\n  add.attack: 2 > 3\nitem.pick changed\n  add.attack: 2 > 3\n");
    CHECK(changes(duel() + gear, duel() + gear + "[item.saw]\nslot = \"hand\"\n") ==
          "item.saw added\n");
    CHECK(changes(duel() + gear + "[item.saw]\nslot = \"hand\"\n", duel() + gear) ==
          "item.saw removed\n");
    CHECK(changes(duel(),
                  with(duel(), "health = \"health\"", "health = \"health\"\ntime_limit = 90")) ==
          "combat. changed\n  time_limit:  > 90\n");
}
