// Searching a context once more, where a number of one item is another.
#include "judge/search/search.h"

namespace panoplon {

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

bool Search::find_again(ItemId item, const Findings& findings, const std::vector<Candidate>& more) {
    if (error_) return false;
    lively_ = findings.lively;
    fillings_ = findings.fillings;
    lively_packs_ = findings.lively_packs;
    const auto look = [&](const Candidate& candidate, const Condition& condition) {
        (void)margin_of(candidate, condition, best_.any ? best_.margin.value : 1);
    };
    for (const auto* list : {&findings.candidates, &more})
        for (const Candidate& candidate : *list) look(candidate, {});
    for (const auto& [places, candidate] : findings.empties) {
        Condition condition;
        condition.keep = &empty_[places];
        look(candidate, condition);
    }
    if (!best_.any) return false;
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

} // namespace panoplon
