// The inside of the engine: the rules that move a fight. Not for others.
//
// arena_parts.h has the state that they move; arena.cpp holds preparation and the end,
// arena_clock.cpp the order of moments and within one; the other arena_*.cpp each hold one matter:
// actors' state, effects, uses, triggers, swaps, blows by trial, flows by even luck and what of
// them is passed over, hits counted, reasons, telling. arena_hot.h has what is called most.
#pragma once

#include "fight/arena_parts.h"

namespace panoplon {

class Arena {
  public:
    explicit Arena(const Armoury& armoury);

    void prepare(const FightSetup& setup);
    void prepare_character(const ActorSetup& character);
    const FightResult& run(double strength, const std::optional<Luck>& luck, Detail detail,
                           Timeline* timeline, Inquiry* inquiry);

    [[nodiscard]] std::vector<BlowCount> blows();
    [[nodiscard]] const Armoury& armoury() const { return armoury_; }
    [[nodiscard]] Deriver& deriver() { return deriver_; }

  private:
    // arena.cpp: the clock
    void fight();
    void begin_counting(const LedgerShape& shape);
    void begin();
    void find_what_there_is();
    [[nodiscard]] bool reads_time(const Actor& actor);
    [[gnu::always_inline]] inline void instant();
    [[gnu::always_inline]] inline void act_all();
    void arrive();
    void find_active();
    void sort_order();
    [[nodiscard]] [[gnu::always_inline]] inline Ticks next_in_trial();
    [[nodiscard]] [[gnu::always_inline]] inline Ticks next_end();
    void finish();
    void count_event() {
        if (++events_ > event_limit_) too_many_events();
    }
    [[noreturn]] void too_many_events() const;
    void find_next_cooldown(Actor& actor);
    [[nodiscard]] Ticks next_cooldown();
    [[nodiscard]] Ticks next_turn_in_time();
    [[nodiscard]] Ticks next_turn_in_time(Actor& actor);
    [[nodiscard]] bool someone_left(Side side) const;
    [[nodiscard]] double health_left(Side side) const;

    // arena_state.cpp: stats, pools, falls
    void prepare_actor(Actor& actor, const ActorSetup& setup);
    void find_groups(Actor& actor) const;
    void start_actor(Actor& actor);
    void derive(Actor& actor);
    [[nodiscard]] Derived& derived(Actor& actor);
    void find_derived(Actor& actor, Derived& state);
    /// What counts of what it wears and packs.
    [[nodiscard]] static Thousandths carried(const Actor& actor) {
        return actor.setup->worn + actor.pack_weight;
    }
    void weigh_pack(Actor& actor);
    /// What is within rounding of a pool's ceiling (M12a).
    [[nodiscard]] static double rounding_of(const Actor& actor, std::size_t pool) {
        return rounding * actor.ceilings[pool];
    }
    /// Takes up to an amount from a pool; returns what was taken.
    static double take_from(Actor& actor, std::size_t pool, double amount);
    void set_ceilings(Actor& actor, bool first);
    [[nodiscard]] double regen_rate(const Actor& actor, std::size_t regen);
    void find_regen_moments(Actor& actor);
    void refresh_order();
    void fall(Actor& actor, Actor* by);
    [[nodiscard]] int lives_of(Actor& actor);
    [[nodiscard]] bool lose_life(Actor& actor);
    void restore(Actor& actor, std::size_t pool, double amount, Origin origin);
    void count_given(const Origin& origin, std::size_t pool, double restored, double wasted);
    /// Takes health away, down to 0; returns what was lost. What is over it is overkill (M62).
    double lose_health(Actor& actor, double amount);
    [[gnu::always_inline]] inline Loss take_damage(Actor& actor, double amount);
    [[nodiscard]] double health(const Actor& actor) const { return actor.pools[health_]; }
    [[nodiscard]] static ActorView view_of(const Actor& actor) {
        return {actor.derived->stats.data(), actor.pools, actor.ceilings};
    }
    [[nodiscard]] Environment environment(const Actor& self, const Actor* other) const;
    [[noreturn]] static void no_number(const Evaluator& formula, double value);
    [[nodiscard]] static double evaluate(Evaluator& formula, const Environment& environment);
    [[nodiscard]] static bool holds(Evaluator& formula, const Environment& environment) {
        return evaluate(formula, environment) != 0;
    }

    // arena_effects.cpp
    void apply_effect(Actor& target, EffectId id, Ticks duration, bool hostile,
                      const Origin& origin);
    void make_room(Actor& target, const EffectState& oldest, const Origin& origin);
    void begin_effect(Actor& target, EffectId id, Ticks duration, bool hostile);
    void prolong(EffectState& running, Ticks moment, Ticks duration, const Origin& origin);
    void count_lost_time(EffectId id, const Origin& origin, Ticks cut, Ticks overlap);
    void count_tick(const Actor& actor, EffectId id, double lost);
    void find_standing_effects(Actor& actor);
    void find_effect_moments(Actor& actor);
    void wear_absorbs(Actor& actor, double amount);
    [[nodiscard]] bool would_act(const Actor& target, EffectId id, Ticks duration) const;
    [[nodiscard]] bool has_effect(const Actor& actor, EffectId id) const;
    void drop_effect(Actor& actor, std::size_t at);
    [[gnu::always_inline]] inline void tick_effects();
    [[gnu::always_inline]] inline void tick(Actor& actor, const EffectState& state);
    double drain_pool(Actor& actor, std::size_t pool, double amount);
    /// M69: what foes do hurts `strength` times as much, their effects too.
    [[nodiscard]] double tick_strength(const Actor& target, const EffectState& state) const {
        return state.hostile && target.ours ? strength_ : 1;
    }
    [[gnu::always_inline]] inline void regenerate();
    void end_effects();
    void effect_began(EffectId id);
    void effect_ended(const Actor& actor, const EffectState& state);

    // arena_triggers.cpp
    void fire(Actor& actor, TriggerEvent event, Actor* other, double chance = 1) {
        if (hears(actor, event_bit(event))) fire_all(actor, event, other, chance);
    }
    /// Whether something that an actor bears waits for one of these.
    [[nodiscard]] bool hears(const Actor& actor, EventSet events) const {
        return ((actor.hears | passing_hear_) & events) != 0;
    }
    void fire_all(Actor& actor, TriggerEvent event, Actor* other, double chance);
    void fire_one(Actor& actor, const Trigger& trigger, const std::string& source, Actor* other,
                  double chance);
    [[nodiscard]] static TriggerState& state_of(Actor& actor, const Trigger& trigger);
    [[nodiscard]] bool comes_true(Actor& actor, TriggerState& state, double chance);

    // arena_swaps.cpp
    void consider_swaps();
    void swap(Actor& actor, const SetupSwap& swap);
    [[nodiscard]] Ticks next_swap() const;

    /// Whose uses and pack the ledger tells of: allies have their own.
    [[nodiscard]] static bool is_character(const Actor& actor) { return actor.index == 0; }
    [[nodiscard]] Origin origin_of(ActionId id) const {
        return {Origin::Kind::action, id.index(), armoury_.at(id).id};
    }
    [[nodiscard]] Origin origin_of(EffectId id) const {
        return {Origin::Kind::effect, id.index(), armoury_.at(id).id};
    }
    [[nodiscard]] Origin origin_of_use(const Actor& user, std::size_t packed) const {
        return {is_character(user) ? Origin::Kind::packed : Origin::Kind::others,
                is_character(user) ? packed : 0, armoury_.at(user.setup->pack[packed].item).id};
    }

    // arena_uses.cpp
    void consider_uses() {
        if (stirred_) consider_all_uses();
    }
    [[gnu::always_inline]] inline void consider_all_uses();
    [[gnu::always_inline]] inline void wake_users();
    /// What most looks at a rule come to, without ado.
    [[nodiscard]] bool dismissed(const Actor& actor, RuleState& rule) const;
    void find_quiet(Actor& actor);
    void stir(Actor& actor);
    /// Only a pool of it changed.
    void stir_pool(Actor& actor, std::size_t pool);
    void wake(Actor& actor);
    [[nodiscard]] bool is_calm(const Actor& actor) const;
    void find_calm(Actor& actor);
    void unsettle(Actor& actor);
    [[gnu::noinline]] void consider_rule(Actor& actor, RuleState& rule);
    [[nodiscard]] RuleFormula* rule_formula(const Formula& formula);
    [[nodiscard]] bool wanted(const Actor& actor, const RuleState& rule);
    [[nodiscard]] bool default_wants(const Actor& actor, const Use& use) const;
    [[nodiscard]] bool would_do_something(const Actor& actor, const Use& use) const;
    void refuse_use(Actor& actor, std::size_t packed, const char* why);
    void consume(Actor& actor, std::size_t packed);

    // arena_actions.cpp
    void take_up(Actor& actor);
    void make_places(Actor& actor);
    [[nodiscard]] [[gnu::always_inline]] inline Place* choose_action(Actor& actor,
                                                                     const Actor* front);
    [[nodiscard]] bool when_holds(Actor& actor, Place& place, const Actor& front);
    [[nodiscard]] static bool affordable(const Actor& actor, const Action& action);
    [[gnu::always_inline]] inline void begin_action(Actor& actor, Place& place);
    [[nodiscard]] [[gnu::always_inline]] inline Ticks time_of(Actor& actor, Place& place);
    [[nodiscard]] Ticks time_taken(Actor& actor, const Place& place) const;
    [[nodiscard]] [[gnu::always_inline]] static inline Actor* front_target(const Actor& actor);
    /// Where the ledger counts what the actor does.
    void find_counts(Actor& actor);
    [[nodiscard]] static bool opposed(const Actor& actor, const Actor& other) {
        return actor.ours != other.ours;
    }
    [[gnu::always_inline]] inline void strike(Actor& actor, Place& place, Actor* front);
    [[nodiscard]] [[gnu::always_inline]] inline const BlowTerms&
    blow_terms(Actor& actor, Place& place, Actor& target);
    void find_blow_terms(BlowTerms& terms, Actor& actor, const Place& place, Actor& target);
    [[nodiscard]] double mitigated(std::size_t type, double amount, Environment& env);
    [[gnu::always_inline]] inline double deal(Actor& actor, Place& place, Actor& target,
                                              const BlowTerms& terms, const BlowDraws& draws,
                                              bool critical);
    [[gnu::noinline]] double spread_damage(const Actor& actor, const Actor& target,
                                           const DamageTerms& damage, double factor, double draw);
    [[gnu::cold, gnu::noinline]] void blow_stopped(const Actor& actor, const Place& place,
                                                   const Actor& target, const char* event,
                                                   const char* why);
    void apply_on_hit(Actor& actor, Place& place, Actor& target, double draw);
    [[gnu::always_inline]] inline void land_blow(Actor& actor, Place& place, Actor& target);
    [[nodiscard]] static double chance_of(Evaluator& formula, const Environment& environment);

    // arena_hits.cpp
    [[nodiscard]] double hit_damage(Actor& actor, Place& place, Actor& target, bool critical);

    // arena_even.cpp
    void flow_action(Actor& actor, Place& place);
    void end_flows();
    void change_own_rates(Actor& actor) {
        actor.own_rates_changed = true;
        rates_stirred_ = true;
    }
    Flow& flow_onto(Actor& actor, Place& place, Actor& target);
    void find_flow(Flow& flow, Actor& actor, Place& place, Actor& target);
    void save_up(Actor& actor, Place& place, Actor& target, const Flow& flow);
    void find_rates();
    void find_own_rates(Actor& actor);
    void keep_ledger(const Actor& actor, Ticks passed);
    void keep_gains(const Actor& actor, Ticks passed);
    void flow_until(Ticks moment);
    [[nodiscard]] Ticks flow_on(Ticks limit);
    void find_falls();
    [[nodiscard]] Ticks next_absorbed() const;
    void fall_by_flow();
    void retarget();

    // arena_renewals.cpp
    [[nodiscard]] bool renews(Actor& actor);
    [[nodiscard]] bool still_flows(Actor& actor, Flow& flow, Actor& target);
    [[nodiscard]] Ticks same_choice_until(const Actor& actor) const;
    [[nodiscard]] Ticks uses_rest_until(const Actor& actor) const;
    [[nodiscard]] EffectState* prolonged_by(Actor& receiver, EffectId effect) const;
    void find_renewal(Renewal& renewal, Actor& actor);
    [[nodiscard]] bool renew(Renewal& renewal);
    [[nodiscard]] bool sets_off(const Actor& actor) const;
    [[nodiscard]] Renewal* next_to_renew(Ticks before);
    void renew_until(Actor& actor, Ticks moment);
    struct Outlook {
        Ticks next; ///< when something is due
        Ticks rest; ///< until when nothing else comes of what stands
    };
    [[nodiscard]] Outlook look_out();
    [[nodiscard]] Ticks pass_renewals(Ticks end);
    [[nodiscard]] Ticks pass_chances(Ticks end);

    // arena_why.cpp: only where somebody asks
    Inquiry::Entry& asked_use(const Actor& actor, std::size_t rule);
    Inquiry::Entry& asked_action(const Actor& actor, const Action& action);
    Inquiry::Entry& asked_effect(const Actor& giver, EffectId effect, const std::string& by,
                                 const Trigger* trigger, const Span& span);
    Inquiry::Entry& asked_swap(const Actor& actor, const SetupSwap& swap);
    void list_possible();
    [[gnu::cold, gnu::noinline]] void note_unused(Actor& actor, std::size_t rule,
                                                  const char* refused);
    void note_swap(const Actor& actor, const SetupSwap& swap, bool due);
    [[gnu::cold, gnu::noinline]] void note_choice(Actor& actor, const Place* chosen);
    [[gnu::cold, gnu::noinline]] void note_effect(const Actor& giver, EffectId effect,
                                                  const std::string& by, const Trigger* trigger,
                                                  const Span& span, const char* refused);
    [[nodiscard]] std::string pools_words(const Actor& actor) const;

    // arena_tell.cpp: cold, so that what calls it stays small
    [[gnu::cold, gnu::noinline]] void tell(const Actor& actor, const char* event,
                                           std::string_view source, std::string_view target,
                                           double amount, double pool_after,
                                           std::string_view note = {});
    [[gnu::cold, gnu::noinline]] void tell_restored(const Actor& actor, std::size_t pool,
                                                    double restored, double wasted,
                                                    const std::string& source);
    [[gnu::cold, gnu::noinline]] void tell_application(const Actor& target, EffectId id,
                                                       bool running, Ticks duration,
                                                       const std::string& source);
    void sample();
    [[nodiscard]] double load_share(const Actor& actor) const;

    const Armoury& armoury_;
    Deriver deriver_;
    std::size_t health_; ///< index of the health pool
    std::size_t pools_;  ///< of an actor
    // Compiled formulas, by the index of what they belong to; empty where there is none.
    Evaluator hit_, crit_, crit_factor_, order_;
    std::vector<Evaluator> mitigated_;
    struct PoolRegen {
        std::size_t pool;
        Evaluator rate;
        bool moves; ///< more than stats decide it
        Ticks period;
        double units; ///< of the period
    };
    std::vector<PoolRegen> regens_; ///< of the pools that have any
    /// What an effect does to a pool at each of its ticks.
    struct PoolStep {
        std::size_t pool;
        double amount;
    };
    std::vector<std::vector<PoolStep>> steps_; ///< by effect
    std::vector<ActionFormulas> actions_;
    std::vector<std::unique_ptr<RuleFormula>> rule_formulas_;
    std::vector<std::optional<Evaluator>> absorbs_; ///< by effect
    std::optional<Evaluator> lives_;

    const FightSetup* setup_ = nullptr;
    std::vector<Actor> actors_;  ///< the character's side, then the foes
    std::vector<Actor*> active_; ///< those of them who are there and stand
    PoolRows rows_;
    std::size_t ours_ = 1;            ///< how many are of the character's side
    std::vector<Actor*> in_order_;    ///< first to act first
    std::vector<Actor*> users_;       ///< those of them with use rules
    std::vector<int> effect_holders_; ///< by effect: how many have it
    std::vector<Ticks> effect_since_;
    StatSums sums_;
    std::vector<EffectId> changing_; ///< those of an actor's effects that change stats
    FightResult result_;
    Ledger unread_;             ///< what is counted where nobody reads it
    Ledger* counts_ = &result_; ///< the one of them that is written
    std::int64_t events_ = 0;
    std::int64_t event_limit_ = 0;
    Timeline* timeline_ = nullptr;
    Inquiry* inquiry_ = nullptr;
    bool watched_ = false; ///< there is one of them
    std::uint64_t last_version_ = 0;
    Ticks now_ = 0;
    // The first moments at which anybody's effects tick or end, or regen falls; never too late.
    Ticks first_tick_ = never, first_end_ = never, first_regen_ = never;
    double strength_ = 1;
    Luck luck_;
    bool even_ = false;
    bool ledger_ = true;
    // What nobody has is not looked at.
    bool swaps_ = false;        ///< somebody has any
    bool clocked_ = false;      ///< somebody's conditions read the time
    bool all_came_ = false;     ///< nobody is still to arrive
    bool triggers_ = false;     ///< somebody hears anything
    EventSet passing_hear_ = 0; ///< what triggers of effects and bands wait for
    bool stirred_ = true;       ///< somebody is, since uses were considered
    bool uneasy_ = true;        ///< somebody's uses are looked at at every instant
    bool restless_ = true;      ///< a use hangs on what becomes of others
    Ticks first_ready_ = 0;     ///< when the first can act again; never too late
    Ticks first_cooldown_ = 0;  ///< the first end of one; 0: to be found anew
    bool regenerated_ = false;  ///< at this instant, already
    bool over_ = false;
    bool order_changed_ = true;
    bool order_moves_ = false; ///< more than stats decide the order
    // By even luck.
    std::vector<Actor*> falling_; ///< who falls at fall_moment_
    Ticks fall_moment_ = never;
    bool healths_moved_ = true;     ///< otherwise than by what flows: falls are to be found anew
    bool rates_stirred_ = true;     ///< rates could be others
    bool prolonged_ = false;        ///< an effect was, by a beginning that was passed over
    std::vector<Renewal> renewals_; ///< of those that set something off, in their order
    std::size_t renewal_count_ = 0;
    Flow flow_of_now_; ///< room for one
};

} // namespace panoplon

#include "fight/arena_hot.h"
