#include "support/truth.h"

#include <cmath>
#include <fmt/format.h>
#include <random>

namespace panoplon::test {

const std::vector<TruthKind>& truth_kinds() {
    static const std::vector<TruthKind> kinds = {
        {"no limit", false, false, false, false, false, false, 6},
        {"a hard limit", true, false, false, false, false, false, 6},
        {"load bands", false, true, false, false, false, false, 6},
        {"a bag", false, false, true, false, false, false, 4},
        {"two rings, two hands", false, true, false, true, true, false, 4},
        {"sets", true, false, false, false, false, true, 6},
        {"all at once", true, true, true, true, true, true, 2},
    };
    return kinds;
}

namespace {

class Draws {
  public:
    explicit Draws(std::uint32_t seed) : engine_(seed) {}
    int whole(int low, int high) { return std::uniform_int_distribution<int>(low, high)(engine_); }
    double number(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(engine_);
    }

  private:
    std::mt19937 engine_;
};

} // namespace

std::string truth_armoury(const TruthKind& kind, std::uint32_t seed) {
    Draws draws(seed);
    std::string text = R"TOML(
[armoury]
format = 1
name = "Truth"
levels = [1, 1]
[stat.max_health]
[stat.attack]
[stat.guard]
[stat.strength]
[pool.health]
max = "max_health"
[damage.blow]
mitigated = "amount * 100 / (100 + other.guard)"
[combat]
health = "health"
time_limit = 1000
[action.strike]
every = "0.1"
deals = { blow = "self.attack * 0.1" }
[character.hero]
base = { max_health = 300, attack = 20, guard = 10, strength = 40 }
actions = ["strike"]
[foe.brute]
base = { max_health = 900, attack = 25, guard = 5 }
actions = ["strike"]
[encounter.brawl]
foes = [ { foe = "brute" } ]
[slot.head]
[slot.body]
[slot.main]
[slot.off]
)TOML";
    if (kind.rings) text += "[slot.ring]\ncount = 2\n";
    if (kind.limit || kind.bands) text += "[carry]\ncapacity = \"self.strength\"\n";
    if (kind.bag)
        text += kind.limit || kind.bands ? "bag = 2\n" : "[carry]\nbag = 2\ncapacity = \"10000\"\n";
    if (kind.limit) text += "limit = 1.0\n";
    if (kind.bands)
        text += "[[carry.band]]\nname = \"laden\"\nfrom = 0.5\ntimes = { attack = 0.9 }\n"
                "[[carry.band]]\nname = \"heavy\"\nabove = 0.8\ntimes = { attack = 0.75, guard = "
                "0.8 }\n";
    if (kind.sets)
        text += "[set.iron]\n[[set.iron.step]]\ncount = 2\nadd = { attack = 6 }\n"
                "[[set.iron.step]]\ncount = 3\nadd = { guard = 20 }\n";
    std::vector<std::string> slots = {"head", "body", "main", "off"};
    if (kind.rings) slots.emplace_back("ring");
    for (const std::string& slot : slots)
        for (int i = 0; i < kind.items; ++i) {
            const int size = draws.whole(2, 14);
            text +=
                fmt::format("[item.{}_{}]\nslot = \"{}\"\nweight = {}\nadd = {{ attack = {}, guard "
                            "= {}, max_health = {} }}\n",
                            slot, i, slot, size + draws.whole(0, 6), draws.whole(0, size),
                            draws.whole(0, 2 * size), draws.whole(0, 8 * size));
            if (kind.sets && i < 2 && slot != "off") text += "set = \"iron\"\n";
        }
    if (kind.hands)
        for (int i = 0; i < 3; ++i) {
            const int size = draws.whole(8, 24);
            text += fmt::format("[item.great_{}]\nslot = \"main\"\ntakes = [\"main\", \"off\"]\n"
                                "weight = {}\nadd = {{ attack = {} }}\n",
                                i, size, size);
        }
    if (kind.bag)
        for (int i = 0; i < 3; ++i)
            text +=
                fmt::format("[item.draught_{}]\nweight = {}\nstack = 2\nuse = {{ restore = {{ "
                            "health = {} }}, cooldown = {}, group = \"g{}\" }}\n",
                            i, draws.whole(1, 5), draws.whole(30, 120), draws.whole(3, 9), i / 2);
    return text;
}

/// The four answers for every item of a context.
std::vector<double> truth_answers(Search& search) {
    std::vector<double> answers;
    const auto add = [&](const panoplon::Found& found) {
        answers.push_back(found.any ? std::log(found.margin.value) : -HUGE_VAL);
    };
    search.enter({CharacterId(0), 1, EncounterId(0)});
    if (!search.find_best()) return answers;
    for (const ItemId item : search.wearable()) search.find_for(item);
    for (const ItemId item : search.usable()) search.find_for(item);
    search.settle();
    add(search.best());
    for (const ItemId item : search.wearable()) {
        add(search.with(item));
        add(search.without(item));
        add(search.empty(search.one_place_of(item)));
    }
    for (const ItemId item : search.usable()) {
        add(search.with(item));
        add(search.without(item));
        add(search.without_group(item));
    }
    return answers;
}

} // namespace panoplon::test
