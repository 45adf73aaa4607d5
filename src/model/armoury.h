// Everything about one game's gear, read, checked and resolved: plain structs, names as indices.
// Times are Ticks, weights Thousandths, levels whole numbers from 1.
#pragma once

#include "diagnostic/source.h"
#include "formula/formula.h"
#include "model/bearer.h"
#include "model/ids.h"
#include "model/units.h"

#include <array>
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace panoplon {

enum class Better { higher, lower, neither };
enum class Rounding { none, down, nearest };
enum class Clock { seconds, rounds };

/// Both ends belong to it.
struct LevelRange {
    int first = 1;
    int last = 1;
    [[nodiscard]] bool holds(int level) const { return level >= first && level <= last; }
};

struct Stat : Definition {
    Better better = Better::higher; ///< M5
    double min = 0;
    double max = 1e9;
    double cost = 0; ///< budget points per point
    Rounding rounding = Rounding::none;
    Formula value; ///< of a derived stat (M3)
};

struct Pool : Definition {
    StatId max;              ///< the stat that is its ceiling
    Formula regen;           ///< per unit of time; empty: none
    Ticks period = 1e6;      ///< regen falls at multiples of it (M21)
    double start = 1;        ///< share of the ceiling at the start, [0, 1]
    bool keep_share = false; ///< M11: a rising ceiling lifts the pool with it
};

struct DamageType : Definition {
    Formula mitigated; ///< of `amount`
};

struct Tier : Bearer {
    int rank = 0;
    std::string mark;
    std::uint32_t colour = 0; ///< 0xRRGGBB
    double budget = 1;        ///< × the level's budget
    double stat_factor = 1;   ///< × the item's own `add` amounts (M44)
};

struct Slot : Definition {
    int count = 1; ///< places it has
};

/// What using a consumable does (M30–M33).
struct Use {
    std::vector<std::pair<PoolId, double>> restore;
    EffectId effect;    ///< none: only restores
    Ticks duration = 0; ///< of the effect; `never` for always
    Ticks cooldown = 0;
    std::string group; ///< items of one group cool down together; empty: its own
    Ticks takes = 0;   ///< no action in that time (M32)
};

struct Item : Bearer {
    SlotId slot;   ///< none: not worn
    TierId tier;   ///< none: no rarity
    int level = 1; ///< worn from this level on (M41)
    Thousandths weight = 0;
    double value = 0;
    std::int64_t stack = 1; ///< units in a stack, or `unlimited` (M53)
    std::optional<Use> use;
    std::vector<ActionId> actions; ///< stand before the character's own (M61)
    std::vector<std::string> tags;

    [[nodiscard]] bool worn() const { return slot.given(); }
};

enum class Again { refresh, extend, pile, keep }; ///< M20

struct Effect : Bearer {
    std::vector<std::pair<PoolId, double>> per_time; ///< per unit of time; negative takes away
    Ticks period = 1e6;
    Again again = Again::refresh;
    int pile_max = 1;
};

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

/// What an action lays on someone when it hits (M62).
struct Application {
    EffectId effect;
    double chance = 1;
    Ticks duration = 0;
    bool to_self = false; ///< else to the target
};

inline constexpr int all_targets = 0;

struct Action : Definition {
    Formula every;
    Ticks cooldown = 0;
    std::vector<std::pair<PoolId, double>> cost;
    std::vector<std::pair<DamageId, Formula>> deals;
    std::vector<std::pair<PoolId, Formula>> drains; ///< share of what the target lost
    int targets = 1;                                ///< `front` is 1; all_targets
    Formula when;
    std::optional<Application> applies;
};

/// A stat that grows: a number a level above the first, or a formula of the level.
struct Growth {
    StatId stat;
    double per_level = 0;
    Formula formula; ///< given: its value is what is added to the base
};

struct Fighter : Bearer {
    std::vector<Amount> base;
    std::vector<Growth> growth;
    std::vector<ActionId> actions; ///< the first that is ready is done (M61)
};

struct Character : Fighter {
    std::string calling;
};

struct Foe : Fighter {};

struct WornItem {
    SlotId slot;
    ItemId item;
    Span span;
};

struct PackedItem {
    ItemId item;
    std::int64_t count = 0;
    Span span;
};

struct UseRule {
    ItemId item;
    Formula when;
    Span span;
};

struct Loadout : Definition {
    CharacterId character;
    LevelRange levels;
    std::vector<WornItem> worn; ///< in the order of the slots
    std::vector<PackedItem> pack;
    std::vector<UseRule> uses;
};

struct FoeGroup {
    FoeId foe;
    int count = 1;
    Ticks at = 0; ///< arrival
};

struct Encounter : Definition {
    LevelRange levels;
    Formula foe_level; ///< empty: the level of the character
    std::vector<FoeGroup> foes;
    double weight = 1; ///< in audits; 0: left out
    std::optional<std::pair<double, double>> wanted_margin;
};

struct CombatRules {
    PoolId health;
    Formula hit, crit, crit_factor, order;
    double spread = 0; ///< ± share of the amount, uniform, [0, 1]
    Ticks time_limit = 0;
    std::int64_t event_limit = 100000;
    Span span;
};

struct Budget {
    Formula points; ///< of `level`; empty: no budget
    double tolerance = 0.15;
    Span span;
};

/// Thresholds of the verdicts (M83).
struct AuditRules {
    int window = 5; ///< levels
    int grace = 1;  ///< levels
    int step = 1;   ///< levels
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
    std::vector<Item> items;
    std::vector<Effect> effects;
    std::vector<Action> actions;
    std::vector<Character> characters;
    std::vector<Foe> foes;
    std::vector<Loadout> loadouts;
    std::vector<Encounter> encounters;

    CombatRules combat;
    Carry carry;
    Budget budget;
    EncounterId yardstick; ///< none: no power
    AuditRules audit;

    /// Derived stats after the stats that they need (M3).
    std::vector<StatId> derived_order;
    /// By item: its place when items are sorted by id. Sums over worn items follow it, so that
    /// neither the order of files nor of wearing matters (M1).
    std::vector<int> item_rank;

    [[nodiscard]] const Stat& at(StatId id) const { return stats[id.index()]; }
    [[nodiscard]] const Pool& at(PoolId id) const { return pools[id.index()]; }
    [[nodiscard]] const DamageType& at(DamageId id) const { return damages[id.index()]; }
    [[nodiscard]] const Tier& at(TierId id) const { return tiers[id.index()]; }
    [[nodiscard]] const Slot& at(SlotId id) const { return slots[id.index()]; }
    [[nodiscard]] const Item& at(ItemId id) const { return items[id.index()]; }
    [[nodiscard]] const Effect& at(EffectId id) const { return effects[id.index()]; }
    [[nodiscard]] const Action& at(ActionId id) const { return actions[id.index()]; }
    [[nodiscard]] const Character& at(CharacterId id) const { return characters[id.index()]; }
    [[nodiscard]] const Foe& at(FoeId id) const { return foes[id.index()]; }
    [[nodiscard]] const Loadout& at(LoadoutId id) const { return loadouts[id.index()]; }
    [[nodiscard]] const Encounter& at(EncounterId id) const { return encounters[id.index()]; }
};

/// The index of a definition by its id, or a `none`.
template <class Kind, class Item>
[[nodiscard]] Id<Kind> find_id(const std::vector<Item>& list, const std::string& id) {
    for (std::size_t i = 0; i < list.size(); ++i)
        if (list[i].id == id) return Id<Kind>(i);
    return {};
}

} // namespace panoplon
