// The best legal loadout of a context, and the best under a condition: without an item, with an
// item, with places left empty (M80, M81). What it finds is a function of the context and the
// limits alone: whoever asks, and whatever was searched before, it is the same.
#pragma once

#include "base/watch.h"
#include "fight/margin.h"
#include "judge/search/choices.h"
#include "judge/search/contexts.h"
#include "judge/search/packed_candidate.h"
#include "judge/search/upper_bound.h"
#include "judge/search/wardrobe.h"
#include "model/armoury.h"

#include <cmath>
#include <functional>
#include <limits>
#include <map>
#include <memory>
#include <optional>
#include <unordered_map>
#include <vector>

namespace panoplon {

struct Found {
    Candidate candidate;
    Margin margin;
    bool any = false; ///< false: no legal candidate was seen
};

/// A place that is worth less (a logarithm) judges nobody, and is none of the typical ones (M81a).
inline const double least_worth = std::log(1.005);

/// What may be worn and packed at all.
struct Limits {
    int highest_rank = std::numeric_limits<int>::max(); ///< of tiers; items of no tier may be
    std::vector<ItemId> without;                        ///< never
    std::vector<ItemId> with;                           ///< always: worn, or one of it packed
    std::optional<double> value;                        ///< of all that is worn and packed, at most
    bool endless_bag = false;                           ///< whatever the bag holds
};

/// Searches one context after another of the same armoury; one for each thread. First comes the
/// best; once that is found nothing changes it, and what is asked for is searched around it (M80).
class Search {
    /// What a place holds from now on, or how many of a consumable are packed.
    struct Edit {
        Position position; ///< or, with `packed` ≥ 0,
        ItemId item;
        ItemId filling;  ///< of the item's empty sockets; none: they stay empty
        int packed = -1; ///< index of a consumable
        std::int64_t count = 0;
        std::vector<int> points = {}; ///< given: how points are spent, and nothing else changes

        bool operator==(const Edit&) const = default;
        template <class Archive>
        void serialize(Archive& archive) {
            archive(position, item, filling, packed, count, points);
        }
    };
    /// What is changed at once.
    using Exchange = std::vector<Edit>;

  public:
    /// `groups`: twin_groups(); twins count as one item in every condition. Searches end soon once
    /// the watch says stop; what they have then is not the answer.
    Search(const Armoury& armoury, const std::vector<ItemId>& groups, const Watch& watch = {});
    Search(Search&&) noexcept;
    ~Search();

    /// From the next context on.
    void limit(Limits limits) { limits_ = std::move(limits); }
    /// Where a context has no more candidates than this, each is tried: then every answer is exact.
    void try_all_up_to(double candidates) { most_tried_ = candidates; }
    void enter(const Context& context);

    /// Finds the best of the context. False when there is none, or when a fight ends in an error,
    /// which `error()` then has.
    bool find_best();
    /// Takes what was found before for the best. False where it is not legal here.
    bool begin_with(const Candidate& best);
    /// What was found for one item, to begin from where a number of it is another.
    struct Findings {
        std::vector<Candidate> candidates; ///< the best with it, without it, without its group
        std::vector<std::pair<Footprint, Candidate>> empties;
        std::vector<std::vector<ItemId>> lively, fillings; ///< by slot
        std::vector<Exchange> lively_packs;

        template <class Archive>
        void serialize(Archive& archive) {
            archive(candidates, empties, lively, fillings, lively_packs);
        }
    };
    [[nodiscard]] Findings findings_for(ItemId item) const;
    /// The same where outfits were chosen among: what comes near the best is looked for then.
    [[nodiscard]] Findings findings_around(ItemId item);
    /// Finds the same again in place of find_best() and what follows it, in a context that was
    /// searched before, in an armoury that differs in a number of this item only: what is best
    /// without it is known, and what is best with it lies near.
    bool find_again(ItemId item, const Findings& findings);
    /// Of the findings alone the best, as they are now: with the item often a little too low.
    bool fight_again(const Findings& findings);
    /// Every outfit that was found as an answer, each once: the best, and those under a condition.
    [[nodiscard]] std::vector<Found> answers() const;
    /// In place of find_best() and what follows it: of these outfits alone the best, and the best
    /// under each condition, none of them better than what a search finds. They have their margins
    /// here then; one that has none (`any`) lacks something that it had, and takes what the best
    /// has in its place. `changed`: by item, whether anything of it is otherwise than when the
    /// margins were found; empty: everything may be. What is changed is tried in them, too.
    bool choose_among(std::vector<Found>& outfits, const std::vector<bool>& changed);
    /// Looks for the best without an item and its twins; with an item; with places left empty. A
    /// consumable is packed as the only one of its group, whose place it has.
    void find_without(ItemId item);
    void find_with(ItemId item);
    void find_empty(const Footprint& places);
    void find_without_group(ItemId consumable);
    /// All that an item is measured by: the best with it, without it, and with its place empty or
    /// nothing of its group packed.
    void find_for(ItemId item);

    /// A number in [0, 1) at each call.
    using Draw = std::function<double()>;
    /// Something at random: in each place one of what can be worn there, in one of ten nothing; of
    /// each consumable, in one of two, a stack.
    [[nodiscard]] Candidate drawn(const Draw& draw) const;
    /// With an item in one of the places that it could have, at random; none where there is none.
    [[nodiscard]] std::optional<Candidate> wearing(Candidate candidate, ItemId item,
                                                   const Draw& draw) const;
    /// Where the outcome turns by even luck, near the margin; none where it is not legal.
    [[nodiscard]] std::optional<Margin> turn(const Candidate& candidate) {
        return margin_of(candidate, {}, 1);
    }
    /// The margin (M69a) of anything; none where it is not legal.
    [[nodiscard]] std::optional<Margin> margin(const Candidate& candidate, double guess);
    /// What was found, with no more packed than makes a difference.
    [[nodiscard]] Found with_needed_pack(Found found);
    /// To be called once all is found: makes every number that was found a margin (M69a).
    void settle();

    /// What no candidate exceeds on paper, as far as so many fights tell; none where that can't be
    /// told. What is found better on the way is the best from then on.
    [[nodiscard]] std::optional<Bounded> find_bound(int most_fights);

    /// Whether weight or the bag keeps the best from something better (M86c), and how full it is.
    struct Limiting {
        bool weight_binds = false, bag_binds = false;
        double load_share = 0; ///< of what can be carried
        double edge = 0;       ///< the share at which the next band begins, or nothing goes
        std::int64_t stacks = 0;
        std::int64_t bag = 0;    ///< stacks that go into it; or unlimited
        bool lacks_room = false; ///< something better is too heavy, or takes too many stacks
    };
    [[nodiscard]] const Limiting& limiting() const { return limiting_; }
    /// Of best() (M69b).
    [[nodiscard]] double roughness_of_best();
    /// The margin of with() with the worst and with the best find of an item (M44a); none where
    /// there is no number of with().
    struct FindMargins {
        double worst, best;
    };
    [[nodiscard]] std::optional<FindMargins> margins_of_finds(ItemId item);
    /// What a place is typically worth in best(): the median of what is lost (a logarithm) where
    /// one thing comes off, of those that matter (M81a); 0 where none does.
    [[nodiscard]] double typical_worth();
    /// Whether something that was found before is legal here, and its margin what it says.
    [[nodiscard]] bool bears_out(const Found& found);

    [[nodiscard]] const Context& context() const { return context_; }
    [[nodiscard]] const Limits& limits() const { return limits_; }
    [[nodiscard]] const Wardrobe& wardrobe() const { return wardrobe_; }
    /// It packs nothing that makes no difference.
    [[nodiscard]] const Found& best() const { return told_; }
    /// Whether every candidate of the context was tried: then nothing is better than best().
    [[nodiscard]] bool proven() const { return proven_; }
    /// By how much (a share) what was found under a condition is better than best(), at most: a
    /// fault of the search for the best. What is told of it is as good as the best.
    [[nodiscard]] double missed() const { return missed_; }
    /// How many candidates the context has, legal or not; infinite where a stack has no end.
    [[nodiscard]] double count_candidates() const;
    /// Whether an item could be worn or used here but for what else is.
    [[nodiscard]] bool available(ItemId item) const;
    /// The best seen that does not wear the item, that wears it, that leaves these places empty.
    [[nodiscard]] const Found& without(ItemId item) const { return without_[group(item).index()]; }
    [[nodiscard]] const Found& with(ItemId item) const { return with_[group(item).index()]; }
    [[nodiscard]] const Found& empty(const Footprint& places) const;
    /// With one place of the item empty; that, or the best with the item without it.
    [[nodiscard]] const Found& empty_beside(ItemId item) const;
    /// With nothing of a consumable's group packed.
    [[nodiscard]] const Found& without_group(ItemId consumable) const {
        return without_group_[first_of_group_[consumable_index(consumable)].index()];
    }
    /// The places that one of the item takes.
    [[nodiscard]] Footprint one_place_of(ItemId item) const {
        return wardrobe_.footprint(armoury_.at(item));
    }
    /// Worn or packed by the best.
    [[nodiscard]] bool in_best(ItemId item) const;
    /// The places of as many of the item as the best wears, of one where it wears none.
    [[nodiscard]] Footprint places_of(ItemId item) const;
    /// All places of the slots that it takes; in sockets, those that the best has.
    [[nodiscard]] Footprint all_places_of(ItemId item) const;
    /// Items that the character can wear here, in the armoury's order.
    [[nodiscard]] const std::vector<ItemId>& wearable() const { return wearable_; }
    /// Consumables that it can use here, likewise.
    [[nodiscard]] std::vector<ItemId> usable() const;
    /// Units of a consumable that a candidate packs.
    [[nodiscard]] std::int64_t packed(const Candidate& candidate, ItemId consumable) const;
    [[nodiscard]] const std::optional<FightError>& error() const { return error_; }
    /// Because of an error, or because nobody waits any more: then nothing is an answer.
    [[nodiscard]] bool ended() const {
        return error_ || (stop_ && stop_->load(std::memory_order_relaxed));
    }
    [[nodiscard]] Outfit outfit_of(const Candidate& candidate) const;

  private:
    /// A candidate has to be better by this share to count: above the precision of a margin.
    static constexpr double gain_worth_having = 3e-4;

    /// What a climb may do.
    struct Condition {
        std::vector<bool> banned;                    ///< by item; empty: none
        ItemId must;                                 ///< it or a twin is worn, or packed
        std::vector<std::pair<SlotId, int>> at_most; ///< of a slot so many are taken
        bool packs_only = false;                     ///< only what is packed is exchanged
        Thousandths most_packed = unlimited;         ///< weight of the pack
        bool lively_only = false; ///< outside of `open` only exchanges that come near the best
        std::vector<SlotId> open;
        bool looks_far = false; ///< pictures are looked at longer, as for the best
        Found* keep = nullptr;  ///< keeps the best that meets the condition
    };
    [[nodiscard]] static Edit worn_edit(const Position& position, ItemId item,
                                        ItemId filling = {}) {
        return {position, item, filling, -1, 0, {}};
    }
    [[nodiscard]] static Edit points_edit(std::vector<int> points) {
        return {{}, {}, {}, -1, 0, std::move(points)};
    }
    [[nodiscard]] static Edit packed_edit(std::size_t consumable, std::int64_t count) {
        return {{}, {}, {}, static_cast<int>(consumable), count, {}};
    }

    [[nodiscard]] int most_levels(UpgradeId upgrade, int points) const;
    [[nodiscard]] bool meets_all_needs(const Outfit& outfit);

    // search_starts.cpp: where climbs start
    [[nodiscard]] bool takes_several(ItemId item) const;
    [[nodiscard]] bool is_option(ItemId item) const;
    [[nodiscard]] std::optional<Candidate> dressed_by_level(bool several) const;
    [[nodiscard]] Candidate bare_as_required() const;
    void wear_required(Candidate& candidate) const;
    [[nodiscard]] std::vector<Candidate> starts_of_sets() const;
    [[nodiscard]] Candidate with_set(Candidate candidate, SetId set) const;
    [[nodiscard]] std::vector<Candidate> starts_with(ItemId item) const;
    [[nodiscard]] std::vector<Candidate> starts_packing(ItemId item) const;
    [[nodiscard]] std::vector<Candidate> starts_without(const Footprint& places) const;
    [[nodiscard]] std::int64_t one_stack(ItemId item) const;

    // search_exchanges.cpp: what climbs may exchange
    void find_lively();
    void find_fillings();
    [[nodiscard]] const std::vector<ItemId>& options_in(SlotId slot,
                                                        const Condition& condition) const;
    [[nodiscard]] std::vector<ItemId> fillings_of(ItemId host, const Condition& condition) const;
    void list_things(const Candidate& from, const Condition& condition,
                     std::vector<Exchange>& list) const;
    void list_sockets(const Candidate& from, const Condition& condition,
                      std::vector<Exchange>& list) const;
    void list_parted(const Candidate& from, const Condition& condition,
                     std::vector<Exchange>& list) const;
    void list_points(const Candidate& from, std::vector<Exchange>& list) const;
    void list_packs(const Candidate& from, const Condition& condition,
                    std::vector<Exchange>& list) const;
    [[nodiscard]] std::vector<Exchange> exchanges(const Candidate& from,
                                                  const Condition& condition) const;
    [[nodiscard]] Candidate after(Candidate candidate, const Exchange& exchange) const;

    /// A margin without an error.
    struct Turn {
        double value;
        Reach reach;

        operator Margin() const { return {value, reach, std::nullopt}; } // NOLINT: it is one
    };
    /// What fights have told of a candidate. Strengths at which it won and lost tell of all below
    /// and above (winning is monotone in strength by even luck).
    struct Outcomes {
        double won = 0;
        double lost = std::numeric_limits<double>::infinity();
        std::optional<Turn> margin; ///< or a turn of the outcome near to it,
        bool settled = false;       ///< until that is sure
        std::size_t order = 0;      ///< of its actions, in which it won
    };
    /// What is known of a candidate that was looked at in this context. Under a condition that is
    /// what the search for the best and this condition's own fights told, so that no answer hangs
    /// on what else was asked before.
    struct Known : Outcomes {
        bool fits = false;       ///< the bag holds it, and its stacks are allowed
        bool over_limit = false; ///< of what can be carried, or of value
        int band = -1;
        std::size_t asked = 0; ///< the number of the condition that it is known under; 0: none
        /// As the search for the best left it; none where no condition has asked.
        std::unique_ptr<Outcomes> before;
    };

    // search_picture.cpp: what single exchanges are worth
    struct PictureGroup;
    struct Picture;
    struct Held;
    [[nodiscard]] Held held_by(const Candidate& centre);
    [[nodiscard]] double held_remainder(const Candidate& candidate, const Held& held,
                                        double strength);
    [[nodiscard]] double held_gain(const Candidate& candidate, const Held& held,
                                   const Picture& picture);
    [[nodiscard]] ChoiceAmounts amounts_of(const Outfit& outfit, int band);
    [[nodiscard]] double upper_edge(int band) const;
    [[nodiscard]] std::vector<std::int64_t> counts_to_try(std::size_t consumable,
                                                          std::int64_t now) const;
    void paint_place(std::size_t place, const Held& held, Picture& picture);
    void paint_pack(std::size_t consumable, const Held& held, Picture& picture);
    void paint_sets(const Held& held, Picture& picture);
    [[nodiscard]] Picture paint(const Found& found);
    [[nodiscard]] Picture with_empty_pack(const Picture& full);
    void measure_amounts(Picture& picture, int band);
    void paint_all(const Found& found);
    // search_sights.cpp: what pictures see as the best under a condition
    struct Question;
    struct Sight {
        double gain; ///< that a picture sees, against the best
        Candidate candidate;
    };
    [[nodiscard]] Question question_of(const Picture& picture, const Condition& condition) const;
    void set_prices(Picture& picture) const;
    template <class Option>
    [[nodiscard]] bool has(const PictureGroup& group, const Option& option, ItemId item) const;
    [[nodiscard]] Question with_in(const PictureGroup& group, std::size_t at, ItemId item,
                                   Question question) const;
    void solve(const Picture& picture, const Question& question, const std::vector<ItemId>& wanted,
               std::size_t next, double least, bool far, std::vector<Sight>& into) const;
    [[nodiscard]] std::vector<Sight> sights_of(const Condition& condition, const Found& found,
                                               double most_changes) const;
    bool look_for(const Condition& condition, Found& found);
    [[nodiscard]] std::vector<ItemId> likely_things() const;
    [[nodiscard]] bool looks_far(const Condition& condition) const {
        return !closed_ || condition.looks_far || limiting_.lacks_room;
    }

    // search_limits.cpp: what keeps something found from something better
    void measure_fullness(const Found& of, Limiting& limiting);
    void try_past_limits(const Found& of, Limiting& limiting);
    [[nodiscard]] bool is_better_with_endless_bag(const Found& than) const;
    [[nodiscard]] std::int64_t bag_of(const Outfit& outfit) const;
    [[nodiscard]] Limiting limits_of(const Found& found);

    // search_prove.cpp: every candidate there is
    [[nodiscard]] double ways_to_fill(SlotId slot, int depth) const;
    [[nodiscard]] std::int64_t most_units(ItemId consumable) const;
    void prove();
    void try_places(const Candidate& candidate, std::size_t place);
    void try_sockets(const Candidate& candidate, std::size_t place, std::size_t socket);
    void try_pack(Candidate& candidate, std::size_t consumable);
    [[nodiscard]] bool same_before(const Candidate& a, const Candidate& b, std::size_t place) const;

    // search.cpp: what candidates are worth
    enum class Ready { yes, too_heavy, no };
    [[nodiscard]] bool meets(const Candidate& candidate, const Condition& condition) const;
    Known& look_at(const Candidate& candidate);
    void find_fit(const Outfit& outfit, Known& known);
    void prepare(const Candidate& candidate, const Known& known);
    void be_ready_for(const Outfit& outfit, const Known& known);
    [[nodiscard]] std::vector<std::vector<ActionId>> orders_of(const Outfit& outfit) const;
    void act_in_order(std::size_t order);
    [[nodiscard]] std::size_t first_order() const;
    [[nodiscard]] bool knows_order() const;
    [[nodiscard]] Margin near_margin(const Candidate& candidate, Known& known, double guess);
    using Measure = Margin (*)(Engine&, double guess);
    [[nodiscard]] Margin measured(const Candidate& candidate, Known& known, Measure measure,
                                  double guess);
    [[nodiscard]] Ready readiness(const Candidate& candidate, const Known& known,
                                  const Condition& condition) const;
    [[nodiscard]] bool wins(const Candidate& candidate, Known& known, double strength);
    [[nodiscard]] std::optional<Margin> margin_of(const Candidate& candidate,
                                                  const Condition& condition, double guess);
    void take_margin(Known& known, const Margin& margin);
    void settle(const Candidate& candidate, Known& known, double guess);
    [[nodiscard]] bool beats(const Candidate& candidate, const Condition& condition, double margin);
    [[nodiscard]] bool hopeless(const Candidate& candidate, const Condition& condition,
                                double margin, double loss);

    // search_seen.cpp: what is kept of it
    static void keep_better(Found& found, const Candidate& candidate, const Margin& margin);
    void keep_under(Found& found, const Candidate& candidate, Margin margin);
    void note(const Candidate& candidate, const Margin& margin);
    void settle_best();
    void settle(Found& found);
    void settle(const Condition& condition);
    void rank_margins();
    [[nodiscard]] Found best_before(const Condition& condition, double above, double below);

    // search_climb.cpp: from starts to where nothing helps
    [[nodiscard]] bool try_candidate(Found& from, const Candidate& candidate,
                                     const Condition& condition);
    bool step(Found& from, const Condition& condition);
    void climb(Found& from, const Condition& condition);
    [[nodiscard]] Found begun(Candidate start, const Condition& condition);
    [[nodiscard]] Found most_promising(std::vector<Candidate> starts, const Condition& condition);
    [[nodiscard]] Candidate packed_by_itself(Condition condition, Thousandths most_packed);
    [[nodiscard]] std::vector<Candidate> starts_of_packs(const Condition& condition);
    void find_from_packs(Condition condition);
    void ascend(Candidate start);
    void look_from(const Candidate& start);
    void make_detours();
    void search_around();
    void search_without_large();
    void close_best();
    void look_around_best();

    // search_again.cpp: what was found before, looked at again
    bool look_at_findings(const Findings& findings);
    void look_again(Found& outfit, bool as_before);
    [[nodiscard]] std::vector<Candidate> with_some(const Candidate& outfit, ItemId item,
                                                   std::int64_t count) const;
    [[nodiscard]] std::int64_t helpful_count(const Found& outfit, ItemId item);
    void try_in_each(std::vector<Found>& outfits, ItemId item);
    [[nodiscard]] Candidate with_places_of(Candidate candidate, const Candidate& other,
                                           ItemId gone) const;
    void try_without(std::vector<Found>& outfits, ItemId item);
    [[nodiscard]] bool is_as_before(const Candidate& candidate,
                                    const std::vector<bool>& changed) const;

    // search_conditions.cpp: the best under a condition
    Found climb_with(ItemId item);
    void climb_with_set(ItemId item, Found& found);
    void climb_from_known(const Candidate& known, const Condition& condition, Found& found);
    [[nodiscard]] Condition having(ItemId item);
    void open_freed(const std::vector<SlotId>& wanted, Condition& condition) const;
    [[nodiscard]] Condition lacking(ItemId item);
    [[nodiscard]] Condition lacking_group(ItemId consumable);
    [[nodiscard]] Condition leaving_empty(const Footprint& places);
    void compare_with_empty(ItemId item);
    void begin_condition();
    void find_under(Found found, const Condition& condition);
    [[nodiscard]] std::vector<bool> others_of_group(ItemId consumable) const;
    [[nodiscard]] Candidate unpacked(Candidate candidate, const std::vector<bool>& banned) const;
    [[nodiscard]] std::size_t consumable_index(ItemId item) const;
    [[nodiscard]] bool wears(const Candidate& candidate, ItemId item) const;
    [[nodiscard]] int worn_in_best(ItemId item) const;
    [[nodiscard]] ItemId group(ItemId item) const { return groups_[item.index()]; }

    const Armoury& armoury_;
    const std::vector<ItemId>& groups_;
    Engine engine_;
    Wardrobe wardrobe_;
    int points_ = 0; ///< that the character has to spend
    bool needs_stats_;
    bool gear_acts_;                            ///< anything gives actions
    std::vector<std::vector<ItemId>> options_;  ///< by slot: what can be worn
    std::vector<std::vector<ItemId>> fillings_; ///< by socket: the best to begin with
    std::vector<std::vector<ItemId>> lively_;   ///< by slot: what comes near the best, or is in it
    std::vector<Exchange> lively_packs_;        ///< of the best: what does not fall far below it
    bool has_fillings_ = false;
    std::vector<ItemId> wearable_;
    std::vector<bool> usable_;                             ///< by consumable
    std::vector<ItemId> required_worn_, required_carried_; ///< by the encounter
    Context context_;
    Limits limits_;
    bool proven_ = false;
    double most_tried_ = 5000;
    FightSetup setup_;
    std::vector<double> base_;
    std::vector<double> stats_; ///< room for a derivation
    ActorSetup character_;
    Found best_; ///< conditions are searched around it
    Found told_; ///< the same, once it is found, with no more packed than makes a difference
    bool closed_ = false;   ///< the best is found: conditions are searched
    std::size_t asked_ = 0; ///< conditions since then
    double missed_ = 0;
    std::optional<double> typical_worth_;
    Limiting limiting_; ///< of the best, once it is found
    std::unordered_map<PackedCandidate, Known, PackedCandidateHash> known_;
    struct Ranked {
        const PackedCandidate* candidate;
        const Known* known;
        Turn margin;
    };
    std::vector<Ranked> ranked_; ///< what the search for the best came by, once it is asked for
    std::vector<const PackedCandidate*> best_known_with_; ///< of that, by the first of its twins
    const Known* prepared_ = nullptr;                     ///< whom the engine is ready for
    std::vector<std::vector<ActionId>> orders_;           ///< in which that one may act,
    std::size_t order_ = 0;                               ///< and does
    /// By the first order of the same actions, that in which they were best first.
    std::map<std::vector<ActionId>, std::size_t> usual_orders_;
    bool exact_ = false;                ///< every order is looked at
    std::vector<Found> without_, with_; ///< by the first of its twins
    std::map<Footprint, Found> empty_;
    std::vector<Found> emptied_; ///< by the first of its twins: the best with it, without it
    std::vector<ItemId> first_of_group_; ///< by consumable; itself where it has no group
    std::vector<Found> without_group_;   ///< by the first of the group
    std::vector<std::string> uniques_;   ///< groups of which at most one is worn
    std::optional<Candidate> around_;    ///< whom lively_ and pictures_ are around
    std::vector<Picture> pictures_;      ///< in each load band
    int own_band_ = -1;                  ///< the band of whom they are around
    std::optional<FightError> error_;
    const std::atomic<bool>* stop_ = nullptr;
    std::unique_ptr<UpperBound> upper_bound_; ///< once it is asked for
};

} // namespace panoplon
