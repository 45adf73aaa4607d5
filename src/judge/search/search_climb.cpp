// Climbing: from starts by exchanges of one thing and of two to where nothing helps.
#include "judge/search/search.h"

#include "outfit/load.h"

#include <algorithm>

namespace panoplon {

namespace {

/// Losses that exchanges are told apart by: shares of the margin that they lose by themselves. One
/// that loses more than the last is left out of pairs: what goes with it would have to make up for
/// more than that.
constexpr double losses[] = {0.0025, 0.005, 0.01, 0.02, 0.03, 0.05, 0.1};
/// Pairs are tried in the order of what they lose by themselves. Under a band, which is only a way
/// to where the best may lie, no more than this from one start.
constexpr std::size_t most_pairs_of_band = 200;
/// What is worn and what is packed go together more often than two that are worn.
constexpr double pack_share = 0.4;
/// Of so few exchanges every pair is tried, whatever each loses.
constexpr std::size_t few_exchanges = 30;
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
    double loss = 0;        ///< share of the margin that it loses by itself, about
    bool heavier = false;   ///< by itself it goes over an edge that the start is under
};

std::vector<Search::HalfPair> Search::half_pairs(const Found& from, const Condition& condition) {
    const auto weight_of = [&](const Candidate& candidate) {
        const Outfit outfit = outfit_of(candidate);
        return worn_weight(armoury_, outfit) + pack_weight(armoury_, outfit);
    };
    const Thousandths now = weight_of(from.candidate);
    const int band = look_at(from.candidate).band;
    std::vector<HalfPair> list;
    std::vector<Move> all = moves(from.candidate, condition);
    const bool few = all.size() <= few_exchanges;
    for (Move& move : all) {
        const Candidate candidate = moved(from.candidate, move);
        if (candidate == from.candidate) continue;
        const Known& known = look_at(candidate);
        const bool heavier = known.over_limit || known.band > band;
        double loss = 0; // of what goes over an edge, who knows: that is what makes it lose
        if (!few && !(heavier && known.fits)) {
            const auto* least =
                std::partition_point(std::begin(losses), std::end(losses), [&](double share) {
                    return hopeless(candidate, condition, from.margin.value, share);
                });
            if (least == std::end(losses)) continue;
            loss = *least;
        }
        list.push_back({std::move(move), weight_of(candidate) - now, loss, heavier});
    }
    return list;
}

/// Two exchanges that can be made together: in two places, neither inside of the other.
bool Search::apart(const Move& a, const Move& b) {
    if (a.packed >= 0 || b.packed >= 0) return a.packed != b.packed;
    return a.position.place != b.position.place;
}

/// The first exchange of two things at a time that helps (M86), of those that lose little by
/// themselves: one may make room for the other, or both together be more than each.
bool Search::pair_step(Found& from, const Condition& condition) {
    const std::vector<HalfPair> list = half_pairs(from, condition);
    struct Pair {
        double loss;
        std::size_t a, b;
    };
    std::vector<Pair> pairs;
    const bool few = list.size() <= few_exchanges;
    for (std::size_t a = 0; a < list.size(); ++a)
        for (std::size_t b = 0; b < a; ++b) {
            const bool room =
                (list[a].heavier && list[b].weight < 0) || (list[b].heavier && list[a].weight < 0);
            const bool over = !room && (list[a].heavier || list[b].heavier);
            if (!apart(list[a].move, list[b].move) || (!few && over)) continue;
            const bool with_pack = (list[a].move.packed >= 0) != (list[b].move.packed >= 0);
            pairs.push_back({(list[a].loss + list[b].loss) * (with_pack ? pack_share : 1), a, b});
        }
    std::stable_sort(pairs.begin(), pairs.end(),
                     [](const Pair& a, const Pair& b) { return a.loss < b.loss; });
    const int band = look_at(from.candidate).band;
    const std::size_t most = condition.highest_band == any_band ? pairs.size() : most_pairs_of_band;
    std::size_t tried = 0;
    for (const Pair& pair : pairs) {
        if (error_ || (!few && tried >= most)) return false;
        Candidate candidate = moved(from.candidate, list[pair.b].move);
        const Position& position = list[pair.a].move.position;
        const bool gone = !position.path.empty() &&
                          candidate.places[position.place] != from.candidate.places[position.place];
        if (gone) continue;
        candidate = moved(std::move(candidate), list[pair.a].move);
        const Known& known = look_at(candidate);
        if (!few && (known.over_limit || known.band > band)) continue;
        ++tried;
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
    if (best_.any && count_candidates() <= most_tried_) prove();
    if (best_.any && !proven_) find_by_pictures();
    return !error_ && best_.any;
}

void Search::find_better(const std::vector<Candidate>& starts) {
    if (error_ || !best_.any || proven_) return;
    const double before = best_.margin.value;
    for (const Candidate& start : starts) climb(start, {}, false);
    if (best_.margin.value > before) climb(best_.candidate, {}, true);
}

void Search::find_without(ItemId item) {
    if (proven_) return;
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
    look_for(condition, without(item));
}

void Search::find_with(ItemId item) {
    if (proven_) return;
    if (lively_.empty()) find_lively();
    Condition condition;
    condition.lively_only = true;
    condition.must = item;
    if (!armoury_.at(item).worn()) condition.banned = others_of_group(item);
    for (Candidate& start : armoury_.at(item).worn() ? starts_with(item) : starts_packing(item))
        climb(std::move(start), condition, false);
    look_for(condition, with(item));
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
    if (proven_) return;
    if (lively_.empty()) find_lively();
    Condition condition;
    condition.lively_only = true;
    condition.banned = others_of_group(consumable);
    condition.banned[consumable.index()] = true;
    climb(unpacked(best_.candidate, condition.banned), condition, false);
    look_for(condition, without_group(consumable));
}

/// Without the consumables that are banned.
Candidate Search::unpacked(Candidate candidate, const std::vector<bool>& banned) const {
    for (std::size_t c = 0; c < candidate.counts.size(); ++c)
        if (banned[wardrobe_.consumables()[c].index()]) candidate.counts[c] = 0;
    return candidate;
}

void Search::find_empty(const Footprint& places) {
    if (!proven_ && lively_.empty()) find_lively();
    Condition condition;
    condition.lively_only = true;
    condition.keep = &empty_[places];
    const std::vector<int> held = wardrobe_.occupied(best_.candidate);
    for (const auto& [slot, count] : places) {
        const int has = armoury_.at(slot).socket ? held[slot.index()] : armoury_.at(slot).count;
        condition.at_most.emplace_back(slot, std::max(0, has - count));
    }
    if (proven_) {
        for (const auto& [candidate, known] : known_)
            if (known.margin && readiness(candidate, known, condition) == Ready::yes)
                keep_better(*condition.keep, candidate, *known.margin);
        return;
    }
    for (Candidate& start : starts_without(places)) climb(std::move(start), condition, false);
    look_for(condition, *condition.keep);
}

} // namespace panoplon
