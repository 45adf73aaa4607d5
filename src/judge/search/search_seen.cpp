// What a search keeps of the candidates that it has seen, and what that is asked for by.
#include "fight/roughness.h"
#include "judge/search/search.h"
#include "outfit/draw_ends.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// A margin that is less by no more than this share is the same (M70).
constexpr double no_difference = 1e-4;

/// A margin may be this much less (a share) than the turn that was found first, and is no other.
constexpr double sure_enough = 3e-4;

/// What is meant was found so, wherever it is worn.
template <class Meant>
void give_drawn(std::vector<WornItem>& list, const Drawn& drawn, const Meant& meant) {
    for (WornItem& worn : list) {
        if (meant(worn.item)) worn.drawn = drawn;
        give_drawn(worn.socketed, drawn, meant);
    }
}

} // namespace

void Search::keep_better(Found& found, const Candidate& candidate, const Margin& margin) {
    if (!found.any || margin.value > found.margin.value) found = {candidate, margin, true};
}

/// Once the best is found, nothing is told as better.
void Search::keep_under(Found& found, const Candidate& candidate, Margin margin) {
    if (closed_ && margin.value > best_.margin.value) margin = best_.margin;
    keep_better(found, candidate, margin);
}

/// Until the best is found: keeps what is better than what was seen before, under every condition
/// that it meets (M80). After that what is found under a condition is kept for it alone, so that it
/// does not depend on what else was asked.
void Search::note(const Candidate& candidate, const Margin& margin) {
    if (closed_) {
        missed_ = std::max(missed_, margin.value / best_.margin.value - 1);
        return;
    }
    keep_better(best_, candidate, margin);
    std::vector<bool> worn(armoury_.items.size(), false);
    for_each_item(candidate, [&](ItemId item) { worn[group(item).index()] = true; });
    const auto keep = [&](ItemId item, bool there) {
        keep_under(there ? with_[item.index()] : without_[item.index()], candidate, margin);
    };
    for (const ItemId item : wearable_)
        if (group(item) == item) keep(item, worn[item.index()]);
    std::map<ItemId, int> of_group; // how many different ones are packed
    for (std::size_t c = 0; c < usable_.size(); ++c)
        of_group[first_of_group_[c]] += candidate.counts[c] > 0;
    for (const auto& [first, different] : of_group)
        if (different == 0) keep_under(without_group_[first.index()], candidate, margin);
    for (std::size_t c = 0; c < usable_.size(); ++c) {
        const ItemId item = wardrobe_.consumables()[c];
        if (!usable_[c] || armoury_.at(item).worn()) continue;
        if (candidate.counts[c] == 0)
            keep(item, false);
        else if (of_group[first_of_group_[c]] == 1)
            keep(item, true);
    }
}

/// The best is the highest of all whose margins are sure.
void Search::settle_best() {
    while (!error_) {
        Known& known = look_at(best_.candidate);
        const double before = best_.margin.value;
        settle(best_.candidate, known, before);
        if (!known.margin) return;
        best_.margin = *known.margin;
        if (best_.margin.value >= before * (1 - sure_enough)) return;
        for (const auto& [packed_candidate, other] : known_) {
            if (!other.margin || other.margin->value <= best_.margin.value) continue;
            const Candidate candidate = packed_candidate.unpacked();
            if (readiness(candidate, other, {}) == Ready::yes)
                keep_better(best_, candidate, *other.margin);
        }
    }
}

/// Of packs with its margin the one that has the fewest units, consumable by consumable: what makes
/// no difference is not packed.
Found Search::with_needed_pack(Found found) {
    if (ended() || !found.any || found.margin.reach != Reach::within) return found;
    const double enough = found.margin.value * (1 - no_difference);
    const auto does_as_well = [&](const Candidate& candidate) {
        Known& known = look_at(candidate);
        return readiness(candidate, known, {}) == Ready::yes && wins(candidate, known, enough);
    };
    Candidate least = found.candidate;
    for (std::int64_t& count : least.counts) {
        std::int64_t enough_units = count, too_few = -1;
        while (enough_units - too_few > 1) {
            count = (enough_units + too_few) / 2;
            (does_as_well(least) ? enough_units : too_few) = count;
        }
        count = enough_units;
    }
    if (least == found.candidate || !margin_of(least, {}, found.margin.value)) return found;
    Known& known = look_at(least);
    settle(least, known, found.margin.value);
    if (!known.margin || known.margin->value < enough) return found;
    found.candidate = least;
    found.margin =
        closed_ && known.margin->value > best_.margin.value ? best_.margin : *known.margin;
    return found;
}

/// What was found under a condition is told by its margin.
void Search::settle(Found& found) {
    if (!found.any || error_) return;
    Known& known = look_at(found.candidate);
    settle(found.candidate, known, found.margin.value);
    if (!known.margin) return;
    found.margin = *known.margin;
    if (found.margin.value > best_.margin.value) found.margin = best_.margin;
}

/// Should its margin be less than the turn that was found first, then others that the search for
/// the best came by may be better: the next of them is settled, until none is.
void Search::settle(const Condition& condition) {
    Found& found = *condition.keep;
    double before = found.margin.value;
    settle(found);
    double below = std::numeric_limits<double>::infinity();
    while (found.any && !proven_ && !error_ && found.margin.value < before * (1 - sure_enough)) {
        Found next = best_before(condition, found.margin.value, below);
        if (!next.any) return;
        before = below = next.margin.value;
        begin_condition();
        settle(next);
        if (next.margin.value > found.margin.value) found = next;
    }
}

/// What the search for the best came by, the highest margin first.
void Search::rank_margins() {
    if (!ranked_.empty()) return;
    for (const auto& [candidate, known] : known_)
        if (const auto& margin = known.before ? known.before->margin : known.margin)
            ranked_.push_back({&candidate, &known, *margin});
    std::stable_sort(ranked_.begin(), ranked_.end(), [](const Ranked& a, const Ranked& b) {
        return a.margin.value > b.margin.value;
    });
    best_known_with_.assign(armoury_.items.size(), nullptr);
    for (const Ranked& one : ranked_) {
        const auto has = [&](ItemId item) {
            const PackedCandidate*& best = best_known_with_[group(item).index()];
            if (!best) best = one.candidate;
        };
        const Candidate candidate = one.candidate->unpacked();
        for_each_item(candidate, has);
        for (std::size_t c = 0; c < candidate.counts.size(); ++c)
            if (candidate.counts[c] > 0) has(wardrobe_.consumables()[c]);
    }
}

/// Of that the best under a condition, with a margin between two others.
Found Search::best_before(const Condition& condition, double above, double below) {
    rank_margins();
    for (const Ranked& one : ranked_) {
        if (one.margin.value <= above) break;
        if (one.margin.value >= below) continue;
        Candidate candidate = one.candidate->unpacked();
        if (readiness(candidate, *one.known, condition) == Ready::yes)
            return {std::move(candidate), one.margin, true};
    }
    return {};
}

double Search::roughness_of_best() {
    if (error_ || !told_.any || told_.margin.reach != Reach::within) return 0;
    set_up_character(armoury_, outfit_of(told_.candidate), base_, character_);
    prepared_ = nullptr;
    return roughness_near(engine_, character_, told_.margin.value);
}

std::optional<Search::FindMargins> Search::margins_of_finds(ItemId item) {
    const Found found = with(item);
    if (error_ || !found.any || found.margin.reach != Reach::within) return std::nullopt;
    prepare(found.candidate, look_at(found.candidate));
    Outfit outfit = outfit_of(found.candidate);
    const std::vector<ActionId> in_order = character_.actions;
    const auto margin_with = [&](const Drawn& drawn) {
        give_drawn(outfit.worn, drawn,
                   [&](ItemId worn) { return group(worn).index() == group(item).index(); });
        set_up_character(armoury_, outfit, base_, character_);
        character_.actions = in_order;
        engine_.prepare_character(character_);
        prepared_ = nullptr;
        const Margin margin = even_margin(engine_, found.margin.value);
        if (margin.error) error_ = margin.error;
        return margin.value;
    };
    const DrawEnds ends = find_draw_ends(armoury_.at(item), margin_with);
    return FindMargins{margin_with(ends.worst), margin_with(ends.best)};
}

double Search::typical_worth() {
    if (typical_worth_) return *typical_worth_;
    begin_condition();
    std::vector<double> worths;
    for (std::size_t place = 0; place < told_.candidate.places.size(); ++place) {
        if (!told_.any || !told_.candidate.places[place].item.given()) continue;
        Candidate bared = told_.candidate;
        wardrobe_.put(bared, {wardrobe_.places()[place], place, {}}, {});
        const std::optional<Margin> margin = margin_of(bared, {}, told_.margin.value);
        const double worth = margin ? std::log(told_.margin.value / margin->value) : 0;
        if (worth >= least_worth) worths.push_back(worth);
    }
    std::sort(worths.begin(), worths.end());
    typical_worth_ = worths.empty() ? 0 : worths[(worths.size() - 1) / 2];
    return *typical_worth_;
}

bool Search::bears_out(const Found& found) {
    if (error_) return false;
    if (!found.any) return true;
    bool can = wardrobe_.goes_together(found.candidate);
    for_each_item(found.candidate, [&](ItemId item) { can = can && available(item); });
    if (!can) return false;
    Known& known = look_at(found.candidate);
    if (readiness(found.candidate, known, {}) != Ready::yes) return false;
    const Margin margin = measured(found.candidate, known, even_margin, found.margin.value);
    return !margin.error && margin.value == found.margin.value &&
           margin.reach == found.margin.reach;
}

void Search::settle() {
    for (std::size_t i = 0; i < armoury_.items.size(); ++i) {
        if (with_[i].any) settle(having(ItemId(i)));
        if (without_[i].any) settle(lacking(ItemId(i)));
        if (without_group_[i].any) settle(lacking_group(ItemId(i)));
        settle(emptied_[i]);
    }
    for (auto& [places, found] : empty_)
        if (found.any) settle(leaving_empty(places));
}

std::vector<ItemId> Search::usable() const {
    std::vector<ItemId> list;
    for (std::size_t c = 0; c < usable_.size(); ++c)
        if (usable_[c] && !armoury_.at(wardrobe_.consumables()[c]).worn())
            list.push_back(wardrobe_.consumables()[c]);
    return list;
}

std::size_t Search::consumable_index(ItemId item) const {
    const auto& consumables = wardrobe_.consumables();
    return static_cast<std::size_t>(std::find(consumables.begin(), consumables.end(), item) -
                                    consumables.begin());
}

std::int64_t Search::packed(const Candidate& candidate, ItemId consumable) const {
    const std::size_t c = consumable_index(consumable);
    return c < candidate.counts.size() ? candidate.counts[c] : 0;
}

const Found& Search::empty(const Footprint& places) const {
    static const Found none;
    const auto at = empty_.find(places);
    return at == empty_.end() ? none : at->second;
}

const Found& Search::empty_beside(ItemId item) const {
    const Found& of_place = empty(one_place_of(item));
    const Found& own = emptied_[group(item).index()];
    return own.any && own.margin.value > of_place.margin.value ? own : of_place;
}

int Search::worn_in_best(ItemId item) const {
    int worn = 0;
    for_each_item(best_.candidate, [&](ItemId one) { worn += group(one) == group(item); });
    return worn;
}

Footprint Search::all_places_of(ItemId item) const {
    Footprint places = places_of(item);
    for (auto& [slot, count] : places)
        if (!armoury_.at(slot).socket) count = armoury_.at(slot).count;
    return places;
}

Footprint Search::places_of(ItemId item) const {
    return wardrobe_.footprint(armoury_.at(item), std::max(1, worn_in_best(item)));
}

bool Search::in_best(ItemId item) const {
    return worn_in_best(item) > 0 || packed(best_.candidate, item) > 0;
}

} // namespace panoplon
