#include "fight/telling.h"

#include "fight/states.h"
#include "outfit/load.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon::fighting {

namespace {

double load_share(const Field& f, const Actor& actor) {
    if (!actor.setup->carries) return 0;
    return weigh(f.rules.armoury.carry, 0, actor.setup->worn + actor.pack.weight,
                 actor.derived->capacity)
        .share;
}

} // namespace

void tell(Field& f, const Actor& actor, const char* event, std::string_view source,
          std::string_view target, double amount, double pool_after, std::string_view note) {
    f.watch.timeline->events.push_back({to_units(f.now), actor.ours ? "character" : "foes",
                                        actor.setup->name, event, std::string(source),
                                        std::string(target), amount, pool_after,
                                        load_share(f, actor), std::string(note)});
}

void tell_restored(Field& f, const Actor& actor, std::size_t pool, double restored, double wasted,
                   const std::string& source) {
    tell(f, actor, "restores", source, f.rules.armoury.pools[pool].id, restored, actor.pools[pool],
         wasted > 0 ? fmt::format("{:.2f} wasted", wasted) : "");
}

void tell_application(Field& f, const Actor& target, EffectId id, bool running, Ticks duration,
                      const std::string& source) {
    tell(f, target, running ? "effect_again" : "effect", f.rules.armoury.at(id).id,
         target.setup->name, to_units(std::min(duration, f.rules.armoury.combat.time_limit)),
         health(f, target), source);
}

void sample(Field& f) {
    PoolSample moment;
    moment.time = to_units(f.now);
    moment.band = f.cast.actors.front().derived->band;
    for (const Actor& actor : f.cast.actors) {
        std::vector<double> shares;
        if (actor.life.present)
            for (std::size_t p = 0; p < f.rules.pools; ++p)
                shares.push_back(actor.ceilings[p] > 0 ? actor.pools[p] / actor.ceilings[p] : 0);
        moment.shares.push_back(std::move(shares));
    }
    f.watch.timeline->samples.push_back(std::move(moment));
}

} // namespace panoplon::fighting
