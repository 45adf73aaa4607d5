#include "support/generated.h"

#include <array>
#include <fmt/format.h>
#include <vector>

namespace panoplon::test {

namespace {

/// What all of them have: words, tiers, slots.
std::string root(Game game) {
    std::string text = fmt::format(
        "[armoury]\nformat = 1\nname = \"Generated\"\nlevels = [1, 20]\n[combat]\nhealth = "
        "\"health\"\nhit = \"clamp(0.9 - other.dodge / 300, 0, 1)\"\ncrit = \"self.keen / 300\"\n"
        "crit_on = \"{}\"\nreturned = \"self.thorns / 200\"\nspread = 0.1\norder = \"self.haste\"\n"
        "time_limit = 90\n",
        game == Game::loot ? "raw" : "mitigated");
    for (const char* stat :
         {"attack", "guard", "haste", "keen", "dodge", "thorns", "resolve", "plating", "reach"})
        text += fmt::format("[stat.{}]\ncost = 0.5\nmin = -99\n", stat);
    text +=
        "[stat.might]\n[stat.max_health]\ncost = 0.1\nmin = 1\n[stat.max_focus]\n[pool.health]\n"
        "max = \"max_health\"\nregen = \"0.2\"\n[pool.focus]\nmax = \"max_focus\"\nregen = "
        "\"1\"\nshields = \"self.plating / 300\"\n[damage.cut]\nmitigated = \"amount * 80 / (80 + "
        "other.guard)\"\n[damage.frost]\nmitigated = \"amount * 60 / (60 + other.resolve)\"\n";
    int rank = 0;
    for (const char* tier : {"worn", "good", "rare", "lost"}) {
        ++rank;
        text +=
            fmt::format("[tier.{}]\nrank = {}\nbudget = {}\ndrop_weight = {}\nstat_factor = {}\n",
                        tier, rank, 0.8 + 0.2 * rank, 40 / rank, 0.9 + 0.1 * rank);
    }
    for (const char* slot : {"hand", "off_hand", "head", "body", "feet", "neck"})
        text += fmt::format("[slot.{}]\n", slot);
    text += "[slot.ring]\ncount = 2\n[slot.gem]\nsocket = true\n[budget]\npoints = \"5 + 2 * "
            "level\"\ntolerance = 9\n";
    text += "[carry]\ncapacity = \"30 + self.might\"\nbag = 6\nlimit = 1.5\n[[carry.band]]\nname = "
            "\"Laden\"\nfrom = 0.6\nto = 1.2\nstep = 0.2\npercent = { haste = -30 }\n";
    return text;
}

std::string effects_and_actions() {
    return "[effect.venom]\ntags = [\"poison\"]\nper_time = { health = \"-0.1 * other.attack\" }\n"
           "again = \"pile\"\npile_max = 3\n[effect.numb]\nstops = [\"actions\", \"uses\"]\nagain "
           "= "
           "\"keep\"\nthen = { effect = \"steady\", duration = 5 }\n[effect.steady]\nimmune = "
           "[\"numb\"]\n[effect.jeer]\ntaunts = true\n[effect.shell]\nabsorbs = \"5 * "
           "self.resolve\"\n[effect.rage]\nremoves = [\"poison\"]\npercent = { attack = 15 }\nthen "
           "= "
           "{ effect = \"weary\", duration = 4 }\n[effect.weary]\npercent = { haste = -15 }\n"
           "[action.cut]\nevery = \"1.6 / (1 + self.haste / 200)\"\ndeals = { cut = "
           "\"self.attack\" }\ndeals_up_to = { cut = \"1.3 * self.attack + self.reach\" }\n"
           "[action.shoot]\nevery = 1.3\nneeds_worn = [\"bow\"]\nspends = { arrow = 1 }\nhit = "
           "\"0.95\"\ndeals = { cut = \"1.4 * self.attack\" }\napplies = { effect = \"venom\", "
           "chance "
           "= \"clamp(0.3 - other.resolve / 200, 0, 1)\", duration = 5 }\n[action.bash]\nevery = "
           "2\ncooldown = 6\ncost = { focus = \"0.2 * self.max_focus\" }\ndeals = { frost = \"1.5 "
           "* "
           "self.attack\" }\napplies = { effect = \"numb\", chance = 0.5, duration = 1.2 }\n"
           "applies_also = [ { effect = \"rage\", chance = 0.2, duration = 4, to = \"self\" } ]\n"
           "[action.mend]\nevery = 2\ncooldown = 9\nwhen = \"self.health_share < 0.5\"\nrestores = "
           "{ "
           "health = \"0.1 * self.max_health\" }\n[action.whistle]\nevery = 1\ncooldown = 15\n"
           "summons = { foe = \"dog\", most = 1, duration = 8 }\n[action.burst]\nevery = "
           "1\ntargets = "
           "\"all\"\ndeals = { frost = \"10 + 3 * level\" }\n[action.gnaw]\nevery = 1.2\nweight = "
           "2\ndeals = { cut = \"self.attack\" }\n[action.leap]\nevery = 2\nweight = 1\ncooldown = "
           "4\ndeals = { cut = \"1.5 * self.attack\" }\napplies = { effect = \"numb\", chance = "
           "0.2, "
           "duration = 1 }\n";
}

/// One item of a slot, at a level, of a tier; what it adds follows its number.
std::string gear(Game game, const char* slot, int n) {
    static const std::vector<const char*> tiers = {"worn", "good", "rare", "lost"};
    static const std::vector<const char*> stats = {"guard",   "keen",    "haste",      "dodge",
                                                   "thorns",  "resolve", "max_health", "attack",
                                                   "plating", "might"};
    const int level = 1 + n * 19 / 60;
    const auto stat = [&](int shift) { return stats[static_cast<std::size_t>(n + shift) % 10]; };
    std::string text =
        fmt::format("[item.{0}_{1}]\nslot = \"{0}\"\ntier = \"{2}\"\nlevel = {3}\nweight = "
                    "{4}\nvalue = {5}\nadd "
                    "= {{ {6} = {7}, {8} = {9} }}\n",
                    slot, n, tiers[static_cast<std::size_t>(n * 7 % 10 / 3)], level, 0.5 + n % 5,
                    5 + 3 * level, stat(0), 2 + level / 2 + n % 3, stat(3), 1 + level / 3);
    const bool hand = slot == std::string("hand");
    if (hand) text += fmt::format("percent = {{ attack = {} }}\n", 4 + level / 2 + n % 4);
    if (game == Game::loot && n % 2 == 0)
        text += fmt::format("add_up_to = {{ {} = {} }}\n", stat(0), 6 + level);
    if (game == Game::loot && n % 3 == 0) text += "affixes = [\"front\", \"behind\"]\n";
    if (game == Game::survival) text += fmt::format("lasts = {}\n", 20 + n);
    if (game == Game::survival && n % 4 == 2)
        text += "grows = { kills = 5, most = 4, add = { guard = 1 } }\n";
    if (n % 15 == 14) text += "cursed = true\n";
    if (hand && n % 4 == 1) text += "tags = [\"bow\"]\nactions = [\"shoot\"]\n";
    if (hand && n % 4 == 2) text += "takes = [\"off_hand\"]\nactions = [\"bash\"]\n";
    if (n % 9 == 3) text += "sockets = [\"gem\"]\n";
    if (n % 11 == 5) text += fmt::format("set = \"kit_{}\"\n", level / 7);
    if (n % 13 == 6)
        text += "trigger = [ { on = \"hurt\", effect = \"shell\", duration = 3, chance = "
                "\"self.resolve / 300\", cooldown = 8 } ]\n";
    if (slot == std::string("neck") && n % 5 == 0)
        text += fmt::format("actions = [\"{}\"]\n", n % 10 == 0 ? "whistle" : "mend");
    return text;
}

std::string consumables() {
    std::string text = "[item.arrow]\nstack = 20\nweight = 0.05\nvalue = 1\n";
    for (int n = 0; n < 12; ++n)
        text += fmt::format(
            "[item.draught_{0}]\nlevel = {1}\nstack = 3\nweight = 0.5\nvalue = {2}\nuse = {{ "
            "restore "
            "= {{ health = \"{3} + 0.1 * other.max_health\" }}, cooldown = 6, group = \"draught\", "
            "takes = \"1 - self.haste / 400\" }}\n",
            n, 1 + n * 19 / 12, 4 + n, 10 + 6 * n);
    return text + "[item.antidote]\nstack = 2\nvalue = 5\nuse = { removes = [\"poison\"], when = "
                  "\"self.venom_copies >= 2\", cooldown = 4 }\n[item.fire_pot]\nstack = 2\nweight "
                  "= 1\nvalue "
                  "= 9\nuse = { does = \"burst\", cooldown = 8, takes = 0.5 "
                  "}\n[item.berserk_brew]\nstack = "
                  "2\nvalue = 7\nuse = { effect = \"rage\", duration = 8, cooldown = 15 }\n";
}

std::string fighters() {
    return "[upgrade.strength]\npoints = 1\nmax = 60\nadd = { attack = 0.4 "
           "}\n[upgrade.body]\npoints "
           "= 1\nmax = 60\nadd = { max_health = 4 }\n[upgrade.scar]\nmax = 5\ncost = \"200 * "
           "(bought "
           "+ 1)\"\nadd = { resolve = 2 }\n[character.scout]\npoints = \"2 * level\"\nbase = { "
           "max_health = 120, attack = 9, guard = 5, max_focus = 20, might = 4 }\ngrowth = { "
           "max_health = 9, attack = 0.8, guard = 0.6 }\nactions = [\"cut\"]\n[foe.dog]\nbase = { "
           "max_health = 30, attack = 4 }\ngrowth = { max_health = 4, attack = 0.5 }\nactions = "
           "[\"gnaw\"]\ntrigger = [ { on = \"start\", effect = \"jeer\", duration = \"always\" } "
           "]\n"
           "[foe.ghoul]\nbase = { max_health = 55, attack = 6, guard = 4, thorns = 2 }\ngrowth = { "
           "max_health = 8, attack = 0.7 }\nactions = [\"leap\", \"gnaw\"]\nchooses = \"by "
           "weight\"\n"
           "drops = \"of_ghoul\"\n[encounter.pack]\nfoes = [ { foe = \"ghoul\", count = 1, up_to = "
           "3 "
           "} ]\n[encounter.lair]\nfoes = [ { foe = \"ghoul\", count = 2 }, { foe = \"ghoul\", at "
           "= 8 "
           "} ]\n[encounter.post]\nfoe_level = \"6\"\nfoes = [ { foe = \"ghoul\" } ]\n[yardstick]\n"
           "encounter = \"post\"\n[drops.of_ghoul]\nrolls = 0.3\nitems = [\"arrow\", "
           "\"draught_0\", "
           "\"hand_3\"]\nweights = { arrow = 6, draught_0 = 3 }\ncount = { arrow = 5 "
           "}\n[drops.all]\n"
           "rolls = 0.5\nitems = { level_band = 3 }\n[loadout.archer]\ncharacter = \"scout\"\nworn "
           "= "
           "{ hand = \"hand_1\", body = \"body_0\", neck = \"neck_0\" }\npack = { arrow = 40, "
           "draught_0 = 3 }\npoints = { strength = 2, body = 1 }\nactions = [\"whistle\", "
           "\"shoot\", "
           "\"cut\"]\n[loadout.brute]\ncharacter = \"scout\"\nworn = { hand = \"hand_2\", head = "
           "\"head_1\" }\npack = { antidote = 1, fire_pot = 2 }\npoints = { body = 1 }\n"
           "[journey.way]\ncharacter = \"scout\"\nstart = \"archer\"\ncoin = 50\ncarries_over = "
           "[\"health\"]\nstage = [ { encounter = \"pack\", wins = 3, drops = \"all\", coin = 6, "
           "level_gain = 2, gains = { scar = 1 } }, { encounter = \"pack\", wins = 3, drops = "
           "\"all\", rest = true, stock = { draught_1 = 4, arrow = 40, body_5 = 1 }, price = 1.1, "
           "pays = 0.3, mends = 0.2, gives = { neck_5 = 1 } } ]\n";
}

std::string affixes() {
    std::string text;
    for (int n = 0; n < 24; ++n)
        text +=
            fmt::format("[affix.{0}_{1}]\ntags = [\"{0}\"]\nlevel = {2}\nweight = {3}\nadd = {{ "
                        "{4} = {5} }}\n",
                        n % 2 == 0 ? "front" : "behind", n, n < 4 ? 1 : n * 19 / 24, 30 - n,
                        n % 3 == 0   ? "attack"
                        : n % 3 == 1 ? "guard"
                                     : "max_health",
                        1 + n / 3);
    return text;
}

} // namespace

std::string generated_armoury(Game game) {
    std::string text = root(game) + effects_and_actions();
    if (game == Game::loot) text += affixes();
    for (int k = 0; k < 3; ++k)
        text += fmt::format("[[set.kit_{0}.step]]\ncount = 2\nadd = {{ guard = {1} }}\n"
                            "[[set.kit_{0}.step]]\ncount = 4\npercent = {{ attack = 5 }}\n",
                            k, 3 + 2 * k);
    for (const char* slot : {"hand", "off_hand", "head", "body", "feet", "neck", "ring"})
        for (int n = 0; n < 60; ++n) text += gear(game, slot, n);
    for (int n = 0; n < 60; ++n)
        text +=
            fmt::format("[item.gem_{0}]\nslot = \"gem\"\ntier = \"good\"\nlevel = {1}\nadd = {{ "
                        "{2} = {3} }}\n",
                        n, 1 + n / 3, n % 2 == 0 ? "keen" : "guard", 1 + n / 6);
    return text + consumables() + fighters();
}

} // namespace panoplon::test
