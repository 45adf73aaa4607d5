#include "fight/arena.h"

#include <algorithm>

namespace panoplon {

namespace {

/// By Refused.
constexpr const char* refusal_words[] = {"", "none left", "cooling down", "would do nothing",
                                         "for others only"};

/// A restoring consumable is used by itself when this little is left (M33).
constexpr double nearly_empty = 0.35;

} // namespace

/// At an instant, rules are looked at where the actor was touched since, a cooldown ends, they see
/// more than their actor, or time alone could make something of them: an effect to prolong.
void Arena::wake_users() {
    uneasy_ = false;
    for (Actor* one : users_) {
        Actor& actor = *one;
        const bool always = actor.always_stirred || inquiry_;
        if (actor.next_cooldown <= now_ || always)
            stir(actor);
        else if (even_ ? !is_calm(actor) : actor.uneasy)
            wake(actor);
        uneasy_ = uneasy_ || always || actor.uneasy;
    }
}

/// Rules see their own actor and the clock only, so within an instant they need looking at again
/// only when that actor was touched; but what would be of no use to allies is, once they are hurt.
void Arena::consider_all_uses() {
    stirred_ = false;
    restless_ = false;
    for (Actor* one : users_) {
        Actor& actor = *one;
        const Stirred stirred = actor.always_stirred ? Stirred::all : actor.stirred;
        if (!actor.active() || stirred == Stirred::no) continue;
        actor.stirred = Stirred::no;
        for (RuleState& rule : actor.rules)
            if ((stirred == Stirred::all || rule.sees_pools) && !dismissed(actor, rule))
                consider_rule(actor, rule);
        find_calm(actor);
    }
    for (const Actor* actor : users_)
        restless_ = restless_ || (actor->always_stirred && !is_calm(*actor));
}

bool Arena::is_calm(const Actor& actor) const {
    for (std::size_t p = 0; p < pools_; ++p)
        if (!actor.calm[p].has(actor.pools[p])) return false;
    return true;
}

void Arena::find_calm(Actor& actor) {
    std::fill(actor.calm, actor.calm + pools_, Calm());
    actor.uneasy = false;
    for (const RuleState& rule : actor.rules) {
        if (!rule.sees_pools || rule.over) continue;
        Calm& calm = actor.calm[rule.pool];
        const double amount = actor.pools[rule.pool];
        const bool cooling = actor.use_ready[rule.packed] > now_;
        if (amount >= rule.quiet_from)
            calm.from = std::max(calm.from, rule.quiet_from);
        else if (cooling && !ledger_)
            continue; // nobody counts refusals
        else if (cooling && amount < rule.refused_below &&
                 rule.last_refusal == Refused::cooling_down)
            calm.below = std::min(calm.below, rule.refused_below);
        else
            return unsettle(actor);
    }
}

void Arena::unsettle(Actor& actor) {
    actor.uneasy = uneasy_ = true;
    std::fill(actor.calm, actor.calm + pools_, no_calm);
}

/// How much of a pool tells whether a rule is wanted, with the ceilings of now.
void Arena::find_quiet(Actor& actor) {
    for (RuleState& rule : actor.rules) {
        rule.quiet_from = never;
        rule.refused_below = 0;
        if (inquiry_) continue; // who asks wants every rule looked at
        const auto turns_at = [&](std::size_t pool, double amount) {
            const double near = 2 * rounding_of(actor, pool);
            rule.pool = pool;
            rule.quiet_from = amount + near;
            rule.refused_below = amount - near;
        };
        if (rule.formula) {
            if (const auto zero = rule.formula->value.zero_from_share())
                turns_at(zero->pool, zero->share * actor.ceilings[zero->pool]);
        } else if (rule.use->restore.size() == 1) {
            const auto& [pool, amount] = rule.use->restore.front();
            const double ceiling = actor.ceilings[pool.index()];
            turns_at(pool.index(), std::max(ceiling - amount, nearly_empty * ceiling));
        }
    }
}

bool Arena::default_wants(const Actor& actor, const Use& use) const {
    if (use.restore.empty()) return !has_effect(actor, use.effect);
    return std::any_of(use.restore.begin(), use.restore.end(), [&](const auto& restored) {
        const double pool = actor.pools[restored.first.index()];
        const double ceiling = actor.ceilings[restored.first.index()];
        const double near = rounding * ceiling;
        return pool < ceiling &&
               (ceiling - pool >= restored.second - near || pool < nearly_empty * ceiling - near);
    });
}

bool Arena::wanted(const Actor& actor, const RuleState& rule) {
    return rule.formula ? holds(rule.formula->value, environment(actor, nullptr))
                        : default_wants(actor, *rule.use);
}

bool Arena::would_do_something(const Actor& actor, const Use& use) const {
    const auto does = [&](const Actor& getter) {
        if (use.effect.given() && would_act(getter, use.effect, use.duration)) return true;
        return std::any_of(use.restore.begin(), use.restore.end(), [&](const auto& restored) {
            return getter.pools[restored.first.index()] < getter.ceilings[restored.first.index()];
        });
    };
    if (!use.to_allies) return does(actor);
    return std::any_of(actors_.begin(), actors_.end(), [&](const Actor& getter) {
        return getter.active() && !opposed(actor, getter) && does(getter);
    });
}

/// The check comes first: a refused use consumes nothing (M30).
void Arena::consider_rule(Actor& actor, RuleState& rule) {
    const auto index = static_cast<std::size_t>(&rule - actor.rules.data());
    const std::size_t packed = rule.packed;
    const bool none = actor.left[packed] == 0;
    const bool told_none = none && rule.last_refusal == Refused::none_left; // once is enough
    if (!wanted(actor, rule)) {
        if (inquiry_) note_unused(actor, index, "");
        if (!told_none) rule.last_refusal = Refused::no;
        return;
    }
    const Refused refused = none                                    ? Refused::none_left
                            : !actor.setup->rules[index].allowed    ? Refused::not_allowed
                            : actor.use_ready[packed] > now_        ? Refused::cooling_down
                            : !would_do_something(actor, *rule.use) ? Refused::nothing_to_do
                                                                    : Refused::no;
    if (refused == Refused::no) {
        if (inquiry_) Inquiry::happened(asked_use(actor, index), to_units(now_));
        consume(actor, packed);
    } else {
        const char* words = refusal_words[static_cast<int>(refused)];
        if (rule.last_refusal != refused) refuse_use(actor, packed, words);
        if (inquiry_) note_unused(actor, index, words);
    }
    rule.last_refusal = refused;
    rule.over = refused == Refused::none_left && !inquiry_;
}

/// Counted and told when the reason changes.
void Arena::refuse_use(Actor& actor, std::size_t packed, const char* why) {
    if (is_character(actor)) counts_->uses[packed].refused += 1;
    if (timeline_)
        tell(actor, "use_refused", armoury_.at(actor.setup->pack[packed].item).id,
             actor.setup->name, 0, health(actor), why);
}

/// M31: one goes at once, its weight with it; ceilings change first, then what is restored (M12).
void Arena::consume(Actor& actor, std::size_t packed) {
    const ItemId id = actor.setup->pack[packed].item;
    const Item& item = armoury_.at(id);
    const Use& use = *item.use;
    count_event();
    actor.left[packed] -= 1;
    actor.pack_weight -= item.weight;
    if (is_character(actor)) counts_->uses[packed].used += 1;
    const int group = actor.groups[packed];
    for (std::size_t i = 0; i < actor.use_ready.size(); ++i)
        if (i == packed || (group != 0 && actor.groups[i] == group))
            actor.use_ready[i] = std::max(actor.use_ready[i], now_ + use.cooldown);
    if (timeline_) tell(actor, "uses", item.id, actor.setup->name, 0, health(actor));
    first_cooldown_ = 0;
    weigh_pack(actor);
    stir(actor);
    const Origin origin = origin_of_use(actor, packed);
    for (Actor& getter : actors_) {
        if (!(&getter == &actor || (use.to_allies && getter.active() && !opposed(actor, getter))))
            continue;
        if (use.effect.given() && inquiry_)
            note_effect(actor, use.effect, item.id, nullptr, item.span, "");
        if (use.effect.given()) apply_effect(getter, use.effect, use.duration, false, origin);
        for (const auto& [pool, amount] : use.restore)
            restore(getter, pool.index(), amount, origin);
    }
    fire(actor, TriggerEvent::use, nullptr);
    if (use.takes > 0) actor.ready = std::max(actor.ready, now_ + use.takes);
}

} // namespace panoplon
