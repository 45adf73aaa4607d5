#include "judge/search/contexts.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace panoplon {

namespace {

/// Steps of about the golden section, round and round: each new one falls into a wide gap of those
/// before, so that no level or encounter is left out for long.
std::vector<Context> spread_over(const std::vector<Context>& all, std::size_t wanted) {
    constexpr double golden_section = 0.618033988749895;
    auto step =
        static_cast<std::size_t>(std::lround(golden_section * static_cast<double>(all.size())));
    while (std::gcd(std::max<std::size_t>(step, 1), all.size()) != 1) ++step;
    std::vector<std::size_t> picks;
    for (std::size_t i = 0; i < wanted; ++i) picks.push_back((i + 1) * step % all.size());
    std::sort(picks.begin(), picks.end());
    std::vector<Context> some;
    for (const std::size_t pick : picks) some.push_back(all[pick]);
    return some;
}

} // namespace

std::vector<Context> contexts_of(const Armoury& armoury, ContextScope scope) {
    auto& [characters, encounters, levels, step, sample] = scope;
    if (characters.empty())
        for (std::size_t i = 0; i < armoury.characters.size(); ++i) characters.emplace_back(i);
    if (encounters.empty())
        for (std::size_t i = 0; i < armoury.encounters.size(); ++i)
            if (armoury.encounters[i].weight > 0 && EncounterId(i) != armoury.yardstick)
                encounters.emplace_back(i);
    std::vector<Context> contexts;
    for (const CharacterId character : characters)
        for (const EncounterId encounter : encounters)
            for (int level = levels.first; level <= levels.last; level += step)
                if (armoury.at(encounter).levels.holds(level))
                    contexts.push_back({character, level, encounter});
    return sample == 0 || sample >= contexts.size() ? contexts : spread_over(contexts, sample);
}

} // namespace panoplon
