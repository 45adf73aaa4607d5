// Climbing: from starts by exchanges of one thing and of two to where nothing helps.
#include "judge/search.h"

#include "outfit/load.h"

#include <algorithm>

namespace panoplon {

namespace {

/// An exchange that by itself loses more than this share of the margin is left out of pairs: what
/// goes with it would have to make up for more than that.
constexpr double pair_loss = 0.1;
/// One that loses no more than this is near the best by itself.
constexpr double near_loss = 0.05;
/// Of so few exchanges every pair is tried, whatever each loses.
constexpr std::size_t few_exchanges = 30;
/// Where there are no more candidates than this, each is tried.
constexpr double most_tried = 5000;
/// Exchanges stop after this many successes: each gains, so this is only a guard.
constexpr int most_steps = 400;

} // namespace

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
    if (best_.any && count_candidates() <= most_tried) prove();
    return !error_ && best_.any;
}

void Search::find_without(ItemId item) {
    if (lively_.empty()) find_lively();
    Condition condition;
    condition.lively_only = true;
    condition.open = armoury_.at(item).takes;
    for (const ItemId first_twin : groups_) condition.banned.push_back(first_twin == group(item));
    Candidate start = best_.candidate;
    for (const Position& position : wardrobe_.positions(best_.candidate)) {
        const ItemId worn = Wardrobe::at(best_.candidate, position).item;
        if (worn.given() && condition.banned[worn.index()]) wardrobe_.put(start, position, {});
    }
    climb(unpacked(std::move(start), condition.banned), condition, false);
}

void Search::find_with(ItemId item) {
    if (lively_.empty()) find_lively();
    Condition condition;
    condition.lively_only = true;
    condition.must = item;
    if (!armoury_.at(item).worn()) condition.banned = others_of_group(item);
    for (Candidate& start : armoury_.at(item).worn() ? starts_with(item) : starts_packing(item))
        climb(std::move(start), condition, false);
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

void Search::find_without_group(ItemId consumable) {
    if (lively_.empty()) find_lively();
    Condition condition;
    condition.lively_only = true;
    condition.banned = others_of_group(consumable);
    condition.banned[consumable.index()] = true;
    climb(unpacked(best_.candidate, condition.banned), condition, false);
}

/// Without the consumables that are banned.
Candidate Search::unpacked(Candidate candidate, const std::vector<bool>& banned) const {
    for (std::size_t c = 0; c < candidate.counts.size(); ++c)
        if (banned[wardrobe_.consumables()[c].index()]) candidate.counts[c] = 0;
    return candidate;
}

void Search::find_empty(const Footprint& places) {
    if (lively_.empty()) find_lively();
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

} // namespace panoplon
