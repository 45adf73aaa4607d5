#include "fight/uses.h"

#include "fight/actions.h"
#include "fight/blows.h"
#include "fight/calls.h"
#include "fight/counting.h"
#include "fight/course.h"
#include "fight/effects.h"
#include "fight/flows.h"
#include "fight/reasons.h"
#include "fight/states.h"
#include "fight/telling.h"
#include "fight/triggers.h"

#include <algorithm>

namespace panoplon::fighting {

namespace {

/// By Refused.
constexpr const char* refusal_words[] = {"", "none left", "cooling down", "would do nothing",
                                         "for others only"};

/// A restoring consumable is used by itself when this little is left (M33).
constexpr double nearly_empty = 0.35;

bool is_calm(const Field& f, const Actor& actor) {
    for (std::size_t p = 0; p < f.rules.pools; ++p)
        if (!actor.calm[p].has(actor.pools[p])) return false;
    return true;
}

void find_calm(Field& f, Actor& actor) {
    std::fill(actor.calm, actor.calm + f.rules.pools, Calm());
    actor.uses.uneasy = false;
    for (const RuleState& rule : actor.uses.rules) {
        if (!rule.sees_pools || rule.over) continue;
        Calm& calm = actor.calm[rule.pool];
        const double amount = actor.pools[rule.pool];
        const bool cooling = actor.pack.ready[rule.packed] > f.now;
        if (amount >= rule.quiet_from)
            calm.from = std::max(calm.from, rule.quiet_from);
        else if (cooling && !f.ledger.kept)
            continue; // nobody counts refusals
        else if (cooling && amount < rule.refused_below &&
                 rule.last_refusal == Refused::cooling_down)
            calm.below = std::min(calm.below, rule.refused_below);
        else
            return unsettle(f, actor);
    }
}

bool default_wants(const Field& f, const Actor& actor, const RuleState& rule) {
    const Use& use = *rule.use;
    const PoolQuantities& all = rule.amounts->restore;
    if (all.empty() && use.removes.given()) return has_any(actor, use.removes);
    if (all.empty() && use.does.given()) return front_target(f, actor) != nullptr;
    if (all.empty()) return !has_effect(actor, use.effect);
    return std::any_of(all.begin(), all.end(), [&](const auto& restored) {
        const auto& [index, amount] = restored;
        const double pool = actor.pools[index];
        const double ceiling = actor.ceilings[index];
        const double near = rounding * ceiling;
        return pool < ceiling && (ceiling - pool >= value_of(f, amount, actor, &actor) - near ||
                                  pool < nearly_empty * ceiling - near);
    });
}

bool wanted(Field& f, const Actor& actor, const RuleState& rule) {
    return rule.formula ? holds(rule.formula->value, environment(f, actor, nullptr))
                        : default_wants(f, actor, rule);
}

bool would_do_something(const Field& f, const Actor& actor, const Use& use) {
    if (use.does.given() && front_target(f, actor)) {
        const ActionFormulas& does = f.rules.actions[use.does.index()];
        if (does.strikes || can_call(actor, use.does)) return true;
    }
    const auto does = [&](const Actor& getter) {
        if (use.effect.given() && would_act(f, getter, use.effect, use.duration)) return true;
        if (use.removes.given() && has_any(getter, use.removes)) return true;
        return std::any_of(use.restore.begin(), use.restore.end(), [&](const auto& restored) {
            return getter.pools[restored.first.index()] < getter.ceilings[restored.first.index()];
        });
    };
    if (!use.to_allies) return does(actor);
    return std::any_of(f.cast.actors.begin(), f.cast.actors.end(), [&](const Actor& getter) {
        return getter.active() && !opposed(actor, getter) && does(getter);
    });
}

/// M31: one goes at once, its weight with it; ceilings change first, then what is restored (M12).
void consume(Field& f, Actor& actor, std::size_t rule) {
    const std::size_t packed = actor.uses.rules[rule].packed;
    const ItemId id = actor.setup->pack[packed].item;
    const Item& item = f.rules.armoury.at(id);
    const Use& use = *item.use;
    const UseQuantities& amounts = f.rules.uses[id.index()];
    const double takes = value_of(f, amounts.takes, actor, nullptr);
    count_event(f);
    take_from_pack(f, actor, packed, 1);
    const int group = actor.pack.groups[packed];
    for (std::size_t i = 0; i < actor.pack.ready.size(); ++i)
        if (i == packed || (group != 0 && actor.pack.groups[i] == group))
            actor.pack.ready[i] = std::max(actor.pack.ready[i], f.now + use.cooldown);
    if (f.watch.timeline) tell(f, actor, "uses", item.id, actor.setup->name, 0, health(f, actor));
    f.clock.first_cooldown = 0;
    weigh_pack(f, actor);
    stir(f, actor);
    const Origin origin = origin_of_use(f, actor, packed);
    for (Actor& getter : f.cast.actors) {
        if (!(&getter == &actor || (use.to_allies && getter.active() && !opposed(actor, getter))))
            continue;
        if (use.effect.given() && f.watch.inquiry)
            note_effect(f, actor, use.effect, item.id, nullptr, item.span, "");
        if (use.removes.given()) remove_effects(f, getter, use.removes);
        if (use.effect.given())
            apply_effect(f, getter, use.effect, use.duration, false, actor, origin);
        for (const auto& [pool, amount] : amounts.restore)
            restore(f, getter, pool, std::max(0.0, value_of(f, amount, actor, &getter)), origin);
    }
    if (use.does.given()) {
        Place& thrown = actor.thrown[rule];
        f.even ? strike_evenly(f, actor, thrown) : strike_at_once(f, actor, thrown);
        if (f.over || !actor.life.standing) return;
    }
    fire(f, actor, TriggerEvent::use, nullptr);
    if (takes > 0) actor.ready = std::max(actor.ready, f.now + to_ticks(takes));
}

/// Counted and told when the reason changes.
void refuse_use(Field& f, Actor& actor, std::size_t packed, const char* why) {
    if (is_character(actor)) f.ledger.counts->uses[packed].refused += 1;
    if (f.watch.timeline)
        tell(f, actor, "use_refused", f.rules.armoury.at(actor.setup->pack[packed].item).id,
             actor.setup->name, 0, health(f, actor), why);
}

/// The check comes first: a refused use consumes nothing (M30).
[[gnu::noinline]] void consider_rule(Field& f, Actor& actor, RuleState& rule) {
    const auto index = static_cast<std::size_t>(&rule - actor.uses.rules.data());
    const std::size_t packed = rule.packed;
    const bool none = actor.pack.left[packed] == 0;
    const bool told_none = none && rule.last_refusal == Refused::none_left; // once is enough
    if (!wanted(f, actor, rule)) {
        if (f.watch.inquiry) note_unused(f, actor, index, "");
        if (!told_none) rule.last_refusal = Refused::no;
        return;
    }
    const Refused refused = none                                       ? Refused::none_left
                            : !actor.setup->rules[index].allowed       ? Refused::not_allowed
                            : actor.pack.ready[packed] > f.now         ? Refused::cooling_down
                            : !would_do_something(f, actor, *rule.use) ? Refused::nothing_to_do
                                                                       : Refused::no;
    if (refused == Refused::no) {
        if (f.watch.inquiry) Inquiry::happened(asked_use(f, actor, index), to_units(f.now));
        consume(f, actor, index);
    } else {
        const char* words = refusal_words[static_cast<int>(refused)];
        if (rule.last_refusal != refused) refuse_use(f, actor, packed, words);
        if (f.watch.inquiry) note_unused(f, actor, index, words);
    }
    rule.last_refusal = refused;
    rule.over = refused == Refused::none_left && !f.watch.inquiry;
}

} // namespace

void wake_users(Field& f) {
    f.uses.uneasy = false;
    for (Actor* one : f.cast.users) {
        Actor& actor = *one;
        const bool always = actor.uses.sees_others || f.watch.inquiry;
        if (actor.due.cooldown <= f.now || always)
            stir(f, actor);
        else if (f.even ? !is_calm(f, actor) : actor.uses.uneasy)
            wake(f, actor);
        f.uses.uneasy = f.uses.uneasy || always || actor.uses.uneasy;
    }
}

void consider_all_uses(Field& f) {
    f.uses.stirred = false;
    f.uses.restless = false;
    for (Actor* one : f.cast.users) {
        Actor& actor = *one;
        const Stirred stirred = actor.uses.sees_others ? Stirred::all : actor.uses.stirred;
        if (!actor.active() || stirred == Stirred::no) continue;
        if (actor.under.stops_uses) {
            if (f.watch.inquiry)
                for (std::size_t i = 0; i < actor.uses.rules.size(); ++i)
                    note_unused(f, actor, i, "an effect keeps it from using anything");
            continue;
        }
        actor.uses.stirred = Stirred::no;
        for (RuleState& rule : actor.uses.rules) {
            // A use before it may have ended or begun effects.
            const bool all = stirred == Stirred::all || actor.uses.stirred == Stirred::all;
            if ((all || rule.sees_pools) && !dismissed(f, actor, rule)) {
                consider_rule(f, actor, rule);
                if (f.over) return;
                if (!actor.life.standing) break;
            }
        }
        find_calm(f, actor);
    }
    for (const Actor* actor : f.cast.users)
        f.uses.restless = f.uses.restless || (actor->uses.sees_others && !is_calm(f, *actor));
}

void unsettle(Field& f, Actor& actor) {
    actor.uses.uneasy = f.uses.uneasy = true;
    std::fill(actor.calm, actor.calm + f.rules.pools, no_calm);
}

void find_quiet(Field& f, Actor& actor) {
    for (RuleState& rule : actor.uses.rules) {
        rule.quiet_from = never;
        rule.refused_below = 0;
        if (f.watch.inquiry) continue; // who asks wants every rule looked at
        const auto turns_at = [&](std::size_t pool, double amount) {
            const double near = 2 * rounding_of(actor, pool);
            rule.pool = pool;
            rule.quiet_from = amount + near;
            rule.refused_below = amount - near;
        };
        if (rule.formula) {
            if (const auto zero = rule.formula->value.zero_from_share())
                turns_at(zero->pool, zero->share * actor.ceilings[zero->pool]);
        } else if (rule.amounts->restore.size() == 1) {
            const auto& [pool, amount] = rule.amounts->restore.front();
            if (amount.formula && !amount.formula->formula().only_stats()) continue;
            const double ceiling = actor.ceilings[pool];
            const double whole = value_of(f, amount, actor, &actor);
            turns_at(pool, std::max(ceiling - whole, nearly_empty * ceiling));
        }
    }
}

} // namespace panoplon::fighting
