// Whether weight or the bag keeps what was found from something better.
#include "judge/search/picture.h"

#include "outfit/refusals.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// Better by this share counts: above the precision of a margin.
constexpr double better_by = 1e-3;

} // namespace

std::int64_t Search::bag_of(const Outfit& outfit) const {
    return limits_.endless_bag ? unlimited : bag_size(armoury_, outfit);
}

/// How full it is: of the weight up to the next edge or the limit, and of the bag.
void Search::measure_fullness(const Found& of, Limiting& limiting) {
    const Outfit outfit = outfit_of(of.candidate);
    limiting.bag = bag_of(outfit);
    limiting.stacks = pack_stacks(armoury_, outfit);
    if (!armoury_.carry.capacity.given()) return;
    const Load load = outfit_load(engine_.deriver(), outfit);
    limiting.load_share = load.share;
    limiting.edge = upper_edge(load.band);
}

/// Under a load band an outfit may itself do better without one. And what a single exchange leads
/// to is looked at where it is not legal, or under another load band, for its weight or its stacks
/// alone: one fight, as if it weighed what that weighs, tells whether it would be better. As soon
/// as one is, the limit is known to bind.
void Search::try_past_limits(const Found& of, Limiting& limiting) {
    const int own_band = look_at(of.candidate).band;
    const double better = of.margin.value * (1 + better_by);
    if (own_band != no_band)
        limiting.weight_binds = held_remainder(of.candidate, {0, {}}, better) > 0;
    const Held held{limiting.load_share, {}};
    const Condition all;
    for (const Exchange& exchange : exchanges(of.candidate, all)) {
        if (ended() || (limiting.lacks_room && limiting.bag_binds)) return;
        const Candidate candidate = after(of.candidate, exchange);
        if (!meets(candidate, all) || !wardrobe_.goes_together(candidate)) continue;
        const Outfit outfit = outfit_of(candidate);
        if (limits_.value && value_of(armoury_, outfit) > *limits_.value) continue;
        const bool too_many = pack_stacks(armoury_, outfit) > bag_of(outfit);
        if (!look_at(candidate).fits && !too_many) continue; // over what a thing may have of stacks
        const Load load = outfit_load(engine_.deriver(), outfit);
        const bool too_heavy = load.over_limit || load.band > own_band;
        if (too_many == too_heavy) continue; // both, or neither
        bool& binds = too_many ? limiting.bag_binds : limiting.lacks_room;
        if (!binds) binds = held_remainder(candidate, held, better) > 0;
    }
}

/// Where a full bag does not bind by single exchanges, another stack may be too heavy beside what
/// is worn: then a search with a bag without end tells.
bool Search::is_better_with_endless_bag(const Found& than) const {
    Search other(armoury_, groups_, {{}, stop_});
    other.most_tried_ = most_tried_;
    other.limits_ = limits_;
    other.limits_.endless_bag = true;
    other.enter(context_);
    return other.find_best() && other.best_.margin.value > than.margin.value * (1 + better_by);
}

Search::Limiting Search::limits_of(const Found& found) {
    Limiting limiting;
    if (ended() || !found.any || found.margin.reach != Reach::within) return limiting;
    measure_fullness(found, limiting);
    try_past_limits(found, limiting);
    limiting.weight_binds = limiting.weight_binds || limiting.lacks_room;
    if (!limiting.bag_binds && limiting.bag != unlimited && limiting.stacks >= limiting.bag)
        limiting.bag_binds = is_better_with_endless_bag(found);
    limiting.lacks_room = limiting.lacks_room || limiting.bag_binds;
    return limiting;
}

} // namespace panoplon
