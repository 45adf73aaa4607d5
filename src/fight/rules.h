// An armoury's rules for fights, compiled: its formulas by the index of what they belong to, and
// what can be told of each action and effect before any fight. Not for others.
#pragma once

#include "fight/time_turns.h"
#include "formula/formula.h"
#include "model/armoury.h"
#include "outfit/derive.h"

#include <cstddef>
#include <memory>
#include <optional>
#include <vector>

namespace panoplon::fighting {

/// Trigger events, one bit for each.
using EventSet = unsigned;
[[nodiscard]] constexpr EventSet event_bit(TriggerEvent event) {
    return 1U << static_cast<unsigned>(event);
}
[[nodiscard]] EventSet events_of(const Bearer& bearer);
[[nodiscard]] EventSet events_of(const std::vector<const Bearer*>& bearers);

/// A number of a definition, or the formula that gives it.
struct CompiledQuantity {
    double number = 0;
    Evaluator* formula = nullptr; ///< given: its value counts, and not the number
};
using PoolQuantities = std::vector<std::pair<std::size_t, CompiledQuantity>>;

/// An action's formulas, compiled.
struct ActionFormulas {
    explicit ActionFormulas(const Formula& time) : every(time) {}

    Evaluator every;
    std::optional<Evaluator> when;
    std::optional<TimeTurns> turns; ///< of `when`, where it reads the time
    std::vector<Evaluator> deals, drains;
    std::vector<Evaluator> up_to; ///< as `deals`; empty: the armoury's spread
    Evaluator *hit = nullptr, *crit = nullptr,
              *crit_factor = nullptr; ///< its own, or the armoury's
    PoolQuantities costs, gives;
    std::vector<CompiledQuantity> chances; ///< by what it applies
    bool strikes = true;                   ///< somebody: it does more than restore and call
    bool calls = false;                    ///< somebody
    bool steady = false;        ///< only stats decide a blow and its time: its terms can be kept,
    bool unspread = false;      ///< and no draw spreads what it deals
    bool steady_time = false;   ///< only stats decide its time
    bool unconditional = false; ///< costs nothing and has no condition,
    bool renewable = false;     ///< nor a cooldown; steady, and applies to one target at most
};

/// A condition of a use or a swap, compiled.
struct Condition {
    explicit Condition(const Formula& formula);
    Evaluator value;
    std::optional<TimeTurns> turns; ///< where it reads the time
};

struct PoolRegen {
    std::size_t pool;
    Evaluator rate;
    bool moves; ///< more than stats decide it
    Ticks period;
    double units; ///< of the period
};

/// What an effect does to a pool, by unit of time.
struct PoolStep {
    std::size_t pool;
    CompiledQuantity rate;
    double amount; ///< at each of its ticks, where it is a number
};

/// What using a consumable takes and gives.
struct UseQuantities {
    PoolQuantities restore;
    CompiledQuantity takes; ///< units
};

/// A pool that loses a share of what health would (M23c).
struct PoolShield {
    std::size_t pool;
    Evaluator share;
    bool moves; ///< more than stats decide it
};

struct Rules {
    explicit Rules(const Armoury& armoury);

    /// A condition, compiled once; null where there is none.
    [[nodiscard]] Condition* condition(const Formula& formula);
    [[nodiscard]] CompiledQuantity compiled(const Quantity& quantity);

    const Armoury& armoury;
    Deriver deriver;
    std::size_t health; ///< index of the health pool
    std::size_t pools;  ///< of an actor
    Evaluator hit, crit, crit_factor, order;
    std::vector<Evaluator> mitigated; ///< by damage type
    std::vector<PoolRegen> regens;    ///< of the pools that have any
    std::vector<PoolShield> shields;  ///< likewise
    std::vector<ActionFormulas> actions;
    std::vector<std::vector<PoolStep>> steps; ///< by effect
    std::vector<bool> reckoned;               ///< by effect: what it gives is found as it begins
    std::vector<std::optional<Evaluator>> absorbs; ///< by effect
    std::vector<UseQuantities> uses;               ///< by item
    std::optional<Evaluator> lives;
    std::optional<Evaluator> returned; ///< of who was struck and who struck
    std::vector<std::unique_ptr<Condition>> conditions;
    EventSet passing_hear = 0; ///< what triggers of effects and bands wait for
    bool anybody_taunts = false;
    bool order_moves = false;  ///< more than stats decide the order,
    bool shields_move = false; ///< or what any pool shields
    std::int64_t event_limit = 0;
};

} // namespace panoplon::fighting
