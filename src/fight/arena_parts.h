// The state of a fight, as the engine keeps it. Not for others.
#pragma once

#include "fight/engine.h"

#include <cmath>
#include <cstdint>
#include <memory>
#include <vector>

namespace panoplon {

/// Why an effect was not given, as `--why` tells it.
inline constexpr const char* chance_failed = "its chance did not come true";

/// Ends a fight from wherever the fault shows; caught by Arena::run (M66).
struct FightStopped {
    FightError error;
};

/// What timelines call a pool's regen.
inline const std::string regen_word = "regen";

struct EffectState {
    EffectId id;
    const Effect* effect = nullptr;
    Ticks began = 0;
    Ticks end = 0; ///< acts on [began, end)
    Ticks next_tick = 0;
    bool hostile = false; ///< applied by the other side
    double absorb = 0;    ///< damage that it still takes (M23)
};

/// What a trigger remembers in a fight.
struct TriggerState {
    const Trigger* trigger = nullptr;
    Ticks ready = 0;
    double account = 0; ///< chances saved up by even luck (M68)
    std::uint64_t occasions = 0;
};

/// What a blow or a tick takes.
struct Loss {
    double absorbed = 0;
    double lost = 0; ///< from the pool
    [[nodiscard]] double all() const { return absorbed + lost; }
};

/// Damage of an action as an even stream onto one target, in points per tick of the clock (M68).
struct Flow {
    int target = -1; ///< -1: waits for one to come
    double rate = 0;
    std::vector<double> dealt;   ///< by damage that the action deals
    std::vector<double> drained; ///< by pool that the action drains into: what the actor gains
};

/// By even luck: what regen or an effect gives to a pool, in points per tick of the clock.
struct GainSource {
    Origin::Kind kind;
    std::size_t index;
    std::size_t pool;
    double rate;
};

/// An action's formulas, compiled.
struct ActionFormulas {
    Evaluator every;
    std::optional<Evaluator> when;
    std::vector<Evaluator> deals, drains;
    bool steady = false;      ///< only stats decide a blow and its time: its terms can be kept
    bool steady_time = false; ///< only stats decide its time
};

/// What decides a blow before its draws; kept until a stat of either side changes.
struct BlowTerms {
    std::uint64_t self_version = 0;
    std::uint64_t target_version = 0;
    double hit = 0, crit = 0, crit_factor = 1;
    std::vector<double> raw;             ///< by damage that the action deals
    std::vector<double> plain, critical; ///< mitigated, the spread in its middle; for a trial
                                         ///< only where the terms are kept
    std::vector<double> drains;          ///< by pool that the action drains into
};

/// An action on an actor's list, with what the actor knows of it.
struct Place {
    ActionId id;
    const Action* action = nullptr;
    ActionFormulas* formulas = nullptr;
    Ticks ready = 0;
    double account = 0;              ///< chances saved up by even luck (M68)
    Ticks every = 0;                 ///< how long it takes,
    std::uint64_t every_version = 0; ///< while the stats are of that version
    std::vector<BlowTerms> terms;    ///< by those who oppose the actor
};

/// A use rule of an actor, with what it last came to.
struct RuleState {
    std::size_t packed = 0;
    const Use* use = nullptr;
    Evaluator* formula = nullptr; ///< none: the default rule (M33)
    int last_refusal = 0;
};

/// What an actor starts every fight of a setup with.
struct ActorStart {
    std::vector<double> stats;
    std::vector<double> regen;
    double order = 0;
    double capacity = 0;
    int band = no_band;
    Thousandths pack_weight = 0;
    std::uint64_t version = 0;
};

struct Actor {
    const ActorSetup* setup = nullptr; ///< what it wears now
    const ActorSetup* first = nullptr; ///< and at the start, before any swap
    ActorStart start;
    std::vector<double> stats, pools, ceilings;
    std::vector<double> regen;        ///< rate, by regen
    std::vector<EffectState> effects; ///< by effect, then by age
    Ticks next_tick = never;          ///< of its effects: the first tick of what falls in steps,
    Ticks next_end = never;           ///< and the first end
    std::vector<Place> places;        ///< its actions
    std::vector<Ticks> next_regen;    ///< by regen
    Ticks regen_due = 0;              ///< the first of them,
    Ticks regen_moment = never;       ///< and the first that may give something
    Ticks next_cooldown = never;      ///< end of one
    std::vector<Ticks> use_ready;     ///< by packed stack
    std::vector<std::int64_t> left;   ///< by packed stack
    std::vector<RuleState> rules;
    std::vector<TriggerState> triggered;
    std::vector<bool> swapped; ///< by swap of the setup: done, or refused and told
    double restore_factor = 1; ///< × what is restored to it (M23)
    double absorb = 0;         ///< what its effects still take
    bool warded = false;
    bool stirred = true;         ///< something that its use rules could see has changed
    bool always_stirred = false; ///< they see more than the actor itself
    int lives = 0;               ///< left
    int first_lives = 0;
    Ticks revived = -1; ///< when it last lost a life: nothing more hurts it at that instant
    Ticks ready = 0;    ///< busy until
    double order = 0;
    double capacity = 0; ///< what it can carry with its effects, without its band
    int band = no_band;
    Thousandths pack_weight = 0;
    std::uint64_t blows = 0;
    std::uint64_t version = 0; ///< of the stats; no two states share one
    bool present = false;
    bool standing = false;

    // Even luck.
    Place* acting = nullptr; ///< the action that flows,
    Ticks flow_ends = 0;     ///< and until when: a use may keep the actor busy for longer
    std::vector<Flow> flows;
    std::size_t flow_count = 0;
    std::vector<double> own_gains, own_losses; ///< by pool, points per tick: regen and effects
    std::vector<double> gains, losses;         ///< and flows
    std::vector<GainSource> own_sources;       ///< of own_gains, where a ledger is kept
    double own_hostile = 0;                    ///< of own_losses of health: by hostile effects
    double absorb_rate = 0;                    ///< of what would be lost: taken by absorbs
    bool own_rates_changed = true;

    [[nodiscard]] bool active() const { return present && standing; }
};

} // namespace panoplon
