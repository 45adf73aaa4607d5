// Where fighting leads: encounters, drops, journeys.
#pragma once

#include "model/fighters.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace panoplon {

struct FoeGroup {
    FoeId foe;
    int count = 1; ///< at least
    int most = 1;  ///< drawn evenly between both
    Ticks at = 0;  ///< arrival
};

struct Encounter : Definition {
    LevelRange levels;
    Formula foe_level; ///< empty: the level of the character
    std::vector<FoeGroup> foes;
    double weight = 1; ///< in audits; 0: left out
    std::optional<std::pair<double, double>> wanted_margin;
    std::vector<LoadoutId> allies;
    std::vector<ItemId> requires_worn, requires_carried;
};

/// What a win finds.
struct Drops : Definition {
    double rolls = 1;              ///< mean finds of a win
    std::vector<ItemId> items;     ///< these; or, when empty,
    std::vector<std::string> tags; ///< those with any of these tags (all when empty too)
    int level_band = 1000;         ///< and a level within so many of the finder's
    Formula luck;
    std::vector<PackedItem> counts; ///< units of one find where it is not 1
    /// How often each is found where that is not 1; empty: as the tiers have it.
    std::vector<PackedItem> weights;
};

enum class Policy { best, first, tier };

/// A shop before a stage, in coin (M97c).
struct Shop {
    std::vector<PackedItem> stock;
    double price = 1; ///< × value
    double pays = 0;  ///< share of value
    double mends = 0; ///< share of value, of what is worn out wholly
};

struct Stage {
    EncounterId encounter;
    int wins = 1;
    int tries = 100;
    DropsId drops; ///< none: nothing is found
    double coin = 0;
    int level_gain = 0;
    bool rest = false;
    std::vector<PackedItem> gives;                ///< at its end,
    std::vector<std::pair<UpgradeId, int>> gains; ///< and levels of upgrades
    Shop shop;
    Span span;
};

struct Journey : Definition {
    CharacterId character;
    LoadoutId start;
    Policy policy = Policy::best;
    double coin = 0;
    std::vector<PoolId> carries_over;
    std::vector<Stage> stages;
};

} // namespace panoplon
