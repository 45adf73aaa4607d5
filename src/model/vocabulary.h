// The words of an armoury: stats, pools, damage types, and ranges of levels.
#pragma once

#include "formula/formula.h"
#include "model/bearer.h"

#include <cstdint>
#include <string>

namespace panoplon {

enum class Better { higher, lower, neither };
enum class Rounding { none, down, nearest };

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
    double step = 0;             ///< what is added to it is a multiple of this; 0: of anything
    Formula value;               ///< of a derived stat (M3)
    bool outside_fights = false; ///< no formula of a fight is meant to read it
};

struct Pool : Definition {
    StatId max;              ///< the stat that is its ceiling
    Formula regen;           ///< per unit of time; empty: none
    Ticks period = 1e6;      ///< regen falls at multiples of it (M21)
    double start = 1;        ///< share of the ceiling at the start, [0, 1]
    bool keep_share = false; ///< M11: a rising ceiling lifts the pool with it
    Formula shields; ///< share of what health would lose that it loses instead; empty: none (M23c)
};

struct DamageType : Definition {
    Formula mitigated; ///< of `amount`
};

} // namespace panoplon
