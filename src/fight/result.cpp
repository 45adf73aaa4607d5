#include "fight/result.h"

#include <numeric>

namespace panoplon {

void FightResult::reset(const Armoury& armoury) {
    won = timed_out = false;
    time = remainder = events = overkill = dealt_by_effects = taken_by_effects = 0;
    dealt.assign(armoury.damages.size(), 0.0);
    taken.assign(armoury.damages.size(), 0.0);
    restored.assign(armoury.pools.size(), 0.0);
    wasted.assign(armoury.pools.size(), 0.0);
    uses.assign(armoury.items.size(), {});
    actions.assign(armoury.actions.size(), {});
    effects.assign(armoury.effects.size(), {});
    left.assign(armoury.items.size(), 0.0);
    error.reset();
}

double FightResult::all_dealt() const {
    return std::accumulate(dealt.begin(), dealt.end(), dealt_by_effects);
}
double FightResult::all_taken() const {
    return std::accumulate(taken.begin(), taken.end(), taken_by_effects);
}

} // namespace panoplon
