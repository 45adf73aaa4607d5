#include "fight/rules.h"

#include <algorithm>

namespace panoplon::fighting {

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
    const auto own = [](const Formula& mine, const Formula& others) -> const Formula& {
        return mine.given() ? mine : others;
    };
    bool all = fixed(action.every) && fixed(own(action.hit, combat.hit)) &&
               fixed(own(action.crit, combat.crit)) &&
               fixed(own(action.crit_factor, combat.crit_factor)) && fixed(combat.returned);
    for (const auto& [type, raw] : action.deals)
        all = all && fixed(raw) && fixed(armoury.at(type).mitigated);
    for (const Formula& most : action.deals_up_to) all = all && fixed(most);
    for (const auto& [pool, share] : action.drains) all = all && fixed(share);
    return all;
}

} // namespace

EventSet events_of(const Bearer& bearer) {
    EventSet events = 0;
    for (const Trigger& trigger : bearer.triggers) events |= event_bit(trigger.on);
    return events;
}

EventSet events_of(const std::vector<const Bearer*>& bearers) {
    EventSet events = 0;
    for (const Bearer* bearer : bearers) events |= events_of(*bearer);
    return events;
}

Condition::Condition(const Formula& formula) : value(formula) {
    if (formula.reads(Scalar::time)) turns.emplace(formula);
}

Rules::Rules(const Armoury& read)
    : armoury(read),
      deriver(armoury),
      health(armoury.combat.health.index()),
      pools(armoury.pools.size()),
      hit(armoury.combat.hit),
      crit(armoury.combat.crit),
      crit_factor(armoury.combat.crit_factor),
      order(armoury.combat.order) {
    for (const DamageType& type : armoury.damages) mitigated.emplace_back(type.mitigated);
    for (const Pool& pool : armoury.pools) {
        const auto index = static_cast<std::size_t>(&pool - armoury.pools.data());
        if (pool.shields.given())
            shields.push_back({index, Evaluator(pool.shields), !pool.shields.only_stats()});
        if (!pool.regen.given()) continue;
        regens.push_back({index, Evaluator(pool.regen), !pool.regen.only_stats(), pool.period,
                          to_units(pool.period)});
    }
    const auto compiled_all = [&](const std::vector<std::pair<PoolId, Quantity>>& amounts) {
        PoolQuantities all;
        for (const auto& [pool, amount] : amounts) all.emplace_back(pool.index(), compiled(amount));
        return all;
    };
    for (const Action& action : armoury.actions) {
        ActionFormulas formulas(action.every);
        formulas.calls = action.summons.foe.given();
        formulas.strikes = (action.restores.empty() && !formulas.calls) || !action.deals.empty() ||
                           !action.applies.empty();
        formulas.steady = steady(armoury, action);
        formulas.unspread =
            formulas.steady && armoury.combat.spread == 0 && action.deals_up_to.empty();
        formulas.steady_time = action.every.only_stats();
        formulas.unconditional =
            action.cost.empty() && !action.when.given() && action.spends.empty() && !formulas.calls;
        const bool one_chance =
            action.applies.empty() || (action.applies.size() == 1 && action.targets == 1 &&
                                       action.applies.front().chance.fixed());
        formulas.renewable = formulas.unconditional && action.cooldown <= 0 && formulas.steady &&
                             one_chance && action.restores.empty();
        if (action.when.given()) formulas.when.emplace(action.when);
        if (action.when.reads(Scalar::time)) formulas.turns.emplace(action.when);
        for (const auto& [type, raw] : action.deals) formulas.deals.emplace_back(raw);
        for (const auto& [pool, share] : action.drains) formulas.drains.emplace_back(share);
        for (const Formula& most : action.deals_up_to) formulas.up_to.emplace_back(most);
        const auto own = [&](const Formula& mine, Evaluator& others) {
            return mine.given() ? &condition(mine)->value : &others;
        };
        formulas.hit = own(action.hit, hit);
        formulas.crit = own(action.crit, crit);
        formulas.crit_factor = own(action.crit_factor, crit_factor);
        formulas.costs = compiled_all(action.cost);
        formulas.gives = compiled_all(action.restores);
        for (const Application& application : action.applies)
            formulas.chances.push_back(compiled(application.chance));
        actions.push_back(std::move(formulas));
    }
    for (const Effect& effect : armoury.effects) {
        absorbs.push_back(effect.absorbs.given()
                              ? std::optional<Evaluator>(std::in_place, effect.absorbs)
                              : std::nullopt);
        passing_hear |= events_of(effect);
        anybody_taunts = anybody_taunts || effect.taunts;
        std::vector<PoolStep>& of_effect = steps.emplace_back();
        bool moves = false;
        for (const auto& [pool, rate] : effect.per_time) {
            of_effect.push_back(
                {pool.index(), compiled(rate), rate.number * to_units(effect.period)});
            moves = moves || !rate.fixed();
        }
        reckoned.push_back(moves);
    }
    for (const Item& item : armoury.items) {
        UseQuantities& use = uses.emplace_back();
        if (item.use) use = {compiled_all(item.use->restore), compiled(item.use->takes)};
    }
    for (const Band& band : armoury.carry.bands) passing_hear |= events_of(band);
    if (armoury.combat.returned.given()) returned.emplace(armoury.combat.returned);
    if (armoury.combat.lives.given()) lives.emplace(armoury.combat.lives);
    shields_move = std::any_of(shields.begin(), shields.end(),
                               [](const PoolShield& shield) { return shield.moves; });
    order_moves = !armoury.combat.order.only_stats();
    event_limit = armoury.combat.event_limit;
}

Condition* Rules::condition(const Formula& formula) {
    if (!formula.given()) return nullptr;
    const auto known = std::find_if(conditions.begin(), conditions.end(), [&](const auto& one) {
        return one->value.formula().text == formula.text;
    });
    if (known != conditions.end()) return known->get();
    return conditions.emplace_back(std::make_unique<Condition>(formula)).get();
}

CompiledQuantity Rules::compiled(const Quantity& quantity) {
    if (quantity.fixed()) return {quantity.number, nullptr};
    return {0, &condition(quantity.formula)->value};
}

} // namespace panoplon::fighting
