#include "fight/arena.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Why a wanted use does not happen (M30); told in the timeline and counted when it changes.
enum Refused : int { not_refused, none_left, cooling_down, nothing_to_do, not_allowed };
constexpr const char* refusal_words[] = {"", "none left", "cooling down", "would do nothing",
                                         "for others only"};

/// A restoring consumable is used by itself when this little is left (M33).
constexpr double nearly_empty = 0.35;

} // namespace

/// At an instant, rules are looked at where the actor was touched since, or a cooldown ends, or
/// they see more than their actor.
void Arena::wake_users() {
    for (Actor* one : users_) {
        Actor& actor = *one;
        if (actor.next_cooldown <= now_ || actor.always_stirred || inquiry_)
            stir(actor);
        else if (even_)
            stir_pools(actor);
    }
}

/// Rules see their own actor and the clock only, so within an instant they need looking at again
/// only when that actor was touched.
void Arena::consider_all_uses() {
    stirred_ = false;
    for (Actor* one : users_) {
        Actor& actor = *one;
        const Stirred stirred = actor.always_stirred ? Stirred::all : actor.stirred;
        if (!actor.active() || stirred == Stirred::no) continue;
        actor.stirred = Stirred::no;
        for (std::size_t rule = 0; rule < actor.rules.size(); ++rule)
            if (stirred == Stirred::all || actor.rules[rule].sees_pools) consider_rule(actor, rule);
    }
}

bool Arena::default_wants(const Actor& actor, const Use& use) const {
    if (use.restore.empty()) return !has_effect(actor, use.effect);
    return std::any_of(use.restore.begin(), use.restore.end(), [&](const auto& restored) {
        const double pool = actor.pools[restored.first.index()];
        const double ceiling = actor.ceilings[restored.first.index()];
        return pool < ceiling &&
               (ceiling - pool >= restored.second || pool < nearly_empty * ceiling);
    });
}

bool Arena::wanted(const Actor& actor, const RuleState& rule) {
    if (!rule.formula) return default_wants(actor, *rule.use);
    if (!rule.formula->only_self()) return holds(*rule.formula, environment(actor, nullptr));
    const double value = rule.formula->of_self(view_of(actor));
    if (!std::isfinite(value)) no_number(*rule.formula, value);
    return value != 0;
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
void Arena::consider_rule(Actor& actor, std::size_t index) {
    RuleState& rule = actor.rules[index];
    const std::size_t packed = rule.packed;
    const bool none = actor.left[packed] == 0;
    if (none && rule.last_refusal == none_left && !inquiry_) return;
    if (!ledger_ && (none || actor.use_ready[packed] > now_)) return; // nobody counts refusals
    if (!wanted(actor, rule)) {
        if (inquiry_) note_unused(actor, index, "");
        rule.last_refusal = not_refused;
        return;
    }
    const int refused = none                                    ? none_left
                        : !actor.setup->rules[index].allowed    ? not_allowed
                        : actor.use_ready[packed] > now_        ? cooling_down
                        : !would_do_something(actor, *rule.use) ? nothing_to_do
                                                                : not_refused;
    if (refused == not_refused) {
        if (inquiry_) Inquiry::happened(asked_use(actor, index), to_units(now_));
        consume(actor, packed);
    } else {
        if (rule.last_refusal != refused) refuse_use(actor, packed, refusal_words[refused]);
        if (inquiry_) note_unused(actor, index, refusal_words[refused]);
    }
    rule.last_refusal = refused;
}

/// Counted and told when the reason changes.
void Arena::refuse_use(Actor& actor, std::size_t packed, const char* why) {
    if (is_character(actor)) result_.uses[packed].refused += 1;
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
    if (is_character(actor)) result_.uses[packed].used += 1;
    for (std::size_t i = 0; i < actor.setup->pack.size(); ++i) {
        const std::optional<Use>& other = armoury_.at(actor.setup->pack[i].item).use;
        const bool together =
            i == packed || (other && !use.group.empty() && other->group == use.group);
        if (together) actor.use_ready[i] = std::max(actor.use_ready[i], now_ + use.cooldown);
    }
    if (timeline_) tell(actor, "uses", item.id, actor.setup->name, 0, health(actor));
    find_next_cooldown(actor);
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
