#include "fight/arena.h"

#include "outfit/load.h"

namespace panoplon {

double Arena::load_share(const Actor& actor) const {
    if (!actor.setup->carries) return 0;
    return weigh(armoury_.carry, 0, actor.setup->worn + actor.pack_weight, actor.derived->capacity)
        .share;
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
    moment.band = actors_.front().derived->band;
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
