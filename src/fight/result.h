// What a fight gives: its outcome, its ledger and, when asked for, its timeline.
#pragma once

#include "diagnostic/source.h"
#include "model/armoury.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// A fight that could not go on (M66).
struct FightError {
    std::string message; ///< names the formula and its values, or the limit
    Span span;
};

struct UseCount {
    double used = 0;
    double refused =
        0; ///< wanted, but refused anew: none left, cooling down, or it would do nothing
};

struct ActionCount {
    double done = 0;
    double dealt = 0;
};

struct EffectCount {
    double uptime = 0;  ///< in units of time, while at least one actor has it
    double cut = 0;     ///< time cut off by a renewal
    double overlap = 0; ///< time of applications that a running one kept out
};

/// Amounts in points; times in the armoury's unit.
struct FightResult {
    bool won = false;
    bool timed_out = false;
    double time = 0;
    /// Won: the share of its health that the character has left, > 0. Lost: minus the share of
    /// all the foes' health that is left, < 0. By even luck it passes 0 where the outcome turns.
    double remainder = 0;
    double events = 0;
    double overkill = 0;
    std::vector<double> dealt, taken; ///< by damage type
    double dealt_by_effects = 0, taken_by_effects = 0;
    std::vector<double> restored, wasted; ///< by pool, of the character's side
    std::vector<UseCount> uses;           ///< by item
    std::vector<ActionCount> actions;     ///< by action, of the character's side
    std::vector<EffectCount> effects;     ///< by effect
    std::vector<double> left;             ///< by item: units still packed
    std::optional<FightError> error;

    void reset(const Armoury& armoury);
    [[nodiscard]] double all_dealt() const;
    [[nodiscard]] double all_taken() const;
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
