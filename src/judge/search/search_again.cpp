// A context that was searched before, once more: where a number of one item is another, and what
// the outfits that were found then come to where anything is.
#include "judge/search/search.h"

#include <algorithm>
#include <unordered_set>

namespace panoplon {

namespace {

/// In so many of the best outfits a changed thing is tried whatever comes of it,
constexpr std::size_t outfits_tried = 12;
/// and in all where that reaches this share of the best.
constexpr double near_the_best = 0.97;

} // namespace

Search::Findings Search::findings_for(ItemId item) const {
    Findings findings{{}, {}, lively_, fillings_, lively_packs_};
    std::vector<const Found*> found = {&with(item), &without(item)};
    if (!armoury_.at(item).worn()) found.push_back(&without_group(item));
    for (const Found* one : found)
        if (one->any) findings.candidates.push_back(one->candidate);
    for (const auto& [places, empty] : empty_)
        if (empty.any) findings.empties.emplace_back(places, empty.candidate);
    return findings;
}

Search::Findings Search::findings_around(ItemId item) {
    find_fillings();
    find_lively();
    return findings_for(item);
}

/// Fights them as they are now; false: none of them is legal any more.
bool Search::look_at_findings(const Findings& findings) {
    if (error_) return false;
    const auto look = [&](const Candidate& candidate, const Condition& condition) {
        (void)margin_of(candidate, condition, best_.any ? best_.margin.value : 1);
    };
    for (const Candidate& candidate : findings.candidates) look(candidate, {});
    for (const auto& [places, candidate] : findings.empties) {
        Condition condition;
        condition.keep = &empty_[places];
        look(candidate, condition);
    }
    return best_.any && !error_;
}

bool Search::fight_again(const Findings& findings) {
    if (!look_at_findings(findings)) return false;
    told_ = best_;
    around_ = best_.candidate; // no climb begins from it: there is no picture to paint
    closed_ = true;
    return true;
}

bool Search::find_again(ItemId item, const Findings& findings) {
    lively_ = findings.lively;
    fillings_ = findings.fillings;
    lively_packs_ = findings.lively_packs;
    if (!look_at_findings(findings)) return false;
    if (lively_.empty()) find_lively(); // where every candidate was tried nobody asked for it
    around_ = best_.candidate;
    Condition condition = having(item);
    condition.open = armoury_.at(item).takes;
    Found before = with(item);
    if (before.any) climb(before, condition);
    find_with(item);
    close_best();
    around_ = best_.candidate;
    if (armoury_.at(item).worn() && !empty(places_of(item)).any) find_empty(places_of(item));
    settle();
    return !error_;
}

std::vector<Found> Search::answers() const {
    std::vector<Found> list;
    std::unordered_set<Candidate, CandidateHash> there;
    const auto take = [&](const Found& found) {
        if (found.any && there.insert(found.candidate).second) list.push_back(found);
    };
    take(told_);
    take(best_);
    for (const auto* some : {&with_, &without_, &without_group_, &emptied_})
        for (const Found& found : *some) take(found);
    for (const auto& [places, found] : empty_) take(found);
    return list;
}

void Search::look_again(Found& outfit, bool as_before) {
    Known& known = look_at(outfit.candidate);
    outfit.any = readiness(outfit.candidate, known, {}) == Ready::yes;
    if (outfit.any && as_before && !known.margin) {
        take_margin(known, outfit.margin);
        note(outfit.candidate, outfit.margin);
    }
    if (const auto margin = margin_of(outfit.candidate, {}, outfit.margin.value))
        outfit.margin = *margin;
    known.settled = true; // a turn of the outcome near its former margin will do
}

/// In each place where it could be; of a consumable so many, beside its group and in place of it.
std::vector<Candidate> Search::with_some(const Candidate& outfit, ItemId item,
                                         std::int64_t count) const {
    std::vector<Candidate> list;
    if (armoury_.at(item).worn()) {
        for (const Position& position : wardrobe_.positions(outfit)) {
            if (wears(outfit, item) || position.slot != armoury_.at(item).slot) continue;
            list.push_back(outfit);
            wardrobe_.put(list.back(), position, item);
        }
        return list;
    }
    if (packed(outfit, item) > 0) return list;
    list = {outfit, unpacked(outfit, others_of_group(item))};
    if (list.front() == list.back()) list.pop_back();
    for (Candidate& candidate : list) candidate.counts[consumable_index(item)] = count;
    return list;
}

/// How many of a consumable an outfit should have by itself: twice as many as long as that helps.
std::int64_t Search::helpful_count(const Found& outfit, ItemId item) {
    std::int64_t best = 1;
    double highest = 0;
    const std::int64_t most = most_units(item);
    for (std::int64_t count = 1; most == unlimited || count <= most; count *= 2) {
        double here = 0;
        for (const Candidate& candidate : with_some(outfit.candidate, item, count))
            if (const auto margin = margin_of(candidate, {}, outfit.margin.value))
                here = std::max(here, margin->value);
        if (here <= highest * (1 + gain_worth_having) || ended()) return best;
        highest = here;
        best = count;
    }
    return best;
}

/// In the best outfits first; where it comes near the best there, in all of them, for then it may
/// be in the answer to any condition.
void Search::try_in_each(std::vector<Found>& outfits, ItemId item) {
    if (outfits.empty() || !outfits.front().any) return;
    std::vector<Found> tried;
    double highest = 0;
    const std::int64_t count = armoury_.at(item).worn() ? 1 : helpful_count(outfits.front(), item);
    for (std::size_t i = 0; i < outfits.size() && outfits[i].any && !ended(); ++i) {
        if (i >= outfits_tried && highest < best_.margin.value * near_the_best) break;
        for (Candidate& candidate : with_some(outfits[i].candidate, item, count)) {
            const auto margin = margin_of(candidate, {}, outfits[i].margin.value);
            if (!margin) continue;
            highest = std::max(highest, margin->value);
            tried.push_back({std::move(candidate), *margin, true});
        }
    }
    outfits.insert(outfits.end(), tried.begin(), tried.end());
}

/// What another candidate has where this one has an item that goes.
Candidate Search::with_places_of(Candidate candidate, const Candidate& other, ItemId gone) const {
    for (std::size_t p = 0; p < candidate.places.size(); ++p)
        if (candidate.places[p].item == gone) candidate.places[p] = other.places[p];
    if (packed(candidate, gone) > 0) {
        candidate.counts[consumable_index(gone)] = 0;
        for (std::size_t c = 0; c < candidate.counts.size(); ++c)
            candidate.counts[c] = std::max(candidate.counts[c], other.counts[c]);
    }
    return candidate;
}

/// What is changed and no longer the best of its place gives that to what is.
void Search::try_without(std::vector<Found>& outfits, ItemId item) {
    const Found lacking = without_[group(item).index()];
    if (!lacking.any || in_best(item)) return;
    std::vector<Found> tried;
    for (const Found& outfit : outfits) {
        if (ended()) return;
        if (!wears(outfit.candidate, item) && packed(outfit.candidate, item) == 0) continue;
        Candidate candidate = with_places_of(outfit.candidate, lacking.candidate, item);
        if (!wardrobe_.goes_together(candidate)) continue;
        const auto margin = margin_of(candidate, {}, outfit.margin.value);
        if (margin) tried.push_back({std::move(candidate), *margin, true});
    }
    outfits.insert(outfits.end(), tried.begin(), tried.end());
}

bool Search::is_as_before(const Candidate& candidate, const std::vector<bool>& changed) const {
    bool as_before = !changed.empty();
    for_each_item(candidate, [&](ItemId item) { as_before = as_before && !changed[item.index()]; });
    for (std::size_t c = 0; c < candidate.counts.size() && as_before; ++c)
        as_before = candidate.counts[c] == 0 || !changed[wardrobe_.consumables()[c].index()];
    return as_before;
}

bool Search::choose_among(std::vector<Found>& outfits, const std::vector<bool>& changed) {
    if (error_) return false;
    std::erase_if(outfits, [&](const Found& outfit) {
        bool can = wardrobe_.goes_together(outfit.candidate);
        for_each_item(outfit.candidate, [&](ItemId item) { can = can && available(item); });
        return !can;
    });
    std::vector<Found> filled; // what others lack, the best of the whole ones may have
    std::stable_partition(outfits.begin(), outfits.end(), [](const Found& one) { return one.any; });
    for (Found& outfit : outfits) {
        if (ended()) return false;
        const bool whole = outfit.any;
        look_again(outfit, whole && is_as_before(outfit.candidate, changed));
        for (std::size_t p = 0; !whole && best_.any && p < outfit.candidate.places.size(); ++p) {
            if (outfit.candidate.places[p].item.given()) continue;
            filled.push_back(outfit);
            filled.back().candidate.places[p] = best_.candidate.places[p];
        }
    }
    for (Found& outfit : filled)
        if (wardrobe_.goes_together(outfit.candidate)) {
            look_again(outfit, false);
            outfits.push_back(std::move(outfit));
        }
    std::stable_sort(outfits.begin(), outfits.end(), [](const Found& a, const Found& b) {
        return std::pair(a.any, a.margin.value) > std::pair(b.any, b.margin.value);
    });
    for (std::size_t i = 0; i < changed.size() && !ended(); ++i)
        if (changed[i] && available(ItemId(i))) {
            try_in_each(outfits, ItemId(i));
            try_without(outfits, ItemId(i));
        }
    for (Found& outfit : outfits) outfit.any = true; // what is not legal now may be again
    if (!best_.any || ended()) return false;
    // What stands in for a thing of the best was found beside another best: whatever any of the
    // outfits has in its place, or packs without it, is tried in this one, by one fight each.
    const auto try_instead = [&](Candidate candidate, ItemId of) {
        const Found& without = without_[group(of).index()];
        const double before = without.any ? without.margin.value : 0;
        if (!wardrobe_.goes_together(candidate)) return;
        Known& known = look_at(candidate);
        if (known.margin || readiness(candidate, known, {}) != Ready::yes) return;
        if (!wins(candidate, known, before * (1 + gain_worth_having))) return;
        const auto margin = margin_of(candidate, {}, without.any ? before : best_.margin.value);
        if (margin) outfits.push_back({std::move(candidate), *margin, true});
    };
    const std::size_t seen = outfits.size();
    for (bool better = !is_as_before(best_.candidate, changed); better && !ended();) {
        const Candidate best = best_.candidate;
        for (std::size_t p = 0; p < best.places.size(); ++p) {
            if (!best.places[p].item.given()) continue;
            std::vector<Placed> tried = {best.places[p]};
            for (std::size_t i = 0; i < seen; ++i) {
                const Placed& other = outfits[i].candidate.places[p];
                if (std::find(tried.begin(), tried.end(), other) != tried.end()) continue;
                tried.push_back(other);
                Candidate candidate = best;
                candidate.places[p] = other;
                try_instead(std::move(candidate), best.places[p].item);
            }
        }
        for (std::size_t c = 0; c < best.counts.size(); ++c) {
            std::vector<std::vector<std::int64_t>> tried;
            for (std::size_t i = 0; i < seen && best.counts[c] > 0; ++i) {
                const std::vector<std::int64_t> counts = outfits[i].candidate.counts;
                if (counts[c] > 0 || std::find(tried.begin(), tried.end(), counts) != tried.end())
                    continue;
                tried.push_back(counts);
                Candidate candidate = best;
                candidate.counts = counts;
                try_instead(std::move(candidate), wardrobe_.consumables()[c]);
            }
        }
        better = best_.candidate != best;
    }
    look_at(best_.candidate).settled = false;
    settle_best();
    told_ = with_needed_pack(best_);
    best_.margin = told_.margin;
    around_ = best_.candidate; // no climb begins from it: there is no picture to paint
    closed_ = proven_ = true;
    return !error_;
}

} // namespace panoplon
