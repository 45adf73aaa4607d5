// Words of files: what each is, also in files that are not finished.
#include "armoury/references.h"
#include "demo/files.h"
#include "editor/edited.h"

#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>
#include <set>

using namespace panoplon;

namespace {

/// "key item.new slot", "value item.new slot main_hand": a mark in words.
std::string words(const Mark& mark) {
    const char* roles[] = {"kind", "id", "key", "value"};
    std::string text = roles[static_cast<int>(mark.role)];
    text += " " + mark.kind;
    if (!mark.id.empty()) text += "." + mark.id;
    if (!mark.path.empty()) text += " " + mark.path;
    if (mark.role == Mark::Role::value) text += " = " + mark.text;
    return text;
}

std::vector<std::string> all_words(std::string_view toml) {
    std::vector<std::string> list;
    for (const Mark& mark : marks_of_toml(0, toml)) {
        CHECK(toml.substr(mark.range.offset, mark.range.length) == mark.text);
        list.push_back(words(mark));
    }
    return list;
}

Edited edited(std::span<const EmbeddedFile> files) {
    Sources sources;
    for (const EmbeddedFile& file : files)
        sources.add(std::string(file.path), std::string(file.text));
    return edited_of(std::move(sources), {});
}

using Words = std::vector<std::string>;

} // namespace

TEST_CASE("words of TOML are told by where they stand") {
    CHECK(all_words(
              "[item.cap]\nslot = \"head\" # a comment = 3\nadd = { guard = 4, \"luck\" = 1 }\n") ==
          Words{"kind item", "id item.cap", "key item.cap slot", "value item.cap slot = head",
                "key item.cap add", "key item.cap add.guard", "value item.cap add.guard = 4",
                "key item.cap add.luck", "value item.cap add.luck = 1"});
    CHECK(all_words("[[item.cap.trigger]]\non = 'hit'\n[carry]\nbag = 3") ==
          Words{"kind item", "id item.cap", "key item.cap trigger", "key item.cap trigger.on",
                "value item.cap trigger.on = hit", "kind carry", "key carry bag",
                "value carry bag = 3"});
    CHECK(all_words("item.cap.tags = [\n  \"a\", # one\n  'b'\n]\n") ==
          Words{"kind item", "id item.cap", "key item.cap tags", "value item.cap tags = a",
                "value item.cap tags = b"});
    CHECK(all_words("[item.cap]\nnote = \"\"\"\n[item.none]\nx = 1\"\"\"\nlevel = 2") ==
          Words{"kind item", "id item.cap", "key item.cap note",
                "value item.cap note = \n[item.none]\nx = 1", "key item.cap level",
                "value item.cap level = 2"});
}

TEST_CASE("words of TOML are found behind what is not finished") {
    const Words rest = {"kind item", "id item.b", "key item.b level", "value item.b level = 2"};
    for (const char* unfinished :
         {"[item", "[item.a\n", "[item.a]\nslot", "[item.a]\nslot =", "[item.a]\nslot = \"he",
          "[item.a]\ntags = [\"x\",", "[item.a]\nadd = { guard = ", "[item.a]\nadd = { guard",
          "[item.a]\nworn = [ { a = [", "= = =", "[item.a]\ntags = [[[["}) {
        INFO(unfinished);
        Words found = all_words(std::string(unfinished) + "\n[item.b]\nlevel = 2\n");
        REQUIRE(found.size() >= rest.size());
        found.erase(found.begin(), found.end() - static_cast<std::ptrdiff_t>(rest.size()));
        CHECK(found == rest);
    }
}

TEST_CASE("any text has words that stand in it") {
    rc::prop("ranges are those of the text", [] {
        const auto bytes = *rc::gen::container<std::string>(
            rc::gen::elementOf(std::string("[]{}=.,\"'\n #a\\1x \t\r")));
        for (const Mark& mark : marks_of_toml(0, bytes)) {
            RC_ASSERT(mark.range.offset + mark.range.length <= bytes.size());
            RC_ASSERT(bytes.substr(mark.range.offset, mark.range.length) == mark.text);
        }
    });
    CHECK(marks_of_toml(0, "a = " + std::string(1'000'000, '[')).size() < 10);
}

TEST_CASE("words of tables are headers, ids and cells, and parts of lists") {
    Sources sources;
    sources.add("armoury.toml", "[stat.guard]\nname = \"Shell\"\n[stat.luck]\n");
    sources.add("items.csv", "item,slot,add.guard,Luck,Shell,tags\ncap,head,3,\"1\",,\"a; b\"\n");
    const Edited edited = edited_of(std::move(sources), {});
    Words list;
    for (const Mark& mark : marks_of(edited, 1)) list.push_back(words(mark));
    CHECK(list == Words{"key item slot", "key item add.guard", "key item add.luck",
                        "key item add.guard", "key item tags", "id item.cap",
                        "value item.cap slot = head", "value item.cap add.guard = 3",
                        "value item.cap add.luck = 1", "value item.cap add.guard = ",
                        "value item.cap tags = a", "value item.cap tags = b"});
    const std::vector<Mention> guard = mentions_of(edited, {"stat", "guard"});
    REQUIRE(guard.size() == 3);
    CHECK(guard[0].defines);
    CHECK(edited.read.sources.file(1).text.substr(guard[1].range.offset, guard[1].range.length) ==
          "guard");
    CHECK(guard[2].by_name);
}

TEST_CASE("every reference that a reading of the demo has is a word that names the thing") {
    for (const auto& files : {demo_files(), workshop_files()}) {
        const Edited edited = ::edited(files);
        std::set<std::pair<Thing, Span>> named;
        std::size_t mentions = 0;
        for (std::size_t file = 0; file < edited.read.sources.files().size(); ++file)
            for (const Mark& mark : marks_of(edited, static_cast<std::int32_t>(file)))
                for (const Mention& mention : mentions_in(edited, mark)) {
                    ++mentions;
                    Span at =
                        edited.read.sources.at(static_cast<std::int32_t>(file), mark.range.offset);
                    named.insert({mention.thing, {at.file, at.line, 0, 0}});
                    if (mark.in_table && mark.in_header) // a reading names it in each row
                        for (const Mark& cell : marks_of(edited, at.file))
                            if (cell.path == mark.path && !cell.in_header)
                                named.insert(
                                    {mention.thing,
                                     {at.file,
                                      edited.read.sources.at(at.file, cell.range.offset).line, 0,
                                      0}});
                }
        CHECK(mentions > 100);
        for (const Reference& reference : find_references(edited.read.definitions)) {
            const std::size_t dot = reference.to.find('.');
            const Thing thing{reference.to.substr(0, dot), reference.to.substr(dot + 1)};
            if (edited.ids.find(thing.kind, thing.id) < 0) continue;
            INFO(reference.from << " " << reference.path << " " << reference.to);
            // A word that is a tag, too, names each effect that has it.
            if (edited.read.sources.line(reference.span).find(thing.id) == std::string_view::npos)
                continue;
            CHECK(named.contains({thing, {reference.span.file, reference.span.line, 0, 0}}));
        }
    }
}
