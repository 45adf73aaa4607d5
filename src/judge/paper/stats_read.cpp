#include "judge/paper/stats_read.h"

#include <algorithm>

namespace panoplon {

namespace {

class Reader {
  public:
    explicit Reader(const Armoury& armoury)
        : armoury_(armoury),
          read_(armoury.stats.size(), false) {}

    std::vector<bool> run() {
        const CombatRules& combat = armoury_.combat;
        for (const Formula* formula : {&combat.hit, &combat.crit, &combat.crit_factor,
                                       &combat.order, &combat.lives, &armoury_.carry.capacity})
            add(*formula);
        for (const Pool& pool : armoury_.pools) {
            add(pool.max);
            add(pool.regen);
        }
        for (const DamageType& damage : armoury_.damages) add(damage.mitigated);
        for (const Effect& effect : armoury_.effects) add(effect.absorbs);
        for (const Action& action : armoury_.actions) add(action);
        for (const Character& character : armoury_.characters) add(character);
        for (const Foe& foe : armoury_.foes) add(foe);
        for (const Loadout& loadout : armoury_.loadouts) {
            for (const UseRule& rule : loadout.uses) add(rule.when);
            for (const Swap& swap : loadout.swaps) add(swap.when);
        }
        for (const Item& item : armoury_.items)
            for (const Amount& need : item.needs.stats) add(need.stat);
        return std::move(read_);
    }

  private:
    void add(StatId stat) {
        if (read_[stat.index()]) return;
        read_[stat.index()] = true;
        add(armoury_.at(stat).value);
    }
    void add(const Formula& formula) {
        for (const Variable& variable : formula.variables)
            if (variable.block == Block::self_stat || variable.block == Block::other_stat)
                add(StatId(std::size_t{variable.index}));
    }
    void add(const Action& action) {
        add(action.every);
        add(action.when);
        for (const auto& [damage, formula] : action.deals) add(formula);
        for (const auto& [pool, formula] : action.drains) add(formula);
    }
    void add(const Fighter& fighter) {
        for (const Growth& growth : fighter.growth) add(growth.formula);
    }

    const Armoury& armoury_;
    std::vector<bool> read_;
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
    return Reader(armoury).run();
}

std::vector<StatId> stats_given(const Armoury& armoury, const Item& item) {
    std::vector<StatId> gifts;
    list_stats(item, gifts);
    if (item.tier.given()) list_stats(armoury.at(item.tier), gifts);
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
