// What a fight gives: its outcome, its ledger and, when asked for, its timeline.
#pragma once

#include "diagnostic/source.h"
#include "model/armoury.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// A fight that could not go on (M66).
struct FightError {
    std::string message; ///< names the formula and its values, or the limit
    Span span;
};

/// What gives or takes: for the ledger, and by its name in the timeline.
struct Origin {
    enum class Kind : std::uint8_t {
        action,
        effect, ///< its ticks
        packed, ///< a consumable of the character, by its place in the pack
        others, ///< consumables of allies
        regen,
        trigger, ///< of whatever is borne: it gives effects, which give and take by themselves
    };
    Kind kind;
    std::uint32_t index; ///< of the action, the effect, the packed stack; else 0
    const std::string* id;

    Origin(Kind what, std::size_t which, const std::string& name)
        : kind(what),
          index(static_cast<std::uint32_t>(which)),
          id(&name) {}
};

/// How long the lists of a ledger are, and where an origin stands in those by source.
struct LedgerShape {
    std::size_t damages = 0, pools = 0, actions = 0, effects = 0, packed = 0;

    [[nodiscard]] std::size_t sources() const { return actions + effects + packed + 2; }
    [[nodiscard]] std::size_t source(Origin::Kind kind, std::size_t index) const {
        switch (kind) {
        case Origin::Kind::action: return index;
        case Origin::Kind::effect: return actions + index;
        case Origin::Kind::packed: return actions + effects + index;
        case Origin::Kind::others: return actions + effects + packed;
        default: return actions + effects + packed + 1;
        }
    }
    bool operator==(const LedgerShape&) const = default;
};

/// Of a packed consumable.
struct UseCount {
    double used = 0;
    double refused =
        0;           ///< wanted, but refused anew: none left, cooling down, or it would do nothing
    double left = 0; ///< units still packed at the end
    double cut = 0;  ///< time that its uses cut off an effect that ran,
    double overlap = 0; ///< or gave beside one that kept theirs out
};

struct ActionCount {
    double done = 0;
    double hits = 0, crits = 0, misses = 0; ///< by trials; crits are among the hits
    double warded = 0;                      ///< hits that a ward took
    double dealt = 0;
    double returned = 0; ///< points that came back to who did it
};

struct EffectCount {
    double uptime = 0;  ///< in units of time, while at least one actor has it
    double cut = 0;     ///< time cut off by a renewal
    double overlap = 0; ///< time of applications that a running one kept out
};

/// What a source gave to the character's side, of one pool.
struct Given {
    double restored = 0;
    double wasted = 0; ///< past the ceiling
};

/// What a fight moved, and what it wasted (M91). Amounts in points; times in the armoury's unit.
/// "Ours" is the character's side. Several ledgers of one shape add up.
struct Ledger {
    LedgerShape shape;
    double events = 0;
    double overkill = 0;
    std::vector<double> dealt, taken;                     ///< by damage type, of blows
    std::vector<double> dealt_by_effect, taken_by_effect; ///< by effect, of its ticks
    std::vector<double> dealt_by_action, taken_by_action; ///< by action, then damage type
    std::vector<double> restored, wasted;                 ///< by pool, of our side
    std::vector<Given> given;                             ///< by source, then pool
    std::vector<UseCount> uses;                           ///< by packed stack of the character
    std::vector<ActionCount> actions, foe_actions;        ///< by action: ours, theirs
    std::vector<EffectCount> effects;                     ///< by effect

    void reset(const LedgerShape& new_shape);
    /// Finds what is a sum of other lists: by damage type, and by pool.
    void sum_up();
    void add(const Ledger& other);
    [[nodiscard]] double all_dealt() const;
    [[nodiscard]] double all_taken() const;
    [[nodiscard]] const Given& given_by(Origin::Kind kind, std::size_t index, PoolId pool) const {
        return given[shape.source(kind, index) * shape.pools + pool.index()];
    }
};

struct FightResult : Ledger {
    bool won = false;
    bool timed_out = false;
    double time = 0;
    /// Won: the share of its health that the character has left, > 0. Lost: minus the share of
    /// all the foes' health that is left, < 0. By even luck it passes 0 where the outcome turns.
    double remainder = 0;
    std::vector<double> pools_left; ///< of the character, in shares of their ceilings
    std::optional<FightError> error;

    void reset(const LedgerShape& new_shape);
};

/// What is told of one moment.
struct TimelineEvent {
    double time = 0;
    std::string side, actor, event, source, target;
    double amount = 0;
    double pool_after = 0;
    double load_share = 0;
    std::string note;
};

/// Pools of every actor after an instant, in shares of their ceilings.
struct PoolSample {
    double time = 0;
    std::vector<std::vector<double>> shares; ///< by actor, by pool; empty before arrival
    int band = -1;                           ///< the character's load band; -1 for none
};

struct EffectBar {
    std::size_t actor = 0;
    EffectId effect;
    double from = 0;
    double to = 0;
};

struct Timeline {
    std::vector<std::string> actors;
    std::vector<TimelineEvent> events;
    std::vector<PoolSample> samples;
    std::vector<EffectBar> bars;
};

} // namespace panoplon
