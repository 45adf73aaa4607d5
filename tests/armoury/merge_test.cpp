// Patterns, what-ifs laid over files, and the way back into files.
#include "support/armouries.h"

#include "armoury/keys.h"
#include "armoury/live_keys.h"
#include "armoury/write.h"
#include "demo/files.h"
#include "show/armoury/show_export.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <set>

using namespace panoplon;
using namespace panoplon::test;

namespace {

double added(const Armoury& armoury, const std::string& item, const std::string& stat) {
    for (const Amount& amount : armoury.at(find_id<ItemKind>(armoury.items, item)).modifiers.add)
        if (armoury.at(amount.stat).id == stat) return amount.amount;
    return 0;
}

const std::string coats =
    "[pattern.cloth]\nslot = \"head\"\nweight = 4\nadd = { guard = 2, keen = 1 "
    "}\ntags = [\"cloth\"]\n"
    "[pattern.coat]\nlike = \"cloth\"\nadd = { guard = 10 }\nlevel = 3\n"
    "[item.reed_coat]\nlike = \"coat\"\nadd = { haste = 3 }\nweight = 5.5\n";

/// The duel with more definitions and what-ifs.
ReadArmoury what_if(const std::string& definitions, const std::vector<std::string>& changes) {
    const TempFolder folder;
    folder.write("armoury.toml", duel() + definitions);
    Result<ReadArmoury> result = read_armoury(folder.path(), changes);
    REQUIRE(result.ok());
    return result.take();
}

/// The resolved armoury in a folder, without its hash.
std::string resolved(const std::string& folder) {
    Result<ReadArmoury> result = read_armoury(folder);
    REQUIRE(result.ok());
    INFO(mistakes(result.value()));
    REQUIRE(result.value().usable());
    return resolved_json(result.value()).dump();
}

std::string read_back(const std::vector<WrittenFile>& files) {
    const TempFolder folder;
    for (const WrittenFile& file : files) folder.write(file.path, file.text);
    return resolved(folder.path());
}

} // namespace

TEST_CASE("a pattern gives what the item has not, to any depth, tables key by key", "[patterns]") {
    const Armoury a = armoury(duel() + coats);
    const Item& coat = a.at(find_id<ItemKind>(a.items, "reed_coat"));
    CHECK(coat.weight == 5500); // its own
    CHECK(coat.level == 3);     // its pattern's
    CHECK(coat.slot.given());   // its pattern's pattern's
    CHECK(added(a, "reed_coat", "guard") == 10);
    CHECK(added(a, "reed_coat", "keen") == 1);
    CHECK(added(a, "reed_coat", "haste") == 3);
    std::map<std::string, std::string> from;
    for (const Inherited& key : coat.inherited) from[key.path] = key.pattern;
    CHECK(from["level"] == "coat");
    CHECK(from["slot"] == "cloth");
    CHECK(from["add.guard"] == "coat");
    CHECK(from["add.keen"] == "cloth");
    CHECK(from.count("weight") == 0);
    CHECK(from.count("add.haste") == 0);
}

TEST_CASE("patterns are no items, and their order in the files does not matter", "[patterns]") {
    const Armoury a = armoury(duel() + coats);
    CHECK(a.items.size() == 1);
    const std::size_t item = coats.find("[item.");
    const Armoury b = armoury(duel() + coats.substr(item) + coats.substr(0, item));
    CHECK(added(b, "reed_coat", "guard") == 10);
}

TEST_CASE("what-ifs change, add and take away, in tables and in lists", "[what-if]") {
    const std::string more = "[carry]\ncapacity = \"20\"\n[[carry.band]]\nname = \"Laden\"\nfrom = "
                             "0.5\n[[carry.band]]\nname = \"Over\"\nabove = 1\n";
    const Armoury a = what_if(coats + more, {"item.reed_coat.add.guard=20", "stat.haste.max=5",
                                             "carry.band.2.above=1.25", "item.reed_coat.keen=7",
                                             "item.reed_coat.name=Thick coat"})
                          .armoury;
    CHECK(added(a, "reed_coat", "guard") == 20);
    CHECK(added(a, "reed_coat", "keen") == 7);
    CHECK(a.at(find_id<StatKind>(a.stats, "haste")).max == 5);
    CHECK(a.carry.bands.at(1).edge == 1.25);
    CHECK(a.items[0].name == "Thick coat");
    const Armoury less = what_if(coats + more, {"carry.band.1=", "item.reed_coat.weight="}).armoury;
    CHECK(less.carry.bands.size() == 1);
    CHECK(less.items[0].weight == 4000); // the pattern's, now that it has none of its own
}

TEST_CASE("a wrong what-if is reported like a mistake in a file", "[what-if]") {
    const auto said = [](const std::string& change) { return mistakes(what_if(coats, {change})); };
    CHECK(said("item.reed_coat.add.gaurd=2") ==
          "--set:1:20: unknown stat 'gaurd'; did you mean 'guard'?\n");
    CHECK(said("item.reed_cote.add.guard=2")
              .find("unknown item 'reed_cote'; did you mean "
                    "'reed_coat'?") != std::string::npos);
    CHECK(said("item.reed_coat.wieght=2").find("did you mean 'weight'?") != std::string::npos);
    CHECK(said("itm.reed_coat.weight=2").find("unknown kind 'itm'") != std::string::npos);
    CHECK(said("item.reed_coat.weight=heavy").find("'weight' is a number; here stands 'heavy'") !=
          std::string::npos);
    CHECK(said("item.reed_coat.weight=-1").find("allowed: 0 to 1000000") != std::string::npos);
    CHECK(said("guard") == "--set:1:1: 'guard' is no what-if\n");
    CHECK(said("=3") == "--set:1:1: '=3' is no what-if\n");
    CHECK(said("encounter.spar.foes.7.count=2").find("there is no place 7 in a list of 1") !=
          std::string::npos);
    CHECK(what_if(coats, {"item.reed_coat.add.guard=20"}).usable());
}

TEST_CASE("a what-if that goes into a value, or to no place of a list, is a mistake", "[what-if]") {
    const std::string tagged = "[item.zzz]\ntags = [\"a\", \"b\"]\n[item.nest]\ntags = [[\"a\"]]\n";
    CHECK(
        has(mistakes(what_if(tagged, {"item.zzz.tags.1.foo=1"})), "nothing of it is called 'foo'"));
    CHECK(
        has(mistakes(what_if(tagged, {"item.nest.tags.1.foo=1"})), "'foo' is no place in a list"));
    CHECK(has(mistakes(what_if(tagged, {"item.zzz.tags.3=x"})), "there is no place 3"));
}

TEST_CASE("a what-if is part of the armoury's hash", "[what-if]") {
    CHECK(what_if(coats, {}).armoury.hash == what_if(coats, {}).armoury.hash);
    CHECK(what_if(coats, {}).armoury.hash !=
          what_if(coats, {"item.reed_coat.add.guard=20"}).armoury.hash);
}

TEST_CASE("export and read back is the identity, as TOML and as tables", "[export]") {
    const TempFolder folder;
    write_demo(folder);
    const std::string before = resolved(folder.path());
    const Result<ReadArmoury> read = read_armoury(folder.path());
    CHECK(read_back({{"armoury.toml", toml_text(read.value().definitions)}}) == before);
    const std::vector<WrittenFile> tables = csv_files(read.value().definitions);
    CHECK(read_back(tables) == before);
    CHECK(tables.size() > 12);
    CHECK(std::any_of(tables.begin(), tables.end(),
                      [](const WrittenFile& file) { return file.path == "item.csv"; }));
}

TEST_CASE("texts of any kind come back from a file as they were", "[export]") {
    const std::string odd =
        "[item.odd]\nname = \"a \\\"b\\\", c; d\\\\e\\n\\tf <é> =1+1\"\nabout = \" "
        "led and trailed \"\nnote = \"'\"\nslot = \"head\"\nadd = { guard = 0.1, "
        "keen = 1e-7, attack = -3 }\n[damage.tone]\nmitigated = 2.50\n";
    const ReadArmoury read = what_if(odd, {});
    REQUIRE(read.usable());
    const std::string before = resolved_json(read).dump();
    CHECK(read_back({{"armoury.toml", toml_text(read.definitions)}}) == before);
    CHECK(read_back(csv_files(read.definitions)) == before);
}

TEST_CASE("tables keep orders that matter, and amounts need none", "[export]") {
    const std::string crossed = "[pool.spare]\nmax = \"max_breath\"\n"
                                "[item.a]\nuse = { restore = { breath = 1, health = 2 } }\n"
                                "[item.b]\nuse = { restore = { health = 2, breath = 1 } }\n";
    const ReadArmoury read = what_if(crossed, {});
    REQUIRE(read.usable());
    const std::vector<WrittenFile> split = csv_files(read.definitions);
    const auto parsed = [](const std::string& text) { return nlohmann::json::parse(text); };
    CHECK(parsed(read_back(split)) == parsed(resolved_json(read).dump()));
    const auto items = std::find_if(split.begin(), split.end(), [](const WrittenFile& file) {
        return file.path == "item.csv";
    });
    REQUIRE(items != split.end()); // those that agree stay in the table
    CHECK(has(items->text, "\na,"));
    CHECK_FALSE(has(items->text, "\nb,"));
    REQUIRE(items->elsewhere.size() == 1);
    CHECK(items->elsewhere[0]->id == "b");
    CHECK(has(split.front().text, "[item.b]"));
    CHECK(has(show_export(read).text, "Not in item.csv but in as-csv/armoury.toml"));
    const std::string amounts =
        "[item.a]\nslot = \"head\"\nadd = { keen = 1, guard = 2 }\n[item.b]\n"
        "slot = \"head\"\nadd = { guard = 2, keen = 3 }\n";
    const ReadArmoury two = what_if(amounts, {});
    const std::vector<WrittenFile> files = csv_files(two.definitions);
    const auto table = std::find_if(files.begin(), files.end(), [](const WrittenFile& file) {
        return file.path == "item.csv";
    });
    REQUIRE(table != files.end());
    CHECK(table->text == "item,slot,add.guard,add.keen\na,head,2,1\nb,head,2,3\n");
}

TEST_CASE("the demo and the workshop use every key of the table") {
    std::set<std::string> used; // kind and path; and the path alone, for what all have
    const auto look_at_worn = [&](const Node& slots, const auto& self) -> void {
        for (const Entry& entry : slots.entries) {
            if (is_key_of_worn(entry.key)) used.insert("loadout worn." + entry.key);
            for (const Node& worn : entry.value.items) self(worn, self);
        }
    };
    const auto look_at = [&](const ReadArmoury& read, const RawDefinition& definition) {
        if (const Node* worn = definition.body.find("worn")) look_at_worn(*worn, look_at_worn);
        for (const KeyState& key : key_states(read.armoury, definition)) {
            std::string path = without_places(definition.kind, key.path);
            while (!path.empty()) {
                used.insert(definition.kind + " " + path);
                used.insert(path);
                const std::size_t dot = path.rfind('.');
                path = dot == std::string::npos ? "" : path.substr(0, dot);
            }
        }
    };
    for (const auto& files : {demo_files(), workshop_files()}) {
        Sources sources;
        for (const EmbeddedFile& file : files)
            sources.add(std::string(file.path), std::string(file.text));
        const ReadArmoury read = read_sources(std::move(sources), {});
        INFO(mistakes(read));
        REQUIRE(read.usable());
        for (const RawDefinition& definition : read.definitions) look_at(read, definition);
    }
    for (const KeyRow& row : written_rows())
        if (row.type != Type::bearer) {
            INFO(row.kind << " " << row.path);
            CHECK(used.count(std::string(row.kind) + " " + std::string(row.path)) == 1);
        }
    for (const auto& rows : {bearer_rows(), common_rows()})
        for (const KeyRow& row : rows) {
            INFO(row.path);
            CHECK(used.count(std::string(row.path)) == 1);
        }
}

TEST_CASE("which keys count, and why others don't") {
    const ReadArmoury read =
        what_if("[item.plain_hat]\nslot = \"head\"\nstack = 4\nmax_stacks = 2\nadd = { guard = 1 "
                "}\n[item.cargo]\nweight = 2\ndraw_time = 0\n",
                {});
    std::map<std::string, std::string> ignored;
    for (const RawDefinition& definition : read.definitions)
        if (definition.id == "plain_hat")
            for (const KeyState& key : key_states(read.armoury, definition))
                ignored[key.path] = key.ignored;
    CHECK(ignored.at("add.guard").empty());
    CHECK(ignored.at("slot").empty());
}
