// The inside of the engine: the rules that move a fight. Not for others.
//
// arena_parts.h has the state that they move; arena.cpp holds preparation, the clock and the order
// within an instant; the other arena_*.cpp each hold one matter: actors' state, effects, uses,
// triggers, swaps, blows by trial, flows by even luck, hits counted, reasons, telling.
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
    void begin();
    void instant();
    void act_all();
    void arrive();
    void sort_order();
    [[nodiscard]] Ticks next_moment();
    [[nodiscard]] Ticks next_of(Actor& actor);
    void finish();
    void count_event() {
        result_.events += 1;
        if (result_.events > static_cast<double>(armoury_.combat.event_limit)) too_many_events();
    }
    [[noreturn]] void too_many_events() const;
    void find_next_cooldown(Actor& actor);
    [[nodiscard]] bool someone_left(Side side) const;
    [[nodiscard]] double health_left(Side side) const;

    // arena_state.cpp: stats, pools, falls
    void prepare_actor(Actor& actor, const ActorSetup& setup);
    void start_actor(Actor& actor);
    void derive(Actor& actor);
    [[nodiscard]] Derived& derived(Actor& actor);
    void find_derived(Actor& actor, Derived& state);
    [[nodiscard]] int band_with(const Actor& actor, double capacity) const;
    void weigh_pack(Actor& actor);
    void set_ceilings(Actor& actor, bool first);
    [[nodiscard]] double regen_rate(const Actor& actor, std::size_t regen);
    [[nodiscard]] bool may_regenerate(const Actor& actor, std::size_t regen) const {
        return regens_[regen].moves || actor.derived->regen[regen] != 0;
    }
    void give_regen(Actor& actor, std::size_t regen);
    void find_regen_moments(Actor& actor);
    void refresh_order();
    void fall(Actor& actor, Actor* by);
    [[nodiscard]] int lives_of(Actor& actor);
    [[nodiscard]] bool lose_life(Actor& actor);
    void restore(Actor& actor, std::size_t pool, double amount, const Origin& origin);
    void count_dealt(bool ours, ActionId action, std::size_t type, double points) {
        (ours ? result_.dealt : result_.taken)[type] += points;
        (ours ? result_.dealt_by_action
              : result_.taken_by_action)[action.index() * result_.shape.damages + type] += points;
    }
    void count_given(const Origin& origin, std::size_t pool, double restored, double wasted);
    double lose_health(Actor& actor, double amount);
    Loss take_damage(Actor& actor, double amount);
    [[nodiscard]] double health(const Actor& actor) const { return actor.pools[health_]; }
    [[nodiscard]] double strength_of(const Actor& dealer) const {
        return dealer.setup->side == Side::foes ? strength_ : 1;
    }
    [[nodiscard]] static ActorView view_of(const Actor& actor) {
        return {actor.derived->stats.data(), actor.pools.data(), actor.ceilings.data()};
    }
    [[nodiscard]] Environment environment(const Actor& self, const Actor* other) const {
        Environment env;
        env.self = view_of(self);
        if (other) env.other = view_of(*other);
        env[Scalar::level] = self.setup->level;
        env[Scalar::time] = to_units(now_);
        env[Scalar::strength] = strength_;
        return env;
    }
    [[noreturn]] static void no_number(const Evaluator& formula, double value);
    [[nodiscard]] static double evaluate(Evaluator& formula, const Environment& environment) {
        const double value = formula(environment);
        if (!std::isfinite(value)) no_number(formula, value);
        return value;
    }
    [[nodiscard]] static bool holds(Evaluator& formula, const Environment& environment) {
        return evaluate(formula, environment) != 0;
    }

    // arena_effects.cpp
    void apply_effect(Actor& target, EffectId id, Ticks duration, bool hostile,
                      const Origin& origin);
    void count_lost_time(EffectId id, const Origin& origin, Ticks cut, Ticks overlap);
    void count_tick(const Actor& actor, EffectId id, double lost);
    void find_standing_effects(Actor& actor);
    void find_effect_moments(Actor& actor);
    void wear_absorbs(Actor& actor, double amount);
    [[nodiscard]] bool would_act(const Actor& target, EffectId id, Ticks duration) const;
    [[nodiscard]] bool has_effect(const Actor& actor, EffectId id) const;
    void drop_effect(Actor& actor, std::size_t at);
    void tick_effects();
    double drain_pool(Actor& actor, std::size_t pool, double amount);
    /// M69: what foes do hurts `strength` times as much, their effects too.
    [[nodiscard]] double tick_strength(const Actor& target, const EffectState& state) const {
        return state.hostile && target.setup->side == Side::character ? strength_ : 1;
    }
    void regenerate();
    void end_effects();
    void effect_began(EffectId id);
    void effect_ended(const Actor& actor, const EffectState& state);

    // arena_triggers.cpp
    void fire(Actor& actor, TriggerEvent event, Actor* other, double chance = 1) {
        if (triggers_) fire_all(actor, event, other, chance);
    }
    void fire_all(Actor& actor, TriggerEvent event, Actor* other, double chance);
    void fire_one(Actor& actor, const Trigger& trigger, const std::string& source, Actor* other,
                  double chance);
    [[nodiscard]] bool comes_true(Actor& actor, TriggerState& state, double chance);

    // arena_swaps.cpp
    void consider_swaps();
    void swap(Actor& actor, const SetupSwap& swap);
    [[nodiscard]] Ticks next_swap(const Actor& actor) const;

    /// Whose uses and pack the ledger tells of: allies have their own.
    [[nodiscard]] bool is_character(const Actor& actor) const { return &actor == actors_.data(); }
    [[nodiscard]] static bool is_ours(const Actor& actor) {
        return actor.setup->side == Side::character;
    }
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
    /// The counts of an action, on the side of who does it.
    [[nodiscard]] ActionCount& count_of(const Actor& actor, ActionId id) {
        return (is_ours(actor) ? result_.actions : result_.foe_actions)[id.index()];
    }

    // arena_uses.cpp
    void consider_uses() {
        if (stirred_) consider_all_uses();
    }
    void consider_all_uses();
    void wake_users();
    void stir(Actor& actor) {
        stirred_ = true;
        actor.stirred = Stirred::all;
    }
    /// Only its pools changed.
    void stir_pools(Actor& actor) {
        stirred_ = true;
        if (actor.stirred == Stirred::no) actor.stirred = Stirred::pools;
    }
    void consider_rule(Actor& actor, std::size_t index);
    [[nodiscard]] Evaluator* rule_formula(const Formula& formula);
    [[nodiscard]] bool wanted(const Actor& actor, const RuleState& rule);
    [[nodiscard]] bool default_wants(const Actor& actor, const Use& use) const;
    [[nodiscard]] bool would_do_something(const Actor& actor, const Use& use) const;
    void refuse_use(Actor& actor, std::size_t packed, const char* why);
    void consume(Actor& actor, std::size_t packed);

    // arena_trial.cpp
    void make_places(Actor& actor);
    [[nodiscard]] Place* choose_action(Actor& actor);
    [[nodiscard]] static bool affordable(const Actor& actor, const Action& action);
    void begin_action(Actor& actor, Place& place);
    [[nodiscard]] Ticks time_of(Actor& actor, Place& place);
    [[nodiscard]] Ticks time_taken(Actor& actor, const Place& place) const;
    [[nodiscard]] int front_target(const Actor& actor) const;
    /// Those whom it opposes: the actors from an index up to another.
    [[nodiscard]] std::pair<std::size_t, std::size_t> opposing(const Actor& actor) const {
        return is_ours(actor) ? std::pair(ours_, actors_.size()) : std::pair(std::size_t{0}, ours_);
    }
    [[nodiscard]] static bool opposed(const Actor& actor, const Actor& other) {
        return actor.setup->side != other.setup->side;
    }
    void strike(Actor& actor, Place& place);
    [[nodiscard]] const BlowTerms& blow_terms(Actor& actor, Place& place, Actor& target);
    void find_blow_terms(BlowTerms& terms, Actor& actor, const Place& place, Actor& target);
    [[nodiscard]] double mitigated(std::size_t type, double amount, Environment& env);
    double deal(Actor& actor, Place& place, Actor& target, const BlowTerms& terms,
                const BlowDraws& draws, bool critical);
    void land_blow(Actor& actor, Place& place, Actor& target);
    [[nodiscard]] static double chance_of(Evaluator& formula, const Environment& environment);

    // arena_blows.cpp
    [[nodiscard]] double hit_damage(Actor& actor, Place& place, Actor& target, bool critical);

    // arena_even.cpp
    void flow_action(Actor& actor, Place& place);
    void add_flow(Actor& actor, Place& place, int target);
    void end_flows();
    void aim_flow(Actor& actor, Flow& flow, Place& place, int target);
    void save_up(Actor& actor, Place& place, Actor& target);
    [[nodiscard]] bool rates_hold() const;
    void find_rates();
    void find_own_rates(Actor& actor);
    void keep_ledger(const Actor& actor, Ticks passed);
    void keep_gains(const Actor& actor, Ticks passed);
    void flow_until(Ticks moment);
    [[nodiscard]] Ticks next_fall();
    [[nodiscard]] Ticks next_absorbed() const;
    void fall_by_flow();
    void retarget();

    // arena_why.cpp: only where somebody asks
    Inquiry::Entry& asked_use(const Actor& actor, std::size_t rule);
    Inquiry::Entry& asked_action(const Actor& actor, const Action& action);
    Inquiry::Entry& asked_effect(const Actor& giver, EffectId effect, const std::string& by,
                                 const Trigger* trigger, const Span& span);
    Inquiry::Entry& asked_swap(const Actor& actor, const SetupSwap& swap);
    void list_possible();
    void note_unused(Actor& actor, std::size_t rule, const char* refused);
    void note_swap(const Actor& actor, const SetupSwap& swap, bool due);
    void note_choice(Actor& actor, const Place* chosen);
    void note_effect(const Actor& giver, EffectId effect, const std::string& by,
                     const Trigger* trigger, const Span& span, const char* refused);
    [[nodiscard]] std::string pools_words(const Actor& actor) const;

    // arena_tell.cpp
    void tell(const Actor& actor, const char* event, const std::string& source,
              const std::string& target, double amount, double pool_after, std::string note = {});
    void sample();
    [[nodiscard]] double load_share(const Actor& actor) const;

    const Armoury& armoury_;
    Deriver deriver_;
    std::size_t health_; ///< index of the health pool
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
    std::vector<ActionFormulas> actions_;
    std::vector<std::pair<std::string, std::unique_ptr<Evaluator>>>
        rule_formulas_;                             ///< of uses and
                                                    ///< swaps, by text
    std::vector<std::optional<Evaluator>> absorbs_; ///< by effect
    std::optional<Evaluator> lives_;

    const FightSetup* setup_ = nullptr;
    std::vector<Actor> actors_;       ///< the character's side, then the foes
    std::size_t ours_ = 1;            ///< how many are of the character's side
    std::vector<Actor*> in_order_;    ///< first to act first
    std::vector<Actor*> users_;       ///< those of them with use rules
    std::vector<int> effect_holders_; ///< by effect: how many have it
    std::vector<Ticks> effect_since_;
    StatSums sums_;
    std::vector<EffectId> changing_; ///< those of an actor's effects that change stats
    FightResult result_;
    Timeline* timeline_ = nullptr;
    Inquiry* inquiry_ = nullptr;
    std::uint64_t last_version_ = 0;
    Ticks now_ = 0;
    double strength_ = 1;
    Luck luck_;
    bool even_ = false;
    bool ledger_ = true;
    bool swaps_ = false;       ///< somebody has any
    bool all_came_ = false;    ///< nobody is still to arrive
    bool triggers_ = false;    ///< somebody has any, or an effect that could come has
    bool stirred_ = true;      ///< somebody is, since uses were considered
    bool regenerated_ = false; ///< at this instant, already
    bool over_ = false;
    bool order_changed_ = true;
    bool order_moves_ = false; ///< more than stats decide the order
    std::vector<int> falling_; ///< by even luck: who falls at fall_moment_
    Ticks fall_moment_ = never;
    bool rates_changed_ = true; ///< by even luck: somebody fell
    std::uint64_t last_stamp_ = 0;
};

} // namespace panoplon
