// Tables as spreadsheets save them: separators, encodings, words in any case, titles, ids from
// names.
#include "armoury/encoding.h"
#include "armoury/patch.h"
#include "armoury/table_layout.h"
#include "show/armoury/show_export.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <filesystem>

using namespace panoplon;
using namespace panoplon::test;
using namespace std::string_literals;

namespace {

const std::string plain = "item,name,slot,tier,level,weight,attack\n"
                          "copper_cap,Copper cap,head,plain,2,2.5,3\n"
                          "oak_rod,Oak rod,hand,fine,4,1,\n";

Json items_of(const std::string& name, const std::string& text, const std::string& root = duel()) {
    const ReadArmoury result = read(root, {{name, text}});
    INFO(mistakes(result));
    REQUIRE(result.usable());
    return resolved_json(result)["item"];
}

/// A file says what the plain table says.
void check_plain(const std::string& name, const std::string& text,
                 const std::string& root = duel()) {
    INFO(text);
    CHECK(items_of(name, text, root) == items_of("gear.csv", plain));
}

std::string said(const std::string& name, const std::string& text) {
    return mistakes(read(duel(), {{name, text}}));
}

/// In two bytes a letter, the lower first.
std::string in_two_bytes(const std::string& ascii) {
    std::string wide;
    for (const char c : ascii) wide += std::string{c, '\0'};
    return wide;
}

} // namespace

TEST_CASE("sheets: cells between commas, semicolons or tabs, and what spreadsheets put before") {
    check_plain("gear.csv", "item;name;slot;tier;level;weight;attack\n"
                            "copper_cap;Copper cap;head;plain;2;2,5;3\n"
                            "oak_rod;Oak rod;hand;fine;4;1;\n");
    check_plain("gear.tsv", "item\tname\tslot\ttier\tlevel\tweight\tattack\r\n"
                            "copper_cap\tCopper cap\thead\tplain\t2\t2.5\t3\r\n"
                            "oak_rod\tOak rod\thand\tfine\t4\t1\t\r\n");
    check_plain("gear.csv", "sep=;\n\"item\";\"name\";slot;tier;level;weight;attack\n"
                            "copper_cap;\"Copper cap\";head;plain;2;\"2,5\";+3\n"
                            "oak_rod;Oak rod;hand;fine;4;1;n/a\n");
}

TEST_CASE("sheets: titles, empty rows, remarks and columns that are left out") {
    check_plain("gear.csv",
                "Gear of the marsh,,,,,,,,\n,,,,,,,,\n"
                "Item,Name,Slot,Tier,Level,Weight,Attack,# why,Owner\n"
                "copper_cap,Copper cap,head,plain,2,2.5,3,it is old,Ann\n"
                "# these come later,,,,,,,,\n"
                "oak_rod,Oak rod,hand,fine,4,1,-,,Bo\n",
                with(duel(), "[armoury]\n", "[armoury]\nignore = [\"owner\"]\n"));
}

TEST_CASE("sheets: words and headers in any case, ids from names") {
    check_plain("items.csv", "Name,Slot,Tier,Level,Weight,Attack\n"
                             "Copper cap,HEAD,Plain,2,2.5,3\nOak rod, Hand ,fine,4,1,\n");
    check_plain("Items.csv", "Slot,Tier,ID,Name,Level,Weight,Attack\n"
                             "head,plain,copper_cap,Copper cap,2,2.5,3\n"
                             "hand,fine,oak_rod,Oak rod,4,1,\n");
    check_plain("gear.csv", "item,slot,tier,level,weight,attack\n"
                            "Copper cap,head,plain,2,2.5,3\nOak rod,hand,fine,4,1,\n");
    CHECK(id_from_name("Fool's cap") == "fools_cap");
    CHECK(id_from_name("\xc3\x89p\xc3\xa9"
                       "e +1") == "epee_1");
    CHECK(id_from_name("Stra\xc3\x9f"
                       "e") == "strasse");
    CHECK_FALSE(id_from_name("\xe5\x89\xa3").has_value());
    CHECK(kind_of_name("Items") == "item");
    CHECK(kind_of_name("effects") == "effect");
    CHECK_FALSE(kind_of_name("carry").has_value());
    CHECK_FALSE(kind_of_name("gear").has_value());
}

TEST_CASE("sheets: a reference may be the name of what it means") {
    const ReadArmoury result =
        read(duel(), {{"sets.csv", "Name,step.1.count,step.1.add.attack\nOld guard,1,2\n"},
                      {"items.csv", "Name,Slot,Set\nCap,head,Old guard\n"}});
    INFO(mistakes(result));
    REQUIRE(result.usable());
    CHECK(resolved_json(result)["item"]["cap"]["set"] == "old_guard");
}

TEST_CASE("sheets: percentages by the unit of their column") {
    const Json items =
        items_of("items.csv", "Name,slot,percent.attack,times.might\nA,head,5%,150%\n");
    CHECK(items["a"]["percent"]["attack"] == 5);
    CHECK(items["a"]["times"]["might"] == 1.5);
    CHECK(has(said("items.csv", "Name,slot,weight\nA,head,5%\n"),
              "'5%' is a percentage, and 'weight' is in weight"));
}

TEST_CASE("sheets: what could be two numbers is a mistake that names both and the column") {
    CHECK(has(said("gear.csv", "item;slot;weight;attack\ncap;head;2,5;1,200\n"),
              "gear.csv:2:14: '1,200' can be 1.2 or 1200"));
    CHECK(has(said("gear.csv", "item;slot;weight;attack\ncap;head;2,5;1.200\n"),
              "'1.200' can be 1.2 or 1200"));
    CHECK(said("gear.csv", "item;slot;weight;attack\ncap;head;2;1.200\n").empty());
    const ReadArmoury wrong = read(duel(), {{"items.csv", "Name,slot,like\nA,head,old\n"}});
    CHECK(has(render(wrong.sink.sorted(Severity::mistake).front(), wrong.sources),
              "unknown pattern 'old' (column 'like')"));
}

TEST_CASE("sheets: an id that no name gives, and one that two names give, are mistakes") {
    CHECK(has(said("items.csv", "Name,slot\n\xe5\x89\xa3,head\n"), "is not an id"));
    CHECK(has(said("items.csv", "Name,slot\nCap!,head\nCap,head\n"), "defined a second time"));
}

TEST_CASE("sheets: a file by a link is read, and called what it is called") {
    const TempFolder folder, elsewhere;
    folder.write("armoury.toml", duel());
    elsewhere.write("kept.csv", "item,slot\ncap,haed\n");
    std::filesystem::create_symlink(elsewhere / "kept.csv", folder / "gear.csv");
    const Result<ReadArmoury> result = read_armoury(folder.path());
    REQUIRE(result.ok());
    CHECK(mistakes(result.value()) == "gear.csv:2:5: unknown slot 'haed'; did you mean 'head'?\n");
}

TEST_CASE("sheets: a patch writes decimals as its table does") {
    const ReadArmoury result =
        read(duel(), {{"gear.csv", "item;slot;weight;attack\ncap;head;2,5;1,5\n"}});
    REQUIRE(result.usable());
    const Result<std::string> patch = patch_text(result, {{"item", "cap", "add.attack", 2.25}});
    REQUIRE(patch.ok());
    CHECK(has(patch.value(), "+cap;head;2,5;2,25\n"));
}

TEST_CASE("encodings: what a spreadsheet saves is read, and said") {
    const auto decoded = [](const std::string& bytes) {
        const DecodedText text = decode_table(bytes);
        return text.was + ":" + (text.bad_byte ? "damaged" : text.text);
    };
    CHECK(decoded("item\n") == ":item\n");
    CHECK(decoded("\xef\xbb\xbfitem\n") == ":item\n");
    CHECK(decoded("\xff\xfe" + in_two_bytes("item\n")) == "UTF-16:item\n");
    CHECK(decoded(in_two_bytes("item,slot\n")) == "UTF-16:item,slot\n");
    CHECK(decoded("\xfe\xff"s + "\0i\0d"s) == "UTF-16:id");
    CHECK(decoded("gr\xf6\xdf"
                  "e \x80\n") == "Windows-1252:gr\xc3\xb6\xc3\x9f"
                                 "e \xe2\x82\xac\n");
    CHECK(decoded("gr\xc3\xb6\xc3\x9f"
                  "e\n") == ":gr\xc3\xb6\xc3\x9f"
                            "e\n");
    // Well-formed letters show that what is not is damage.
    CHECK(decoded("\xc3\xb6 and \xf6\n") == ":damaged");
    CHECK(decoded("\x81\n") == ":damaged");
    CHECK(decoded("\xff\xfe"s + "i\0d"s) == "UTF-16:damaged");
}

TEST_CASE("a stat's name is as good a header as its id", "[csv]") {
    const std::string named =
        with(duel(), "[stat.guard]\n", "[stat.guard]\nname = \"Armour Rating\"\n");
    const ReadArmoury result =
        read(named, {{"items.csv", "id,slot,Armour rating,attack,Crit\nmaul,hand,7,3,2\n"},
                     {"stats.csv", "stat,name\nprecision,Crit\n"}});
    INFO(mistakes(result));
    REQUIRE(result.usable());
    const std::vector<Amount>& added = result.armoury.items[0].modifiers.add;
    REQUIRE(added.size() == 3);
    CHECK(result.armoury.at(added[0].stat).id == "attack");
    CHECK(result.armoury.at(added[1].stat).id == "guard");
    CHECK(added[1].amount == 7);
    CHECK(result.armoury.at(added[2].stat).id == "precision");
}

TEST_CASE("a workbook of a format that is not read is not passed over without a word", "[csv]") {
    const ReadArmoury result = read(duel(), {{"old/gear.xls", "\xd0\xcf\x11\xe0"}});
    INFO(mistakes(result));
    REQUIRE(result.usable());
    REQUIRE(result.sources.notes().size() == 1);
    CHECK(result.sources.notes()[0] == "old/gear.xls: not read; save it as .xlsx, .ods or .csv");
}
