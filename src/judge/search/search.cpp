#include "judge/search/search.h"

#include "judge/search/picture.h"
#include "outfit/load.h"
#include "outfit/needs.h"
#include "outfit/points.h"
#include "outfit/refusals.h"

#include <algorithm>

namespace panoplon {

namespace {

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
      gear_acts_(std::any_of(armoury.items.begin(), armoury.items.end(),
                             [](const Item& item) { return !item.actions.empty(); })),
      stop_(watch.stop) {
    for (const ItemId item : wardrobe_.consumables()) {
        const std::string& own = armoury.at(item).group();
        const auto first = std::find_if(
            wardrobe_.consumables().begin(), wardrobe_.consumables().end(), [&](ItemId other) {
                return other == item || (!own.empty() && armoury.at(other).group() == own);
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
    Outfit naked{context.character, context.level, {}, {}, {}, {}, {}};
    points_ = points_at(armoury_, context.character, context.level);
    wardrobe_.spend_evenly(points_, needs_stats_ && points_ > 0
                                        ? naked_stats(engine_.deriver(), naked)
                                        : std::vector<double>());
    // What could be worn with all points spent on it is an option; look_at() asks with what is.
    for (const UpgradeId upgrade : wardrobe_.for_points())
        naked.upgrades.push_back({upgrade, most_levels(upgrade, points_), {}});
    const std::vector<double> stats =
        needs_stats_ ? naked_stats(engine_.deriver(), naked) : std::vector<double>();
    naked.upgrades.clear();
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
        usable_.push_back(can(item) && is_among(armoury_, item.only(), context.character));
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
    ranked_.clear();
    prepared_ = nullptr;
    orders_ = orders_of(naked);
    usual_orders_.clear();
    exact_ = false;
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

int Search::most_levels(UpgradeId upgrade, int points) const {
    return std::min(armoury_.at(upgrade).max, points / armoury_.at(upgrade).points);
}

Outfit Search::outfit_of(const Candidate& candidate) const {
    Outfit outfit{context_.character,
                  context_.level,
                  wardrobe_.worn(candidate),
                  wardrobe_.packed(candidate),
                  {},
                  {},
                  {}};
    for (std::size_t i = 0; i < candidate.points.size(); ++i)
        if (candidate.points[i] > 0)
            outfit.upgrades.push_back({wardrobe_.for_points()[i], candidate.points[i], {}});
    for (const ItemId item : required_carried_)
        if (!holds(outfit, item)) add_to_pack(outfit.pack, item, 1, {});
    add_contents(armoury_, outfit);
    if (!gear_acts_) return outfit;
    const auto known = known_.find(PackedCandidate(candidate));
    if (known != known_.end() && known->second.order > 0)
        outfit.actions = orders_of(outfit)[known->second.order];
    return outfit;
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
    const auto [at, is_new] = known_.try_emplace(PackedCandidate(candidate));
    Known& known = at->second;
    if (known.asked != asked_) {
        if (known.before)
            static_cast<Outcomes&>(known) = *known.before;
        else
            known.before = std::make_unique<Outcomes>(known);
        known.asked = asked_;
    }
    if (!is_new) return known;
    const Outfit outfit = outfit_of(candidate);
    known.fits = pack_stacks(armoury_, outfit) <= bag_of(outfit) &&
                 std::all_of(outfit.pack.begin(), outfit.pack.end(), [&](const PackedItem& packed) {
                     const Item& item = armoury_.at(packed.item);
                     return stacks_of(item, packed.count) <= item.max_stacks;
                 });
    if (needs_stats_ && points_ > 0) known.fits = known.fits && meets_all_needs(outfit);
    if (!known.fits) return known;
    find_fit(outfit, known);
    known.order = first_order();
    if (known.before) known.before->order = known.order;
    return known;
}

/// With the points that it has spent.
bool Search::meets_all_needs(const Outfit& outfit) {
    const std::vector<double> naked = naked_stats(engine_.deriver(), outfit);
    bool all = true;
    const auto ask = [&](ItemId item) {
        all = all &&
              meets_needs(armoury_, armoury_.at(item), context_.character, context_.level, naked);
    };
    for_each_worn(outfit.worn, [&](const WornItem& worn) { ask(worn.item); });
    for (const PackedItem& packed : outfit.pack)
        if (armoury_.at(packed.item).consumed()) ask(packed.item);
    return all;
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
    if (gear_acts_) orders_ = orders_of(outfit);
    order_ = known.order;
    engine_.prepare_character(character_);
    prepared_ = &known;
}

Search::Ready Search::readiness(const Candidate& candidate, const Known& known,
                                const Condition& condition) const {
    if (!meets(candidate, condition) || !known.fits) return Ready::no;
    return known.over_limit ? Ready::too_heavy : Ready::yes;
}

std::optional<Margin> Search::margin_of(const Candidate& candidate, const Condition& condition,
                                        double guess) {
    Known& known = look_at(candidate);
    if (readiness(candidate, known, condition) != Ready::yes) return std::nullopt;
    if (!known.margin) {
        take_margin(known, near_margin(candidate, known, guess));
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
    known.margin = Turn{margin.value, margin.reach};
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

std::optional<Margin> Search::margin(const Candidate& candidate, double guess) {
    Known& known = look_at(candidate);
    if (readiness(candidate, known, {}) != Ready::yes) return std::nullopt;
    settle(candidate, known, guess);
    return known.margin;
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
