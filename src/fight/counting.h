// What the ledger counts of a fight (M91). Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// Names what happened most: it is what repeats.
[[noreturn]] void too_many_events(const Field& f);
inline void count_event(Field& f) {
    if (++f.clock.events > f.rules.event_limit) too_many_events(f);
}
/// Where nobody reads the ledger, what is counted goes where nobody looks: it is not even cleared.
void begin_counting(Field& f, const LedgerShape& shape);
/// Where the ledger counts what the actor does.
void find_counts(Field& f, Actor& actor);
/// Whose uses and pack the ledger tells of: allies have their own.
[[nodiscard]] inline bool is_character(const Actor& actor) {
    return actor.index == 0;
}
[[nodiscard]] inline Origin origin_of(const Field& f, ActionId id) {
    return {Origin::Kind::action, id.index(), f.rules.armoury.at(id).id};
}
[[nodiscard]] inline Origin origin_of(const Field& f, EffectId id) {
    return {Origin::Kind::effect, id.index(), f.rules.armoury.at(id).id};
}
[[nodiscard]] inline Origin origin_of_use(const Field& f, const Actor& user, std::size_t packed) {
    return {is_character(user) ? Origin::Kind::packed : Origin::Kind::others,
            is_character(user) ? packed : 0, f.rules.armoury.at(user.setup->pack[packed].item).id};
}
inline void count_given(Field& f, const Origin& origin, std::size_t pool, double restored,
                        double wasted) {
    const LedgerShape& shape = f.ledger.counts->shape;
    Given& given =
        f.ledger.counts->given[shape.source(origin.kind, origin.index) * shape.pools + pool];
    given.restored += restored;
    given.wasted += wasted;
}
void count_tick(Field& f, const Actor& actor, EffectId id, double lost);
/// Of an effect, and of the consumable that gave it again too soon (M91).
void count_lost_time(Field& f, EffectId id, const Origin& origin, Ticks cut, Ticks overlap);

} // namespace panoplon::fighting
