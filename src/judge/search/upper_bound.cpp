#include "judge/search/upper_bound.h"

#include "fight/margin.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

namespace panoplon {

namespace {

/// More units than these are not used in any fight.
constexpr std::int64_t plenty = 1000000;

/// Not where something is multiplied by nothing or less.
bool all_finite(const std::vector<PlaceOption>& options) {
    return std::all_of(options.begin(), options.end(), [](const PlaceOption& option) {
        return std::all_of(option.columns.begin(), option.columns.end(),
                           [](double value) { return std::isfinite(value); });
    });
}

} // namespace

UpperBound::UpperBound(const Armoury& armoury)
    : ideal_(ideal_of(armoury)),
      columns_(ideal_.armoury),
      engine_(ideal_.armoury),
      stats_(armoury.stats.size()) {}

bool UpperBound::can_be_bounded() const {
    const auto directed = [&](const SetStep& step) {
        return has_direction(ideal_.armoury, step.modifiers);
    };
    for (std::size_t c = 0; c < task_->most_units.size(); ++c)
        if (task_->most_units[c] > 0 &&
            !ideal_.armoury.at(task_->wardrobe.consumables()[c]).contains.empty())
            return false;
    return std::all_of(ideal_.armoury.sets.begin(), ideal_.armoury.sets.end(),
                       [&](const ItemSet& set) {
                           return std::all_of(set.steps.begin(), set.steps.end(), directed);
                       });
}

bool UpperBound::list_options() {
    options_.assign(ideal_.armoury.slots.size(), {});
    for (const SlotId slot : task_->wardrobe.places()) {
        if (!options_[slot.index()].empty()) continue;
        auto options = place_options(ideal_, task_->choice, slot);
        if (!options || !all_finite(*options)) return false;
        options_[slot.index()] = std::move(*options);
    }
    return true;
}

void UpperBound::set_up() {
    const Outfit outfit{task_->character, task_->level, {}, {}, {}, {}, {}};
    setup_.encounter = task_->encounter;
    setup_.actors = {set_up_character(ideal_.armoury, outfit)};
    naked_ = setup_.actors.front();
    const Encounter& encounter = ideal_.armoury.at(task_->encounter);
    for (ActorSetup& other : set_up_others(ideal_.armoury, encounter, task_->level))
        setup_.actors.push_back(std::move(other));
    engine_.prepare(setup_);
    open_ = {};
    fights_ = 0;
}

UpperBound::Node UpperBound::everything() {
    Node node;
    for (const SlotId slot : task_->wardrobe.places()) {
        std::vector<int> all(options_[slot.index()].size());
        std::iota(all.begin(), all.end(), 0);
        node.places.push_back(place_set(slot, std::move(all)));
    }
    for (const std::int64_t most : task_->most_units)
        node.counts.push_back({0, std::min(most, plenty)});
    node.step = top_step();
    return node;
}

std::optional<Bounded> UpperBound::find(const BoundTask& task) {
    task_ = &task;
    if (!can_be_bounded() || !list_options()) return std::nullopt;
    set_up();
    const Node all = everything();
    list_parts(all);
    Node root = all;
    root.pivots = whole_;
    open(std::move(root));
    while (!open_.empty() && fights_ < task.most_fights) {
        const Node node = open_.top();
        open_.pop();
        split(node);
    }
    const double bound = std::min(strongest, strength(open_.empty() ? 0 : open_.top().step));
    return Bounded{bound, fights_, open_.empty()};
}

/// The part as the best has it; as it was where the best's is not among what is left.
UpperBound::Node UpperBound::with_best(Node node, const Part& part) {
    if (part.kind == Kind::consumable) {
        const std::int64_t count = task_->best.counts[part.index];
        node.counts[part.index] = {count, count};
        return node;
    }
    const auto& options = options_[slot(part.index).index()];
    for (std::size_t i = 0; i < options.size(); ++i)
        if (options[i].placed == task_->best.places[part.index])
            node.places[part.index] = place_set(slot(part.index), {static_cast<int>(i)});
    return node;
}

/// Everything that a set can be split by, with how much it leaves open. What stands alone is left
/// out of that.
void UpperBound::list_parts(const Node& all) {
    parts_.clear();
    Node together = all;
    for (std::size_t p = 0; p < all.places.size(); ++p) {
        parts_.push_back({Kind::place, p, 0});
        if (!all.places[p]->alone) continue;
        std::vector<int> others = all.places[p]->indices;
        std::erase_if(others, [&](int i) { return option(p, i).alone; });
        together.places[p] = place_set(slot(p), std::move(others));
    }
    for (std::size_t c = 0; c < all.counts.size(); ++c) parts_.push_back({Kind::consumable, c, 0});
    together.step = step_of(together);
    for (Part& part : parts_)
        part.slack = std::max(0, together.step - step_of(with_best(together, part)));
    choose_pivots(all, std::move(together));
}

/// The step at which none of a set wins; where it can't be dreamt of, that which is known.
int UpperBound::step_of(Node node) {
    if (!can_dream(node)) return node.step;
    if (!dream(node)) return 0;
    engine_.prepare_character(character_);
    return lowest_lost(node.step);
}

/// Looks how much a set of candidates may hold, and keeps it where that is more than the best.
void UpperBound::open(Node node) {
    if (const auto candidate = candidate_of(node)) {
        if (!task_->wardrobe.goes_together(*candidate)) return;
        ++fights_;
        task_->try_it(*candidate);
        return;
    }
    if (!dream(node)) return;
    if (can_dream(node)) {
        engine_.prepare_character(character_);
        node.step = lowest_lost(node.step);
    }
    if (node.step > 0) open_.push(std::move(node));
}

/// How much of what a part leaves open at all it still does in a set; 0: nothing.
double UpperBound::openness(const Node& node, const Part& part) const {
    constexpr double fillings = 0.3;  // what is worn is settled, what its sockets hold is not
    constexpr double how_many = 0.05; // that some are packed is settled
    if (part.kind == Kind::pivot) return pivot_openness(node, part.index);
    if (part.kind == Kind::consumable) {
        const Range& range = node.counts[part.index];
        return range.single() ? 0 : range.low > 0 ? how_many : 1;
    }
    const PlaceSet& set = *node.places[part.index];
    if (set.single()) return 0;
    if (set.alone) return HUGE_VAL;
    return host_of(part.index, set.indices.front()) == host_of(part.index, set.indices.back())
               ? fillings
               : 1;
}

/// What leaves the most open in a set of several.
UpperBound::Part UpperBound::next_part(const Node& node) const {
    const auto leaves = [&](const Part& part) { return openness(node, part) * (part.slack + 0.1); };
    return *std::max_element(parts_.begin(), parts_.end(),
                             [&](const Part& a, const Part& b) { return leaves(a) < leaves(b); });
}

void UpperBound::split(const Node& node) {
    const Part part = next_part(node);
    if (part.kind == Kind::place)
        split_place(node, part.index);
    else if (part.kind == Kind::consumable)
        split_counts(node, part.index);
    else
        split_pivot(node, part.index);
}

/// Into what stands alone, one by one, and the rest; else by what is worn; where that is settled by
/// what its sockets hold.
void UpperBound::split_place(const Node& node, std::size_t place) {
    const std::vector<int>& all = node.places[place]->indices;
    const bool one_host = host_of(place, all.front()) == host_of(place, all.back());
    std::map<std::int64_t, std::vector<int>> groups;
    for (const int i : all) {
        const PlaceOption& one = option(place, i);
        const std::int64_t group = node.places[place]->alone ? (one.alone ? i + 1 : 0)
                                   : one_host                ? i
                                                             : one.placed.item.value;
        groups[group].push_back(i);
    }
    for (auto& [group, indices] : groups) {
        Node child = node;
        ++child.depth;
        child.places[place] = place_set(slot(place), std::move(indices));
        if (in_order(child, place) && leave_room(child, place)) open(std::move(child));
    }
}

void UpperBound::split_counts(const Node& node, std::size_t consumable) {
    const Range range = node.counts[consumable];
    const std::int64_t middle = range.low == 0 ? 0 : range.low + (range.high - range.low) / 2;
    for (const Range& part : {Range{range.low, middle}, Range{middle + 1, range.high}}) {
        Node child = node;
        ++child.depth;
        child.counts[consumable] = part;
        open(std::move(child));
    }
}

/// Places of one slot are alike: only one order of what they hold is looked at. Actions are tried
/// in the order of places.
bool UpperBound::in_order(const Node& node, std::size_t place) const {
    const PlaceSet& here = *node.places[place];
    if (!here.single() || here.alone) return true;
    for (std::size_t p = 0; p < node.places.size(); ++p) {
        const PlaceSet& there = *node.places[p];
        if (p == place || slot(p) != slot(place) || !there.single() || there.alone) continue;
        if (p < place ? there.indices.front() > here.indices.front()
                      : there.indices.front() < here.indices.front())
            return false;
    }
    return true;
}

/// What takes other slots besides leaves those empty that have one place only. False where that is
/// taken.
bool UpperBound::leave_room(Node& node, std::size_t place) {
    const PlaceSet& set = *node.places[place];
    const ItemId host = host_of(place, set.indices.front());
    if (!host.given() || host != host_of(place, set.indices.back())) return true;
    const auto& takes = ideal_.armoury.at(host).takes;
    for (std::size_t p = 0; p < node.places.size(); ++p) {
        const bool taken = p != place && slot(p) != slot(place) &&
                           ideal_.armoury.at(slot(p)).count == 1 &&
                           std::find(takes.begin(), takes.end(), slot(p)) != takes.end();
        if (!taken) continue;
        if (node.places[p]->indices.front() != 0) return false;
        node.places[p] = place_set(slot(p), {0});
    }
    return true;
}

/// The candidate of a set of one, legal or not; none where there are more.
std::optional<Candidate> UpperBound::candidate_of(const Node& node) const {
    Candidate candidate = task_->wardrobe.bare();
    const auto single = [](const auto& part) { return part.single(); };
    if (!std::all_of(node.counts.begin(), node.counts.end(), single) ||
        !std::all_of(node.places.begin(), node.places.end(),
                     [](const auto& set) { return set->single(); }))
        return std::nullopt;
    for (std::size_t p = 0; p < node.places.size(); ++p)
        candidate.places[p] = option(p, node.places[p]->indices.front()).placed;
    for (std::size_t c = 0; c < node.counts.size(); ++c) candidate.counts[c] = node.counts[c].low;
    return candidate;
}

} // namespace panoplon
