#include "support/armouries.h"

#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// What is wrong, in a line appended to the duel, and what has to be said of it.
struct Mistake {
    const char* text;
    const char* message;
};

// clang-format off
constexpr Mistake appended[] = {
    {"[item.x]\nsolt = \"hand\"", "unknown key 'solt' in item; did you mean 'slot'?"},
    {"[item.x]\nguard = 3", "unknown key 'guard' in item"},
    {"[item.x]\nslot = \"hnad\"", "unknown slot 'hnad'; did you mean 'hand'?"},
    {"[item.x]\nadd = { gaurd = 3 }", "unknown stat 'gaurd'; did you mean 'guard'?"},
    {"[item.x]\nadd = { guard = \"3\" }", "'add' is a table of stats and numbers; here stands '3'"},
    {"[item.x]\nadd = { guard = nan }", "'add' is nan, which is no amount"},
    {"[item.x]\nadd = { guard = inf }", "'add' is inf, which is no amount"},
    {"[item.x]\nlevel = 2.5", "'level' is 2.5; it is a whole number"},
    {"[item.x]\nlevel = 0", "'level' is 0; allowed: 1 to 1000"},
    {"[item.x]\nweight = -1", "'weight' is -1; allowed: 0 to 1000000"},
    {"[item.x]\nweight = 0.0005", "'weight' is 0.0005; weights are whole thousandths"},
    {"[item.x]\nstack = \"many\"", "'stack' is a whole number or \"unlimited\"; here stands 'many'"},
    {"[item.x]\ntimes = { guard = -1 }", "'times' is -1; allowed: 0 or more"},
    {"[item.x]\nuse = { effect = \"none\" }", "unknown effect 'none'"},
    {"[item.x]\nuse = { restore = { helth = 3 } }", "unknown pool 'helth'; did you mean 'health'?"},
    {"[item.x]\nuse = { }", "the use of 'x' restores nothing, gives no effect, ends none and does nothing to anybody"},
    {"[effect.e]\n[item.x]\nuse = { effect = \"e\" }", "the use of 'x' gives an effect without a duration"},
    {"[effect.e]\n[item.x]\nuse = { effect = \"e\", duration = 0 }", "'use.duration' is 0: the effect would never act"},
    {"[item.x]\nslot = \"hand\"\nuse = { restore = { health = 3 } }", "'x' has a slot and a use: it is worn or it is used up"},
    {"[itm.x]", "unknown kind 'itm'; did you mean 'item'?"},
    {"[item.Big]", "'Big' is not an id"},
    {"[item]\nx = 3", "'x' stands in [item], where only definitions stand"},
    {"[stat.a]\nvalue = \"self.b\"\n[stat.b]\nvalue = \"self.a + 1\"", "a cycle of stats: a needs b needs a"},
    {"[stat.a]\nmin = 5\nmax = 3", "the stat 'a' has its min above its max"},
    {"[stat.a]\nbetter = \"hihger\"", "'better' is 'hihger'; did you mean 'higher'?"},
    {"[stat.a]\nvalue = \"self.attack +\"", "the formula ends too early"},
    {"[stat.a]\nvalue = \"1 / 0\"", "the formula '1 / 0' gives inf"},
    {"[stat.a]\nvalue = \"self.health\"", "unknown name 'self.health' in a formula"},
    {"[action.a]\nevery = \"0\"", "'every' of 'a' is 0: time would stand still"},
    {"[action.a]", "action has no 'every', which it needs"},
    {"[action.a]\nevery = 1\ntargets = \"some\"", "'targets' is \"front\", \"all\" or a whole number; here stands 'some'"},
    {"[character.c]\nbase = { attack = 3 }\nactions = []", "the character 'c' has 0 max_health at level 1: it could not stand"},
    {"[foe.f]\nbase = { max_health = 30 }\ngrowth = { max_health = -5 }", "the foe 'f' has -15 max_health at level 10: it could not stand"},
    {"[encounter.e]\nfoes = []", "nobody comes to the encounter 'e'"},
    {"[encounter.e]\nlevels = [5, 2]\nfoes = [ { foe = \"dummy\" } ]", "'levels' runs from 5 down to 2"},
    {"[encounter.e]\nlevels = [11, 12]\nfoes = [ { foe = \"dummy\" } ]", "the encounter 'e' has levels 11 to 12; the armoury has 1 to 10"},
    {"[tier.t]\nrank = 1", "the tiers 'plain' and 't' have the same rank, 1"},
    {"[tier.t]\nrank = 5\ncolour = \"red\"", "'colour' is a colour like \"#7d8597\"; here stands 'red'"},
    {"[carry]\ncapacity = \"10\"\n[[carry.band]]\nname = \"b\"", "the band 'b' has neither 'from' nor 'above'"},
    {"[carry]\ncapacity = \"10\"\n[[carry.band]]\nname = \"b\"\nfrom = 1\nabove = 1", "the band 'b' has both 'from' and 'above'"},
    {"[carry]\ncapacity = \"self.might\"\n[[carry.band]]\nname = \"b\"\nfrom = 1\nadd = { might = 1 }",
     "the band 'b' changes 'might', which the carry capacity is made from"},
    {"[item.x]\n[loadout.l]\ncharacter = \"hero\"\n[[loadout.l.use]]\nitem = \"x\"", "'x' has no use: it can't have a use rule"},
    {"[item.x]\nslot = \"hand\n", "Error while parsing"},
};
// clang-format on

} // namespace

TEST_CASE("every mistake is told with its place, what was found and what is allowed") {
    for (const Mistake& mistake : appended) {
        const ReadArmoury result = read(duel(), {{"more.toml", mistake.text}});
        INFO(mistake.text);
        INFO(mistakes(result));
        CHECK(mistakes(result).find(mistake.message) != std::string::npos);
        for (const Diagnostic& d : result.sink.sorted(Severity::mistake)) {
            CHECK(d.span.line >= 1);
            CHECK(d.span.column >= 1);
        }
    }
}

TEST_CASE("all mistakes of a run are told at once, in the order of the files") {
    const ReadArmoury result =
        read(duel(),
             {{"b.toml", "[item.y]\nlevel = 0\n"},
              {"a.toml", "[item.x]\nsolt = 1\nweight = -1\n[foe.f]\nbase = { max_health = 0 }"}});
    CHECK(mistakes(result) ==
          "a.toml:2:1: unknown key 'solt' in item; did you mean 'slot'?\n"
          "a.toml:3:10: 'weight' is -1; allowed: 0 to 1000000\n"
          "a.toml:4:6: the foe 'f' has 0 max_health at level 1: it could not stand\n"
          "b.toml:2:9: 'level' is 0; allowed: 1 to 1000\n");
}

TEST_CASE("an id that is defined twice tells both places") {
    const ReadArmoury result = read(duel(), {{"a.toml", "[item.x]"}, {"b.toml", "\n[item.x]"}});
    REQUIRE(result.sink.mistake_count() == 1);
    const Diagnostic d = result.sink.sorted(Severity::mistake).front();
    CHECK(place(d.span, result.sources) == "b.toml:2:7");
    CHECK(d.hint == "the first is at a.toml:1:7");
}

TEST_CASE("a file that can't be parsed does not make other files wrong") {
    const ReadArmoury result = read(duel(), {{"broken.toml", "[slot.belt]\ncount = = 3"},
                                             {"items.toml", "[item.x]\nslot = \"belt\""}});
    CHECK(result.sink.mistake_count() == 1);
}

TEST_CASE("tables as CSV give what TOML gives") {
    const ReadArmoury csv =
        read(duel(), {{"items.csv",
                       "item,slot,level,weight,guard,percent.haste,use.restore.health,tags,name\r\n"
                       "cap,head,2,1.5,3,5,,a; b,\"A \"\"fine\"\" cap, red\"\r\n"
                       "\r\n"
                       "drop,,,0.1,,,20,,\r\n"}});
    INFO(mistakes(csv));
    REQUIRE(csv.usable());
    const Armoury& armoury = csv.armoury;
    REQUIRE(armoury.items.size() == 2);
    const Item& cap = armoury.items[0];
    CHECK(cap.name == "A \"fine\" cap, red");
    CHECK(armoury.at(cap.slot).id == "head");
    CHECK(cap.level == 2);
    CHECK(cap.weight == 1500);
    CHECK(cap.tags == std::vector<std::string>{"a", "b"});
    REQUIRE(cap.modifiers.add.size() == 1);
    CHECK(armoury.at(cap.modifiers.add[0].stat).id == "guard");
    CHECK(cap.modifiers.percent[0].amount == 5);
    CHECK_FALSE(cap.use);
    REQUIRE(armoury.items[1].use);
    CHECK(armoury.items[1].use->restore[0].second.number == 20);
    CHECK_FALSE(armoury.items[1].worn());
}

TEST_CASE("mistakes in a CSV table stand at their cell") {
    const auto told = [](const std::string& csv) {
        return mistakes(read(duel(), {{"t.csv", csv}}));
    };
    CHECK(told("item,slot,gaurd\nx,head,3\n") ==
          "t.csv:1:11: unknown header 'gaurd' in a table of items; did you mean 'guard'?\n");
    CHECK(told("item,slot,guard\nx,head,many\n").starts_with("t.csv:2:8: 'add' is"));
    CHECK(told("item,slot\nx,haed\n") == "t.csv:2:3: unknown slot 'haed'; did you mean 'head'?\n");
    CHECK(told("item,slot\n,head\n") == "t.csv:2:1: a row without an id\n");
    CHECK(told("item,slot\nx,head,extra\n") ==
          "t.csv:2:8: the cell 'extra' has no header above it\n");
    CHECK(told("itme,slot\nx,head\n").find("did you mean 'item'?") != std::string::npos);
    CHECK(told("item;slot\nx;haed\n").find("t.csv:2:3: unknown slot") == 0);
    CHECK(told("item,slot\n\"x,head\n") == "t.csv:2:1: a quoted cell is not closed\n");
    CHECK(told("") == "t.csv: an empty table\n");
    CHECK(told("item,use\nx,3\n").find("a cell can't hold it") != std::string::npos);
    CHECK(told("item,slot,slot\nx,head,hand\n").find("the header 'slot' stands twice") !=
          std::string::npos);
    CHECK(told("item,weight\nx,\"1,5\"\n").empty());
    CHECK(told("item,weight\nx,\"1,5,2\"\n").find("'weight' is a number") != std::string::npos);
}

TEST_CASE("a mark for byte order and the line ends of any system are read") {
    std::string root = duel();
    std::string crlf;
    for (const char c : root) crlf += c == '\n' ? std::string("\r\n") : std::string(1, c);
    CHECK(read("\xef\xbb\xbf" + root).usable());
    CHECK(read(crlf).usable());
    CHECK(read(root, {{"t.csv", "\xef\xbb\xbf"
                                "item,slot\r\nx,head\r\n"}})
              .armoury.items.size() == 1);
}

TEST_CASE("what is no text is refused with its place") {
    CHECK(mistakes(read(duel(), {{"x.toml", "a = 1\nb = \"\xff\"\n"}})) ==
          "x.toml:2:1: byte 0xff is not UTF-8 text\n");
    CHECK(mistakes(read(duel(), {{"x.csv", std::string("item\0,slot", 10)}})) ==
          "x.csv: holds a NUL byte: not a text file\n");
}

TEST_CASE("an armoury without its parts says which") {
    CHECK(mistakes(read("")).find("the armoury has no [armoury]") != std::string::npos);
    CHECK(mistakes(read("[armoury]\nformat = 2\nname = \"x\"\nlevels = [1, 2]"))
              .find("'format' is 2; allowed: 1 to 1") != std::string::npos);
    const TempFolder empty;
    const Result<ReadArmoury> result = read_armoury(empty.path());
    REQUIRE(result.ok());
    CHECK_FALSE(result.value().usable());
    CHECK_FALSE(read_armoury(empty / "nowhere").ok());
    empty.write("armoury.toml/x.txt", "");
    CHECK(mistakes(read_armoury(empty.path()).value()).find("a folder with the name of a file") !=
          std::string::npos);
}

TEST_CASE("absent keys take the fallback of the table of keys", "[M6]") {
    const Armoury a = armoury(duel() + "[item.x]\nslot = \"hand\"\n");
    CHECK(a.items[0].level == 1);
    CHECK(a.items[0].stack == 1);
    CHECK(a.items[0].name == "x");
    CHECK(a.combat.time_limit == to_ticks(180));
    CHECK(a.carry.bag == unlimited);
    CHECK(a.items[0].modifiers.empty());
}

TEST_CASE("the table of keys is sound") {
    std::set<std::pair<std::string_view, std::string_view>> seen;
    for (const KeyRow& row : key_rows()) {
        INFO(row.kind << " " << row.path);
        CHECK(find_kind(row.kind) != nullptr);
        CHECK(seen.insert({row.kind, row.path}).second);
        CHECK_FALSE(row.meaning.empty());
        CHECK(row.low <= row.high);
        const std::size_t dot = row.path.rfind('.');
        if (dot != std::string_view::npos)
            CHECK(find_key(row.kind, row.path.substr(0, dot)) != nullptr);
        if (row.type == Type::reference || row.type == Type::references)
            CHECK(find_kind(row.names) != nullptr);
    }
}

TEST_CASE("doubts name what is surely not meant") {
    const ReadArmoury result =
        read(duel() + "[item.idle]\nslot = \"hand\"\n"
                      "[item.late]\nslot = \"head\"\nlevel = 50\nadd = { guard = 1 }\n"
                      "[item.cargo]\nadd = { guard = 1 }\ntodo = \"weight is a guess\"\n"
                      "[effect.lost]\n[stat.unloved]\n");
    std::set<std::string> kinds;
    for (const Diagnostic& d : result.sink.sorted(Severity::doubt))
        kinds.insert(d.kind + " " + d.thing);
    for (const char* expected : {"does_nothing item.idle", "never_worn item.late",
                                 "never_worn item.cargo", "todo item.cargo", "unused effect.lost",
                                 "unused stat.unloved", "empty slot.charm", "empty tier.plain"})
        CHECK(kinds.count(expected) == 1);
}

TEST_CASE("the rendered message shows the line and a caret under the place") {
    const ReadArmoury result = read(duel(), {{"a.toml", "[item.x]\nweight = -1\n"}});
    CHECK(render(result.sink.sorted(Severity::mistake).front(), result.sources) ==
          "a.toml:2:10: error: 'weight' is -1; allowed: 0 to 1000000\n"
          "    weight = -1\n"
          "             ^~\n");
}

TEST_CASE("a line of a megabyte is shown around its place only") {
    const ReadArmoury result =
        read(duel(), {{"a.toml", "[item.x]\nname = \"" + std::string(1 << 20, 'x') +
                                     "\"\nweight = -1\nbad_key_of_a_long_name = \"" +
                                     std::string(5000, 'y') + "\"\n"}});
    for (const Diagnostic& d : result.sink.sorted(Severity::mistake))
        CHECK(render(d, result.sources).size() < 1000);
}

TEST_CASE("doubts about budgets, tiers, names, rules and the yardstick") {
    const ReadArmoury result = read(
        with(duel(), "[stat.attack]", "[stat.attack]\ncost = 1") +
        "[budget]\npoints = \"10 * level\"\ntolerance = 0.1\n[yardstick]\nencounter = \"spar\"\n"
        "[tier.grand]\nrank = 9\nbudget = 0.5\n"
        "[item.right]\nslot = \"hand\"\nadd = { attack = 11 }\n[item.over]\nslot = \"hand\"\nadd = "
        "{ attack = 11.2 }\n"
        "[item.under]\nslot = \"hand\"\nlevel = 2\nadd = { attack = 17 }\nname = \"right\"\n"
        "[item.vial]\nuse = { restore = { health = 1 } }\n[loadout.l]\ncharacter = "
        "\"hero\"\n[[loadout.l.use]]\nitem = \"vial\"\n");
    std::string told;
    for (const Diagnostic& d : result.sink.sorted(Severity::doubt))
        told += d.kind + " " + d.thing + ": " + d.message + "\n";
    INFO(told);
    CHECK(told.find("off_budget item.over: 'over' spends 11.2 of 10 points: 12.0 % over") !=
          std::string::npos);
    CHECK(told.find("off_budget item.under: 'under' spends 17 of 20 points: 15.0 % under") !=
          std::string::npos);
    CHECK(told.find("off_budget item.right") == std::string::npos);
    CHECK(told.find("tier_order tier.grand") != std::string::npos);
    CHECK(told.find("same_name item.under") != std::string::npos);
    CHECK(told.find("use_not_packed loadout.l") != std::string::npos);
    CHECK(told.find("yardstick encounter.spar") != std::string::npos);
}

TEST_CASE("files lie as deep as the designer likes; hidden ones and other kinds are not read") {
    const ReadArmoury result = read(duel(), {{"deep/er/items.toml", "[item.x]\n"},
                                             {".hidden/items.toml", "[nonsense]\n"},
                                             {".x.toml", "[nonsense]\n"},
                                             {"notes.md", "[nonsense]\n"}});
    CHECK(result.usable());
    CHECK(result.armoury.items.size() == 1);
    REQUIRE(result.sources.files().size() == 2);
    CHECK(result.sources.files()[1].path == "deep/er/items.toml");
}

TEST_CASE("the hash tells armouries apart, by content and by path") {
    const auto hash = [](const std::string& name, const std::string& text) {
        return read(duel(), {{name, text}}).armoury.hash;
    };
    CHECK(hash("a.toml", "[item.x]\n") == hash("a.toml", "[item.x]\n"));
    CHECK(hash("a.toml", "[item.x]\n") != hash("a.toml", "[item.y]\n"));
    CHECK(hash("a.toml", "[item.x]\n") != hash("b.toml", "[item.x]\n"));
}

TEST_CASE("what could not be read makes no unknown headers of the names that it would have") {
    for (const char* typo : {"[statt.vigour]\n", "[stat.vigour\n"}) {
        const ReadArmoury result =
            read(duel() + typo, {{"gear.csv", "item,slot,vigour,guard\ncap,head,2,1\n"}});
        INFO(mistakes(result));
        CHECK(result.sink.mistake_count() == 1);
    }
    const ReadArmoury sound = read(duel(), {{"gear.csv", "item,slot,vigour\ncap,head,2\n"}});
    CHECK(has(mistakes(sound), "unknown header 'vigour'"));
}
