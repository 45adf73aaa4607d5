// The whole language in tables: what TOML says, a spreadsheet can say too.
#include "support/armouries.h"

#include "armoury/keys.h"
#include "show/armoury/show_export.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const std::string words = "[effect.glow]\nadd = { keen = 1 }\n[slot.inlay]\nsocket = true\n"
                          "[character.porter]\ncalling = \"porter\"\nbase = { max_health = 9 "
                          "}\nactions = [\"strike\"]\n[set.folk]\n[[set.folk.step]]\ncount = "
                          "1\nadd = { guard = 1 }\n[pattern.heavy]\ntakes = [\"hand\", \"head\"]\n";

std::string resolved(const std::string& name, const std::string& text) {
    const ReadArmoury result = read(duel() + words, {{name, text}});
    INFO(mistakes(result));
    REQUIRE(result.usable());
    return resolved_json(result).dump(1);
}

/// A table says what the TOML says.
void check_same(const std::string& table, const std::string& toml) {
    CHECK(resolved("z.csv", table) == resolved("z.toml", toml));
}

} // namespace

TEST_CASE("needs, places, sockets, sets and groups in cells") {
    check_same(
        "item,slot,like,takes,sockets,set,unique,needs.level,needs.calling,needs.stats.might\n"
        "crown,head,,,inlay; inlay,folk,oath,4,porter,3\n"
        "maul,hand,heavy,,,,,,,\n",
        "[item.crown]\nslot = \"head\"\nsockets = [\"inlay\", \"inlay\"]\nset = "
        "\"folk\"\nunique = \"oath\"\nneeds = { level = 4, calling = [\"porter\"], stats = { "
        "might = 3 } }\n[item.maul]\nlike = \"heavy\"\nslot = \"hand\"\n");
}

TEST_CASE("triggers and steps in cells, each with its place") {
    check_same("item,slot,trigger.1.on,trigger.1.effect,trigger.1.duration,trigger.2.on,"
               "trigger.2.effect,trigger.2.duration,trigger.2.chance\n"
               "cap,head,hurt,glow,always,hit,glow,3,0.5\n"
               "hat,head,kill,glow,2,,,,\n",
               "[item.cap]\nslot = \"head\"\n[[item.cap.trigger]]\non = \"hurt\"\neffect = "
               "\"glow\"\nduration = \"always\"\n[[item.cap.trigger]]\non = \"hit\"\neffect = "
               "\"glow\"\nduration = 3\nchance = 0.5\n[item.hat]\nslot = "
               "\"head\"\n[[item.hat.trigger]]\non = \"kill\"\neffect = \"glow\"\nduration = 2\n");
    check_same("set,step.1.count,step.1.add.guard,step.2.count,step.2.percent.attack\n"
               "choir,2,3,3,10\n",
               "[set.choir]\n[[set.choir.step]]\ncount = 2\nadd = { guard = 3 "
               "}\n[[set.choir.step]]\ncount = 3\npercent = { attack = 10 }\n");
}

TEST_CASE("grants, contents, uses and tiers in cells") {
    check_same("item,slot,grants.bag,grants.capacity,contains.vial,stack,max_stacks,"
               "use.restore.health,use.effect,use.duration,use.only.calling,use.to\n"
               "sack,head,2,1.5,3,,,,,,,\n"
               "vial,,,,,unlimited,,20,glow,4,porter,allies\n",
               "[item.sack]\nslot = \"head\"\ngrants = { bag = 2, capacity = 1.5 }\ncontains = { "
               "vial = 3 }\n[item.vial]\nstack = \"unlimited\"\nuse = { restore = { health = 20 }, "
               "effect = \"glow\", duration = 4, only = { calling = [\"porter\"] }, to = "
               "\"allies\" }\n");
    check_same(
        "tier,rank,colour,stat_factor,percent.attack\ngrand,7,#336699,1.5,2\n",
        "[tier.grand]\nrank = 7\ncolour = \"#336699\"\nstat_factor = 1.5\npercent = { attack "
        "= 2 }\n");
    check_same(
        "effect,ward,absorbs,restore_factor,again,pile_max\nsmoke,true,5 * level,0.5,pile,3\n",
        "[effect.smoke]\nward = true\nabsorbs = \"5 * level\"\nrestore_factor = 0.5\nagain = "
        "\"pile\"\npile_max = 3\n");
    check_same("upgrade,max,add.might,cost\nstraps,4,0.5,30 * 1.3^bought\n",
               "[upgrade.straps]\nmax = 4\nadd = { might = 0.5 }\ncost = \"30 * 1.3^bought\"\n");
}

TEST_CASE("a list of an item takes the place of its pattern's; a table is merged") {
    const std::string pattern =
        "[pattern.p]\nslot = \"head\"\ntags = [\"a\", \"b\"]\nadd = { guard = 1, "
        "keen = 2 }\n[item.x]\nlike = \"p\"\ntags = [\"c\"]\nadd = { keen = 5 }\n";
    const Armoury a = armoury(duel() + pattern);
    CHECK(a.items[0].tags == std::vector<std::string>{"c"});
    REQUIRE(a.items[0].modifiers.add.size() == 2);
    CHECK(a.items[0].modifiers.add[0].amount == 1);
    CHECK(a.items[0].modifiers.add[1].amount == 5);
}

TEST_CASE("a place in a list that has none before it is a mistake at its header") {
    const std::string said =
        mistakes(read(duel() + words, {{"a.csv", "item,slot,trigger.2.on\ncap,head,hurt\n"}}));
    INFO(said);
    CHECK_FALSE(said.empty());
    CHECK(said.starts_with("a.csv:"));
    const std::string inner = mistakes(
        read(duel() + words, {{"a.csv", "set,step.1.count,step.1.trigger.on\ns,2,hurt\n"}}));
    CHECK(has(inner, "'step.1.trigger.on' is in a list, and names no place in it"));
    const std::string zero =
        mistakes(read(duel() + words, {{"a.csv", "item,slot,trigger.0.on\ncap,head,hurt\n"}}));
    CHECK_FALSE(zero.empty());
    const std::string many = mistakes(
        read(duel() + words, {{"a.csv", "item,slot,trigger.99999999999.on\ncap,head,hurt\n"}}));
    CHECK_FALSE(many.empty());
}

TEST_CASE("every kind can stand in a table, and an empty one is nothing") {
    for (const KindRow& kind : kind_rows()) {
        if (kind.single) continue;
        const ReadArmoury result =
            read(duel() + words, {{"a.csv", std::string(kind.name) + ",name\n"}});
        INFO(kind.name);
        CHECK(result.usable());
    }
}

TEST_CASE("patterns like one another and a nest of sockets are read as deep as they may be") {
    std::string chain = "[pattern.p0]\nslot = \"head\"\nadd = { guard = 1 }\n";
    for (int i = 1; i < 32; ++i) chain += fmt::format("[pattern.p{}]\nlike = \"p{}\"\n", i, i - 1);
    chain += "[item.x]\nlike = \"p31\"\n";
    const Armoury a = armoury(duel() + chain);
    CHECK(a.items[0].slot.given());
    CHECK(a.items[0].inherited.size() == 2);
    std::string nest;
    std::string worn = "\"i29\"";
    for (int i = 0; i < 30; ++i) nest += fmt::format("[slot.s{}]\nsocket = true\n", i);
    for (int i = 0; i < 30; ++i)
        nest += fmt::format("[item.i{0}]\nslot = \"{1}\"\nadd = {{ guard = 1 }}\n{2}", i,
                            i == 0 ? std::string("head") : fmt::format("s{}", i - 1),
                            i < 29 ? fmt::format("sockets = [\"s{}\"]\n", i) : "");
    for (int i = 28; i >= 0; --i) worn = fmt::format("{{ item = \"i{}\", s{} = {} }}", i, i, worn);
    const ReadArmoury deep =
        read(duel() + nest + "[loadout.l]\ncharacter = \"hero\"\nworn = { head = " + worn + " }\n");
    INFO(mistakes(deep));
    CHECK(deep.usable());
}
