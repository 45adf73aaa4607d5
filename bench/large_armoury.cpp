// Writes an armoury as large as a whole game's, to try what many machines do together: FOLDER
// [ITEMS], 5,000 when left out. Five characters, 60 levels, 20 encounters, five tiers, ten slots,
// 60 consumables. What an item spends follows its level and its tier, with some luck; numbers are
// the same in every run.
#include <array>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <random>
#include <string>

namespace {

constexpr int last_level = 60;
constexpr std::array tiers = {"plain", "tuned", "chorus", "resonant", "cathedral"};
constexpr std::array tier_budgets = {1.0, 1.15, 1.3, 1.5, 1.75};
constexpr std::array slots = {"main_hand", "off_hand", "head",  "body",   "hands",
                              "feet",      "belt",     "cloak", "collar", "charm"};
constexpr std::array callings = {"ringer", "warden", "runner", "caster", "mender"};
constexpr std::array makes = {"Reed", "Tin", "Ash", "Slate", "Wax", "Bronze", "Amber", "Salt"};
constexpr std::array things = {"clapper", "buckler", "cap",   "coat",   "gloves",
                               "boots",   "belt",    "cloak", "collar", "charm"};

struct Stat {
    const char* name;
    double cost;
};
constexpr std::array stats = {Stat{"attack", 1},   Stat{"tone", 0.6},        Stat{"guard", 0.4},
                              Stat{"dodge", 0.5},  Stat{"aim", 0.5},         Stat{"keen", 0.6},
                              Stat{"haste", 1.0},  Stat{"max_health", 0.08}, Stat{"might", 0.5},
                              Stat{"mending", 4.0}};

class Draws {
  public:
    /// From 0 to under 1.
    double share() {
        return static_cast<double>(engine_() - std::minstd_rand::min()) /
               (std::minstd_rand::max() - std::minstd_rand::min() + 1.0);
    }
    std::size_t below(std::size_t count) {
        return static_cast<std::size_t>(share() * static_cast<double>(count));
    }

  private:
    std::minstd_rand engine_{20261202};
};

double budget(int level) {
    return 6 + 1.4 * level;
}

std::string root() {
    std::string text = R"toml([armoury]
format = 1
name = "The whole marsh"
clock = "seconds"
levels = [1, 60]
[combat]
health = "health"
hit = "clamp(0.97 + (self.aim - other.dodge) / 400, 0.2, 1)"
crit = "self.keen / 300"
crit_factor = "1.5"
spread = 0.1
order = "self.haste"
time_limit = 180
[budget]
points = "6 + 1.4 * level"
tolerance = 0.35
[carry]
capacity = "18 + 0.1 * level + 0.25 * self.might"
bag = 5
limit = 1.5
[[carry.band]]
name = "Laden"
above = 1.0
percent = { attack = -15, haste = -15 }
[yardstick]
encounter = "post"
[audit]
window = 6
grace = 2
among = "tier"
step = 5
[pool.health]
max = "max_health"
regen = "self.mending"
period = 1
[damage.blunt]
mitigated = "amount * 100 / (100 + other.guard)"
[damage.tone]
mitigated = "amount * 120 / (120 + 0.5 * other.guard)"
[stat.max_health]
cost = 0.08
round = "down"
step = 1
)toml";
    for (const Stat& stat : stats)
        if (std::string(stat.name) != "max_health")
            text += fmt::format("[stat.{}]\ncost = {}\n", stat.name, stat.cost);
    for (std::size_t t = 0; t < tiers.size(); ++t)
        text += fmt::format("[tier.{}]\nrank = {}\nmark = \"{}\"\nbudget = {}\n", tiers[t], t + 1,
                            t + 1, tier_budgets[t]);
    for (const char* slot : slots) text += fmt::format("[slot.{}]\n", slot);
    for (int set = 0; set < 24; ++set)
        text += fmt::format("[set.s{0}]\nname = \"Kin {0}\"\n[[set.s{0}.step]]\ncount = 3\n"
                            "percent = {{ {1} = 6 }}\n",
                            set, stats[static_cast<std::size_t>(set) % 4].name);
    return text;
}

std::string fighters() {
    std::string text = R"toml([action.strike]
every = "1.8 / (1 + self.haste / 400)"
deals = { blunt = "self.attack" }
[action.toll]
every = "2.2 / (1 + self.haste / 400)"
cooldown = 9
deals = { tone = "1.2 * self.tone + 0.6 * self.attack" }
targets = "all"
)toml";
    for (std::size_t c = 0; c < callings.size(); ++c) {
        const auto nth = static_cast<double>(c);
        text += fmt::format("[character.{0}]\ncalling = \"{0}\"\nbase = {{ max_health = {1}, "
                            "attack = {2}, tone = {3}, guard = {4}, might = {5}, aim = 8, "
                            "keen = 5 }}\ngrowth = {{ max_health = 24, attack = 2.2, tone = {6}, "
                            "guard = 2 }}\nactions = [\"toll\", \"strike\"]\n",
                            callings[c], 300 + 25 * nth, 22 - nth, 6 + 3 * nth, 8 + 3 * nth,
                            10 + 2 * nth, 0.4 + 0.4 * nth);
    }
    for (int e = 0; e < 20; ++e) {
        const int foes = 1 + e % 3;
        text +=
            fmt::format("[foe.f{0}]\nname = \"Fog {0}\"\nbase = {{ max_health = {1:.0f}, "
                        "attack = {2:.1f}, guard = {3}, dodge = {4} }}\n"
                        "growth = {{ max_health = \"{5:.1f} * (level - 1) * (1 + 0.06 * (level - "
                        "1))\", attack = \"{6:.2f} * (level - 1) * (1 + 0.06 * (level - 1))\", "
                        "guard = 3 }}\nactions = [\"strike\"]\n",
                        e, 600.0 / foes + 8 * e, 40.0 / std::sqrt(foes), 4 + e % 9, (e * 7) % 23,
                        100.0 / foes, 7.0 / std::sqrt(foes));
        text += fmt::format("[encounter.e{0}]\nname = \"Causeway {0}\"\nweight = 1\n"
                            "foes = [ {{ foe = \"f{0}\", count = {1} }} ]\n",
                            e, foes);
    }
    text +=
        "[encounter.post]\nname = \"The post\"\nfoe_level = \"20\"\nfoes = [ { foe = \"f0\" } ]\n";
    return text;
}

std::string gear(std::size_t items) {
    Draws draws;
    std::string text = "item,name,slot,tier,level,weight,value,set,needs.calling,tags";
    for (const Stat& stat : stats) text += fmt::format(",{}", stat.name);
    text += "\n";
    for (std::size_t i = 0; i < items; ++i) {
        const std::size_t slot = i % slots.size();
        const int level = 1 + static_cast<int>(draws.share() * last_level);
        const std::size_t tier = std::min(draws.below(8), draws.below(8)) * tiers.size() / 8;
        const std::size_t make = draws.below(makes.size());
        const double points = budget(level) * tier_budgets[tier] * (0.8 + 0.4 * draws.share());
        std::array<double, stats.size()> shares = {};
        for (int part = 0; part < 3; ++part) shares[draws.below(stats.size())] += draws.share();
        double sum = 0;
        for (const double share : shares) sum += share;
        const bool in_set = draws.share() < 0.3;
        const bool for_one = draws.share() < 0.4;
        text += fmt::format("i{},{} {} {},{},{},{},{:.1f},{:.0f},{},{},{}", i, makes[make],
                            things[slot], i, slots[slot], tiers[tier], level, 1 + 4 * draws.share(),
                            5 + points, in_set ? fmt::format("s{}", draws.below(24)) : "",
                            for_one ? callings[draws.below(callings.size())] : "",
                            draws.share() < 0.5 ? "" : "old");
        for (std::size_t s = 0; s < stats.size(); ++s) {
            const double amount = points * shares[s] / sum / stats[s].cost;
            text += amount > 0.5 ? fmt::format(",{:.0f}", amount) : ",";
        }
        text += "\n";
    }
    return text;
}

std::string consumables() {
    std::string text;
    for (int i = 0; i < 60; ++i) {
        const int level = 1 + i;
        text += fmt::format("[item.draught{0}]\nname = \"Draught {0}\"\ntier = \"{1}\"\n"
                            "level = {2}\nweight = {3:.1f}\nstack = 5\nmax_stacks = 2\n",
                            i, tiers[static_cast<std::size_t>(i) % tiers.size()], level,
                            0.4 + 0.1 * (i % 7));
        if (i % 3 == 0)
            text += fmt::format("use = {{ effect = \"brew{}\", duration = 20, cooldown = 25, "
                                "group = \"brew\" }}\n[effect.brew{}]\npercent = {{ {} = {} }}\n",
                                i, i, stats[static_cast<std::size_t>(i) % 4].name, 6 + i % 5);
        else
            text += fmt::format("use = {{ restore = {{ health = {} }}, cooldown = 12, group = "
                                "\"draught\" }}\n",
                                60 + 14 * level);
    }
    return text;
}

} // namespace

int main(int count, char** words) {
    if (count < 2) {
        fmt::print("usage: panoplon_large FOLDER [ITEMS]\n");
        return 2;
    }
    const std::filesystem::path folder = words[1];
    const std::size_t items = count > 2 ? std::strtoull(words[2], nullptr, 10) : 5000;
    std::filesystem::create_directories(folder);
    const auto write = [&](const char* name, const std::string& text) {
        std::ofstream(folder / name) << text;
    };
    write("armoury.toml", root());
    write("fighters.toml", fighters());
    write("gear.csv", gear(items));
    write("consumables.toml", consumables());
    return 0;
}
