#include "judge/search/contexts.h"

namespace panoplon {

std::vector<Context> contexts_of(const Armoury& armoury, ContextScope scope) {
    auto& [characters, encounters, levels, step] = scope;
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
    return contexts;
}

} // namespace panoplon
