// Why things happened or did not (M90).
#include "support/armouries.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// The inquiry into one trial, or into even luck.
Inquiry asked(const Armoury& armoury, const std::string& loadout, const std::string& encounter,
              bool even = false) {
    Bout bout(armoury, loadout, encounter);
    Inquiry inquiry;
    bout.engine.inquire(1, even ? std::nullopt : std::optional(Luck{1, 0}), inquiry);
    return inquiry;
}

const Inquiry::Entry& entry(const Inquiry& inquiry, Matter matter, const std::string& actor,
                            const std::string& thing) {
    for (const Inquiry::Entry& e : inquiry.entries())
        if (e.matter == matter && e.actor == actor && e.thing == thing) return e;
    FAIL("no entry for " << actor << ' ' << thing);
    return inquiry.entries().front();
}

/// "words × times" of an entry's reasons.
std::vector<std::string> reasons(const Inquiry::Entry& entry) {
    std::vector<std::string> list;
    for (const Inquiry::Reason& reason : entry.reasons)
        list.push_back(reason.words + " × " + std::to_string(static_cast<int>(reason.times)));
    return list;
}

std::string packed(const std::string& use, const std::string& rule = {}) {
    return duel() + biter() + "[effect.glow]\nadd = { keen = 1 }\n[item.vial]\nuse = { " + use +
           " }\n[loadout.l]\ncharacter = \"hero\"\npack = { vial = 1 }\n" +
           (rule.empty() ? "" : "[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"" + rule + "\"\n");
}

/// The hero with another action before the strike.
std::string with_action(const std::string& keys) {
    return with(duel(), "actions = [\"strike\"]", "actions = [\"push\", \"strike\"]") + biter() +
           "[action.push]\nevery = \"1\"\n" + keys + "\n";
}

using Strings = std::vector<std::string>;

} // namespace

TEST_CASE("a use whose rule never holds says so, with values and the place", "[M90]") {
    const Armoury a = armoury(packed("restore = { health = 30 }", "self.health_share < 0"));
    const Inquiry inquiry = asked(a, "l", "spar");
    const Inquiry::Entry& use = entry(inquiry, Matter::use, "hero", "vial");
    CHECK(use.happened == 0);
    REQUIRE(use.reasons.size() == 1);
    CHECK(use.reasons[0].words == "its rule 'self.health_share < 0' is false");
    CHECK(use.reasons[0].example == "self.health_share = 1");
    CHECK(use.reasons[0].times >= 10);
    CHECK(use.reasons[0].span == a.loadouts[1].uses[0].when.span);
}

TEST_CASE("a use that waits for its effect to end is asked at every instant", "[M90][M33]") {
    const Armoury a = armoury(packed("effect = \"glow\", duration = 100"));
    const Inquiry inquiry = asked(a, "l", "spar");
    const Inquiry::Entry& use = entry(inquiry, Matter::use, "hero", "vial");
    CHECK(use.happened == 1);
    REQUIRE(use.reasons.size() == 1);
    CHECK(use.reasons[0].times >= 9); // the hero strikes every second, from 0 on
}

TEST_CASE("a use tells what came before and after it", "[M90][M30]") {
    // 100 health; the default rule waits until 30 are missing, at the third bite (time 2).
    const Armoury a = armoury(packed("restore = { health = 30 }"));
    const Inquiry inquiry = asked(a, "l", "bites");
    const Inquiry::Entry& use = entry(inquiry, Matter::use, "hero", "vial");
    CHECK(use.happened == 1);
    CHECK(use.first == 2);
    REQUIRE(use.reasons.size() == 2);
    CHECK(has(use.reasons[0].words, "the default rule waits"));
    CHECK(use.reasons[0].example == "health 100 of 100, breath 50 of 50");
    CHECK(use.reasons[1].words == "none left");
    CHECK(use.reasons[1].first == 5); // when 30 are missing again
}

TEST_CASE("an effect's use waits for its end", "[M90]") {
    const Armoury a = armoury(packed("effect = \"glow\", duration = 90"));
    const Inquiry inquiry = asked(a, "l", "spar");
    CHECK(entry(inquiry, Matter::use, "hero", "vial").happened == 1);
    const Inquiry::Entry& effect = entry(inquiry, Matter::effect, "hero", "glow");
    CHECK(effect.by == "vial");
    CHECK(effect.happened == 1);
}

TEST_CASE("an action says what stands in its way", "[M90][M61]") {
    struct Case {
        const char *keys, *reason, *example;
    };
    const Case cases[] = {
        {"cooldown = 90", "cooling down", ""},
        {"cost = { breath = 60 }", "its cost is not there", "health 100 of 100, breath 50 of 50"},
        {"when = \"other.health < 0\"", "its condition 'other.health < 0' is false",
         "other.health = 100"},
    };
    for (const Case& one : cases) {
        INFO(one.keys);
        const Armoury a = armoury(with_action(one.keys));
        const Inquiry inquiry = asked(a, "bare", "spar");
        const Inquiry::Entry& push = entry(inquiry, Matter::action, "hero", "push");
        REQUIRE(push.reasons.size() == 1);
        CHECK(push.reasons[0].words == one.reason);
        CHECK(push.reasons[0].example == one.example);
    }
    const Armoury always = armoury(with_action(""));
    const Inquiry inquiry = asked(always, "bare", "bites");
    const Inquiry::Entry& strike = entry(inquiry, Matter::action, "hero", "strike");
    CHECK(strike.happened == 0);
    CHECK(reasons(strike) == Strings{"'push' stands before it and is done × 10"});
}

TEST_CASE("an effect of an action says whether it missed, or its chance failed", "[M90][M62]") {
    const auto told = [](const std::string& hit, const std::string& chance, bool even) {
        const Armoury a =
            armoury(with(with(duel(), "[combat]\n", "[combat]\nhit = \"" + hit + "\"\n"),
                         "deals = { blunt = \"self.attack\" }",
                         "deals = { blunt = \"self.attack\" }\napplies = { effect = \"glow\", "
                         "duration = 1, chance = " +
                             chance + " }") +
                    biter() + "[effect.glow]\nadd = { keen = 1 }\n");
        const Inquiry inquiry = asked(a, "bare", "bites", even);
        return reasons(entry(inquiry, Matter::effect, "hero", "glow"));
    };
    CHECK(told("0", "1", false) == Strings{"the blow missed × 180"});
    CHECK(told("1", "0", false) == Strings{"its chance did not come true × 10"});
    CHECK(told("1", "1", false).empty());
    CHECK(told("1", "0", true) == Strings{"its chance did not come true × 10"});
}

TEST_CASE("a trigger whose event never came stands there with nothing counted", "[M90]") {
    const Armoury a =
        armoury(duel() + biter() +
                "[effect.glow]\nadd = { keen = 1 }\n[item.charm]\nslot = \"charm\"\n"
                "[[item.charm.trigger]]\non = \"kill\"\neffect = \"glow\"\nduration = 3\n"
                "[[item.charm.trigger]]\non = \"hit\"\neffect = \"glow\"\nduration = 3\n"
                "cooldown = 90\n"
                "[loadout.l]\ncharacter = \"hero\"\nworn = { charm = \"charm\" }\n");
    const Inquiry inquiry = asked(a, "l", "bites");
    std::vector<const Inquiry::Entry*> glows;
    for (const Inquiry::Entry& e : inquiry.entries())
        if (e.matter == Matter::effect) glows.push_back(&e);
    REQUIRE(glows.size() == 2);
    CHECK(glows[0]->event == "kill");
    CHECK(glows[0]->happened == 0);
    CHECK(glows[0]->reasons.empty());
    CHECK(glows[1]->event == "hit");
    CHECK(glows[1]->happened == 1);
    CHECK(reasons(*glows[1]) == Strings{"its trigger is cooling down × 9"});
}

TEST_CASE("a swap that is refused or not due says so", "[M90][M71]") {
    const auto told = [](const std::string& swap, const std::string& pack) {
        const Armoury a =
            armoury(duel() + biter() +
                    "[item.club]\nslot = \"hand\"\n[item.maul]\nslot = \"hand\"\n"
                    "[loadout.l]\ncharacter = \"hero\"\nworn = { hand = \"club\" }\n" +
                    pack + "[[loadout.l.swap]]\nto = \"other\"\n" + swap +
                    "\n[loadout.other]\ncharacter = \"hero\"\nworn = { hand = \"maul\" }\n");
        const Inquiry inquiry = asked(a, "l", "bites");
        const Inquiry::Entry& entry_of = entry(inquiry, Matter::swap, "hero", "other");
        return entry_of.reasons.empty() ? std::string() : entry_of.reasons[0].words;
    };
    CHECK(told("at = 60", "pack = { maul = 1 }\n") == "its time, 60, has not come");
    CHECK(told("at = 2", "") == "its time, 2, has not come");
    CHECK(told("when = \"self.health < 0\"", "pack = { maul = 1 }\n") ==
          "its condition 'self.health < 0' is false");
    CHECK(told("when = \"1\"", "") == "maul is not in the pack");
    CHECK(told("when = \"1\"", "pack = { maul = 1 }\n").empty());
}

TEST_CASE("asking changes nothing of the fight", "[M90]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "warden_middle", "long_watch", 18);
    for (std::uint64_t trial = 0; trial < 5; ++trial) {
        const FightResult quiet = bout.trial(trial);
        Inquiry inquiry;
        const FightResult loud = bout.engine.inquire(1, Luck{1, trial}, inquiry);
        CHECK(loud.time == quiet.time);
        CHECK(loud.dealt == quiet.dealt);
        CHECK(loud.events == quiet.events);
        double done = 0;
        for (const Inquiry::Entry& e : inquiry.entries())
            if (e.matter == Matter::action && e.actor == "warden") done += e.happened;
        double counted = 0;
        for (const ActionCount& count : quiet.actions) counted += count.done;
        CHECK(done == counted);
    }
}
