#include "fight/arena.h"

#include "outfit/load.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

double Arena::load_share(const Actor& actor) const {
    if (!actor.setup->carries) return 0;
    return weigh(armoury_.carry, 0, actor.setup->worn + actor.pack_weight, actor.derived->capacity)
        .share;
}

void Arena::tell(const Actor& actor, const char* event, std::string_view source,
                 std::string_view target, double amount, double pool_after, std::string_view note) {
    timeline_->events.push_back({to_units(now_), actor.ours ? "character" : "foes",
                                 actor.setup->name, event, std::string(source), std::string(target),
                                 amount, pool_after, load_share(actor), std::string(note)});
}

void Arena::tell_restored(const Actor& actor, std::size_t pool, double restored, double wasted,
                          const std::string& source) {
    tell(actor, "restores", source, armoury_.pools[pool].id, restored, actor.pools[pool],
         wasted > 0 ? fmt::format("{:.2f} wasted", wasted) : "");
}

void Arena::tell_application(const Actor& target, EffectId id, bool running, Ticks duration,
                             const std::string& source) {
    tell(target, running ? "effect_again" : "effect", armoury_.at(id).id, target.setup->name,
         to_units(std::min(duration, armoury_.combat.time_limit)), health(target), source);
}

void Arena::sample() {
    PoolSample moment;
    moment.time = to_units(now_);
    moment.band = actors_.front().derived->band;
    for (const Actor& actor : actors_) {
        std::vector<double> shares;
        if (actor.present)
            for (std::size_t p = 0; p < pools_; ++p)
                shares.push_back(actor.ceilings[p] > 0 ? actor.pools[p] / actor.ceilings[p] : 0);
        moment.shares.push_back(std::move(shares));
    }
    timeline_->samples.push_back(std::move(moment));
}

} // namespace panoplon
