// What pictures of a context see as the best under a condition, and whether it is.
#include "judge/search/picture.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// So many choices are fought for each answer, and a choice that takes longer than so many steps to
/// find is left to the climbs. For the best, without something that it has, and where a limit
/// binds, what is looked for lies farther off.
struct Effort {
    std::size_t looks, steps;
};
constexpr Effort wide = {64, 30'000}, narrow = {8, 3'000};
/// Choices that a picture sees this much lower than what was found (log margin) are not fought.
constexpr double roughness = 0.05;
constexpr double few_changes = 2, any_changes = 1e6;

} // namespace

/// What of a picture may be chosen, as a problem, and which option each of its options is.
struct Search::Question {
    ChoiceProblem problem;
    std::vector<std::vector<const PictureGroup::Option*>> options; ///< by group
};

Search::Question Search::question_of(const Picture& picture, const Condition& condition) const {
    constexpr int any_number = 1'000'000;
    const std::size_t slots = armoury_.slots.size();
    Question question;
    ChoiceProblem& problem = question.problem;
    problem.room = picture.room;
    problem.sets = picture.sets;
    problem.prices = picture.prices;
    for (const Slot& slot : armoury_.slots)
        problem.there.push_back(slot.socket ? any_number : slot.count);
    for (const auto& [slot, most] : condition.at_most)
        problem.there[slot.index()] = std::min(problem.there[slot.index()], most);
    problem.there.resize(slots + uniques_.size(), 1);
    const auto banned = [&](ItemId item) {
        return !condition.banned.empty() && condition.banned[item.index()];
    };
    for (const PictureGroup& group : picture.groups) {
        auto& choices = problem.groups.emplace_back();
        auto& options = question.options.emplace_back();
        for (const PictureGroup::Option& option : group.options) {
            bool allowed = group.packed < 0 || option.count == 0 || !banned(group.consumable);
            for_each_item(option.placed, [&](ItemId item) { allowed = allowed && !banned(item); });
            if (!allowed) continue;
            choices.push_back(&option.choice);
            options.push_back(&option);
        }
    }
    return question;
}

void Search::set_prices(Picture& picture) const {
    picture.prices = choice_prices(question_of(picture, {}).problem);
}

template <class Option>
bool Search::has(const PictureGroup& group, const Option& option, ItemId item) const {
    bool there = group.packed >= 0 && option.count > 0 && group.consumable == item;
    for_each_item(option.placed,
                  [&](ItemId one) { there = there || this->group(one) == this->group(item); });
    return there;
}

/// The same where a group has to have something: none of its other options is left.
Search::Question Search::with_in(const PictureGroup& group, std::size_t at, ItemId item,
                                 Question question) const {
    auto& choices = question.problem.groups[at];
    auto& options = question.options[at];
    std::size_t kept = 0;
    for (std::size_t o = 0; o < options.size(); ++o) {
        if (!has(group, *options[o], item)) continue;
        std::swap(choices[kept], choices[o]);
        std::swap(options[kept++], options[o]);
    }
    choices.resize(kept);
    options.resize(kept);
    return question;
}

/// Adds what the picture sees as the best of more than a gain. Each of `wanted`, from one on,
/// stands in one group or another: every way is looked at.
void Search::solve(const Picture& picture, const Question& question,
                   const std::vector<ItemId>& wanted, std::size_t next, double least, bool far,
                   std::vector<Sight>& into) const {
    if (next < wanted.size()) {
        for (std::size_t g = 0; g < picture.groups.size(); ++g) {
            const PictureGroup& group = picture.groups[g];
            if (std::any_of(question.options[g].begin(), question.options[g].end(),
                            [&](const auto* option) { return has(group, *option, wanted[next]); }))
                solve(picture, with_in(group, g, wanted[next], question), wanted, next + 1, least,
                      far, into);
        }
        return;
    }
    const Effort effort = far ? wide : narrow;
    for (const Chosen& chosen :
         best_choices(question.problem, effort.looks, least - picture.level, effort.steps)) {
        Candidate candidate = picture.centre;
        for (std::size_t g = 0; g < picture.groups.size(); ++g) {
            const PictureGroup& group = picture.groups[g];
            const PictureGroup::Option& option = *question.options[g][chosen.options[g]];
            if (group.packed >= 0)
                candidate.counts[static_cast<std::size_t>(group.packed)] = option.count;
            else
                candidate.places[group.place] = option.placed;
        }
        into.push_back({picture.level + chosen.gain, std::move(candidate)});
    }
}

/// What the pictures see as the best under a condition, with so many changes of the centre.
std::vector<Search::Sight> Search::sights_of(const Condition& condition, const Found& found,
                                             double most_changes) const {
    std::vector<ItemId> wanted = required_worn_;
    if (condition.must.given()) wanted.push_back(condition.must);
    std::vector<Sight> sights;
    for (const Picture& picture : pictures_) {
        const double least = found.any ? std::log(found.margin.value / picture.strength) - roughness
                                       : -std::numeric_limits<double>::infinity();
        Question question = question_of(picture, condition);
        question.problem.room[changes] = most_changes + static_cast<double>(wanted.size());
        solve(picture, question, wanted, 0, least, looks_far(condition), sights);
    }
    std::stable_sort(sights.begin(), sights.end(),
                     [](const Sight& a, const Sight& b) { return a.gain > b.gain; });
    return sights;
}

/// Fights what the pictures see as the best under a condition; climbs from what beats `found`,
/// which it then is. Whether there was anything. The fewer changes, the surer is the sum of what
/// each does: so it looks among those with few besides.
bool Search::look_for(const Condition& condition, Found& found) {
    bool better = false;
    const std::size_t most_looks = (looks_far(condition) ? wide : narrow).looks;
    for (const double most_changes : {few_changes, any_changes}) {
        std::size_t looked = 0;
        for (const auto& [gain, candidate] : sights_of(condition, found, most_changes)) {
            if (ended() || looked >= most_looks) break;
            if (found.any && candidate == found.candidate) continue;
            const Known& known = look_at(candidate);
            if (readiness(candidate, known, condition) != Ready::yes ||
                (found.any && known.lost <= found.margin.value))
                continue;
            ++looked;
            if (!found.any)
                found = begun(candidate, condition);
            else if (!try_candidate(found, candidate, condition))
                continue;
            climb(found, condition);
            better = true;
        }
    }
    return better;
}

/// What could be worn or packed besides what the best has, in the order of what it does there by
/// itself, the least harmful first.
std::vector<ItemId> Search::likely_things() const {
    std::vector<std::pair<double, ItemId>> list;
    for (const Picture& picture : pictures_) {
        if (picture.band != own_band_) continue;
        for (const PictureGroup& group : picture.groups)
            for (const PictureGroup::Option& option : group.options) {
                const bool packed = group.packed >= 0 && option.count > 0;
                const ItemId item = packed ? group.consumable : option.placed.item;
                const bool there =
                    packed ? best_.candidate.counts[static_cast<std::size_t>(group.packed)] > 0
                           : item.given() && wears(best_.candidate, item);
                if (item.given() && !there) list.emplace_back(-option.choice.gain, item);
            }
    }
    std::sort(list.begin(), list.end());
    std::vector<ItemId> things;
    for (const auto& [loss, item] : list)
        if (std::find(things.begin(), things.end(), item) == things.end()) things.push_back(item);
    return things;
}

} // namespace panoplon
