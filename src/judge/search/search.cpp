#include "judge/search/search.h"

#include "judge/search/action_orders.h"
#include "judge/search/picture.h"
#include "outfit/load.h"
#include "outfit/needs.h"
#include "outfit/refusals.h"

#include <algorithm>

namespace panoplon {

namespace {

/// A candidate has to be better by this share to count: above the precision of a margin.
constexpr double gain_worth_having = 3e-4;

/// Worn or packed.
bool holds(const Outfit& outfit, ItemId item) {
    bool there = std::any_of(outfit.pack.begin(), outfit.pack.end(),
                             [&](const PackedItem& packed) { return packed.item == item; });
    for_each_worn(outfit.worn, [&](const WornItem& worn) { there = there || worn.item == item; });
    return there;
}

} // namespace

Search::Search(const Armoury& armoury, const std::vector<ItemId>& groups, const Watch& watch)
    : armoury_(armoury),
      groups_(groups),
      engine_(armoury),
      wardrobe_(armoury),
      needs_stats_(stats_are_needed(armoury)),
      stop_(watch.stop) {
    for (const ItemId item : wardrobe_.consumables()) {
        const std::string& own = armoury.at(item).use->group;
        const auto first = std::find_if(
            wardrobe_.consumables().begin(), wardrobe_.consumables().end(), [&](ItemId other) {
                return other == item || (!own.empty() && armoury.at(other).use->group == own);
            });
        first_of_group_.push_back(*first);
    }
    for (const Item& item : armoury.items)
        if (!item.unique.empty() &&
            std::find(uniques_.begin(), uniques_.end(), item.unique) == uniques_.end())
            uniques_.push_back(item.unique);
}

void Search::enter(const Context& context) {
    context_ = context;
    const Outfit naked{context.character, context.level, {}, {}, {}, {}, {}};
    const std::vector<double> stats =
        needs_stats_ ? naked_stats(engine_.deriver(), naked) : std::vector<double>();
    const auto can = [&](const Item& item) {
        const bool too_high =
            item.tier.given() && armoury_.at(item.tier).rank > limits_.highest_rank;
        const bool barred = std::any_of(limits_.without.begin(), limits_.without.end(),
                                        [&](ItemId id) { return &armoury_.at(id) == &item; });
        return !too_high && !barred &&
               meets_needs(armoury_, item, context.character, context.level, stats);
    };
    options_.assign(armoury_.slots.size(), {});
    fillings_.assign(armoury_.slots.size(), {});
    wearable_.clear();
    for (std::size_t i = 0; i < armoury_.items.size(); ++i) {
        const Item& item = armoury_.items[i];
        if (!item.worn() || !can(item)) continue;
        options_[item.slot.index()].emplace_back(i);
        wearable_.emplace_back(i);
    }
    usable_.clear();
    for (const ItemId consumable : wardrobe_.consumables()) {
        const Item& item = armoury_.at(consumable);
        usable_.push_back(can(item) && is_among(armoury_, item.use->only, context.character));
    }
    setup_.encounter = context.encounter;
    setup_.actors.clear();
    setup_.actors.push_back(set_up_character(armoury_, naked));
    for (ActorSetup& other : set_up_others(armoury_, armoury_.at(context.encounter), context.level))
        setup_.actors.push_back(std::move(other));
    base_ = setup_.actors.front().base;
    stats_.resize(armoury_.stats.size());
    engine_.prepare(setup_);
    known_.clear();
    prepared_ = nullptr;
    best_ = told_ = {};
    closed_ = proven_ = has_fillings_ = false;
    missed_ = 0;
    typical_worth_.reset();
    asked_ = 0;
    limiting_ = {};
    without_.assign(armoury_.items.size(), {});
    with_.assign(armoury_.items.size(), {});
    empty_.clear();
    without_group_.assign(armoury_.items.size(), {});
    emptied_.assign(armoury_.items.size(), {});
    lively_.clear();
    lively_packs_.clear();
    around_.reset();
    pictures_.clear();
    error_.reset();
    const Encounter& encounter = armoury_.at(context.encounter);
    required_worn_ = encounter.requires_worn;
    required_carried_ = encounter.requires_carried;
    for (const ItemId item : limits_.with)
        (armoury_.at(item).worn() ? required_worn_ : required_carried_).push_back(item);
    Encounter allies_only;
    allies_only.id = encounter.id;
    allies_only.allies = encounter.allies;
    const auto missing = missing_for(engine_.deriver(), naked, allies_only);
    if (!missing.empty()) error_ = FightError{missing.front(), encounter.span};
}

Outfit Search::outfit_of(const Candidate& candidate) const {
    Outfit outfit{context_.character,
                  context_.level,
                  wardrobe_.worn(candidate),
                  wardrobe_.packed(candidate),
                  {},
                  {},
                  {}};
    for (const ItemId item : required_carried_)
        if (!holds(outfit, item)) add_to_pack(outfit.pack, item, 1, {});
    add_contents(armoury_, outfit);
    const auto known = known_.find(candidate);
    if (known != known_.end() && known->second.order > 0)
        outfit.actions = orders_of(outfit)[known->second.order];
    return outfit;
}

std::vector<std::vector<ActionId>> Search::orders_of(const Outfit& outfit) const {
    const std::vector<ActionId>& own = armoury_.at(outfit.character).actions;
    std::vector<ActionId> of_gear = actions_had(armoury_, outfit.character, outfit.worn);
    of_gear.resize(of_gear.size() - own.size());
    return action_orders(of_gear, own);
}

bool Search::available(ItemId item) const {
    const std::vector<ItemId> consumables = usable();
    return std::binary_search(wearable_.begin(), wearable_.end(), item) ||
           std::find(consumables.begin(), consumables.end(), item) != consumables.end();
}

bool Search::wears(const Candidate& candidate, ItemId item) const {
    bool worn = false;
    for_each_item(candidate, [&](ItemId one) { worn = worn || group(one) == group(item); });
    return worn;
}

bool Search::meets(const Candidate& candidate, const Condition& condition) const {
    if (!condition.banned.empty()) {
        bool banned = false;
        for_each_item(candidate,
                      [&](ItemId item) { banned = banned || condition.banned[item.index()]; });
        for (std::size_t c = 0; c < candidate.counts.size(); ++c)
            banned = banned || (candidate.counts[c] > 0 &&
                                condition.banned[wardrobe_.consumables()[c].index()]);
        if (banned) return false;
    }
    const ItemId must = condition.must;
    if (must.given() && !wears(candidate, must) && packed(candidate, must) == 0) return false;
    for (const ItemId item : required_worn_)
        if (!wears(candidate, item)) return false;
    if (condition.most_packed != unlimited &&
        pack_weight(armoury_, outfit_of(candidate)) > condition.most_packed)
        return false;
    if (condition.at_most.empty()) return true;
    const std::vector<int> held = wardrobe_.occupied(candidate);
    return std::all_of(condition.at_most.begin(), condition.at_most.end(),
                       [&](const auto& most) { return held[most.first.index()] <= most.second; });
}

/// Looks a candidate up, or finds out what can be told of it without a fight.
Search::Known& Search::look_at(const Candidate& candidate) {
    const auto [at, is_new] = known_.try_emplace(candidate);
    Known& known = at->second;
    if (known.asked != asked_) {
        if (known.asked == 0)
            known.before = known;
        else
            static_cast<Outcomes&>(known) = known.before;
        known.asked = asked_;
    }
    if (!is_new) return known;
    const Outfit outfit = outfit_of(candidate);
    known.fits = pack_stacks(armoury_, outfit) <= bag_of(outfit) &&
                 std::all_of(outfit.pack.begin(), outfit.pack.end(), [&](const PackedItem& packed) {
                     const Item& item = armoury_.at(packed.item);
                     return stacks_of(item, packed.count) <= item.max_stacks;
                 });
    if (known.fits) find_fit(outfit, known);
    return known;
}

/// Its load; the engine is ready for it then.
void Search::find_fit(const Outfit& outfit, Known& known) {
    set_up_character(armoury_, outfit, base_, character_);
    if (armoury_.carry.capacity.given()) {
        Deriver& deriver = engine_.deriver();
        deriver.derive(base_, character_.sums, context_.level, stats_);
        const Load load =
            weigh(armoury_.carry, worn_weight(armoury_, outfit), pack_weight(armoury_, outfit),
                  deriver.capacity(stats_, context_.level) + character_.granted);
        known.over_limit = load.over_limit;
        known.band = load.band;
    }
    if (limits_.value && value_of(armoury_, outfit) > *limits_.value) known.over_limit = true;
    be_ready_for(outfit, known);
}

/// The engine is ready for it, in the order in which it won.
void Search::prepare(const Candidate& candidate, const Known& known) {
    if (prepared_ == &known) return act_in_order(known.order);
    const Outfit outfit = outfit_of(candidate);
    set_up_character(armoury_, outfit, base_, character_);
    be_ready_for(outfit, known);
}

void Search::be_ready_for(const Outfit& outfit, const Known& known) {
    orders_ = orders_of(outfit);
    order_ = known.order;
    engine_.prepare_character(character_);
    prepared_ = &known;
}

void Search::act_in_order(std::size_t order) {
    if (order_ == order) return;
    order_ = order;
    character_.actions = orders_[order];
    engine_.prepare_character(character_);
}

Search::Ready Search::readiness(const Candidate& candidate, const Known& known,
                                const Condition& condition) const {
    if (!meets(candidate, condition) || !known.fits) return Ready::no;
    return known.over_limit ? Ready::too_heavy : Ready::yes;
}

/// Whether it wins one fight, fought or known (M86).
bool Search::wins(const Candidate& candidate, Known& known, double strength) {
    if (strength <= known.won) return true;
    if (strength >= known.lost) return false;
    prepare(candidate, known);
    const std::size_t first = known.order;
    for (std::size_t i = 0; i < orders_.size(); ++i) {
        known.order = (first + i) % orders_.size();
        act_in_order(known.order);
        const FightResult& result = engine_.run(strength, std::nullopt, Detail::outcome);
        if (result.error) error_ = result.error;
        if (!result.won) continue;
        known.won = strength;
        return true;
    }
    known.order = first;
    known.lost = strength;
    return false;
}

/// Of the order of its actions that is best, which is known from then on. Whatever was known of
/// them before, it comes to the same.
Margin Search::measured(const Candidate& candidate, Known& known, Measure measure, double guess) {
    known.order = 0;
    prepare(candidate, known);
    Margin best = measure(engine_, guess);
    for (std::size_t order = 1; order < orders_.size(); ++order) {
        if (best.error || best.reach == Reach::above) break;
        act_in_order(order);
        const double more = best.value * (1 + gain_worth_having);
        if (!engine_.run(more, std::nullopt, Detail::outcome).won) continue;
        const Margin margin = measure(engine_, best.value);
        if (!margin.error && margin.value <= best.value) continue;
        best = margin;
        known.order = order;
    }
    return best;
}

std::optional<Margin> Search::margin_of(const Candidate& candidate, const Condition& condition,
                                        double guess) {
    Known& known = look_at(candidate);
    if (readiness(candidate, known, condition) != Ready::yes) return std::nullopt;
    if (!known.margin) {
        take_margin(known, measured(candidate, known, turn_near, guess));
        if (!known.margin) return std::nullopt;
        note(candidate, *known.margin);
    }
    if (condition.keep) keep_under(*condition.keep, candidate, *known.margin);
    return known.margin;
}

void Search::take_margin(Known& known, const Margin& margin) {
    known.margin.reset();
    if (margin.error) {
        error_ = margin.error;
        return;
    }
    constexpr double precision = 2e-4; // of a margin, and a little more
    known.margin = margin;
    known.won = margin.reach == Reach::below ? 0 : margin.value * (1 - precision);
    known.lost = margin.reach == Reach::above ? std::numeric_limits<double>::infinity()
                                              : margin.value * (1 + precision);
}

/// Makes sure that what is known as a margin is one (M69a).
void Search::settle(const Candidate& candidate, Known& known, double guess) {
    if (known.settled) return;
    take_margin(known, measured(candidate, known, even_margin, guess));
    known.settled = true;
}

/// One fight at the incumbent's margin tells whether a candidate is better (M86).
bool Search::beats(const Candidate& candidate, const Condition& condition, double margin) {
    Known& known = look_at(candidate);
    return readiness(candidate, known, condition) == Ready::yes &&
           wins(candidate, known, margin * (1 + gain_worth_having));
}

/// Too heavy by itself is not hopeless: what it is exchanged with may make room.
bool Search::hopeless(const Candidate& candidate, const Condition& condition, double margin,
                      double loss) {
    Known& known = look_at(candidate);
    const Ready ready = readiness(candidate, known, condition);
    if (ready != Ready::yes) return ready == Ready::no;
    return !wins(candidate, known, margin * (1 - loss));
}

} // namespace panoplon
