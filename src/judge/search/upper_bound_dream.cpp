// One character that stands for a set of candidates: the best of each in everything.
#include "judge/search/upper_bound.h"

#include "fight/margin.h"
#include "judge/search/action_orders.h"
#include "outfit/load.h"
#include "outfit/needs.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// Strengths are looked at in steps of this share.
constexpr double ladder_step = 0.01;
/// The lowest is above the best by this share: the precision of a margin.
constexpr double precision = 3e-4;

} // namespace

std::shared_ptr<const UpperBound::PlaceSet> UpperBound::place_set(SlotId slot,
                                                                  std::vector<int> indices) {
    const auto option = [&](int i) -> const PlaceOption& {
        return options_[slot.index()][static_cast<std::size_t>(i)];
    };
    PlaceSet set;
    const PlaceOption& first = option(indices.front());
    set.most = set.least = first.columns;
    set.value = first.value;
    set.pieces.assign(ideal_.armoury.sets.size(), 0);
    for (const int i : indices) {
        const PlaceOption& one = option(i);
        for (std::size_t c = 0; c < set.most.size(); ++c) {
            set.most[c] = std::max(set.most[c], one.columns[c]);
            set.least[c] = std::min(set.least[c], one.columns[c]);
        }
        set.value = std::min(set.value, one.value);
        set.capacity = std::max(set.capacity, one.capacity);
        set.bag = std::max(set.bag, one.bag);
        set.alone = set.alone || one.alone;
        for (const SetId piece : one.pieces) {
            const auto pieces = std::count(one.pieces.begin(), one.pieces.end(), piece);
            int& most = set.pieces[piece.index()];
            most = std::max(most, static_cast<int>(pieces));
        }
    }
    set.indices = std::move(indices);
    return std::make_shared<const PlaceSet>(std::move(set));
}

/// Not while a place may hold what can't be added up with something else.
bool UpperBound::can_dream(const Node& node) {
    return std::all_of(node.places.begin(), node.places.end(),
                       [](const auto& set) { return set->single() || !set->alone; });
}

/// False where no candidate of the set can be.
bool UpperBound::dream(Node& node) {
    if (!hold_pivots(node)) return false;
    character_ = naked_;
    columns_.add_up(most_, character_.sums);
    Thousandths capacity = 0;
    std::vector<ActionId> actions;
    for (std::size_t p = 0; p < node.places.size(); ++p) {
        const PlaceSet& set = *node.places[p];
        capacity += set.capacity;
        if (!set.alone) continue;
        const PlaceOption& only = option(p, set.indices.front());
        character_.triggers.insert(character_.triggers.end(), only.triggers.begin(),
                                   only.triggers.end());
        for_each_item(only.placed, [&](ItemId id) {
            const auto& own = ideal_.armoury.at(id).actions;
            actions.insert(actions.end(), own.begin(), own.end());
        });
    }
    orders_ = action_orders(actions, naked_.actions);
    character_.worn = worn_share(ideal_.armoury.carry, worn_weight());
    character_.granted = to_weight(capacity);
    dream_of_sets(node);
    dream_of_pack(node);
    return possible(node);
}

Thousandths UpperBound::worn_weight() const {
    return static_cast<Thousandths>(std::floor(-most_[columns_.weight()]));
}

/// Every step that could be reached, without what of it would harm.
void UpperBound::dream_of_sets(const Node& node) {
    for (std::size_t s = 0; s < ideal_.armoury.sets.size(); ++s) {
        int pieces = 0;
        for (const auto& set : node.places) pieces += set->pieces[s];
        for (const SetStep& step : ideal_.armoury.sets[s].steps) {
            if (step.count > pieces) continue;
            std::vector<double> gifts(columns_.count(), 0.0);
            columns_.add(step.modifiers, 1, gifts);
            for (double& gift : gifts) gift = std::max(gift, 0.0);
            columns_.add_up(gifts, character_.sums);
            if (!step.triggers.empty()) character_.triggers.push_back(&step);
        }
    }
}

/// As many as there may be. What is not settled to the unit weighs nothing, takes no time and cools
/// down by itself.
void UpperBound::dream_of_pack(const Node& node) {
    Outfit outfit{task_->character, task_->level, {}, {}, {}, {}, {}};
    for (std::size_t p = 0; p < node.places.size(); ++p) {
        if (!node.places[p]->alone) continue;
        for_each_item(option(p, node.places[p]->indices.front()).placed, [&](ItemId id) {
            outfit.worn.push_back({slot(p), id, {}, {}});
        });
    }
    for (std::size_t c = 0; c < node.counts.size(); ++c) {
        const Range& range = node.counts[c];
        const ItemId item = task_->wardrobe.consumables()[c];
        if (range.high == 0) continue;
        const ItemId packed = range.single() ? item : ideal_.free[item.index()];
        outfit.pack.push_back({packed, range.high, {}});
    }
    for (const ItemId item : task_->carried) {
        const bool there =
            std::any_of(outfit.pack.begin(), outfit.pack.end(), [&](const PackedItem& packed) {
                return packed.item == item || packed.item == ideal_.free[item.index()];
            });
        if (!there) outfit.pack.push_back({item, 1, {}});
    }
    add_contents(ideal_.armoury, outfit);
    character_.pack = std::move(outfit.pack);
    for (std::size_t i = 0; i < character_.pack.size(); ++i) {
        const auto& use = ideal_.armoury.at(character_.pack[i].item).use;
        if (use)
            character_.rules.push_back(
                {i, {}, is_among(ideal_.armoury, use->only, task_->character)});
    }
}

/// Whether the dreamt of could be carried, packed and paid: what is least of each is looked at.
bool UpperBound::possible(const Node& node) {
    const Carry& carry = ideal_.armoury.carry;
    Thousandths packed = 0;
    double value = 0;
    std::int64_t stacks = 0, bag = carry.bag;
    for (const auto& set : node.places) {
        value += set->value;
        if (bag != unlimited) bag += set->bag;
    }
    for (std::size_t c = 0; c < node.counts.size(); ++c) {
        const Item& item = ideal_.armoury.at(task_->wardrobe.consumables()[c]);
        packed += item.weight * node.counts[c].low;
        value += item.value * static_cast<double>(node.counts[c].low);
        stacks += stacks_of(item, node.counts[c].low);
    }
    if (bag != unlimited && stacks > bag) return false;
    if (task_->value_limit && value > *task_->value_limit) return false;
    if (!carry.capacity.given()) return true;
    Deriver& deriver = engine_.deriver();
    deriver.derive(character_.base, character_.sums, character_.level, stats_);
    const double capacity = deriver.capacity(stats_, character_.level) + character_.granted;
    return !weigh(carry, worn_weight(), packed, capacity).over_limit;
}

double UpperBound::strength(int step) const {
    return task_->margin * (1 + precision) * std::pow(1 + ladder_step, step);
}

int UpperBound::top_step() const {
    constexpr double beyond = 1e6;
    return static_cast<int>(std::ceil(std::log(beyond) / std::log1p(ladder_step)));
}

/// An error is taken for a win: nothing is known then.
bool UpperBound::wins(int step) {
    return std::any_of(orders_.begin(), orders_.end(), [&](const auto& order) {
        if (character_.actions != order) {
            character_.actions = order;
            engine_.prepare_character(character_);
        }
        ++fights_;
        const FightResult& result = engine_.run(strength(step), std::nullopt, Detail::outcome);
        return result.error || result.won;
    });
}

/// Of the prepared character, from a step at which it is known to lose.
int UpperBound::lowest_lost(int lost) {
    for (int stride = 1; lost > 0; stride *= 2) {
        int won = std::max(0, lost - stride);
        if (!wins(won)) {
            lost = won;
            continue;
        }
        while (lost - won > 1) {
            const int middle = won + (lost - won) / 2;
            (wins(middle) ? won : lost) = middle;
        }
        return lost;
    }
    return 0;
}

} // namespace panoplon
