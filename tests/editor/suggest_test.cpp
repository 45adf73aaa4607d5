// What may stand at a place, and what a word is.
#include "armoury/content.h"
#include "base/text.h"
#include "demo/files.h"
#include "editor/hover.h"
#include "editor/positions.h"
#include "editor/suggest.h"
#include "show/armoury/show_explain.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;

namespace {

/// The demo with a text behind one of its files.
Edited demo_with(std::string_view path, const std::string& text) {
    Sources sources;
    for (const EmbeddedFile& file : demo_files())
        sources.add(std::string(file.path),
                    std::string(file.text) + (file.path == path ? text : std::string()));
    return edited_of(std::move(sources), {});
}

std::int32_t file_called(const Edited& edited, std::string_view path) {
    const auto& files = edited.read.sources.files();
    return static_cast<std::int32_t>(
        std::find_if(files.begin(), files.end(),
                     [&](const Sources::File& file) { return file.path == path; }) -
        files.begin());
}

/// What is suggested at the `@` of a text behind a file of the demo.
std::vector<std::string> suggested(std::string_view path, std::string text) {
    const std::size_t mark = text.find('@');
    text.erase(mark, 1);
    const Edited edited = demo_with(path, text);
    const std::int32_t file = file_called(edited, path);
    const std::size_t size = edited.read.sources.file(file).text.size();
    std::vector<std::string> list;
    for (const Suggestion& one : suggestions_at(edited, file, size - text.size() + mark).list)
        list.push_back(one.text);
    return list;
}

bool has(const std::vector<std::string>& list, const char* text) {
    return std::find(list.begin(), list.end(), text) != list.end();
}

std::string hover_at(const Edited& edited, std::string_view path, const char* word,
                     std::size_t more, const ToldAudit& told = {}) {
    const std::int32_t file = file_called(edited, path);
    const Handbook handbook;
    SoundArmoury sound{edited.read, {}, {}};
    if (edited.read.usable()) {
        sound.paper = compare_on_paper(edited.read.armoury);
        sound.contents = content_of(edited.read).items;
    }
    const std::size_t at = edited.read.sources.file(file).text.find(word);
    REQUIRE(at != std::string::npos);
    return hover_text(edited, edited.read.usable() ? &sound : nullptr, told, handbook, file,
                      at + more);
}

} // namespace

TEST_CASE("what may stand at a place of TOML is suggested") {
    CHECK(has(suggested("gear.toml", "\n[it@"), "item"));
    CHECK(has(suggested("gear.toml", "\n[item.new]\nsl@"), "slot"));
    CHECK_FALSE(has(suggested("gear.toml", "\n[item.new]\nslot = \"head\"\n@"), "slot"));
    CHECK(has(suggested("gear.toml", "\n[item.new]\nslot = @"), "\"main_hand\""));
    CHECK(has(suggested("gear.toml", "\n[item.new]\nslot = \"m@\"\n"), "main_hand"));
    CHECK(has(suggested("gear.toml", "\n[item.new]\nadd = { @"), "attack"));
    CHECK(has(suggested("gear.toml", "\n[item.new]\nadd.@"), "attack"));
    CHECK(has(suggested("gear.toml", "\n[[item.new.tr@]]"), "trigger"));
    CHECK(has(suggested("gear.toml", "\n[[item.new.trigger]]\non = \"@\""), "hit"));
    CHECK(
        has(suggested("gear.toml", "\n[item.new]\ntags = [\"heavy\", @\nlevel = 3\n"), "\"wood\""));
    CHECK(has(suggested("gear.toml", "\n[item.new]\naccept = [\"@"), "dominant"));
    CHECK(has(suggested("gear.toml", "\n[item.new]\nallow = [\"@"), "twin"));
    CHECK(has(suggested("gear.toml", "\n[item.new]\nneeds = { calling = [\"@"), "ringer"));
    CHECK(
        has(suggested("fighters.toml", "\n[foe.new]\ngrowth = { attack = \"2 * l@\" }"), "level"));
    CHECK(has(suggested("fighters.toml", "\n[action.new]\ndeals = { blunt = \"self.@"),
              "self.attack"));
    CHECK(has(suggested("loadouts.toml", "\n[loadout.new]\nworn = { @"), "off_hand"));
    CHECK(has(suggested("loadouts.toml", "\n[loadout.new]\nworn = { head = \"@"), "oath_bell"));
    CHECK(has(suggested("loadouts.toml", "\n[loadout.n]\nworn.head = { rolled = { @"), "attack"));
    CHECK(suggested("gear.toml", "\n[item.new]\n# ne@").empty());
    CHECK(suggested("gear.toml", "\n[item.new]\nname = \"ne@").empty());
}

TEST_CASE("what may stand in a table is suggested by its column") {
    CHECK(has(suggested("gear.csv", "new,New,@"), "main_hand"));
    CHECK(has(suggested("gear.csv", "new,New,main_hand,p@"), "plain"));
    CHECK_FALSE(has(suggested("gear.csv", "new,New,main_hand,p@"), "main_hand"));
    Sources sources;
    sources.add("armoury.toml", "[stat.guard]\n");
    sources.add("items.csv", "item,slot,\n");
    const Edited edited = edited_of(std::move(sources), {});
    const Suggestions found = suggestions_at(edited, 1, 10);
    const auto offers = [&](const char* label) {
        return std::any_of(found.list.begin(), found.list.end(),
                           [&](const Suggestion& one) { return one.label == label; });
    };
    CHECK(offers("guard"));
    CHECK(offers("weight"));
    CHECK(offers("trigger.1.on"));
    CHECK_FALSE(offers("slot")); // it is there
}

TEST_CASE("what is written takes the place of the word that is there") {
    const std::string text = "[item.a]\nslot = \"\"\nlike = \"p\"\n";
    Sources sources;
    sources.add("armoury.toml", text);
    const Edited edited = edited_of(std::move(sources), {});
    rc::prop("the range holds the place and stays within its line", [&] {
        const auto place = *rc::gen::inRange<std::size_t>(0, text.size() + 1);
        const TextRange range = suggestions_at(edited, 0, place).range;
        RC_ASSERT(range.holds(place));
        RC_ASSERT(range.offset + range.length <= text.size());
        RC_ASSERT(text.substr(range.offset, range.length).find('\n') == std::string::npos);
    });
}

TEST_CASE("a word is explained by what it is") {
    const Edited demo = demo_with("gear.toml", "");
    const std::string card = hover_at(demo, "gear.csv", "ash_striker,", 3);
    CHECK(
        card.starts_with("**Ash striker** `item.ash_striker` · slot `main_hand` · tier Tuned II"));
    CHECK(card.find("+12 attack · +8 keen") != std::string::npos);
    CHECK(card.ends_with("*no verdict yet: `audit` or `watch` finds one*"));
    CHECK(std::count(card.begin(), card.end(), '\n') == 4);
    CHECK(hover_at(demo, "gear.toml", "[item.", 2).starts_with("**[item.ID]** (kind)"));
    CHECK(hover_at(demo, "gear.toml", "draw_time", 2).find("time") != std::string::npos);
    CHECK(hover_at(demo, "fighters.toml", "[foe.fogling]", 8)
              .starts_with("**Fogling** `foe.fogling`: named"));
    CHECK(hover_at(demo, "gear.toml", "# Gear", 3).empty());
}

TEST_CASE("a word is named by as many as `explain` lists") {
    const Edited demo = demo_with("gear.toml", "");
    std::size_t compared = 0;
    for (const RawDefinition& definition : demo.read.definitions) {
        if (definition.id.empty() || definition.kind == "item") continue;
        const std::size_t users = show_thing(demo.read, definition).json["used_by"].size();
        const auto at = definition_of(demo, {definition.kind, definition.id});
        REQUIRE(at);
        const std::string words = hover_text(demo, nullptr, {}, {}, at->file, at->offset);
        const std::string first_line = words.substr(0, words.find("  \n"));
        INFO(first_line);
        const std::string count = users == 0 ? "nothing" : counted(users, "definition");
        CHECK(first_line.ends_with(": named by " + count));
        ++compared;
    }
    CHECK(compared > 80);
}

TEST_CASE("a card ends with what the last audit said, and whether that is out of date") {
    const Edited demo = demo_with("gear.toml", "");
    const Content content = content_of(demo.read);
    const auto& items = demo.read.armoury.items;
    const auto index = static_cast<std::size_t>(
        std::find_if(items.begin(), items.end(),
                     [](const Item& item) { return item.id == "ash_striker"; }) -
        items.begin());
    ToldAudit told{"2026-11-29 12:00",
                   {{"ash_striker", {"sound", "it is fair", content.items[index]}}}};
    CHECK(hover_at(demo, "gear.csv", "ash_striker,", 3, told)
              .ends_with("**sound**: it is fair *(audit of 2026-11-29 12:00)*"));
    told.items["ash_striker"].content ^= 1;
    CHECK(hover_at(demo, "gear.csv", "ash_striker,", 3, told)
              .ends_with("(audit of 2026-11-29 12:00; the item has changed since)*"));
    CHECK(hover_at(demo, "gear.csv", "tin_rod,", 3, told)
              .ends_with("*not judged by the audit of 2026-11-29 12:00*"));
}

TEST_CASE("places are counted in UTF-16, as the protocol has them") {
    const std::string text = "a\u00e9b\n\U0001F514x\r\ny";
    CHECK(position_of(text, 3) == TextPosition{0, 2});
    CHECK(position_of(text, text.find('x')) == TextPosition{1, 2});
    CHECK(offset_of(text, {1, 2}) == text.find('x'));
    CHECK(offset_of(text, {1, 99}) == text.find('\r'));
    CHECK(offset_of(text, {99, 0}) == text.size());
    rc::prop("there and back", [] {
        const auto parts = *rc::gen::container<std::vector<std::string>>(
            rc::gen::element<std::string>("a", "\n", "\u00e9", "\U0001F514", "\u4e2d", " "));
        std::string written;
        for (const std::string& part : parts) {
            RC_ASSERT(offset_of(written + "zz\n", position_of(written + "zz\n", written.size())) ==
                      written.size());
            written += part;
        }
    });
}
