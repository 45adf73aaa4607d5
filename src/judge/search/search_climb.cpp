// Finding the best: climbing by exchanges to where none helps, looking at pictures from there, and
// going the long way round: through what is no better by itself but may lead to better.
#include "judge/search/search.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Exchanges stop after this many successes: each gains, so this is only a guard.
constexpr int most_steps = 400;

constexpr double no_margin_above = std::numeric_limits<double>::infinity();

/// Where weight binds, climbs start from packs of so many weights.
constexpr int parts_of_a_pack = 8;
/// Pictures from one start, each around the best of the one before.
constexpr int most_pictures = 8;
/// Detours are made anew from a better best, so often.
constexpr int most_detours = 3;
/// So many things are tried as detours, those first that cost the least by themselves.
constexpr std::size_t things_a_detour = 30;
/// A best that is better by less is not worth new detours.
constexpr double gain_of_detours = 1e-4;

} // namespace

bool Search::try_candidate(Found& from, const Candidate& candidate, const Condition& condition) {
    if (!beats(candidate, condition, from.margin.value)) return false;
    const auto margin = margin_of(candidate, condition, from.margin.value);
    if (!margin || margin->value <= from.margin.value) return false;
    from = {candidate, *margin, true};
    return true;
}

/// Goes once through all exchanges, taking each that helps.
bool Search::step(Found& from, const Condition& condition) {
    bool better = false;
    bool changed = true;
    for (std::size_t done = 0; changed;) {
        // An exchange may bring other places with it, as sockets: the list is made anew then.
        changed = false;
        const std::vector<Exchange> list = exchanges(from.candidate, condition);
        for (; done < list.size() && !changed; ++done) {
            if (ended()) return false;
            const Candidate candidate = after(from.candidate, list[done]);
            if (candidate == from.candidate || !try_candidate(from, candidate, condition)) continue;
            better = changed = true;
        }
    }
    return better;
}

/// Goes to where no exchange helps; all on the way is noted.
void Search::climb(Found& from, const Condition& condition) {
    for (int i = 0; i < most_steps && !ended() && from.margin.reach != Reach::above; ++i)
        if (!step(from, condition)) break;
}

/// A start as it is, where it is legal.
Found Search::begun(Candidate start, const Condition& condition) {
    const auto margin = margin_of(start, condition, best_.any ? best_.margin.value : 1);
    if (!margin) return {};
    return {std::move(start), *margin, true};
}

/// The start of which the most remains in one fight.
Found Search::most_promising(std::vector<Candidate> starts, const Condition& condition) {
    Candidate* pick = nullptr;
    double most = -std::numeric_limits<double>::infinity();
    for (Candidate& start : starts) {
        const Known& known = look_at(start);
        if (readiness(start, known, condition) != Ready::yes) continue;
        prepare(start, known);
        const double remains =
            engine_.run(best_.margin.value, std::nullopt, Detail::outcome).remainder;
        if (remains > most) pick = &start;
        most = std::max(most, remains);
    }
    return pick ? begun(std::move(*pick), condition) : Found{};
}

/// The best pack of so much weight with nothing worn but what has to be: where weight binds, gear
/// that comes first leaves it no room.
Candidate Search::packed_by_itself(Condition condition, Thousandths most_packed) {
    condition.packs_only = true;
    condition.most_packed = most_packed;
    Candidate start = bare_as_required();
    if (condition.must.given()) start.counts[consumable_index(condition.must)] = 1;
    Found found = begun(start, condition);
    if (found.any) climb(found, condition);
    return found.any ? found.candidate : start;
}

/// Gear and pack share what can be carried: the best packs by themselves of any weight, and of
/// parts of that.
std::vector<Candidate> Search::starts_of_packs(const Condition& condition) {
    std::vector<Candidate> starts = {packed_by_itself(condition, unlimited)};
    const Thousandths whole = pack_weight(armoury_, outfit_of(starts.front()));
    for (int part = parts_of_a_pack - 1; part > 0; --part) {
        Candidate start = packed_by_itself(condition, whole * part / parts_of_a_pack);
        if (std::find(starts.begin(), starts.end(), start) == starts.end())
            starts.push_back(std::move(start));
    }
    return starts;
}

/// Where a limit binds and another pack is asked for, all that is worn may have to be otherwise.
void Search::find_from_packs(Condition condition) {
    if (!limiting_.lacks_room) return;
    condition.lively_only = false;
    Found best;
    for (Candidate& start : starts_of_packs(condition)) {
        Found found = begun(std::move(start), condition);
        if (!found.any) continue;
        climb(found, condition);
        keep_better(best, found.candidate, found.margin);
    }
    look_for(condition, best);
}

/// Climbs from a start, and again from what pictures show, until they show nothing better.
void Search::ascend(Candidate start) {
    around_.reset();
    Found found = begun(std::move(start), {});
    if (!found.any) return;
    climb(found, {});
    if (!has_fillings_) {
        has_fillings_ = true;
        find_fillings();
        climb(found, {});
    }
    for (int i = 0; i < most_pictures && !ended(); ++i) {
        paint_all(found);
        if (!look_for({}, found)) break;
        climb(found, {});
    }
}

/// Through whole sets, and through what costs little worn or packed by itself, with it held.
void Search::make_detours() {
    for (int round = 0; round < most_detours && !ended(); ++round) {
        const double before = best_.margin.value;
        for (Candidate& start : starts_of_sets()) {
            Found found = begun(std::move(start), {});
            if (found.any) climb(found, {});
        }
        look_around_best();
        std::vector<ItemId> things = likely_things();
        things.resize(std::min(things.size(), things_a_detour));
        for (const ItemId item : things) (void)climb_with(item);
        if (best_.margin.value <= before * (1 + gain_of_detours)) break;
        ascend(best_.candidate);
    }
}

bool Search::find_best() {
    if (error_) return false;
    if (count_candidates() <= most_tried_) {
        prove();
    } else {
        for (const bool several : {false, true})
            if (const auto start = dressed_by_level(several)) ascend(*start);
        ascend(packed_by_itself({}, unlimited));
        ascend(bare_as_required());
        if (best_.any && limits_of(best_).lacks_room)
            for (const Candidate& start : starts_of_packs({})) ascend(start);
        if (best_.any) make_detours();
    }
    close_best();
    return !error_ && best_.any;
}

bool Search::begin_with(const Candidate& best) {
    Found found = begun(best, {});
    if (!found.any) return false;
    find_fillings();
    close_best();
    return !error_;
}

/// From now on nothing is better than the best.
void Search::close_best() {
    if (!best_.any || error_) return;
    settle_best();
    told_ = with_needed_pack(best_);
    best_.margin = told_.margin;
    limiting_ = limits_of(told_);
    closed_ = true;
    ranked_.clear();
}

/// What detours and conditions are searched by.
void Search::look_around_best() {
    if (around_ == best_.candidate) return;
    paint_all(best_);
    find_lively();
    around_ = best_.candidate;
}

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
    if (const Candidate* known = best_known_with_[group(item).index()])
        climb_from_known(*known, having(item), found);
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
        for (const auto& [candidate, known] : known_)
            if (known.margin && readiness(candidate, known, condition) == Ready::yes)
                keep_under(*condition.keep, candidate, *known.margin);
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
        for (const Position& position : wardrobe_.positions(with_before.candidate))
            if (group(Wardrobe::at(with_before.candidate, position).item) == group(item))
                wardrobe_.put(candidate, position, {});
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
