#include "armoury/crosscheck.h"

#include "armoury/bounds.h"
#include "base/text.h"
#include "model/corridor.h"
#include "model/growth.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

enum class Visit { unseen, open, done };

/// Depth-first over what derived stats need.
class DerivedOrder {
  public:
    DerivedOrder(Armoury& armoury, Sink& sink)
        : armoury_(armoury),
          sink_(sink),
          visits_(armoury.stats.size(), Visit::unseen) {}

    void run() {
        for (std::size_t i = 0; i < armoury_.stats.size(); ++i) visit(i);
    }

  private:
    void visit(std::size_t stat) {
        if (visits_[stat] == Visit::done || !armoury_.stats[stat].value.given()) return;
        if (visits_[stat] == Visit::open) return report_cycle(stat);
        if (path_.size() == longest_chain) return report_depth(stat);
        visits_[stat] = Visit::open;
        path_.push_back(stat);
        for (const Variable& variable : armoury_.stats[stat].value.variables)
            if (variable.block == Block::self_stat) visit(variable.index);
        path_.pop_back();
        visits_[stat] = Visit::done;
        armoury_.derived_order.emplace_back(stat);
    }

    void report_depth(std::size_t stat) {
        if (told_depth_) return;
        told_depth_ = true;
        sink_.mistake(armoury_.stats[path_.front()].value.span,
                      fmt::format("'{}' needs '{}' through more than {} other stats",
                                  armoury_.stats[path_.front()].id, armoury_.stats[stat].id,
                                  longest_chain - 1));
    }

    void report_cycle(std::size_t stat) {
        std::vector<std::string> names;
        for (auto at = std::find(path_.begin(), path_.end(), stat); at != path_.end(); ++at)
            names.push_back(armoury_.stats[*at].id);
        names.push_back(armoury_.stats[stat].id);
        sink_.mistake(armoury_.stats[stat].value.span,
                      fmt::format("a cycle of stats: {}", join(names, " needs ")),
                      "a derived stat can't need itself (M3)");
    }

    Armoury& armoury_;
    Sink& sink_;
    std::vector<Visit> visits_;
    std::vector<std::size_t> path_;
    bool told_depth_ = false;
};

/// True when a formula's value depends on `changed`, through any number of derived stats.
bool depends_on(const Armoury& armoury, const Formula& formula, StatId changed) {
    std::vector<bool> moves(armoury.stats.size(), false);
    moves[changed.index()] = true;
    const auto moved = [&](const Formula& one) {
        return std::any_of(one.variables.begin(), one.variables.end(),
                           [&](const Variable& variable) {
                               return variable.block == Block::self_stat && moves[variable.index];
                           });
    };
    for (const StatId stat : armoury.derived_order)
        if (moved(armoury.at(stat).value)) moves[stat.index()] = true;
    return moved(formula);
}

bool acyclic(const Armoury& armoury) {
    const auto derived = std::count_if(armoury.stats.begin(), armoury.stats.end(),
                                       [](const Stat& stat) { return stat.value.given(); });
    return armoury.derived_order.size() == static_cast<std::size_t>(derived);
}

void check_bands(const Armoury& armoury, Sink& sink) {
    if (!acyclic(armoury)) return;
    const std::vector<Band>& bands = armoury.carry.bands;
    for (std::size_t i = 0; i < bands.size(); ++i) {
        if (i > 0 && bands[i - 1].edge == bands[i].edge &&
            bands[i - 1].includes == bands[i].includes)
            sink.mistake(bands[i].span,
                         fmt::format("the bands '{}' and '{}' begin at the same load, {}",
                                     bands[i - 1].name, bands[i].name, shortest(bands[i].edge)));
        for (const Change change : {Change::add, Change::percent, Change::times})
            for (const Amount& amount : bands[i].modifiers.of(change))
                if (depends_on(armoury, armoury.carry.capacity, amount.stat))
                    sink.mistake(
                        bands[i].span,
                        fmt::format(
                            "the band '{}' changes '{}', which the carry capacity is made from",
                            bands[i].name, armoury.at(amount.stat).id),
                        "the load decides the band, so the band can't decide the load (M50)");
    }
}

void check_levels(const Armoury& armoury, const Definition& definition, const char* kind,
                  LevelRange levels, Sink& sink) {
    if (armoury.levels.last == 0) return; // what levels there are could not be read
    const bool outside = levels.first > armoury.levels.last || levels.last < armoury.levels.first;
    if (outside)
        sink.mistake(definition.span,
                     fmt::format("the {} '{}' has levels {} to {}; the armoury has {} to {}", kind,
                                 definition.id, levels.first, levels.last, armoury.levels.first,
                                 armoury.levels.last));
}

void check_health(const Armoury& armoury, const Fighter& fighter, const char* kind, Sink& sink) {
    if (!armoury.combat.health.given() || !armoury.at(armoury.combat.health).max.given()) return;
    const StatId ceiling = armoury.at(armoury.combat.health).max;
    const bool computed = armoury.at(ceiling).value.given() || !fighter.modifiers.empty();
    if (computed) return; // a fight tells, with the values
    for (const int level : {std::max(armoury.levels.first, 1), std::max(armoury.levels.last, 1)}) {
        const double health = base_stats(armoury, fighter, level)[ceiling.index()];
        if (health > 0) continue;
        sink.mistake(fighter.span,
                     fmt::format("the {} '{}' has {} {} at level {}: it could not stand", kind,
                                 fighter.id, shortest(health), armoury.at(ceiling).id, level),
                     fmt::format("give it base = {{ {} = … }} above 0", armoury.at(ceiling).id));
        return;
    }
}

void check_loadout(const Armoury& armoury, const Loadout& loadout, Sink& sink) {
    check_levels(armoury, loadout, "loadout", loadout.levels, sink);
    for (const UseRule& rule : loadout.uses) {
        const Item& item = armoury.at(rule.item);
        if (!item.use)
            sink.mistake(rule.span,
                         fmt::format("'{}' has no use: it can't have a use rule", item.id));
    }
    for (const BoughtUpgrade& part : loadout.points)
        if (part.upgrade.given() && armoury.at(part.upgrade).points == 0)
            sink.mistake(
                part.span,
                fmt::format("the upgrade '{}' takes no points", armoury.at(part.upgrade).id),
                "give it points = 1, or name it under `upgrades` (M45)");
    for (const Swap& swap : loadout.swaps) {
        const Loadout& to = armoury.at(swap.to);
        if (to.character != loadout.character)
            sink.mistake(
                swap.span,
                fmt::format("'{}' swaps to '{}', which is another character's", loadout.id, to.id),
                "a swap is to a loadout of the same character (M71)");
        if (&to == &loadout)
            sink.mistake(swap.span, fmt::format("'{}' swaps to itself", loadout.id));
    }
}

void check_tiers(const Armoury& armoury, Sink& sink) {
    for (std::size_t i = 0; i < armoury.tiers.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (armoury.tiers[i].rank == armoury.tiers[j].rank)
                sink.mistake(armoury.tiers[i].span,
                             fmt::format("the tiers '{}' and '{}' have the same rank, {}",
                                         armoury.tiers[j].id, armoury.tiers[i].id,
                                         armoury.tiers[i].rank));
}

/// A formula reads `self.NAME` as a stat first: a stat of a name that something else brings would
/// hide that.
void check_names_in_formulas(const Armoury& armoury, Sink& sink) {
    for (const Stat& stat : armoury.stats) {
        const auto refuse = [&](const std::string& whose) {
            sink.mistake(
                stat.span, fmt::format("the stat '{}' has the name of {}", stat.id, whose),
                fmt::format("self.{} could be either; call the stat something else", stat.id));
        };
        for (const Pool& pool : armoury.pools)
            if (stat.id == pool.id || stat.id == pool.id + "_share")
                refuse(fmt::format("the pool '{}'{}", pool.id,
                                   stat.id == pool.id ? "" : ", or of its share"));
        for (const Effect& effect : armoury.effects)
            if (stat.id == effect.id + "_active" || stat.id == effect.id + "_copies")
                refuse(fmt::format("what formulas see of the effect '{}'", effect.id));
        if (stat.id == "load" && armoury.carry.capacity.given())
            refuse("what formulas see of what is carried");
    }
}

/// What a shop sells has a price.
void check_stock(const Armoury& armoury, Sink& sink) {
    for (const Journey& journey : armoury.journeys)
        for (const Stage& stage : journey.stages)
            for (const PackedItem& sold : stage.shop.stock)
                if (sold.item.given() && armoury.at(sold.item).value <= 0)
                    sink.mistake(sold.span,
                                 fmt::format("the shop sells '{}', which has no value",
                                             armoury.at(sold.item).id),
                                 "give it a value: that is what it costs (M97c)");
}

/// Who was called calls nobody: there would be no end of it.
void check_calls(const Armoury& armoury, Sink& sink) {
    for (const Action& action : armoury.actions) {
        if (!action.summons.foe.given()) continue;
        for (const ActionId id : armoury.at(action.summons.foe).actions)
            if (armoury.at(id).summons.foe.given())
                sink.mistake(action.span,
                             fmt::format("'{}' summons '{}', which summons by '{}'", action.id,
                                         armoury.at(action.summons.foe).id, armoury.at(id).id),
                             "what is summoned summons nobody (M64a)");
    }
}

/// Gear is not used up.
void check_spent(const Armoury& armoury, Sink& sink) {
    for (const Action& action : armoury.actions)
        for (const PackedItem& spent : action.spends)
            if (spent.item.given() && armoury.at(spent.item).worn())
                sink.mistake(spent.span,
                             fmt::format("'{}' spends '{}', which is worn", action.id,
                                         armoury.at(spent.item).id),
                             "what is spent is a thing of the pack, with no slot (M61b)");
}

void check_shields(const Armoury& armoury, Sink& sink) {
    if (!armoury.combat.health.given()) return;
    const Pool& health = armoury.at(armoury.combat.health);
    if (health.shields.given())
        sink.mistake(health.shields.span, fmt::format("'{}' can't shield itself", health.id),
                     "`shields` is for another pool, which loses in its place (M23c)");
}

/// The yardstick's corridor has its low side under its high side, at every level.
void check_corridor(const Armoury& armoury, Sink& sink) {
    if (!armoury.yardstick.given() || !armoury.wanted_low.given()) return;
    for (int level = armoury.levels.first; level <= armoury.levels.last; ++level) {
        const auto wanted = wanted_corridor(armoury, armoury.yardstick, level);
        if (!wanted || wanted->low <= wanted->high) continue;
        sink.mistake(
            armoury.wanted_low.span,
            fmt::format("the wanted corridor of power is upside down at level {}: {} to {}", level,
                        shortest(wanted->low), shortest(wanted->high)));
        return;
    }
}

} // namespace

void order_derived_stats(Armoury& armoury, Sink& sink) {
    DerivedOrder(armoury, sink).run();
}

void cross_check(const Armoury& armoury, Sink& sink) {
    check_bands(armoury, sink);
    check_tiers(armoury, sink);
    check_names_in_formulas(armoury, sink);
    check_calls(armoury, sink);
    check_spent(armoury, sink);
    check_stock(armoury, sink);
    check_shields(armoury, sink);
    for (const Character& character : armoury.characters)
        check_health(armoury, character, "character", sink);
    for (const Foe& foe : armoury.foes) check_health(armoury, foe, "foe", sink);
    for (const Loadout& loadout : armoury.loadouts) check_loadout(armoury, loadout, sink);
    for (const Encounter& encounter : armoury.encounters)
        check_levels(armoury, encounter, "encounter", encounter.levels, sink);
    check_corridor(armoury, sink);
    for (const Journey& journey : armoury.journeys)
        if (journey.character.given() && journey.start.given() &&
            armoury.at(journey.start).character.given() &&
            armoury.at(journey.start).character != journey.character)
            sink.mistake(journey.span,
                         fmt::format("the journey '{}' is {}'s, but starts with a loadout of {}",
                                     journey.id, armoury.at(journey.character).id,
                                     armoury.at(armoury.at(journey.start).character).id));
    cross_check_gear(armoury, sink);
}

} // namespace panoplon
