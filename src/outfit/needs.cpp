#include "outfit/needs.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

bool is_among(const Armoury& armoury, const Only& only, CharacterId character) {
    const auto holds = [](const auto& list, const auto& wanted) {
        return list.empty() || std::find(list.begin(), list.end(), wanted) != list.end();
    };
    return holds(only.callings, armoury.at(character).calling) && holds(only.characters, character);
}

std::string only_words(const Armoury& armoury, const Only& only) {
    std::vector<std::string> words = only.callings;
    for (const CharacterId character : only.characters) words.push_back(armoury.at(character).id);
    return join(words, " or ");
}

std::vector<std::string> unmet_needs(const Armoury& armoury, const Item& item,
                                     CharacterId character, int level,
                                     std::span<const double> naked) {
    const Character& who = armoury.at(character);
    std::vector<std::string> reasons;
    if (item.wear_level() > level)
        reasons.push_back(
            fmt::format("it is for level {}; {} is level {}", item.wear_level(), who.name, level));
    if (!is_among(armoury, item.needs, character))
        reasons.push_back(fmt::format("it is for {} only; {} is {}",
                                      only_words(armoury, item.needs), who.name,
                                      who.calling.empty() ? "of no calling" : who.calling));
    for (const Amount& need : item.needs.stats)
        if (naked[need.stat.index()] < need.amount)
            reasons.push_back(fmt::format("it needs {} {}; {} has {} with nothing worn at level {}",
                                          rounded(need.amount), armoury.at(need.stat).id, who.name,
                                          rounded(naked[need.stat.index()]), level));
    return reasons;
}

bool meets_needs(const Armoury& armoury, const Item& item, CharacterId character, int level,
                 std::span<const double> naked) {
    return item.wear_level() <= level && is_among(armoury, item.needs, character) &&
           std::all_of(item.needs.stats.begin(), item.needs.stats.end(),
                       [&](const Amount& need) { return naked[need.stat.index()] >= need.amount; });
}

namespace {

std::string stat_words(const Armoury& armoury, double amount, StatId stat) {
    return fmt::format("{} {}", rounded(amount), armoury.at(stat).id);
}

std::string needed_stats(const Armoury& armoury, const Item& item) {
    std::vector<std::string> words;
    for (const Amount& need : item.needs.stats)
        words.push_back(stat_words(armoury, need.amount, need.stat));
    return join(words, " and ");
}

/// What there is of those needed stats of which there is too little; empty: enough of all.
std::string lacking_stats(const Armoury& armoury, const Item& item,
                          const std::vector<double>& naked) {
    std::vector<std::string> words;
    for (const Amount& need : item.needs.stats)
        if (naked[need.stat.index()] < need.amount)
            words.push_back(stat_words(armoury, naked[need.stat.index()], need.stat));
    return join(words, " and ");
}

} // namespace

std::string why_never(const Armoury& armoury, const Item& item,
                      const std::vector<std::vector<double>>& naked) {
    if ((!item.worn() && !item.consumed()) || naked.empty()) return {};
    if (item.wear_level() > armoury.levels.last)
        return fmt::format("it is for level {}; the armoury ends at {}", item.wear_level(),
                           armoury.levels.last);
    std::vector<std::size_t> meant;
    for (std::size_t c = 0; c < naked.size(); ++c)
        if (is_among(armoury, item.needs, CharacterId(c))) meant.push_back(c);
    if (meant.empty())
        return fmt::format("it is for {} only, and nobody is", only_words(armoury, item.needs));
    std::vector<std::string> why;
    for (const std::size_t c : meant) {
        const std::string lacks = lacking_stats(armoury, item, naked[c]);
        if (lacks.empty()) return {};
        why.push_back(fmt::format("{} has {}", armoury.characters[c].name, lacks));
    }
    return fmt::format("it needs {}; with nothing worn and every upgrade at level {}, {}",
                       needed_stats(armoury, item), armoury.levels.last, join(why, ", "));
}

bool stats_are_needed(const Armoury& armoury) {
    return std::any_of(armoury.items.begin(), armoury.items.end(),
                       [](const Item& item) { return !item.needs.stats.empty(); });
}

} // namespace panoplon
