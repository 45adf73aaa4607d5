// The best under a condition: with an item, without it, with places left empty, with nothing of a
// consumable's group (M80b, M81).
#include "judge/search/picture.h"
#include "judge/search/search.h"

#include <algorithm>
#include <limits>

namespace panoplon {

namespace {

constexpr double no_margin_above = std::numeric_limits<double>::infinity();

} // namespace

/// What is fought from here on is for one condition.
void Search::begin_condition() {
    look_around_best();
    ++asked_;
}

void Search::find_under(Found found, const Condition& condition) {
    if (found.any) climb(found, condition);
    look_for(condition, found);
}

Search::Condition Search::lacking(ItemId item) {
    Condition condition;
    condition.lively_only = true;
    condition.open = armoury_.at(item).takes;
    condition.keep = &without_[group(item).index()];
    condition.looks_far = true;
    for (const ItemId first_twin : groups_) condition.banned.push_back(first_twin == group(item));
    return condition;
}

void Search::find_without(ItemId item) {
    if (proven_) return;
    begin_condition();
    const Condition condition = lacking(item);
    Candidate start = best_.candidate;
    for (const Position& position : wardrobe_.positions(best_.candidate)) {
        const ItemId worn = Wardrobe::at(best_.candidate, position).item;
        if (worn.given() && condition.banned[worn.index()]) wardrobe_.put(start, position, {});
    }
    find_under(begun(unpacked(std::move(start), condition.banned), condition), condition);
    if (packed(best_.candidate, item) > 0) find_from_packs(condition);
}

Search::Condition Search::having(ItemId item) {
    Condition condition;
    condition.keep = &with_[group(item).index()];
    condition.lively_only = true;
    condition.must = item;
    if (!armoury_.at(item).worn()) condition.banned = others_of_group(item);
    open_freed(armoury_.at(item).takes, condition);
    return condition;
}

/// What takes several places in the best goes when one of them is wanted: then the others are free
/// for things that could not be seen beside it.
void Search::open_freed(const std::vector<SlotId>& wanted, Condition& condition) const {
    for (const Placed& placed : best_.candidate.places) {
        if (!placed.item.given()) continue;
        const std::vector<SlotId>& takes = armoury_.at(placed.item).takes;
        if (takes.size() < 2) continue;
        const bool goes = std::any_of(takes.begin(), takes.end(), [&](SlotId slot) {
            return std::find(wanted.begin(), wanted.end(), slot) != wanted.end();
        });
        if (goes) condition.open.insert(condition.open.end(), takes.begin(), takes.end());
    }
}

/// From the best with it in the place where it does most.
Found Search::climb_with(ItemId item) {
    const Condition condition = having(item);
    Found found = most_promising(
        armoury_.at(item).worn() ? starts_with(item) : starts_packing(item), condition);
    if (found.any) climb(found, condition);
    return found;
}

/// From what the search for the best came by, where that is better than what a climb has come to:
/// beside a best that takes two hands, what one hand holds is not seen.
void Search::climb_from_known(const Candidate& known, const Condition& condition, Found& found) {
    Found start = begun(known, condition);
    if (!start.any || (found.any && start.margin.value <= found.margin.value)) return;
    climb(start, condition);
    found = std::move(start);
}

/// What a whole set is worth no piece shows that is put on by itself.
void Search::climb_with_set(ItemId item, Found& found) {
    const SetId set = armoury_.at(item).set;
    if (!set.given() || !armoury_.at(item).worn()) return;
    std::vector<Candidate> starts = starts_with(item);
    for (Candidate& start : starts) start = with_set(std::move(start), set);
    Found whole = most_promising(std::move(starts), having(item));
    if (whole.any) climb(whole, having(item));
    if (whole.any && (!found.any || whole.margin.value > found.margin.value))
        found = std::move(whole);
}

void Search::find_with(ItemId item) {
    if (proven_) return;
    begin_condition();
    Found found = climb_with(item);
    rank_margins();
    if (const PackedCandidate* known = best_known_with_[group(item).index()])
        climb_from_known(known->unpacked(), having(item), found);
    climb_with_set(item, found);
    look_for(having(item), found);
    if (!armoury_.at(item).worn()) find_from_packs(having(item));
}

/// By item: the other consumables of its group.
std::vector<bool> Search::others_of_group(ItemId consumable) const {
    std::vector<bool> others(armoury_.items.size(), false);
    const ItemId first = first_of_group_[consumable_index(consumable)];
    for (std::size_t c = 0; c < first_of_group_.size(); ++c)
        if (first_of_group_[c] == first) others[wardrobe_.consumables()[c].index()] = true;
    others[consumable.index()] = false;
    return others;
}

Search::Condition Search::lacking_group(ItemId consumable) {
    Condition condition;
    condition.lively_only = true;
    condition.keep = &without_group_[first_of_group_[consumable_index(consumable)].index()];
    condition.banned = others_of_group(consumable);
    condition.banned[consumable.index()] = true;
    return condition;
}

void Search::find_without_group(ItemId consumable) {
    if (proven_) return;
    begin_condition();
    const Condition condition = lacking_group(consumable);
    find_under(begun(unpacked(best_.candidate, condition.banned), condition), condition);
    find_from_packs(condition);
}

/// Without the consumables that are banned.
Candidate Search::unpacked(Candidate candidate, const std::vector<bool>& banned) const {
    for (std::size_t c = 0; c < candidate.counts.size(); ++c)
        if (banned[wardrobe_.consumables()[c].index()]) candidate.counts[c] = 0;
    return candidate;
}

Search::Condition Search::leaving_empty(const Footprint& places) {
    Condition condition;
    condition.lively_only = true;
    condition.keep = &empty_[places];
    const std::vector<int> held = wardrobe_.occupied(best_.candidate);
    for (const auto& [slot, count] : places) {
        const int has = armoury_.at(slot).socket ? held[slot.index()] : armoury_.at(slot).count;
        condition.at_most.emplace_back(slot, std::max(0, has - count));
        open_freed({slot}, condition);
    }
    return condition;
}

void Search::find_empty(const Footprint& places) {
    const Condition condition = leaving_empty(places);
    if (proven_) {
        for (const auto& [packed_candidate, known] : known_) {
            if (!known.margin) continue;
            const Candidate candidate = packed_candidate.unpacked();
            if (readiness(candidate, known, condition) == Ready::yes)
                keep_under(*condition.keep, candidate, *known.margin);
        }
        return;
    }
    begin_condition();
    Found found = most_promising(starts_without(places), condition);
    if (found.any) climb(found, condition);
    const double reached = found.any ? found.margin.value : 0;
    if (const Found known = best_before(condition, reached, no_margin_above); known.any)
        climb_from_known(known.candidate, condition, found);
    look_for(condition, found);
}

void Search::find_for(ItemId item) {
    find_with(item);
    if (in_best(item)) find_without(item);
    if (!armoury_.at(item).worn()) return find_without_group(item);
    for (const Footprint& places : {one_place_of(item), all_places_of(item)})
        if (!empty(places).any) find_empty(places);
    if (!proven_) compare_with_empty(item);
}

/// The best with it and the best with its place empty, each tried for the other: neither search
/// should have found what the other only had to take over. What that finds is the item's own, so
/// that no other item's numbers hang on it.
void Search::compare_with_empty(ItemId item) {
    begin_condition();
    const Condition with_it = having(item);
    Condition without_place = leaving_empty(one_place_of(item));
    without_place.keep = &emptied_[group(item).index()];
    const Found with_before = with(item);
    const Found empty_before = empty(one_place_of(item));
    if (with_before.any) {
        Candidate candidate = with_before.candidate;
        for (const Position& position : wardrobe_.positions(with_before.candidate)) {
            const ItemId worn = Wardrobe::at(with_before.candidate, position).item;
            if (worn.given() && group(worn) == group(item)) wardrobe_.put(candidate, position, {});
        }
        Found found = empty_before;
        if (found.any) (void)try_candidate(found, candidate, without_place);
    }
    if (!empty_before.any) return;
    Found found = with_before;
    for (const Position& position : wardrobe_.positions(empty_before.candidate)) {
        if (position.slot != armoury_.at(item).slot ||
            Wardrobe::at(empty_before.candidate, position).item.given())
            continue;
        Candidate candidate = empty_before.candidate;
        wardrobe_.put(candidate, position, item);
        if (found.any) (void)try_candidate(found, candidate, with_it);
    }
}

} // namespace panoplon
