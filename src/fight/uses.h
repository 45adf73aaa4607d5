// Consumables: which rule asks for one, whether it can be, and what it does (M30-M33). Rules see
// their own actor and the clock, so they are looked at again only once that was touched, a cooldown
// ends or a pool leaves the amounts between which nothing can come of them. Not for others.
#pragma once

#include "fight/field.h"

namespace panoplon::fighting {

/// Rules see their own actor and the clock only, so within an instant they need looking at again
/// only when that actor was touched; but what would be of no use to allies is, once they are hurt.
[[gnu::always_inline]] inline void consider_all_uses(Field& f);
inline void consider_uses(Field& f) {
    if (f.uses.stirred) consider_all_uses(f);
}
/// At an instant, rules are looked at where the actor was touched since, a cooldown ends, they see
/// more than their actor, or time alone could make something of them: an effect to prolong.
[[gnu::always_inline]] inline void wake_users(Field& f);
/// What most looks at a rule come to, without ado.
inline bool dismissed(const Field& f, const Actor& actor, RuleState& rule) {
    if (rule.over) return true;
    if (!f.ledger.kept && !f.watch.inquiry) { // nobody counts refusals
        rule.over = actor.pack.left[rule.packed] == 0;
        if (rule.over || actor.pack.ready[rule.packed] > f.now) return true;
    }
    const double amount = actor.pools[rule.pool];
    if (amount >= rule.quiet_from) {
        rule.last_refusal = Refused::no;
        return true;
    }
    return amount < rule.refused_below && actor.pack.ready[rule.packed] > f.now &&
           rule.last_refusal == Refused::cooling_down;
}
/// How much of a pool tells whether a rule is wanted, with the ceilings of now.
void find_quiet(Field& f, Actor& actor);
inline void wake(Field& f, Actor& actor) {
    f.uses.stirred = true;
    if (actor.uses.stirred == Stirred::no) actor.uses.stirred = Stirred::pools;
}
inline void stir(Field& f, Actor& actor) {
    f.flows.healths_moved = true;
    f.uses.stirred = f.uses.stirred || actor.uses.any;
    actor.uses.stirred = Stirred::all;
}
/// Only a pool of it changed.
inline void stir_pool(Field& f, Actor& actor, std::size_t pool) {
    f.flows.healths_moved = true;
    if (!f.rules.shields.empty()) f.flows.rates_stirred = true; // one may be empty, or no longer
    if (f.uses.restless || !actor.calm[pool].has(actor.pools[pool])) wake(f, actor);
}
void unsettle(Field& f, Actor& actor);

} // namespace panoplon::fighting
