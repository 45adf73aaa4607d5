// Finding the best: climbing by exchanges to where none helps, looking at pictures from there, and
// going the long way round: through what is no better by itself but may lead to better.
#include "judge/search/search.h"

#include <algorithm>
#include <utility>

namespace panoplon {

namespace {

/// Exchanges stop after this many successes: each gains, so this is only a guard.
constexpr int most_steps = 400;
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

/// Goes where pictures show something better than a start, without climbing from that first.
void Search::look_from(const Candidate& start) {
    around_.reset();
    Found found = begun(start, {});
    for (int i = 0; found.any && i < most_pictures && !ended(); ++i) {
        paint_all(found);
        if (!look_for({}, found)) break;
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

/// From everywhere that climbs start, then the long way round.
void Search::search_around() {
    around_.reset();
    for (const bool several : {false, true})
        if (const auto start = dressed_by_level(several)) ascend(*start);
    ascend(packed_by_itself({}, unlimited));
    ascend(bare_as_required());
    if (best_.any && limits_of(best_).lacks_room)
        for (const Candidate& start : starts_of_packs({})) ascend(start);
    const Candidate bare = bare_as_required();
    for (std::size_t set = 0; set < armoury_.sets.size(); ++set) {
        const Candidate start = with_set(bare, SetId(set));
        if (start != bare) look_from(start);
    }
    if (best_.any) make_detours();
}

/// What takes several places hides whatever could stand in them: where the best has such a thing,
/// all is searched once more as if there were none, and the better of both is the best.
void Search::search_without_large() {
    const auto large = [&](ItemId item) { return takes_several(item); };
    const auto& places = best_.candidate.places;
    const bool has_large = std::any_of(places.begin(), places.end(), [&](const Placed& placed) {
        return placed.item.given() && large(placed.item);
    });
    if (!has_large || std::any_of(required_worn_.begin(), required_worn_.end(), large)) return;
    const Found with_large = std::exchange(best_, Found{});
    const std::vector<std::vector<ItemId>> options = options_;
    for (std::vector<ItemId>& some : options_) std::erase_if(some, large);
    search_around();
    options_ = options;
    around_.reset();
    if (best_.any && best_.margin.value > with_large.margin.value)
        ascend(best_.candidate);
    else
        best_ = with_large;
}

bool Search::find_best() {
    if (error_) return false;
    if (count_candidates() <= most_tried_) {
        prove();
    } else {
        search_around();
        if (best_.any) search_without_large();
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

} // namespace panoplon
