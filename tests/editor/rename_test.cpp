// Another id for a thing, wherever it is named.
#include "demo/files.h"
#include "editor/rename.h"

#include <catch2/catch.hpp>

using namespace panoplon;

namespace {

Edited edited_from(const std::vector<std::pair<std::string, std::string>>& files) {
    Sources sources;
    for (const auto& [path, text] : files) sources.add(path, text);
    return edited_of(std::move(sources), {});
}

Edited edited_embedded(std::span<const EmbeddedFile> files) {
    std::vector<std::pair<std::string, std::string>> list;
    for (const EmbeddedFile& file : files)
        list.emplace_back(std::string(file.path), std::string(file.text));
    return edited_from(list);
}

std::string renamed_text(const Edited& edited, const Thing& thing, const std::string& id,
                         std::int32_t file) {
    const auto edits = rename(edited, thing, id);
    REQUIRE(edits.ok());
    return with_edits(edited.read.sources, edits.value()).file(file).text;
}

const char* rules =
    "[armoury]\nname = \"A\"\n[combat]\n[pool.health]\nmax = \"self.max_health\"\n"
    "[stat.max_health]\n[stat.guard]\nname = \"Guard\"\n[damage.blunt]\nhealth = true\n"
    "[slot.head]\n[effect.calm]\nadd = { guard = 2 }\n";

} // namespace

TEST_CASE("every id of the demo can be another, and then the one that it was") {
    for (const auto& files : {demo_files(), workshop_files()}) {
        const Edited before = edited_embedded(files);
        REQUIRE(before.read.usable());
        std::size_t renamed = 0;
        for (const RawDefinition& definition : before.read.definitions) {
            if (definition.id.empty()) continue;
            const Thing thing{definition.kind, definition.id};
            INFO(thing.kind << "." << thing.id);
            const auto edits = rename(before, thing, "zz_other");
            REQUIRE(edits.ok());
            CHECK(!edits.value().empty());
            const Edited after = edited_of(with_edits(before.read.sources, edits.value()), {});
            CHECK(after.read.usable());
            CHECK(after.ids.find(thing.kind, thing.id) < 0);
            const auto back = rename(after, {thing.kind, "zz_other"}, thing.id);
            REQUIRE(back.ok());
            const Sources again = with_edits(after.read.sources, back.value());
            for (std::size_t i = 0; i < again.files().size(); ++i)
                CHECK(again.files()[i].text == before.read.sources.files()[i].text);
            ++renamed;
        }
        CHECK(renamed > 50);
    }
}

TEST_CASE("a rename reaches headers, tables, lists, formulas and what is worn") {
    const Edited edited = edited_from(
        {{"armoury.toml",
          std::string(rules) +
              "[item.cap]\nslot = \"head\"\n[item.cap.add]\nguard = 1\n"
              "[character.c]\nbase = { max_health = 10 }\n[loadout.own]\ncharacter = \"c\"\n"
              "worn = { head = { item = \"cap\" } }\n[action.a]\nevery = 2\n"
              "deals = { blunt = \"self.guard + other.guard * self.calm_active\" }\n"},
         {"items.csv", "item,slot,add.guard,immune_note\nhood,head,3,\n"}});
    const std::string guard = renamed_text(edited, {"stat", "guard"}, "shell", 0);
    CHECK(guard.find("[stat.shell]\nname = \"Guard\"") != std::string::npos);
    CHECK(guard.find("add = { shell = 2 }") != std::string::npos);
    CHECK(guard.find("\"self.shell + other.shell * self.calm_active\"") != std::string::npos);
    CHECK(renamed_text(edited, {"stat", "guard"}, "shell", 1).find("add.shell") !=
          std::string::npos);
    const std::string cap = renamed_text(edited, {"item", "cap"}, "hat", 0);
    CHECK(cap.find("[item.hat]\nslot") != std::string::npos);
    CHECK(cap.find("[item.hat.add]") != std::string::npos);
    CHECK(cap.find("item = \"hat\"") != std::string::npos);
    CHECK(renamed_text(edited, {"effect", "calm"}, "still", 0).find("self.still_active") !=
          std::string::npos);
    CHECK(renamed_text(edited, {"slot", "head"}, "top", 0).find("worn = { top = {") !=
          std::string::npos);
    CHECK(renamed_text(edited, {"slot", "head"}, "top", 1).find("hood,top,3") != std::string::npos);
}

TEST_CASE("a rename is proved beside what the folder has of its own faults") {
    // With `weight` for `guard` the header would be there twice.
    Sources sources;
    sources.add("armoury.toml", rules);
    sources.add("items.csv", "item,slot,guard,weight\nhood,head,3,1\n");
    Sink sink;
    sink.mistake({0, 1, 1, 1}, "one");
    sink.mistake({0, 1, 1, 1}, "two");
    const Edited edited = edited_of(std::move(sources), std::move(sink));
    const auto edits = rename(edited, {"stat", "guard"}, "weight");
    REQUIRE(!edits.ok());
    CHECK(edits.failure().message.find("there would be a mistake at items.csv:1:18") !=
          std::string::npos);
    CHECK(rename(edited, {"stat", "guard"}, "shell").ok());
}

TEST_CASE("a rename is refused with its reason") {
    const auto why = [](const Edited& edited, const Thing& thing, const std::string& id) {
        const auto edits = rename(edited, thing, id);
        REQUIRE(!edits.ok());
        return edits.failure().message + "; " + edits.failure().hint;
    };
    const Edited plain = edited_from({{"armoury.toml", rules}});
    CHECK(why(plain, {"stat", "guard"}, "Shell") ==
          "'Shell' is not an id; an id is lower-case letters, digits and '_', 100 of them at most");
    CHECK(why(plain, {"stat", "guard"}, "max_health") == "another stat has the id 'max_health'; ");
    const Edited by_name =
        edited_from({{"armoury.toml", rules}, {"items.csv", "name,slot\nFool's cap,head\n"}});
    CHECK(why(by_name, {"item", "fools_cap"}, "hat") ==
          "the id 'fools_cap' is made from the name at items.csv:2:1; change the name there, or "
          "give the table a column 'id'");
    const Edited sheet =
        edited_from({{"armoury.toml", rules}, {"gear.xlsx: items", "item,slot\ncap,head\n"}});
    CHECK(why(sheet, {"slot", "head"}, "top") ==
          "'head' is named at gear.xlsx: items!B2, in a workbook; an editor can't change a "
          "workbook");
    // The word that ends the effect ends every effect with the tag of that name, too.
    const Edited tagged = edited_from(
        {{"armoury.toml", std::string(rules) +
                              "[effect.fury]\ntags = [\"calm\"]\nadd = { guard = 1 }\n"
                              "[effect.cold]\nremoves = [\"calm\"]\nadd = { guard = 1 }\n"}});
    CHECK(why(tagged, {"effect", "calm"}, "still") ==
          "with the id 'still' something would name another thing than now; is 'calm' or 'still' a "
          "tag, or another kind of thing, too?");
}
