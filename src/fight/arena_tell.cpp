#include "fight/arena.h"

#include "outfit/load.h"

namespace panoplon {

double Arena::load_share(const Actor& actor) {
    if (!actor.setup->carries) return 0;
    std::vector<double> stats(armoury_.stats.size());
    StatSums sums = actor.setup->sums;
    for (const EffectState& effect : actor.effects) sums.include(armoury_.at(effect.id).modifiers);
    deriver_.derive(actor.setup->base, sums, actor.setup->level, stats);
    const double capacity = deriver_.capacity(stats, actor.setup->level);
    return weigh(armoury_.carry, 0, actor.setup->worn + actor.pack_weight, capacity).share;
}

void Arena::tell(const Actor& actor, const char* event, const std::string& source,
                 const std::string& target, double amount, double pool_after, std::string note) {
    timeline_->events.push_back({to_units(now_),
                                 actor.setup->side == Side::character ? "character" : "foes",
                                 actor.setup->name, event, source, target, amount, pool_after,
                                 load_share(actor), std::move(note)});
}

void Arena::sample() {
    PoolSample moment;
    moment.time = to_units(now_);
    moment.band = actors_.front().band;
    for (const Actor& actor : actors_) {
        std::vector<double> shares;
        if (actor.present)
            for (std::size_t p = 0; p < actor.pools.size(); ++p)
                shares.push_back(actor.ceilings[p] > 0 ? actor.pools[p] / actor.ceilings[p] : 0);
        moment.shares.push_back(std::move(shares));
    }
    timeline_->samples.push_back(std::move(moment));
}

} // namespace panoplon
