#include "fight/setup.h"

#include "outfit/load.h"
#include "outfit/needs.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// The loadout's own rules in the order of the file, then every other consumable's own or the
/// default in the pack's order (M33).
void set_rules(const Armoury& armoury, const Outfit& outfit, std::vector<SetupRule>& rules) {
    rules.clear();
    const auto allowed = [&](std::size_t packed) {
        const auto& use = armoury.at(outfit.pack[packed].item).use;
        return use && is_among(armoury, use->only, outfit.character);
    };
    for (const UseRule& rule : outfit.uses)
        for (std::size_t i = 0; i < outfit.pack.size(); ++i)
            if (outfit.pack[i].item == rule.item) rules.push_back({i, rule.when, allowed(i)});
    const std::size_t own = rules.size();
    for (std::size_t i = 0; i < outfit.pack.size(); ++i) {
        const bool ruled =
            std::any_of(rules.begin(), rules.begin() + static_cast<std::ptrdiff_t>(own),
                        [&](const SetupRule& rule) { return rule.packed == i; });
        const std::optional<Use>& use = armoury.at(outfit.pack[i].item).use;
        if (!ruled && use) rules.push_back({i, use->when, allowed(i)});
    }
}

} // namespace

LedgerShape ledger_shape(const Armoury& armoury, const ActorSetup& character) {
    return {armoury.damages.size(), armoury.pools.size(), armoury.actions.size(),
            armoury.effects.size(), character.pack.size()};
}

int foes_that_come(const FoeGroup& group, double draw) {
    return group.count + static_cast<int>(draw * (group.most - group.count + 1));
}

int foe_level(const Encounter& encounter, int level) {
    if (!encounter.foe_level.given()) return level;
    Environment environment;
    environment[Scalar::level] = level;
    const double value = Evaluator(encounter.foe_level)(environment);
    constexpr double highest = 10000;
    return std::isfinite(value) ? static_cast<int>(std::clamp(std::round(value), 1.0, highest)) : 1;
}

ActorSetup set_up_character(const Armoury& armoury, const Outfit& outfit) {
    ActorSetup actor;
    set_up_character(armoury, outfit,
                     base_stats(armoury, armoury.at(outfit.character), outfit.level), actor);
    return actor;
}

void set_up_character(const Armoury& armoury, const Outfit& outfit, const std::vector<double>& base,
                      ActorSetup& into) {
    const Character& character = armoury.at(outfit.character);
    into.side = Side::character;
    into.name = into.kind = character.id;
    into.level = outfit.level;
    if (&into.base != &base) into.base = base;
    into.sums.reset(armoury.stats.size());
    into.triggers.clear();
    for (const Borne& borne : bearers_of(armoury, outfit)) {
        into.sums.include(borne.modifiers(), borne.add_factor, borne.levels);
        if (!borne.bearer->triggers.empty()) into.triggers.push_back(borne.bearer);
    }
    into.actions = actions_done(armoury, outfit);
    into.arrival = 0;
    into.begins.clear();
    into.carries = armoury.carry.capacity.given();
    into.worn = worn_share(armoury.carry, worn_weight(armoury, outfit));
    into.granted = to_weight(granted_capacity(armoury, outfit));
    into.pack_shift = 0;
    into.pack = outfit.pack;
    set_rules(armoury, outfit, into.rules);
    into.swaps.clear();
}

namespace {

ActorSetup set_up_foe(const Armoury& armoury, const Foe& foe, int level) {
    ActorSetup actor;
    actor.side = Side::foes;
    actor.kind = foe.id;
    actor.level = level;
    actor.base = base_stats(armoury, foe, level);
    actor.sums.reset(armoury.stats.size());
    actor.sums.include(foe.modifiers);
    actor.actions = foe.actions;
    actor.chooses_by_weight = foe.chooses_by_weight;
    if (!foe.triggers.empty()) actor.triggers.push_back(&foe);
    return actor;
}

/// The outfits that swaps lead to, each loadout once, and from there on.
class Swaps {
  public:
    Swaps(const Armoury& armoury, const Outfit& outfit, FightSetup& setup)
        : armoury_(armoury),
          outfit_(outfit),
          setup_(setup) {}

    void run() {
        setup_.actors.front().swaps = swaps_of(outfit_.worn, outfit_.swaps);
        for (std::size_t i = 0; i < loadouts_.size(); ++i) {
            const Loadout& loadout = armoury_.at(loadouts_[i]);
            std::vector<SetupSwap> swaps = swaps_of(loadout.worn, loadout.swaps);
            setup_.swap_outfits[i].swaps = std::move(swaps);
        }
    }

  private:
    std::vector<SetupSwap> swaps_of(const std::vector<WornItem>& from,
                                    const std::vector<Swap>& swaps) {
        std::vector<SetupSwap> list;
        for (const Swap& swap : swaps) {
            const Loadout& to = armoury_.at(swap.to);
            SetupSwap one{swap.at, swap.when, swap.takes, outfit_index(swap.to),
                          to.id,   {},        swap.span};
            std::vector<ItemId> worn;
            for_each_worn(from, [&](const WornItem& w) { worn.push_back(w.item); });
            for_each_worn(to.worn, [&](const WornItem& w) {
                const auto at = std::find(worn.begin(), worn.end(), w.item);
                if (at != worn.end()) {
                    worn.erase(at);
                    return;
                }
                one.takes += armoury_.at(w.item).draw_time;
                if (!owned(w.item))
                    one.refused = fmt::format("{} is not in the pack", armoury_.at(w.item).id);
            });
            for (const ItemId left : worn)
                if (armoury_.at(left).cursed)
                    one.refused =
                        fmt::format("{} is cursed: it can't be taken off", armoury_.at(left).id);
            list.push_back(std::move(one));
        }
        return list;
    }

    /// Worn or packed at the start: gear is not used up in a fight.
    [[nodiscard]] bool owned(ItemId item) const {
        bool there = std::any_of(outfit_.pack.begin(), outfit_.pack.end(),
                                 [&](const PackedItem& packed) { return packed.item == item; });
        for_each_worn(outfit_.worn,
                      [&](const WornItem& worn) { there = there || worn.item == item; });
        return there;
    }

    std::size_t outfit_index(LoadoutId id) {
        const auto at = std::find(loadouts_.begin(), loadouts_.end(), id);
        if (at != loadouts_.end()) return static_cast<std::size_t>(at - loadouts_.begin());
        loadouts_.push_back(id);
        Outfit worn = outfit_;
        worn.worn = armoury_.at(id).worn;
        setup_.swap_outfits.push_back(set_up_character(armoury_, worn));
        setup_.swap_outfits.back().pack_shift =
            worn_weight(armoury_, outfit_) - worn_weight(armoury_, worn);
        return loadouts_.size() - 1;
    }

    const Armoury& armoury_;
    const Outfit& outfit_;
    FightSetup& setup_;
    std::vector<LoadoutId> loadouts_;
};

} // namespace

namespace {

/// What an actor of a setup can ever do, by itself and by its consumables.
std::vector<ActionId> actions_ever(const Armoury& armoury, const ActorSetup& actor) {
    std::vector<ActionId> all = actor.actions;
    for (const SetupRule& rule : actor.rules)
        if (const ActionId does = armoury.at(actor.pack[rule.packed].item).use->does; does.given())
            all.push_back(does);
    return all;
}

/// The others of a fight, side after side.
class Others {
  public:
    Others(const Armoury& armoury, const Encounter& encounter, int level)
        : armoury_(armoury),
          met_(armoury.foes.size(), 0) {
        add_allies(encounter, level);
        add_foes(encounter, foe_level(encounter, level));
    }

    std::vector<ActorSetup> actors;

  private:
    void add_allies(const Encounter& encounter, int level) {
        for (const LoadoutId ally : encounter.allies) {
            actors.push_back(
                set_up_character(armoury_, outfit_of(armoury_, armoury_.at(ally), level)));
            actors.back().kind = armoury_.at(ally).id;
            actors.back().name = fmt::format("ally.{}", armoury_.at(ally).id);
        }
        std::vector<ActionId> all;
        for (std::size_t i = 0; i < armoury_.actions.size(); ++i) all.emplace_back(i);
        const std::size_t allies = actors.size();
        add_called(0, all, Side::character, level, "ally.");
        for (std::size_t i = 0; i < allies; ++i)
            add_called(i + 1, actions_ever(armoury_, actors[i]), Side::character, level, "ally.");
        met_.assign(met_.size(), 0);
    }

    void add_foes(const Encounter& encounter, int level) {
        const std::size_t first = actors.size();
        for (const FoeGroup& group : encounter.foes) {
            ActorSetup actor = set_up_foe(armoury_, armoury_.at(group.foe), level);
            actor.arrival = group.at;
            const auto at = static_cast<std::size_t>(&group - encounter.foes.data());
            for (int i = 0; i < group.most; ++i) {
                if (group.most > group.count) actor.uncertain = SetupGroup{at, &group, i};
                add_named(actor, group.foe, "");
            }
        }
        const std::size_t end = actors.size();
        for (std::size_t i = first; i < end; ++i)
            add_called(i + 1, actions_ever(armoury_, actors[i]), Side::foes, level, "");
    }

    /// A place for each that one of the actions may call.
    void add_called(std::size_t by, const std::vector<ActionId>& actions, Side side, int level,
                    const char* before) {
        for (const ActionId id : actions) {
            const Summons& summons = armoury_.at(id).summons;
            if (!summons.foe.given()) continue;
            ActorSetup actor = set_up_foe(armoury_, armoury_.at(summons.foe), level);
            actor.side = side;
            actor.arrival = never;
            actor.called = SetupCall{by, id, summons.duration};
            for (int i = 0; i < summons.most; ++i) add_named(actor, summons.foe, before);
        }
    }

    void add_named(ActorSetup actor, FoeId foe, const char* before) {
        actor.name = fmt::format("{}{}.{}", before, armoury_.at(foe).id, ++met_[foe.index()]);
        actors.push_back(std::move(actor));
    }

    const Armoury& armoury_;
    std::vector<int> met_; ///< by foe, on the side that is being added
};

} // namespace

std::vector<ActorSetup> set_up_others(const Armoury& armoury, const Encounter& encounter,
                                      int level) {
    return std::move(Others(armoury, encounter, level).actors);
}

FightSetup set_up_fight(const Armoury& armoury, const Outfit& outfit, EncounterId encounter) {
    FightSetup setup;
    setup.encounter = encounter;
    setup.actors.push_back(set_up_character(armoury, outfit));
    for (ActorSetup& other : set_up_others(armoury, armoury.at(encounter), outfit.level))
        setup.actors.push_back(std::move(other));
    Swaps(armoury, outfit, setup).run();
    return setup;
}

} // namespace panoplon
