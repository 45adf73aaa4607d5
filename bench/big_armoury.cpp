#include "bench/big_armoury.h"

#include "chance/draws.h"
#include "demo/files.h"

#include <fmt/format.h>

namespace panoplon::bench {

namespace {

constexpr const char* slots[] = {"hand", "body", "head", "feet", "belt", "ring"};
constexpr const char* stats[] = {"attack", "guard", "keen", "max_health",
                                 "might",  "reach", "calm", "sight"};
constexpr int tiers = 5;

std::string vocabulary() {
    std::string text;
    for (std::size_t i = 2; i < std::size(slots); ++i) text += fmt::format("[slot.{}]\n", slots[i]);
    for (std::size_t i = 5; i < std::size(stats); ++i) text += fmt::format("[stat.{}]\n", stats[i]);
    for (int tier = 2; tier < tiers; ++tier)
        text +=
            fmt::format("[tier.t{}]\nrank = {}\nbudget = {}\n", tier, tier + 1, 1.3 + 0.3 * tier);
    for (int set = 0; set < 50; ++set)
        text += fmt::format("[set.s{}]\n[[set.s{}.step]]\ncount = 2\nadd = {{ guard = 1 }}\n", set,
                            set);
    return text;
}

std::string table(std::size_t items) {
    std::string text = "item,name,slot,tier,level,weight,value,set,tags,attack,guard,keen,"
                       "max_health,might,reach,calm,sight\n";
    for (std::size_t i = 0; i < items; ++i) {
        const BlowDraws one = blow_draws({1, i}, 0, 0);
        const BlowDraws two = blow_draws({1, i}, 0, 1);
        const auto tier = static_cast<int>(one.hit * tiers);
        text += fmt::format("i{},Item {},{},{},{},{:.1f},{},s{},tag{}", i, i,
                            slots[i % std::size(slots)],
                            tier == 0   ? "plain"
                            : tier == 1 ? "fine"
                                        : fmt::format("t{}", tier),
                            1 + i % 10, 1 + 5 * one.crit, 5 + i % 90, i % 50, i % 20);
        for (std::size_t s = 0; s < std::size(stats); ++s)
            text += (i + s) % 3 == 0
                        ? std::string(",")
                        : fmt::format(",{}", static_cast<int>(20 * (s % 2 ? two.hit : two.crit)) +
                                                 static_cast<int>(s));
        text += "\n";
    }
    return text;
}

} // namespace

Sources big_armoury(std::size_t items) {
    Sources sources;
    for (const EmbeddedFile& file : starter_files())
        sources.add(std::string(file.path), std::string(file.text));
    sources.add("vocabulary.toml", vocabulary());
    sources.add("big.csv", table(items));
    return sources;
}

} // namespace panoplon::bench
