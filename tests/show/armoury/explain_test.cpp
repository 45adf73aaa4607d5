#include "support/armouries.h"

#include "show/armoury/abilities.h"
#include "show/armoury/handbook.h"
#include "show/armoury/item_words.h"
#include "show/armoury/show_card.h"
#include "show/armoury/show_explain.h"
#include "show/armoury/show_list.h"

#include "armoury/live_keys.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <map>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// The keys of a thing and why they are ignored; empty: they count.
std::map<std::string, std::string> ignored_in(const std::string& text, const std::string& id) {
    const ReadArmoury result = read(text);
    INFO(mistakes(result));
    REQUIRE(result.usable());
    std::map<std::string, std::string> keys;
    for (const RawDefinition& definition : result.definitions)
        if (definition.id == id)
            for (const KeyState& key : key_states(result.armoury, definition))
                keys[key.path] = key.ignored;
    return keys;
}

Abilities abilities(const std::string& text, const std::string& thing) {
    const ReadArmoury result = read(text);
    INFO(mistakes(result));
    REQUIRE(result.usable());
    const auto found = find_things(result, thing);
    REQUIRE(found.size() == 1);
    return abilities_of(result, *found.front(), false);
}

bool says(const std::vector<std::string>& sentences, const std::string& one) {
    INFO(one);
    for (const std::string& sentence : sentences) UNSCOPED_INFO(sentence);
    return std::find(sentences.begin(), sentences.end(), one) != sentences.end();
}

} // namespace

TEST_CASE("a key that does nothing beside the others says why") {
    const std::string thing = "[item.thing]\nweight = 2\nvalue = 3\nlevel = 4\nstack = "
                              "\"unlimited\"\nmax_stacks = 2\nabout = \"A thing.\"\n";
    const auto cargo = ignored_in(duel() + thing, "thing");
    CHECK(cargo.at("level") == "it is neither worn nor used: anybody can carry it");
    CHECK(cargo.at("max_stacks") == "its one stack has no end");
    CHECK(cargo.at("weight") == "the armoury has no [carry]: nothing weighs on anybody");
    CHECK(cargo.at("value") == "nothing is bought or sold; it is told by `card` only");
    CHECK(cargo.at("about") == "words for people");
    const auto weighed = ignored_in(duel() + thing + "[carry]\ncapacity = \"9\"\n", "thing");
    CHECK(weighed.at("weight").empty());
    const std::string sip = "[effect.glow]\nadd = { keen = 1 }\npile_max = 3\nperiod = 2\n"
                            "[item.sip]\nuse = { effect = \"glow\", duration = 3, group = \"sips\" "
                            "}\nlevel = 2\n";
    CHECK(ignored_in(duel() + sip, "sip").at("use.group") == "it has no cooldown to share");
    CHECK(ignored_in(duel() + sip, "sip").at("level").empty());
    CHECK(ignored_in(duel() + sip, "glow").at("pile_max") == "only again = \"pile\" makes copies");
    CHECK(ignored_in(duel() + sip, "glow").at("period") == "it has no per_time");
    const auto worn = ignored_in(duel() + "[item.cap]\nslot = \"head\"\nadd = { guard = 1 "
                                          "}\ndraw_time = 2\n",
                                 "cap");
    CHECK(worn.at("add.guard").empty());
    CHECK(worn.at("draw_time") == "no loadout swaps in a fight");
}

TEST_CASE("keys of lists of tables carry their place") {
    const auto keys = ignored_in(duel() + "[effect.glow]\nadd = { keen = 1 }\n[item.cap]\nslot = "
                                          "\"head\"\n[[item.cap.trigger]]\non = \"hit\"\neffect = "
                                          "\"glow\"\nduration = 2\n[[item.cap.trigger]]\non = "
                                          "\"hurt\"\neffect = \"glow\"\nduration = 3\n",
                                 "cap");
    CHECK(keys.count("trigger.1.on") == 1);
    CHECK(keys.count("trigger.2.duration") == 1);
}

TEST_CASE("what an item can and can't do, and why not") {
    const std::string gear =
        "[slot.inlay]\nsocket = true\n[slot.hollow]\nsocket = true\n"
        "[character.porter]\ncalling = \"porter\"\nbase = { max_health = 9 }\nactions = "
        "[\"strike\"]\n"
        "[item.crown]\nslot = \"head\"\nlevel = 3\nsockets = [\"inlay\", \"hollow\"]\nneeds = { "
        "calling = \"porter\" }\n[item.bead]\nslot = \"inlay\"\n"
        "[item.maul]\nslot = \"hand\"\ntakes = [\"head\"]\nunique = \"oath\"\n[item.ring]\nslot = "
        "\"charm\"\nunique = \"oath\"\n[item.rock]\nweight = 2\n";
    const Abilities crown = abilities(duel() + gear, "crown");
    CHECK(says(crown.can, "be worn by porter, levels 3–10"));
    CHECK(says(crown.cannot, "be worn by hero: it is for porter only; hero is of no calling"));
    CHECK(says(crown.can, "hold in its socket inlay one of bead"));
    CHECK(says(crown.cannot, "hold anything in its socket hollow: nothing fits it"));
    CHECK(says(abilities(duel() + gear, "item.bead").can, "be put into the socket inlay of crown"));
    const Abilities maul = abilities(duel() + gear, "maul");
    CHECK(says(maul.cannot, "be worn beside anything else in hand, head: it takes all of these"));
    CHECK(says(maul.cannot, "be worn together with ring: at most one of 'oath' is"));
    const Abilities rock = abilities(duel() + gear, "rock");
    CHECK(says(rock.can, "be carried by anybody, at any level"));
    CHECK(says(rock.cannot, "be worn: it has no slot"));
    CHECK(says(rock.cannot, "be used: it has no use"));
}

TEST_CASE("at which levels a loadout can be worn, and what it can't fight") {
    const Abilities loadout = abilities(
        with(duel(), "foes = [ { foe = \"dummy\" } ]",
             "foes = [ { foe = \"dummy\" } ]\nrequires = { carried = \"lamp\" }") +
            "[item.lamp]\n[item.cap]\nslot = \"head\"\nlevel = 4\n[loadout.l]\ncharacter = "
            "\"hero\"\nlevels = [2, 9]\nworn = { head = \"cap\" }\n",
        "loadout.l");
    CHECK(says(loadout.can, "be worn at levels 4–9"));
    CHECK(says(loadout.cannot, "be worn at level 2: cap: it is for level 4; hero is level 2"));
    CHECK(says(loadout.cannot, "fight spar: spar asks for lamp to be carried; it is not there"));
}

TEST_CASE("who does an action, and who could never pay it") {
    const Abilities toll =
        abilities(with(duel(), "[action.rest]",
                       "[action.toll]\nevery = \"1\"\ncost = { breath = 80 "
                       "}\n[action.rest]") +
                      "[character.other]\nbase = { max_health = 9, max_breath = 90 }\nactions = "
                      "[\"toll\"]\n[character.short]\nbase = { max_health = 9 }\nactions = "
                      "[\"toll\"]\n",
                  "action.toll");
    CHECK(says(toll.can, "be done by other"));
    CHECK(says(toll.cannot,
               "be paid by short with nothing worn at level 10: it costs 80 breath, of "
               "which it has 0"));
    CHECK(says(toll.cannot, "hurt anybody: it deals nothing and applies nothing"));
}

TEST_CASE("a bare id names every thing of that id") {
    const ReadArmoury result = read(duel() + "[item.strike]\n");
    CHECK(find_things(result, "strike").size() == 2);
    CHECK(find_things(result, "item.strike").size() == 1);
    CHECK(find_things(result, "item.strikes").empty());
    CHECK(find_things(result, "carry").empty());
    CHECK(find_things(result, "combat").size() == 1);
}

TEST_CASE("a use, needs and a trigger in words") {
    const Armoury a = armoury(
        duel() + "[effect.glow]\nadd = { keen = 1 }\n"
                 "[item.sip]\nneeds = { level = 3, character = \"hero\", stats = { might = 4 } }\n"
                 "use = { restore = { health = 5 }, effect = \"glow\", duration = \"always\", "
                 "cooldown = 4, group = \"sips\", takes = 0.5, only = { character = \"hero\" }, to "
                 "= \"allies\" }\n"
                 "[item.cap]\nslot = \"head\"\ngrants = { bag = 1, capacity = 2.5 }\n"
                 "[[item.cap.trigger]]\non = \"hurt\"\nchance = 0.15\ncooldown = 8\neffect = "
                 "\"glow\"\nduration = 4\nto = \"other\"\n");
    CHECK(use_words(a, *a.items[0].use) ==
          "restores 5 health, gives glow for good, to everyone of its side, by hero only, "
          "cooldown 4 (group sips), takes 0.5");
    CHECK(needs_words(a, a.items[0].needs) == "level 3, for hero, 4 might with nothing worn");
    CHECK(trigger_words(a, a.items[1].triggers[0]) ==
          "on hurt, 15.0 %: glow for 4 on the other, again after 8");
    CHECK(grants_words(a.items[1].grants) == "1 stack in the bag, 2.5 of capacity");
    CHECK(grants_words({}).empty());
}

TEST_CASE("what effects do is on the card of what gives them, with what follows from them") {
    const ReadArmoury result =
        read(duel() + "[effect.glow]\nadd = { keen = 1 }\nagain = \"pile\"\npile_max = 3\n"
                      "then = { effect = \"ash\", duration = 2 }\n"
                      "[effect.ash]\nper_time = { health = -2 }\nperiod = 0.5\nstops = [\"uses\"]\n"
                      "removes = [\"glow\"]\n[effect.shell]\nward = true\nrestore_factor = 0.5\n"
                      "immune = [\"hostile\"]\n[effect.bare]\n"
                      "[item.sip]\nuse = { effect = \"glow\", duration = 4 }\n");
    const Armoury& a = result.armoury;
    CHECK(effect_does_words(a, EffectId(0)) == "+1 keen, piles up to 3, then ash for 2");
    CHECK(effect_does_words(a, EffectId(1)) == "takes 1 health each 0.5, ends glow, no uses");
    CHECK(effect_does_words(a, EffectId(2)) ==
          "× 0.5 all that is restored, no blow and nothing hostile takes hold, immune to hostile");
    CHECK(effect_does_words(a, EffectId(3)) == "nothing");
    const Document card = show_cards(a, {ItemId(0)}, compare_on_paper(a));
    CHECK(has(card.text, "gives glow for 4\n"));
    CHECK(has(card.text, "  +1 keen, piles up to 3, then ash for 2\n"));
    CHECK(has(card.text, "  takes 1 health each 0.5"));
    CHECK_FALSE(has(card.text, "shell"));
}

TEST_CASE("the grid counts items by slot and tier, and neighbouring levels stand as one") {
    const ReadArmoury result =
        read(duel() + "[item.a]\nslot = \"hand\"\ntier = \"plain\"\nlevel = 2\n[item.b]\nslot = "
                      "\"hand\"\ntier = \"plain\"\nlevel = 6\n[item.c]\nslot = \"head\"\ntier = "
                      "\"fine\"\nlevel = 6\n");
    const Document all = show_items(result, {});
    CHECK(all.json["grid"]["hand"]["plain"] == 2);
    CHECK(all.json["grid"]["head"]["plain"] == 0);
    CHECK(all.json["by_level"]["6"] == 2);
    CHECK(has(all.text, "nothing new at 1, 3–5, 7–10"));
    CHECK(has(all.text, "4 holes: fine hand, plain head, plain charm, fine charm"));
    ListOptions some;
    some.levels = {6, 7};
    some.slot = result.armoury.items[0].slot;
    const Document few = show_items(result, some);
    CHECK(few.json["items"].size() == 1);
    CHECK(few.json["grid"].size() == 1);
}

TEST_CASE("the lower of two levels that an item needs does not count", "[M41]") {
    const std::string both = duel() + "[item.cap]\nslot = \"head\"\nlevel = 16\nneeds = { level = ";
    CHECK(has(ignored_in(both + "14 }\n", "cap")["needs.level"], "its own level is higher"));
    CHECK(ignored_in(both + "18 }\n", "cap")["needs.level"].empty());
}

TEST_CASE("what nothing names may count all the same: on journeys, and in audits") {
    const std::string grit = duel() + "[upgrade.grit]\nmax = 3\nadd = { guard = 1 }\n";
    const std::string road = "[journey.road]\ncharacter = \"hero\"\nstart = \"bare\"\n"
                             "[[journey.road.stage]]\nencounter = \"spar\"\n";
    const auto of = [](const std::string& text, const std::string& thing) {
        const ReadArmoury result = read(text);
        return abilities_of(result, *find_things(result, thing).front(), true);
    };
    CHECK(of(grit + road, "grit").cannot.empty());
    CHECK(of(grit + road, "grit").can ==
          std::vector<std::string>{"be bought on journeys, up to 3 levels"});
    REQUIRE(of(grit, "grit").cannot.size() == 1);
    CHECK(has(of(grit, "grit").cannot.front(), "no journey could buy one"));
    CHECK(of(duel(), "encounter.spar").cannot.empty());
    CHECK_FALSE(of(duel(), "tier.fine").cannot.empty());
}
