// Who fights, what it does and what it wears: actions, characters, foes, loadouts.
#pragma once

#include "model/gear.h"
#include "model/vocabulary.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace panoplon {

/// What an action lays on someone when it hits (M62).
struct Application {
    EffectId effect;
    Quantity chance = 1; ///< of who strikes and whom it hits
    Ticks duration = 0;
    bool to_self = false; ///< else to the target
};

inline constexpr int all_targets = 0;

/// Whom an action calls to the actor's side (M64a).
struct Summons {
    FoeId foe; ///< none: nobody
    int count = 1;
    int most = 1; ///< of them that stand at a time
    Ticks duration = never;
};

struct Action : Definition {
    Formula every;
    Ticks cooldown = 0;
    std::vector<std::pair<PoolId, Quantity>> cost, restores; ///< of who does it
    std::vector<PackedItem> spends;                          ///< units that it takes from the pack
    Summons summons;
    std::vector<std::pair<DamageId, Formula>> deals;
    std::vector<Formula> deals_up_to; ///< as `deals`; empty: its spread is the armoury's
    Formula hit, crit, crit_factor;   ///< empty: the armoury's
    std::vector<std::pair<PoolId, Formula>> drains; ///< share of what the target lost
    int targets = 1;                                ///< `front` is 1; all_targets
    Formula when;
    std::vector<Application> applies;    ///< each with a chance of its own
    std::vector<std::string> needs_worn; ///< tags, of each of which something has to be worn
    double weight = 1;                   ///< where one is chosen by weight
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
    Formula points; ///< to spend by a level; empty: none
};

struct Foe : Fighter {
    DropsId drops;                  ///< none: it leaves nothing
    bool chooses_by_weight = false; ///< of what it could do; else the first
};

struct WornItem {
    SlotId slot;
    ItemId item;
    Span span;
    std::vector<WornItem> socketed; ///< what its sockets hold
    Drawn drawn = {};
    int felled = 0; ///< foes, since it was put on (M97e)

    bool operator==(const WornItem&) const = default;
};

struct BoughtUpgrade {
    UpgradeId upgrade;
    int levels = 0;
    Span span;
};

struct UseRule {
    ItemId item;
    Formula when;
    Span span;
};

/// A change to another loadout in a fight (M71).
struct Swap {
    LoadoutId to;
    Ticks at = never; ///< or
    Formula when;
    Ticks takes = 0;
    Span span;
};

struct Loadout : Definition {
    CharacterId character;
    LevelRange levels;
    std::vector<WornItem> worn; ///< in the order of the slots
    std::vector<PackedItem> pack;
    std::vector<UseRule> uses;
    std::vector<BoughtUpgrade> upgrades;
    std::vector<BoughtUpgrade> points; ///< `levels` is the part of each
    std::vector<Swap> swaps;
    std::vector<ActionId> actions; ///< all that it does, the first first; empty: as M61 has it
};

} // namespace panoplon
