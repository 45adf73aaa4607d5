// The engine against the rules written once more, event by event, on random small armouries.
#include "support/armouries.h"
#include "support/reference_fight.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>
#include <rapidcheck/catch.h>
#include <set>

using namespace panoplon;
using namespace panoplon::test;

namespace {

int number(int low, int high) {
    return *rc::gen::inRange(low, high + 1);
}
bool maybe() {
    return *rc::gen::arbitrary<bool>();
}
std::string one_of(const std::vector<std::string>& list) {
    return list[*rc::gen::inRange<std::size_t>(0, list.size())];
}

const std::vector<std::string> stats = {"attack", "guard", "haste", "keen", "mending", "might"};
const std::vector<std::string> effects = {"glow", "sting", "smoke", "wax"};

std::string modifiers() {
    std::string text;
    if (maybe()) text += fmt::format("add = {{ {} = {} }}\n", one_of(stats), number(-4, 8));
    if (maybe()) text += fmt::format("percent = {{ {} = {} }}\n", one_of(stats), number(-30, 40));
    if (number(0, 5) == 0) text += fmt::format("times = {{ attack = {} }}\n", one_of({"0.5", "2"}));
    if (number(0, 5) == 0) text += fmt::format("add.max_health = {}\n", number(-20, 40));
    return number(0, 3) == 0 ? "" : text.substr(0, text.find('\n') + 1);
}

std::string trigger(const std::string& of) {
    return fmt::format(
        "[[{}.trigger]]\non = \"{}\"\nchance = {}\ncooldown = {}\neffect = "
        "\"{}\"\nduration = {}\nto = \"{}\"\n",
        of, one_of({"start", "hit", "crit", "hurt", "kill", "use", "life_lost"}),
        one_of({"0", "0.3", "0.7", "1", "\"self.keen / 60\"", "\"other.guard / 20\""}),
        one_of({"0", "1.5", "4"}), one_of(effects), one_of({"1", "2.5", "6", "\"always\""}),
        one_of({"self", "other"}));
}

std::string effect(const std::string& id) {
    std::string text = fmt::format("[effect.{}]\nagain = \"{}\"\npile_max = {}\nperiod = {}\n", id,
                                   one_of({"refresh", "extend", "pile", "keep"}), number(1, 3),
                                   one_of({"0.5", "1", "1.5"}));
    text += modifiers();
    if (maybe())
        text += fmt::format(
            "per_time = {{ {} }}\n",
            one_of({fmt::format("health = {}", number(-6, 4)), "health = \"2 - other.attack / 5\"",
                    "health = \"self.max_health / 50\", breath = -2",
                    fmt::format("breath = {}", number(-9, 4))}));
    if (id == "wax" || maybe()) text += "tags = [\"foul\"]\n";
    const auto group = [] { return one_of({"foul", "hostile", "sting", "glow\", \"wax"}); };
    if (number(0, 5) == 0) text += fmt::format("removes = [\"{}\"]\n", group());
    if (number(0, 5) == 0) text += fmt::format("immune = [\"{}\"]\n", group());
    if (number(0, 5) == 0)
        text += fmt::format("stops = [\"{}\"]\n", one_of({"actions", "uses", "actions\", \"uses"}));
    if (number(0, 3) == 0)
        text += fmt::format("then = {{ effect = \"{}\", duration = {} }}\n", one_of(effects),
                            one_of({"0.5", "2"}));
    if (number(0, 3) == 0) text += fmt::format("restore_factor = {}\n", one_of({"0", "0.5", "2"}));
    if (id == "smoke" && maybe()) text += "ward = true\n";
    if (number(0, 6) == 0) text += "taunts = true\n";
    if (id == "wax" && maybe())
        text += fmt::format("absorbs = \"{} + self.might\"\n", number(0, 20));
    return text;
}

std::string action(const std::string& id, bool plain) {
    std::string text =
        fmt::format("[action.{}]\nevery = \"{} / (1 + self.haste / 100)\"\ndeals = {{ "
                    "blunt = \"{}\" }}\n",
                    id, one_of({"0.7", "1", "1.6", "2"}),
                    one_of({"self.attack", "self.attack + self.power / 4",
                            "self.attack * (1 + self.health_share)",
                            "self.attack * (1 + other.sting_copies / 3)"}));
    if (number(0, 3) == 0)
        text += fmt::format("deals_up_to = {{ blunt = \"{}\" }}\n",
                            one_of({"self.attack * 2", "self.attack + self.power"}));
    if (number(0, 3) == 0)
        text += fmt::format("hit = \"{}\"\n",
                            one_of({"0.6", "0.5 + self.keen / 100", "self.glow_active ? 1 : 0.7",
                                    "1 - self.load / 2"}));
    if (number(0, 3) == 0) text += "crit = \"0.3\"\ncrit_factor = \"1.5 + self.might / 20\"\n";
    if (number(0, 3) == 0)
        text += fmt::format("restores = {{ breath = {} }}\n",
                            one_of({"4", "\"0.1 * self.max_breath\""}));
    if (maybe()) text += fmt::format("targets = {}\n", one_of({"\"front\"", "\"all\"", "2"}));
    if (maybe()) text += fmt::format("drains = {{ health = \"{}\" }}\n", one_of({"0.1", "0.5"}));
    if (maybe())
        text += fmt::format(
            "applies = {{ effect = \"{}\", chance = {}, duration = {}, to = \"{}\" }}\n",
            one_of(effects), one_of({"0", "0.4", "1", "\"0.2 + self.health_share / 2\""}),
            one_of({"1", "3", "5.5"}), one_of({"self", "other"}));
    if (number(0, 3) == 0)
        text += fmt::format("applies_also = [ {{ effect = \"{}\", chance = {}, duration = 2, to = "
                            "\"{}\" }}, {{ effect = \"{}\", duration = 1 }} ]\n",
                            one_of(effects), one_of({"0.5", "1", "\"other.guard / 30\""}),
                            one_of({"self", "other"}), one_of(effects));
    if (!plain && number(0, 5) == 0)
        text = fmt::format("[action.{}]\nevery = \"1\"\nrestores = {{ health = 3 }}\n", id);
    if (plain) return text;
    if (number(0, 3) == 0) text += "needs_worn = [\"blade\"]\n";
    if (number(0, 3) == 0) text += fmt::format("spends = {{ dart = {} }}\n", number(1, 2));
    if (number(0, 3) == 0) {
        const int count = number(1, 2);
        text += fmt::format("summons = {{ foe = \"imp\", count = {}, most = {}, duration = {} }}\n",
                            count, number(count, 3), one_of({"1.4", "3", "\"always\""}));
    }
    return text +
           fmt::format("weight = {}\ncooldown = {}\ncost = {{ breath = {} }}\nwhen = \"{}\"\n",
                       one_of({"0", "1", "2.5"}), one_of({"0", "3"}),
                       one_of({std::to_string(number(0, 25)), "\"0.2 * self.max_breath\"",
                               "\"self.breath / 2\""}),
                       one_of({"1", "self.health_share < 0.8", "time > 2", "other.health > 20",
                               "time >= 2.7 && time < 6.3", "self.smoke_active == 0",
                               "other.sting_copies < 2", "self.load < 0.3"}));
}

/// g0 to g2 are worn, g3 is another for the hand, g4 goes into a socket of g1.
std::string gear(bool finds_differ) {
    std::string text;
    if (finds_differ)
        text += fmt::format("[affix.odd]\ntags = [\"kind\"]\nweight = {}\n{}[affix.even]\ntags = "
                            "[\"kind\"]\n{}",
                            number(1, 3), modifiers(), modifiers());
    int n = 0;
    for (const char* slot : {"hand", "head", "charm", "hand", "bead"}) {
        const std::string id = fmt::format("g{}", n++);
        text += fmt::format("[item.{}]\nslot = \"{}\"\nweight = {}\n{}{}", id, slot, number(0, 3),
                            maybe() ? "tier = \"fine\"\n" : "", maybe() ? "set = \"kit\"\n" : "");
        if (id == "g1") text += "sockets = [\"bead\"]\n";
        if (id == "g3")
            text += fmt::format("draw_time = {}\nactions = [\"slam\"]\n", one_of({"0", "0.6"}));
        if (id == "g3" || (id == "g0" && maybe())) text += "tags = [\"blade\"]\n";
        if (id == "g2" && number(0, 5) == 0) text += "cursed = true\n";
        if (id == "g2" && maybe()) text += "grants = { capacity = 3 }\n";
        text += modifiers();
        if (id == "g0" && finds_differ)
            text +=
                "add_up_to = { attack = 9 }\naffixes = [\"kind\", \"odd\"]\ngrows = { kills = 3, "
                "most = 4, add = { guard = 2 }, percent = { attack = 5 } }\n";
        if (maybe()) text += trigger("item." + id);
    }
    text += fmt::format("[set.kit]\n[[set.kit.step]]\ncount = {}\n{}", number(1, 2), modifiers());
    if (maybe()) text += trigger("set.kit.step");
    text += fmt::format("[[set.kit.step]]\ncount = 3\nadd = {{ attack = {} }}\n", number(1, 5));
    return text + "[upgrade.grit]\nmax = 4\nadd = { guard = 2 }\npercent = { attack = 3 }\n";
}

/// What the hero swaps to, with a swap of its own or none; the hand's other item may be missing.
std::string swaps() {
    const auto due = [] {
        return one_of({"at = 1.3", "at = 4", "when = \"self.health_share < 0.7\"",
                       "when = \"time >= 2.35\""});
    };
    std::string text = fmt::format("[[loadout.l.swap]]\nto = \"other\"\n{}\ntakes = {}\n", due(),
                                   one_of({"0", "0.8"}));
    text += "[loadout.other]\ncharacter = \"hero\"\nworn = { hand = \"g3\", head = \"g1\" }\n";
    if (maybe()) text += fmt::format("[[loadout.other.swap]]\nto = \"l\"\n{}\n", due());
    return text;
}

std::string consumables() {
    std::string text = "[item.dart]\nweight = 1\nstack = 9\n";
    for (const char* id : {"vial", "brew"}) {
        const bool restores = id == std::string("vial") || maybe();
        const bool gives = id == std::string("brew") || maybe();
        text += fmt::format(
            "[item.{}]\nweight = {}\nstack = 5\nuse = {{ {}{}{}{}{}{}cooldown = {}, takes = "
            "{}{}{} }}\n",
            id, number(0, 2), number(0, 3) == 0 ? "does = \"slam\", " : "",
            number(0, 3) == 0 ? fmt::format("removes = [\"{}\"], ", one_of({"foul", "hostile"}))
                              : "",
            number(0, 4) == 0
                ? fmt::format("when = \"{}\", ",
                              one_of({"self.sting_active", "time > 1", "self.health_share < 0.7"}))
                : "",
            restores
                ? fmt::format("restore = {{ {} = {} }}, ", one_of({"health", "health", "breath"}),
                              one_of({std::to_string(number(5, 60)), "\"0.3 * other.max_health\"",
                                      "\"self.might + 0.4 * (other.max_health - other.health)\""}))
                : "",
            gives ? fmt::format("effect = \"{}\", ", one_of(effects)) : "",
            gives ? fmt::format("duration = {}, ", one_of({"2", "4", "9"})) : "",
            one_of({"0.5", "3", "8"}), one_of({"0", "0", "1", "\"1 - self.haste / 100\""}),
            maybe() ? ", group = \"g\"" : "", number(0, 3) == 0 ? ", to = \"allies\"" : "");
    }
    return text;
}

/// An armoury of a hero against a few foes, with everything that a fight knows.
std::string random_armoury() {
    std::string text = "[armoury]\nformat = 1\nname = \"Random\"\nlevels = [1, 1]\n";
    text += fmt::format("[combat]\nhealth = \"health\"\nhit = \"{}\"\ncrit = \"self.keen / "
                        "100\"\ncrit_factor = \"{}\"\nspread = {}\norder = \"{}\"\ntime_limit = "
                        "{}\nlives = \"{}\"\nrevive_share = 0.4\n",
                        one_of({"1", "0.8", "0.9 - other.haste / 400"}), one_of({"1.5", "2"}),
                        one_of({"0", "0.2"}), one_of({"0", "self.haste", "self.health"}),
                        number(6, 30), one_of({"0", "1", "self.might / 8"}));
    if (number(0, 2) == 0)
        text += fmt::format("returned = \"{}\"\n", one_of({"0.3", "self.guard / 50"}));
    if (number(0, 2) == 0) text += "crit_on = \"mitigated\"\n";
    for (const std::string& stat : stats) text += fmt::format("[stat.{}]\nmin = -50\n", stat);
    text +=
        "[stat.max_health]\nmin = 1\n[stat.max_breath]\n[stat.power]\nvalue = \"2 * self.attack\"\n"
        "[pool.health]\nmax = \"max_health\"\nregen = \"self.mending\"\non_ceiling = \"" +
        one_of({"keep", "share"}) +
        "\"\n[pool.breath]\nmax = \"max_breath\"\nregen = \"3\"\nperiod = " + one_of({"1", "0.7"}) +
        "\n";
    if (number(0, 2) == 0)
        text += fmt::format("shields = \"{}\"\n",
                            one_of({"0.3", "1", "self.guard / 40", "self.health_share / 2"}));
    text += fmt::format(
        "[damage.blunt]\nmitigated = \"{}\"\n",
        one_of({"amount", "amount * 100 / (100 + other.guard)", "amount - other.guard / 4"}));
    text += "[tier.fine]\nrank = 1\nstat_factor = 2\nadd = { keen = 3 }\n[slot.hand]\n[slot.head]\n"
            "[slot.charm]\n[slot.bead]\nsocket = true\n";
    if (maybe())
        text += fmt::format("[carry]\ncapacity = \"12 + self.might / 4\"\n[[carry.band]]\nname = "
                            "\"Laden\"\nfrom = 0.4\nadd = {{ haste = {} }}\n{}",
                            number(-30, 10), maybe() ? trigger("carry.band") : "");
    for (const std::string& id : effects) text += effect(id);
    const bool finds_differ = maybe();
    text += action("strike", true) + action("toll", false) + action("slam", false) +
            gear(finds_differ) + consumables();
    text +=
        fmt::format("[character.hero]\nbase = {{ max_health = {}, max_breath = 40, attack = {}, "
                    "guard = {}, keen = {}, mending = {}, might = {}, haste = {} }}\nactions = "
                    "[\"toll\", \"strike\"]\n",
                    number(40, 160), number(5, 20), number(0, 20), number(0, 50), number(-1, 3),
                    number(0, 20), number(-10, 30));
    if (maybe()) text += trigger("character.hero");
    text += fmt::format(
        "[foe.toad]\nbase = {{ max_health = {}, max_breath = 10, attack = {}, guard = {}, "
        "keen = {}, mending = {}, haste = {} }}\nactions = [\"{}\"]\nchooses = \"{}\"\n",
        number(20, 120), number(2, 14), number(0, 20), number(0, 40), number(0, 2), number(-10, 30),
        one_of({"strike", "toll\", \"strike"}), one_of({"first", "by weight"}));
    if (maybe()) text += trigger("foe.toad");
    text += fmt::format("[foe.imp]\nbase = {{ max_health = {}, max_breath = 10, attack = {}, "
                        "keen = 10, mending = {} }}\nactions = [\"peck\"]\n[action.peck]\nevery = "
                        "{}\ndeals = {{ blunt = \"self.attack\" }}\napplies = {{ effect = \"{}\", "
                        "duration = 2, chance = 0.5, to = \"{}\" }}\n",
                        number(3, 40), number(1, 6), number(-3, 2), one_of({"0.4", "1.3"}),
                        one_of(effects), one_of({"self", "other"}));
    if (maybe()) text += trigger("foe.imp");
    text += fmt::format("[encounter.pond]\nfoes = [ {{ foe = \"toad\", count = {}{} }}, {{ foe = "
                        "\"toad\", count = {}, at = {} }} ]\n{}",
                        number(1, 2), number(0, 2) == 0 ? ", up_to = 3" : "",
                        number(0, 2) == 0 ? "0, up_to = 1" : "1", one_of({"0", "2.5", "7"}),
                        number(0, 2) == 0 ? "allies = [\"help\"]\n" : "");
    text += fmt::format(
        "[loadout.l]\ncharacter = \"hero\"\nworn = {{ hand = {}, head = {}, "
        "charm = \"g2\" }}\npack = {{ brew = {}, vial = {}, dart = {}{} }}\nupgrades = {{ grit = "
        "{} }}\n",
        finds_differ
            ? one_of({"\"g0\"", "{ item = \"g0\", affixes = [\"even\"], felled = 7 }",
                      "{ item = \"g0\", rolled = { attack = 9 }, affixes = [\"odd\", \"odd\"] }"})
            : "\"g0\"",
        maybe() ? "\"g1\"" : "{ item = \"g1\", bead = [\"g4\"] }", number(0, 3), number(0, 4),
        number(0, 4), number(0, 3) > 0 ? ", g3 = 1" : "", number(0, 2));
    if (maybe())
        text +=
            fmt::format("[[loadout.l.use]]\nitem = \"vial\"\nwhen = \"{}\"\n",
                        one_of({"self.health_share < 0.6", "self.breath_share < 0.5", "time > 3",
                                "1", "self.breath < 25", "self.health < self.max_health - 30"}));
    if (maybe()) text += swaps();
    return text + "[loadout.help]\ncharacter = \"hero\"\nworn = { hand = \"g3\" }\npack = { vial = "
                  "1 }\n";
}

std::string line(double time, const std::string& actor, const std::string& event,
                 const std::string& source, const std::string& target, double amount,
                 double after) {
    return fmt::format("{:.6f} {} {} {} {} {:.6f} {:.6f}", time, actor, event, source, target,
                       amount + 0.0, after + 0.0);
}

std::vector<std::string> by_reference(const ReferenceResult& result) {
    std::vector<std::string> list;
    for (const Told& e : result.events)
        list.push_back(line(e.time, e.actor, e.event, e.source, e.target, e.amount, e.pool_after));
    return list;
}

std::vector<std::string> by_engine(const Timeline& timeline) {
    static const std::set<std::string> others = {"use_refused", "band"};
    std::vector<std::string> list;
    for (const TimelineEvent& e : timeline.events)
        if (others.count(e.event) == 0)
            list.push_back(
                line(e.time, e.actor, e.event, e.source, e.target, e.amount, e.pool_after));
    return list;
}

/// The first line in which they differ, with what came before it; empty: they are alike.
std::string difference(const std::vector<std::string>& expected,
                       const std::vector<std::string>& told) {
    for (std::size_t i = 0; i < std::max(expected.size(), told.size()); ++i) {
        const std::string a = i < expected.size() ? expected[i] : "nothing";
        const std::string b = i < told.size() ? told[i] : "nothing";
        if (a == b) continue;
        std::string text;
        for (std::size_t j = i < 4 ? 0 : i - 4; j < i; ++j) text += "  " + expected[j] + "\n";
        return text + "by the rules: " + a + "\nby the engine: " + b;
    }
    return {};
}

/// The random armoury, read; its text goes into the log of what fails.
ReadArmoury random_read() {
    const std::string text = random_armoury();
    ReadArmoury result = read(text);
    RC_LOG() << text << "\n" << mistakes(result);
    if (!result.usable()) RC_FAIL("the random armoury has mistakes");
    return result;
}

} // namespace

TEST_CASE("the engine tells what the rules tell, event by event", "[M60][M61][M62][M20][M23]") {
    rc::prop("random small armouries", [] {
        const ReadArmoury result = random_read();
        const Armoury& a = result.armoury;
        const Outfit outfit = outfit_of(a, a.loadouts[0], 1);
        const double strength = std::stod(one_of({"1", "0.5", "2"}));
        const FightSetup setup = set_up_fight(a, outfit, EncounterId(0));
        Engine engine(a);
        engine.prepare(setup);
        for (std::uint64_t trial = 0; trial < 3; ++trial) {
            const Luck luck{1, trial};
            const Timeline told = engine.tell(strength, luck);
            const ReferenceResult expected =
                reference_fight(a, outfit, EncounterId(0), luck, strength);
            const std::string differs = difference(by_reference(expected), by_engine(told));
            if (!differs.empty()) {
                RC_LOG() << differs;
                RC_FAIL("the engine and the rules differ");
            }
            const FightResult& outcome = engine.run(strength, luck);
            RC_ASSERT(outcome.won == expected.won);
            RC_ASSERT(outcome.time == expected.time);
        }
    });
}

namespace {

/// Everything that a ledger counts, one number after the other.
std::vector<double> numbers_of(const FightResult& result) {
    std::vector<double> list = {result.won ? 1.0 : 0.0, result.time, result.remainder,
                                result.overkill};
    for (const auto* some : {&result.dealt, &result.taken, &result.dealt_by_effect,
                             &result.taken_by_effect, &result.restored, &result.wasted})
        list.insert(list.end(), some->begin(), some->end());
    for (const UseCount& use : result.uses)
        list.insert(list.end(), {use.used, use.refused, use.left, use.cut, use.overlap});
    for (const auto* side : {&result.actions, &result.foe_actions})
        for (const ActionCount& action : *side)
            list.insert(list.end(), {action.done, action.hits, action.crits, action.misses,
                                     action.warded, action.dealt, action.returned});
    for (const EffectCount& effect : result.effects)
        list.insert(list.end(), {effect.uptime, effect.cut, effect.overlap});
    return list;
}

} // namespace

TEST_CASE("what an engine fought before changes nothing", "[M2]") {
    // With and without swaps, triggers and allies, in any order, by trials and by even luck:
    // bitwise as by an engine that is new.
    rc::prop("random small armouries", [] {
        const ReadArmoury result = random_read();
        const Armoury& a = result.armoury;
        Engine used(a);
        for (int bout = 0; bout < 6; ++bout) {
            const auto loadout = *rc::gen::inRange<std::size_t>(0, a.loadouts.size());
            const FightSetup setup =
                set_up_fight(a, outfit_of(a, a.loadouts[loadout], 1), EncounterId(0));
            used.prepare(setup);
            for (int fight = 0; fight < 3; ++fight) {
                Engine fresh(a);
                fresh.prepare(setup);
                const double strength = std::stod(one_of({"1", "0.5", "2"}));
                const Detail detail = maybe() ? Detail::ledger : Detail::outcome;
                const std::optional<Luck> luck =
                    maybe() ? std::optional(Luck{1, static_cast<std::uint64_t>(number(0, 5))})
                            : std::nullopt;
                RC_ASSERT(numbers_of(used.run(strength, luck, detail)) ==
                          numbers_of(fresh.run(strength, luck, detail)));
            }
        }
    });
}

TEST_CASE("who asks why changes nothing", "[M30][M61][M68]") {
    // With an inquiry every rule is looked at and every instant is lived through; without one the
    // engine passes over what can come to nothing.
    rc::prop("random small armouries", [] {
        const ReadArmoury result = random_read();
        const Armoury& a = result.armoury;
        const FightSetup setup = set_up_fight(a, outfit_of(a, a.loadouts[0], 1), EncounterId(0));
        Engine engine(a);
        engine.prepare(setup);
        const double strength = std::stod(one_of({"1", "0.5", "2"}));
        const auto asked = [&](const std::optional<Luck>& luck) {
            Inquiry inquiry;
            return numbers_of(engine.inquire(strength, luck, inquiry));
        };
        RC_ASSERT(numbers_of(engine.run(strength, Luck{1, 0})) == asked(Luck{1, 0}));
        const std::vector<double> even = numbers_of(engine.run(strength, std::nullopt));
        const std::vector<double> lived_through = asked(std::nullopt);
        constexpr double rounding = 1e-9;
        for (std::size_t i = 0; i < even.size(); ++i) {
            RC_LOG() << i << ": " << even[i] << " and " << lived_through[i] << "\n";
            RC_ASSERT(std::abs(even[i] - lived_through[i]) <=
                      rounding * (1 + std::abs(lived_through[i])));
        }
    });
}
