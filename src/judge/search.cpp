#include "judge/search.h"

#include "outfit/load.h"
#include "outfit/needs.h"
#include "outfit/refusals.h"

#include <algorithm>

namespace panoplon {

namespace {

/// A candidate has to be better by this share to count: above the precision of a margin.
constexpr double gain_worth_having = 3e-4;
/// An exchange that by itself loses more than this share of the margin is left out of pairs: what
/// goes with it would have to make up for more than that.
constexpr double pair_loss = 0.1;
/// One that loses no more than this is near the best by itself.
constexpr double near_loss = 0.05;
/// Of so few exchanges every pair is tried, whatever each loses.
constexpr std::size_t few_exchanges = 30;
/// Exchanges stop after this many successes: each gains, so this is only a guard.
constexpr int most_steps = 400;

/// Worn or packed.
bool holds(const Outfit& outfit, ItemId item) {
    bool there = std::any_of(outfit.pack.begin(), outfit.pack.end(),
                             [&](const PackedItem& packed) { return packed.item == item; });
    for_each_worn(outfit.worn, [&](const WornItem& worn) { there = there || worn.item == item; });
    return there;
}

void keep_better(Found& found, const Candidate& candidate, const Margin& margin) {
    if (!found.any || margin.value > found.margin.value) found = {candidate, margin, true};
}

} // namespace

Search::Search(const Armoury& armoury, const std::vector<ItemId>& groups)
    : armoury_(armoury),
      groups_(groups),
      engine_(armoury),
      wardrobe_(armoury),
      needs_stats_(stats_are_needed(armoury)) {}

void Search::enter(const Context& context, const std::optional<Candidate>& hint) {
    context_ = context;
    hint_ = hint;
    const Outfit naked{context.character, context.level, {}, {}, {}, {}, {}};
    const std::vector<double> stats =
        needs_stats_ ? naked_stats(engine_.deriver(), naked) : std::vector<double>();
    const auto can = [&](const Item& item) {
        return meets_needs(armoury_, item, context.character, context.level, stats);
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
    if (hint) {
        bool worn_still = true;
        for_each_item(*hint, [&](ItemId item) {
            worn_still = worn_still && std::binary_search(wearable_.begin(), wearable_.end(), item);
        });
        if (!worn_still) hint_.reset();
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
    best_ = {};
    without_.assign(armoury_.items.size(), {});
    with_.assign(armoury_.items.size(), {});
    empty_.clear();
    lively_.clear();
    error_.reset();
    const Encounter& encounter = armoury_.at(context.encounter);
    required_worn_ = encounter.requires_worn;
    required_carried_ = encounter.requires_carried;
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
    return outfit;
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
        if (banned) return false;
    }
    if (condition.must.given() && !wears(candidate, condition.must)) return false;
    for (const ItemId item : required_worn_)
        if (!wears(candidate, item)) return false;
    if (condition.at_most.empty()) return true;
    const std::vector<int> held = wardrobe_.occupied(candidate);
    return std::all_of(condition.at_most.begin(), condition.at_most.end(),
                       [&](const auto& most) { return held[most.first.index()] <= most.second; });
}

/// Readies the engine for a candidate that is legal and meets the condition.
Search::Ready Search::make_ready(const Candidate& candidate, const Condition& condition) {
    if (!meets(candidate, condition)) return Ready::no;
    const Outfit outfit = outfit_of(candidate);
    if (pack_stacks(armoury_, outfit) > bag_size(armoury_, outfit)) return Ready::no;
    for (const PackedItem& packed : outfit.pack)
        if (stacks_of(armoury_.at(packed.item), packed.count) > armoury_.at(packed.item).max_stacks)
            return Ready::no;
    character_ = set_up_character(armoury_, outfit, base_);
    if (armoury_.carry.capacity.given()) {
        Deriver& deriver = engine_.deriver();
        deriver.derive(base_, character_.sums, context_.level, stats_);
        const Load load =
            weigh(armoury_.carry, worn_weight(armoury_, outfit), pack_weight(armoury_, outfit),
                  deriver.capacity(stats_, context_.level) + character_.granted);
        if (load.over_limit || load.band > condition.highest_band) return Ready::too_heavy;
    }
    engine_.prepare_character(character_);
    return Ready::yes;
}

std::optional<Margin> Search::margin_of(const Candidate& candidate, const Condition& condition,
                                        double guess) {
    if (make_ready(candidate, condition) != Ready::yes) return std::nullopt;
    const Margin margin = even_margin(engine_, guess);
    if (margin.error) {
        error_ = margin.error;
        return std::nullopt;
    }
    note(candidate, margin);
    if (condition.keep) keep_better(*condition.keep, candidate, margin);
    return margin;
}

/// One fight at the incumbent's margin tells whether a candidate is better (M86).
bool Search::beats(const Candidate& candidate, const Condition& condition, double margin) {
    if (make_ready(candidate, condition) != Ready::yes) return false;
    const FightResult& result =
        engine_.run(margin * (1 + gain_worth_having), std::nullopt, Detail::outcome);
    if (result.error) error_ = result.error;
    return result.won;
}

/// Too heavy by itself is not hopeless: what it is exchanged with may make room.
bool Search::hopeless(const Candidate& candidate, const Condition& condition, double margin,
                      double loss) {
    const Ready ready = make_ready(candidate, condition);
    if (ready != Ready::yes) return ready == Ready::no;
    return !engine_.run(margin * (1 - loss), std::nullopt, Detail::outcome).won;
}

/// Keeps what is better than what was seen before, under every condition that it meets (M80).
void Search::note(const Candidate& candidate, const Margin& margin) {
    keep_better(best_, candidate, margin);
    std::vector<bool> worn(armoury_.items.size(), false);
    for_each_item(candidate, [&](ItemId item) { worn[group(item).index()] = true; });
    for (const ItemId item : wearable_)
        if (group(item) == item)
            keep_better(worn[item.index()] ? with_[item.index()] : without_[item.index()],
                        candidate, margin);
}

bool Search::try_candidate(Found& from, const Candidate& candidate, const Condition& condition) {
    if (!beats(candidate, condition, from.margin.value)) return false;
    const auto margin = margin_of(candidate, condition, from.margin.value);
    if (!margin || margin->value <= from.margin.value) return false;
    from = {candidate, *margin, true};
    return true;
}

/// Goes once through all single exchanges, taking each that helps.
bool Search::step(Found& from, const Condition& condition) {
    bool better = false;
    bool changed = true;
    for (std::size_t done = 0; changed;) {
        // An exchange may bring other places with it, as sockets: the list is made anew then.
        changed = false;
        const std::vector<Move> list = moves(from.candidate, condition);
        for (; done < list.size() && !changed; ++done) {
            if (error_) return false;
            const Candidate candidate = moved(from.candidate, list[done]);
            if (candidate == from.candidate || !try_candidate(from, candidate, condition)) continue;
            better = changed = true;
        }
    }
    return better;
}

/// What of an exchange decides whether it is worth trying with another.
struct Search::HalfPair {
    Move move;
    Thousandths weight = 0; ///< that it adds
    bool near = false;      ///< it loses hardly anything by itself
};

std::vector<Search::HalfPair> Search::half_pairs(const Found& from, const Condition& condition) {
    const auto weight_of = [&](const Candidate& candidate) {
        const Outfit outfit = outfit_of(candidate);
        return worn_weight(armoury_, outfit) + pack_weight(armoury_, outfit);
    };
    const Thousandths now = weight_of(from.candidate);
    std::vector<HalfPair> list;
    std::vector<Move> all = moves(from.candidate, condition);
    const bool few = all.size() <= few_exchanges;
    for (Move& move : all) {
        const Candidate candidate = moved(from.candidate, move);
        if (!few && hopeless(candidate, condition, from.margin.value, pair_loss)) continue;
        const bool near = few || !hopeless(candidate, condition, from.margin.value, near_loss);
        list.push_back({std::move(move), weight_of(candidate) - now, near});
    }
    return list;
}

/// Two exchanges that can be made together: in two places, neither inside of the other.
bool Search::apart(const Move& a, const Move& b) {
    if (a.packed >= 0 || b.packed >= 0) return a.packed != b.packed;
    return a.position.place != b.position.place;
}

/// The first exchange of two things at a time that helps (M86): one makes room for the other, or
/// both are near the best by themselves.
bool Search::pair_step(Found& from, const Condition& condition) {
    const std::vector<HalfPair> list = half_pairs(from, condition);
    for (std::size_t a = 0; a < list.size(); ++a)
        for (std::size_t b = 0; b < a; ++b) {
            if (error_) return false;
            const bool room = (list[a].weight < 0) != (list[b].weight < 0);
            const bool near = list[a].near && list[b].near;
            if (!apart(list[a].move, list[b].move) || !(room || near)) continue;
            Candidate candidate = moved(from.candidate, list[b].move);
            const Position& position = list[a].move.position;
            const bool gone = !position.path.empty() && candidate.places[position.place] !=
                                                            from.candidate.places[position.place];
            if (gone) continue;
            candidate = moved(std::move(candidate), list[a].move);
            if (try_candidate(from, candidate, condition)) return true;
        }
    return false;
}

/// Goes from a start to where no exchange helps; all on the way is noted.
void Search::climb(Candidate start, const Condition& condition, bool pairs) {
    const auto margin = margin_of(start, condition, best_.any ? best_.margin.value : 1);
    if (!margin) return;
    Found found{std::move(start), *margin, true};
    for (int i = 0; i < most_steps && !error_ && found.margin.reach != Reach::above; ++i)
        if (!step(found, condition) && !(pairs && pair_step(found, condition))) break;
}

bool Search::find_best() {
    if (error_) return false;
    for (const Candidate& start : starts()) climb(start, {}, false);
    if (best_.any) find_fillings();
    // The edge of a band is a cliff that no small step crosses: climb under each by itself.
    for (int band = no_band; band < static_cast<int>(armoury_.carry.bands.size()) - 1; ++band) {
        Condition light;
        light.highest_band = band;
        Candidate bare = wardrobe_.bare();
        wear_required(bare);
        climb(std::move(bare), light, true);
    }
    if (best_.any)
        for (const Candidate& start : starts_from_best()) climb(start, {}, false);
    if (best_.any) climb(best_.candidate, {}, true);
    if (error_ || !best_.any) return false;
    find_lively();
    return true;
}

void Search::find_without(ItemId item) {
    Condition condition;
    condition.lively_only = true;
    condition.open = armoury_.at(item).takes;
    for (const ItemId first_twin : groups_) condition.banned.push_back(first_twin == group(item));
    Candidate start = best_.candidate;
    for (const Position& position : wardrobe_.positions(best_.candidate)) {
        const ItemId worn = Wardrobe::at(best_.candidate, position).item;
        if (worn.given() && condition.banned[worn.index()]) wardrobe_.put(start, position, {});
    }
    climb(std::move(start), condition, false);
}

void Search::find_with(ItemId item) {
    Condition condition;
    condition.lively_only = true;
    condition.must = item;
    for (Candidate& start : starts_with(item)) climb(std::move(start), condition, false);
}

void Search::find_empty(const Footprint& places) {
    Condition condition;
    condition.lively_only = true;
    condition.keep = &empty_[places];
    const std::vector<int> held = wardrobe_.occupied(best_.candidate);
    for (const auto& [slot, count] : places) {
        const int has = armoury_.at(slot).socket ? held[slot.index()] : armoury_.at(slot).count;
        condition.at_most.emplace_back(slot, std::max(0, has - count));
    }
    for (Candidate& start : starts_without(places)) climb(std::move(start), condition, false);
}

const Found& Search::empty(const Footprint& places) const {
    static const Found none;
    const auto at = empty_.find(places);
    return at == empty_.end() ? none : at->second;
}

int Search::worn_in_best(ItemId item) const {
    int worn = 0;
    for_each_item(best_.candidate, [&](ItemId one) { worn += group(one) == group(item); });
    return worn;
}

Footprint Search::places_of(ItemId item) const {
    return wardrobe_.footprint(armoury_.at(item), std::max(1, worn_in_best(item)));
}

std::vector<Footprint> Search::footprints() const {
    std::vector<Footprint> list;
    for (const ItemId item : wearable_) {
        list.push_back(one_place_of(item));
        list.push_back(places_of(item));
    }
    std::sort(list.begin(), list.end());
    list.erase(std::unique(list.begin(), list.end()), list.end());
    return list;
}

} // namespace panoplon
