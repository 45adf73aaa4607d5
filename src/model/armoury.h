// Everything about one game's gear, read, checked and resolved: plain structs, names as indices.
// Times are Ticks, weights Thousandths, levels whole numbers from 1.
#pragma once

#include "model/encounters.h"
#include "model/fighters.h"
#include "model/gear.h"
#include "model/vocabulary.h"

#include <cstdint>
#include <string>
#include <vector>

namespace panoplon {

enum class Clock { seconds, rounds };

struct Band : Bearer {
    double edge = 0;      ///< load share
    bool includes = true; ///< `from`: at the edge it applies; `above`: it does not (M51)
};

struct Carry {
    Formula capacity;             ///< empty: nothing is weighed
    std::int64_t bag = unlimited; ///< stacks
    double worn_factor = 1;
    double limit = 1e9;      ///< load share above which nothing more can be carried (M52)
    std::vector<Band> bands; ///< by rising edge
    Span span;

    /// The band of an index, or null for none (below 0).
    [[nodiscard]] const Band* band(int index) const {
        return index < 0 ? nullptr : &bands[static_cast<std::size_t>(index)];
    }
};

struct CombatRules {
    PoolId health;
    Formula hit, crit, crit_factor, order;
    double spread = 0; ///< ± share of the amount, uniform, [0, 1]
    bool crit_after_mitigation = false;
    Formula returned; ///< share of what a blow took that comes back to who struck; empty: none
    Formula lives;    ///< empty: none
    double revive_share = 1;
    Ticks time_limit = 0;
    std::int64_t event_limit = 100000;
    Span span;
};

struct Budget {
    Formula points; ///< of `level`; empty: no budget
    double tolerance = 0.15;
    Span span;
};

/// What an item is judged among (M81c): what is of its tier and below, or everything.
enum class Among { tier, all };

/// Thresholds of the verdicts (M83).
struct AuditRules {
    int window = 5; ///< levels
    int grace = 1;  ///< levels
    int step = 1;   ///< levels
    Among among = Among::tier;
    double dominant_share = 0.8;
    double dominant_grip = 0.2;
    double useless_shortfall = 0.5;
};

/// A resolved armoury. Formulas are compiled by those who evaluate them, one set a thread.
struct Armoury {
    std::string name;
    Clock clock = Clock::seconds;
    LevelRange levels{0, 0}; ///< 0 only until they are read
    std::string hash;        ///< of every file's path and text, 16 hexadecimal digits

    std::vector<Stat> stats;
    std::vector<Pool> pools;
    std::vector<DamageType> damages;
    std::vector<Tier> tiers;
    std::vector<Slot> slots;
    std::vector<ItemSet> sets;
    std::vector<Affix> affixes;
    std::vector<Pattern> patterns;
    std::vector<Item> items;
    std::vector<Effect> effects;
    std::vector<Upgrade> upgrades;
    std::vector<Action> actions;
    std::vector<Character> characters;
    std::vector<Foe> foes;
    std::vector<Loadout> loadouts;
    std::vector<Encounter> encounters;
    std::vector<Drops> drops;
    std::vector<Journey> journeys;

    CombatRules combat;
    Carry carry;
    Budget budget;
    EncounterId yardstick;           ///< none: no power
    Formula wanted_low, wanted_high; ///< of power, by level; both or none
    AuditRules audit;

    /// Derived stats after the stats that they need (M3).
    std::vector<StatId> derived_order;
    /// By item: its place when items are sorted by id. Sums over worn items follow it, so that
    /// neither the order of files nor of wearing matters (M1). Sets and upgrades likewise.
    std::vector<int> item_rank, set_rank, upgrade_rank;

    [[nodiscard]] const Stat& at(StatId id) const { return stats[id.index()]; }
    [[nodiscard]] const Pool& at(PoolId id) const { return pools[id.index()]; }
    [[nodiscard]] const DamageType& at(DamageId id) const { return damages[id.index()]; }
    [[nodiscard]] const Tier& at(TierId id) const { return tiers[id.index()]; }
    [[nodiscard]] const Slot& at(SlotId id) const { return slots[id.index()]; }
    [[nodiscard]] const ItemSet& at(SetId id) const { return sets[id.index()]; }
    [[nodiscard]] const Affix& at(AffixId id) const { return affixes[id.index()]; }
    [[nodiscard]] const Pattern& at(PatternId id) const { return patterns[id.index()]; }
    [[nodiscard]] const Item& at(ItemId id) const { return items[id.index()]; }
    [[nodiscard]] const Effect& at(EffectId id) const { return effects[id.index()]; }
    [[nodiscard]] const Upgrade& at(UpgradeId id) const { return upgrades[id.index()]; }
    [[nodiscard]] const Action& at(ActionId id) const { return actions[id.index()]; }
    [[nodiscard]] const Character& at(CharacterId id) const { return characters[id.index()]; }
    [[nodiscard]] const Foe& at(FoeId id) const { return foes[id.index()]; }
    [[nodiscard]] const Loadout& at(LoadoutId id) const { return loadouts[id.index()]; }
    [[nodiscard]] const Encounter& at(EncounterId id) const { return encounters[id.index()]; }
    [[nodiscard]] const Drops& at(DropsId id) const { return drops[id.index()]; }
    [[nodiscard]] const Journey& at(JourneyId id) const { return journeys[id.index()]; }
};

/// The index of a definition by its id, or a `none`.
template <class Kind, class Item>
[[nodiscard]] Id<Kind> find_id(const std::vector<Item>& list, const std::string& id) {
    for (std::size_t i = 0; i < list.size(); ++i)
        if (list[i].id == id) return Id<Kind>(i);
    return {};
}

/// The yardstick first, then all that have a weight.
[[nodiscard]] std::vector<EncounterId> encounters_that_count(const Armoury& armoury);

/// What one unit of an item comes with, and what that comes with: each thing once, with how many in
/// all (bounded, units.h), after whatever it comes with. No circle leads back to the item.
[[nodiscard]] std::vector<PackedItem> contents_of(const Armoury& armoury, ItemId item);

/// Calls visit(bearer, what its `add` amounts are multiplied by) for an item, the middle of what is
/// drawn for it, and its tier.
template <class Visit>
void for_each_bearer(const Armoury& armoury, const Item& item, const Visit& visit) {
    const Tier* tier = item.tier.given() ? &armoury.at(item.tier) : nullptr;
    const double factor = tier ? tier->stat_factor : 1;
    visit(static_cast<const Bearer&>(item), factor);
    for (const AffixDraw& draw : item.affixes) visit(static_cast<const Bearer&>(draw), factor);
    if (tier) visit(static_cast<const Bearer&>(*tier), 1.0);
}

/// Whether an item is among what the drops can find, at any level.
[[nodiscard]] bool can_drop(const Drops& drops, const Armoury& armoury, ItemId item);

} // namespace panoplon
