// An actor of a fight, with everything about it that a fight changes. Not for others.
#pragma once

#include "fight/pool_rows.h"
#include "fight/result.h"
#include "fight/rules.h"
#include "fight/setup.h"
#include "outfit/load.h"

#include <algorithm>
#include <cstdint>
#include <deque>
#include <utility>
#include <vector>

namespace panoplon::fighting {

struct EffectState {
    EffectId id;
    const Effect* effect = nullptr;
    Ticks began = 0;
    Ticks end = 0; ///< acts on [began, end)
    Ticks next_tick = 0;
    bool ticks = false;                         ///< it has something to do then
    bool hostile = false;                       ///< applied by the other side
    double absorb = 0;                          ///< damage that it still takes (M23)
    const std::vector<double>* rates = nullptr; ///< by pool, where formulas gave them
};

/// What differs from nothing, or from all there can be, by no more than this share of the latter is
/// nothing, or all (M12a): sums and differences of amounts round.
inline constexpr double rounding = 1e-9;

/// An account of chances that is this close to 1 has reached it: ten tenths are 1 (M68).
inline constexpr double full_account = 1 - 1e-9;

/// What a trigger remembers in a fight.
struct TriggerState {
    const Trigger* trigger = nullptr;
    CompiledQuantity chance;
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

struct Actor;
struct Place;

/// Damage of an action as an even stream onto one target, in points per tick of the clock (M68).
struct Flow {
    Actor* target = nullptr;
    // What it was found from: the same again is the same flow.
    double strength = 0;
    std::uint64_t self_version = 0, target_version = 0;
    std::uint64_t unlike_self = 0, unlike_target = 0; ///< from these it would be another
    double hit = 0, crit = 0;                         ///< how likely a blow is to be one
    double rate = 0;
    double returned = 0;         ///< what comes back to the actor
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

/// One damage of a blow, of an actor of strength 1.
struct DamageTerms {
    double raw = 0;                 ///< the least of it, where it has a range,
    double range = 0;               ///< and what lies between that and the most
    double plain = 0, critical = 0; ///< mitigated, the spread in its middle; for a trial only where
                                    ///< the terms are kept
    std::size_t type = 0;
};

/// What decides a blow before its draws; kept until a stat of either side changes.
struct BlowTerms {
    std::uint64_t self_version = 0;
    std::uint64_t target_version = 0;
    double hit = 0, crit = 0, crit_factor = 1;
    double returned = 0;              ///< share that comes back
    std::vector<DamageTerms> damages; ///< by damage that the action deals
    std::vector<double> drains;       ///< by pool that the action drains into
};

/// The terms of an action against one target that are kept: for a few states of both sides, the
/// newest in place of the oldest.
struct TermsKept {
    static constexpr std::size_t most = 8;
    std::vector<BlowTerms> list;
    std::size_t oldest = 0;
    const BlowTerms* latest = nullptr; ///< that was found

    TermsKept() = default;
    TermsKept(TermsKept&&) = default; // a copy would point into the other's list

    /// Those of these versions; null when they are not kept.
    [[nodiscard]] const BlowTerms* find(std::uint64_t self, std::uint64_t target) {
        const auto is = [&](const BlowTerms& terms) {
            return terms.self_version == self && terms.target_version == target;
        };
        if (latest && is(*latest)) return latest;
        latest = nullptr;
        for (const BlowTerms& terms : list)
            if (is(terms)) latest = &terms;
        return latest;
    }
    /// Room for terms to be found anew.
    [[nodiscard]] BlowTerms& next(bool several) {
        latest = nullptr;
        if (list.empty() || (several && list.size() < most)) return list.emplace_back();
        if (several) oldest = (oldest + 1) % most;
        return list[oldest];
    }
};

/// An action on an actor's list, with what the actor knows of it.
struct Place {
    ActionId id;
    const Action* action = nullptr;
    ActionFormulas* formulas = nullptr;
    std::size_t index = 0;                                    ///< on the list
    std::vector<std::pair<std::size_t, std::int64_t>> spends; ///< units, by packed stack
    bool lacks_stack = false;                                 ///< what it spends was never packed
    Ticks ready = 0;
    std::vector<double> accounts; ///< chances saved up by even luck (M68), by what it applies
    double turn = 0;              ///< of those who choose by weight, likewise
    std::vector<TermsKept> terms; ///< by those who oppose the actor,
    std::vector<Flow> flows;      ///< likewise, by even luck
    ActionCount* count = nullptr; ///< what the ledger has of it,
    double* dealt = nullptr;      ///< and of what it deals, by damage type
};

/// Why a wanted use does not happen (M30); told in the timeline and counted when it changes.
enum class Refused : std::uint8_t { no, none_left, cooling_down, nothing_to_do, not_allowed };

/// A use rule of an actor, with what it last came to.
struct RuleState {
    std::size_t packed = 0;
    const Use* use = nullptr;
    const UseQuantities* amounts = nullptr;
    Condition* formula = nullptr; ///< none: the default rule (M33)
    bool sees_pools = true;       ///< else effects only
    Refused last_refusal = Refused::no;
    std::size_t pool = 0;
    double quiet_from = never; ///< with so much in that pool it is not wanted, for certain,
    double refused_below = 0;  ///< and with less than this it is: refused while it cools down
    bool over = false;         ///< none is left, and that was told
};

/// What has changed of an actor since its use rules were last looked at.
enum class Stirred : std::uint8_t { no, pools, all };

/// An actor's stats with what it wears, its effects and its band, and what they alone decide:
/// found once for all fights of a setup, since one state has one value (M2).
struct Derived {
    const ActorSetup* setup = nullptr;
    std::vector<EffectId> effects; ///< those that change stats
    int band = no_band;
    BandReach reach;     ///< of the band
    double capacity = 0; ///< what can be carried, without the band
    std::vector<double> stats;
    std::vector<double> regen; ///< rate, by regen; of those that only stats decide
    double order = 0;          ///< likewise
    std::vector<Ticks> every;  ///< by place, how long it takes; 0: not found yet
    std::uint64_t version = 0; ///< no two states share one
};

/// The states of an actor that were found already. References hold until clear() or until `most`
/// are known, when all are forgotten.
class DerivedStates {
  public:
    void clear() { count_ = 0; }
    template <class Is>
    [[nodiscard]] Derived* find(const Is& is) {
        for (std::size_t i = 0; i < count_; ++i)
            if (is(list_[i])) return &list_[i];
        return nullptr;
    }
    [[nodiscard]] Derived& next() {
        if (count_ == most) count_ = 0;
        if (count_ == list_.size()) list_.emplace_back();
        return list_[count_++];
    }

  private:
    static constexpr std::size_t most = 64;
    std::deque<Derived> list_; ///< those from count_ on are room to be used again
    std::size_t count_ = 0;
};

/// Whether it is there, and its lives (M64).
struct Life {
    bool present = false;
    bool standing = false; ///< or is to come
    bool counts = true;    ///< among the health of its side: who may never come does not
    Ticks arrival = 0;
    Ticks leaves = never; ///< who was called
    int left = 0;         ///< lives
    int first = 0;
    Ticks revived = -1; ///< when it last lost one: nothing more hurts it at that instant
};

/// What it was before any swap.
struct Start {
    const ActorSetup* setup = nullptr;
    Derived* derived = nullptr; ///< while it has this version
    std::uint64_t version = 0;
};

/// When it next has something of a kind.
struct Due {
    std::vector<Ticks> regens; ///< by regen
    Ticks regen = 0;           ///< the first that may give something
    Ticks cooldown = never;    ///< end of one
};

/// What effects come to besides stats.
struct UnderEffects {
    Ticks next_tick = never;             ///< the first tick of what falls in steps,
    Ticks next_end = never;              ///< and the first end
    double restore_factor = 1;           ///< × what is restored to it (M23)
    double absorb = 0;                   ///< what its effects still take
    bool warded = false, immune = false; ///< to some effect
    bool stops_actions = false, stops_uses = false;
    bool taunts = false;
};

/// What it has packed, by packed stack.
struct PackState {
    std::vector<Ticks> ready;
    std::vector<std::int64_t> left;
    std::vector<int> groups; ///< who cools down together; 0: alone
    Thousandths weight = 0;
    Thousandths first_weight = 0; ///< at the start
};

struct UseState {
    std::vector<RuleState> rules;
    bool any = false;
    bool sees_others = false; ///< its rules see more than the actor itself
    bool uneasy = true;       ///< whatever pools hold: time alone may make something of a rule
    Stirred stirred = Stirred::all;
};

/// By swap of the setup.
struct SwapState {
    std::vector<Condition*> due; ///< null: by time
    std::vector<bool> done;      ///< or refused and told
};

/// By even luck.
struct FlowState {
    Place* acting = nullptr;  ///< the action that flows,
    Ticks ends = 0;           ///< and until when: a use may keep the actor busy for longer
    bool renewing = false;    ///< begun again, it would go on as it is,
    Ticks same_choice = 0;    ///< and until then nothing else is begun;
    bool sets_off = false;    ///< but something could come of it
    std::vector<Flow*> flows; ///< of what it does; null: waits for one to come
    std::vector<GainSource> own_sources; ///< of its own gains, where a ledger is kept
    double own_hostile = 0;              ///< of its own loss of health: by hostile effects
    double absorb_rate = 0;              ///< of what would be lost: taken by absorbs
    double struck = 0;                   ///< what shields have a share of
    double to_health = 1;                ///< share of it that health loses
    bool own_rates_changed = true;
};

struct Actor : PoolPart {
    bool ours = false;    ///< of the character's side
    bool clocked = false; ///< a condition of its uses, swaps or actions reads the time
    EventSet hears = 0;   ///< what its own and worn triggers wait for
    Life life;
    std::uint64_t index = 0;           ///< among the actors of the fight,
    std::size_t position = 0;          ///< and on its side
    Actor* opposed = nullptr;          ///< the first of those whom it opposes,
    Actor* opposed_end = nullptr;      ///< and the end of them
    double strength = 1;               ///< × what it deals, and its health (M69)
    const ActorSetup* setup = nullptr; ///< what it wears now
    Start start;
    DerivedStates states;
    Derived* derived = nullptr;       ///< of now
    ActorView view;                   ///< what formulas see of it now
    std::vector<EffectState> effects; ///< by effect, then by age
    std::vector<double> copies;       ///< by effect, how many of them there are
    UnderEffects under;
    std::vector<Place> places; ///< its actions,
    std::vector<Place> thrown; ///< and what its uses do, by use rule: with no action where nothing
    Due due;
    std::vector<Actor*> callable; ///< who comes when it calls
    PackState pack;
    UseState uses;
    std::vector<TriggerState> triggered;
    SwapState swaps;
    Ticks ready = 0; ///< busy until
    double order = 0;
    std::uint64_t blows = 0, choices = 0;
    FlowState even;

    Actor() = default;
    Actor(Actor&&) = default; // its places are not to be copied
    [[nodiscard]] bool active() const { return life.present && life.standing; }
};

/// By even luck: what comes of an actor's beginnings, while nobody's state changes.
struct Renewal {
    struct Heard {
        Actor* hearer;
        std::size_t trigger; ///< of its triggered
        double chance;       ///< that is saved up
        [[nodiscard]] TriggerState& state() const { return hearer->triggered[trigger]; }
    };
    Actor* actor = nullptr;
    Ticks every = 0;
    std::vector<Heard> heard;
    bool moves = false;             ///< a chance of it hangs on more than states
    Actor* receiver = nullptr;      ///< of what the action applies; none where it applies nothing
    EffectState* running = nullptr; ///< what is only prolonged
    double saves = 0;               ///< chance of it
};

} // namespace panoplon::fighting
