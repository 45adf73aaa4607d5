#include "fight/arena.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

bool steady(const Armoury& armoury, const Action& action) {
    const auto fixed = [](const Formula& formula) {
        return std::all_of(formula.variables.begin(), formula.variables.end(),
                           [](const Variable& v) {
                               if (v.block == Block::scalar)
                                   return v.index == static_cast<std::uint16_t>(Scalar::level) ||
                                          v.index == static_cast<std::uint16_t>(Scalar::amount);
                               return v.block == Block::self_stat || v.block == Block::other_stat;
                           });
    };
    const CombatRules& combat = armoury.combat;
    bool all =
        fixed(action.every) && fixed(combat.hit) && fixed(combat.crit) && fixed(combat.crit_factor);
    for (const auto& [type, raw] : action.deals)
        all = all && fixed(raw) && fixed(armoury.at(type).mitigated);
    for (const auto& [pool, share] : action.drains) all = all && fixed(share);
    return all;
}

} // namespace

Arena::Arena(const Armoury& armoury)
    : armoury_(armoury),
      deriver_(armoury),
      health_(armoury.combat.health.index()),
      pools_(armoury.pools.size()),
      hit_(armoury.combat.hit),
      crit_(armoury.combat.crit),
      crit_factor_(armoury.combat.crit_factor),
      order_(armoury.combat.order) {
    for (const DamageType& type : armoury.damages) mitigated_.emplace_back(type.mitigated);
    for (const Pool& pool : armoury.pools) {
        if (!pool.regen.given()) continue;
        const auto index = static_cast<std::size_t>(&pool - armoury.pools.data());
        regens_.push_back({index, Evaluator(pool.regen), !pool.regen.only_stats(), pool.period,
                           to_units(pool.period)});
    }
    for (const Action& action : armoury.actions) {
        ActionFormulas formulas{Evaluator(action.every), std::nullopt, std::nullopt, {}, {}};
        formulas.steady = steady(armoury, action);
        formulas.unspread = formulas.steady && armoury.combat.spread == 0;
        formulas.steady_time = action.every.only_stats();
        formulas.unconditional = action.cost.empty() && !action.when.given();
        formulas.renewable = formulas.unconditional && action.cooldown <= 0 && formulas.steady &&
                             (!action.applies || action.targets == 1);
        if (action.when.given()) formulas.when.emplace(action.when);
        if (action.when.reads(Scalar::time)) formulas.turns.emplace(action.when);
        for (const auto& [type, raw] : action.deals) formulas.deals.emplace_back(raw);
        for (const auto& [pool, share] : action.drains) formulas.drains.emplace_back(share);
        actions_.push_back(std::move(formulas));
    }
    for (const Effect& effect : armoury.effects) {
        absorbs_.push_back(effect.absorbs.given()
                               ? std::optional<Evaluator>(std::in_place, effect.absorbs)
                               : std::nullopt);
        passing_hear_ |= events_of(effect);
        std::vector<PoolStep>& steps = steps_.emplace_back();
        for (const auto& [pool, rate] : effect.per_time)
            steps.push_back({pool.index(), rate * to_units(effect.period)});
    }
    for (const Band& band : armoury.carry.bands) passing_hear_ |= events_of(band);
    if (armoury.combat.lives.given()) lives_.emplace(armoury.combat.lives);
    effect_holders_.resize(armoury.effects.size());
    effect_since_.resize(armoury.effects.size());
    order_moves_ = !armoury.combat.order.only_stats();
    event_limit_ = armoury.combat.event_limit;
}

void Arena::prepare(const FightSetup& setup) {
    setup_ = &setup;
    actors_.resize(setup.actors.size());
    rows_.resize(actors_.size(), pools_);
    for (std::size_t i = 0; i < actors_.size(); ++i)
        static_cast<PoolPart&>(actors_[i]) = rows_.of(i);
    ours_ = static_cast<std::size_t>(
        std::count_if(setup.actors.begin(), setup.actors.end(),
                      [](const ActorSetup& actor) { return actor.side == Side::character; }));
    for (std::size_t i = 1; i < actors_.size(); ++i) prepare_actor(actors_[i], setup.actors[i]);
    prepare_character(setup.actors.front());
}

void Arena::prepare_character(const ActorSetup& character) {
    prepare_actor(actors_.front(), character);
}

/// A compiled formula of uses or swaps; none where there is none.
RuleFormula* Arena::rule_formula(const Formula& formula) {
    if (!formula.given()) return nullptr;
    const auto known =
        std::find_if(rule_formulas_.begin(), rule_formulas_.end(),
                     [&](const auto& one) { return one->value.formula().text == formula.text; });
    if (known != rule_formulas_.end()) return known->get();
    return rule_formulas_.emplace_back(std::make_unique<RuleFormula>(formula)).get();
}

const FightResult& Arena::run(double strength, const std::optional<Luck>& luck, Detail detail,
                              Timeline* timeline, Inquiry* inquiry) {
    strength_ = strength;
    even_ = !luck;
    luck_ = luck.value_or(Luck{});
    timeline_ = timeline;
    inquiry_ = inquiry;
    watched_ = timeline || inquiry;
    ledger_ = detail == Detail::ledger;
    try {
        fight();
    } catch (const FightStopped& stopped) {
        result_.error = stopped.error;
    } catch (const Uncounted&) {
        return run(strength, luck, Detail::ledger, timeline, inquiry);
    }
    finish();
    return result_;
}

/// Whether a condition of what the actor has now reads the time.
bool Arena::reads_time(const Actor& actor) {
    const auto turns = [](const RuleFormula* formula) { return formula && formula->turns; };
    return std::any_of(actor.rules.begin(), actor.rules.end(),
                       [&](const RuleState& rule) { return turns(rule.formula); }) ||
           std::any_of(actor.swaps.begin(), actor.swaps.end(), turns) ||
           std::any_of(actor.places.begin(), actor.places.end(),
                       [](const Place& place) { return place.formulas->turns.has_value(); });
}

void Arena::find_what_there_is() {
    swaps_ = clocked_ = false;
    triggers_ = passing_hear_ != 0;
    for (const Actor& actor : actors_) {
        swaps_ = swaps_ || !actor.setup->swaps.empty();
        clocked_ = clocked_ || actor.clocked;
        triggers_ = triggers_ || actor.hears != 0;
    }
}

/// Where nobody reads the ledger, what is counted goes where nobody looks: it is not even cleared.
void Arena::begin_counting(const LedgerShape& shape) {
    if (ledger_ || counts_ == &result_ || result_.shape != shape) result_.reset(shape);
    result_.won = result_.timed_out = false;
    result_.error.reset();
    if (!ledger_ && unread_.shape != shape) unread_.reset(shape);
    counts_ = ledger_ ? &result_ : &unread_;
}

/// Whatever a fight starts from is set here, so that nothing stays from the fight before.
void Arena::begin() {
    begin_counting(ledger_shape(armoury_, *actors_.front().first));
    rows_.rest_all();
    events_ = 0;
    now_ = 0;
    over_ = false;
    order_changed_ = true;
    falling_.clear();
    fall_moment_ = never;
    first_ready_ = first_cooldown_ = 0;
    restless_ = true;
    all_came_ = false;
    regenerated_ = true;
    rates_stirred_ = healths_moved_ = true;
    first_tick_ = first_end_ = first_regen_ = never;
    stirred_ = uneasy_ = true;
    std::fill(effect_holders_.begin(), effect_holders_.end(), 0);
    active_.clear();
    for (Actor& actor : actors_) start_actor(actor);
    find_what_there_is();
    if (inquiry_) list_possible();
    if (!timeline_) return;
    for (const Actor& actor : actors_) timeline_->actors.push_back(actor.setup->name);
}

bool Arena::someone_left(Side side) const {
    return std::any_of(actors_.begin(), actors_.end(), [&](const Actor& actor) {
        return actor.setup->side == side && actor.standing;
    });
}

/// Names what happened most: it is what repeats.
void Arena::too_many_events() const {
    if (!ledger_) throw Uncounted();
    std::string most = "triggers and effects";
    double times = static_cast<double>(events_) / 4;
    const auto look = [&](double done, const std::string& what) {
        if (done <= times) return;
        times = done;
        most = fmt::format("{}, {} times", what, rounded(done, 0));
    };
    for (std::size_t a = 0; a < result_.actions.size(); ++a)
        look(result_.actions[a].done + result_.foe_actions[a].done,
             fmt::format("the action '{}'", armoury_.actions[a].id));
    for (std::size_t i = 0; i < result_.uses.size(); ++i)
        look(result_.uses[i].used,
             fmt::format("uses of '{}'", armoury_.at(actors_[0].first->pack[i].item).id));
    throw FightStopped{
        {fmt::format("more than {} events by time {}, most of them {}: they go on without end, or "
                     "combat.event_limit is too low for so long a fight",
                     armoury_.combat.event_limit, rounded(to_units(now_), 3), most),
         armoury_.combat.span}};
}

void Arena::finish() {
    result_.time = to_units(now_);
    if (ledger_) {
        result_.events = static_cast<double>(events_);
        result_.sum_up();
    }
    for (Actor& actor : actors_)
        while (!actor.effects.empty()) drop_effect(actor, actor.effects.size() - 1);
    const Actor& character = actors_.front();
    for (std::size_t i = 0; i < character.left.size(); ++i)
        counts_->uses[i].left = static_cast<double>(character.left[i]);
    result_.won = !result_.error && !result_.timed_out && someone_left(Side::character);
    constexpr double least = 1e-12; // a remainder is never 0: its sign tells who won
    result_.remainder = result_.won ? std::max(health_left(Side::character), least)
                                    : -std::max(health_left(Side::foes), least);
}

/// The share of a side's health that is left, lives counted in.
double Arena::health_left(Side side) const {
    double left = 0;
    double whole = 0;
    for (const Actor& actor : actors_) {
        if (actor.setup->side != side) continue;
        const double life = actor.ceilings[health_] * armoury_.combat.revive_share;
        left += actor.standing ? health(actor) + actor.lives * life : 0;
        whole += actor.ceilings[health_] + actor.first_lives * life;
    }
    return whole > 0 ? left / whole : 1;
}

} // namespace panoplon
