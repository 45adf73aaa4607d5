#include "judge/paper/stats_read.h"

#include <algorithm>

namespace panoplon {

namespace {

class Reader {
  public:
    explicit Reader(const Armoury& armoury)
        : armoury_(armoury),
          read_(armoury.stats.size(), false),
          effects_read_(armoury.effects.size(), false) {
        look_at_all();
    }

    [[nodiscard]] const std::vector<bool>& stats() const { return read_; }
    [[nodiscard]] const std::vector<bool>& effects() const { return effects_read_; }

  private:
    void look_at_all() {
        const CombatRules& combat = armoury_.combat;
        for (const Formula* formula :
             {&combat.hit, &combat.crit, &combat.crit_factor, &combat.order, &combat.lives,
              &combat.returned, &armoury_.carry.capacity})
            add(*formula);
        for (const Pool& pool : armoury_.pools) {
            add(pool.max);
            add(pool.regen);
            add(pool.shields);
        }
        for (const DamageType& damage : armoury_.damages) add(damage.mitigated);
        for (const Effect& effect : armoury_.effects) {
            add(effect.absorbs);
            add(effect.per_time);
            add(effect.triggers);
        }
        for (const Action& action : armoury_.actions) add(action);
        for (const Character& character : armoury_.characters) add(character);
        for (const Foe& foe : armoury_.foes) add(foe);
        for (const Loadout& loadout : armoury_.loadouts) {
            for (const UseRule& rule : loadout.uses) add(rule.when);
            for (const Swap& swap : loadout.swaps) add(swap.when);
        }
        for (const Item& item : armoury_.items) add(item);
        for (const Tier& tier : armoury_.tiers) add(tier.triggers);
        for (const Upgrade& upgrade : armoury_.upgrades) add(upgrade.triggers);
        for (const Band& band : armoury_.carry.bands) add(band.triggers);
        for (const ItemSet& set : armoury_.sets)
            for (const SetStep& step : set.steps) add(step.triggers);
    }

    void add(StatId stat) {
        if (read_[stat.index()]) return;
        read_[stat.index()] = true;
        add(armoury_.at(stat).value);
    }
    void add(const Formula& formula) {
        for (const Variable& variable : formula.variables)
            if (variable.block == Block::self_stat || variable.block == Block::other_stat)
                add(StatId(std::size_t{variable.index}));
            else if (variable.block == Block::self_copies ||
                     variable.block == Block::other_copies ||
                     variable.block == Block::self_active || variable.block == Block::other_active)
                effects_read_[variable.index] = true;
    }
    void add(const std::vector<std::pair<PoolId, Quantity>>& amounts) {
        for (const auto& [pool, amount] : amounts) add(amount.formula);
    }
    void add(const std::vector<Trigger>& triggers) {
        for (const Trigger& trigger : triggers) add(trigger.chance.formula);
    }
    void add(const Item& item) {
        for (const Amount& need : item.needs.stats) add(need.stat);
        add(item.triggers);
        if (!item.use) return;
        add(item.use->when);
        add(item.use->restore);
        add(item.use->takes.formula);
    }
    void add(const Action& action) {
        for (const Formula* formula :
             {&action.every, &action.when, &action.hit, &action.crit, &action.crit_factor})
            add(*formula);
        add(action.cost);
        add(action.restores);
        for (const Formula& most : action.deals_up_to) add(most);
        for (const Application& application : action.applies) add(application.chance.formula);
        for (const auto& [damage, formula] : action.deals) add(formula);
        for (const auto& [pool, formula] : action.drains) add(formula);
    }
    void add(const Fighter& fighter) {
        for (const Growth& growth : fighter.growth) add(growth.formula);
        add(fighter.triggers);
    }

    const Armoury& armoury_;
    std::vector<bool> read_, effects_read_;
};

/// Adds the stats that a bearer changes.
void list_stats(const Bearer& bearer, std::vector<StatId>& list) {
    for (const auto* amounts :
         {&bearer.modifiers.add, &bearer.modifiers.percent, &bearer.modifiers.times})
        for (const Amount& amount : *amounts)
            if (std::find(list.begin(), list.end(), amount.stat) == list.end())
                list.push_back(amount.stat);
}

} // namespace

std::vector<bool> stats_read(const Armoury& armoury) {
    return Reader(armoury).stats();
}

std::vector<bool> effects_read(const Armoury& armoury) {
    return Reader(armoury).effects();
}

std::vector<StatId> stats_given(const Armoury& armoury, const Item& item) {
    std::vector<StatId> gifts;
    for_each_bearer(armoury, item,
                    [&](const Bearer& bearer, double) { list_stats(bearer, gifts); });
    if (item.set.given())
        for (const SetStep& step : armoury.at(item.set).steps) list_stats(step, gifts);
    return gifts;
}

std::vector<StatId> idle_gifts(const Armoury& armoury, const std::vector<bool>& read,
                               const Item& item) {
    bool acts = !item.triggers.empty() || !item.actions.empty() || !item.sockets.empty() ||
                !item.contains.empty() || item.grants.bag != 0 || item.grants.capacity != 0;
    if (item.tier.given()) acts = acts || !armoury.at(item.tier).triggers.empty();
    if (item.set.given())
        for (const SetStep& step : armoury.at(item.set).steps)
            acts = acts || !step.triggers.empty();
    std::vector<StatId> gifts = stats_given(armoury, item);
    const bool any_read =
        std::any_of(gifts.begin(), gifts.end(), [&](StatId stat) { return read[stat.index()]; });
    return acts || any_read ? std::vector<StatId>() : gifts;
}

} // namespace panoplon
