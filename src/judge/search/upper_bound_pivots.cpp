// What else there can be where the sum of one column is held between two values: gear that has much
// of one thing has little of another.
#include "judge/search/upper_bound.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// So many columns are pivots: those by which the bound falls the most.
constexpr std::size_t most_pivots = 2;
/// A pivot is settled where its reach is this share of the whole.
constexpr double settled = 1.0 / 16;
/// Halvings of the price of a pivot.
constexpr int halvings = 12;
/// For what a sum of so many doubles may be off.
constexpr double slack = 1e-9;

} // namespace

/// The columns that hold the bound down the most where each is as the best has it; what stands
/// alone is left out of `together`.
void UpperBound::choose_pivots(const Node& all, Node together) {
    live_.clear();
    for (std::size_t column = 0; column < columns_.count(); ++column)
        if (std::any_of(all.places.begin(), all.places.end(),
                        [&](const auto& set) { return set->most[column] > set->least[column]; }))
            live_.push_back(column);
    std::vector<std::pair<int, std::size_t>> steps;
    for (const std::size_t column : live_) {
        pivots_ = {column};
        const double held = held_by_best(column);
        together.pivots = {{held, held}};
        steps.emplace_back(step_of(together), column);
    }
    std::sort(steps.begin(), steps.end());
    pivots_.clear();
    whole_.clear();
    for (std::size_t i = 0; i < std::min(steps.size(), most_pivots); ++i) {
        const auto [step, column] = steps[i];
        parts_.push_back({Kind::pivot, i, together.step - step});
        pivots_.push_back(column);
        Reach whole;
        for (const auto& set : all.places) {
            whole.low += set->least[column];
            whole.high += set->most[column];
        }
        whole_.push_back(whole);
    }
}

/// What the best has of a column; what was left out of the options counts nothing.
double UpperBound::held_by_best(std::size_t column) const {
    double sum = 0;
    for (std::size_t p = 0; p < task_->best.places.size(); ++p) {
        const auto& options = options_[slot(p).index()];
        const auto at = std::find_if(options.begin(), options.end(), [&](const PlaceOption& o) {
            return o.placed == task_->best.places[p];
        });
        if (at != options.end()) sum += at->columns[column];
    }
    return sum;
}

double UpperBound::pivot_openness(const Node& node, std::size_t pivot) const {
    if (pivot >= node.pivots.size()) return 0;
    const Reach& whole = whole_[pivot];
    const double share =
        (node.pivots[pivot].high - node.pivots[pivot].low) / (whole.high - whole.low);
    return share > settled ? share : 0;
}

void UpperBound::split_pivot(const Node& node, std::size_t pivot) {
    const Reach whole = node.pivots[pivot];
    const double middle = whole.low + (whole.high - whole.low) / 2;
    for (const Reach& half : {Reach{whole.low, middle}, Reach{middle, whole.high}}) {
        Node child = node;
        ++child.depth;
        child.pivots[pivot] = half;
        open(std::move(child));
    }
}

/// Finds the most of every column that the places can give while each pivot is where it has to be.
/// False where a pivot can't be.
bool UpperBound::hold_pivots(Node& node) {
    most_.assign(columns_.count(), 0.0);
    std::vector<double> least(columns_.count(), 0.0);
    for (const auto& set : node.places)
        for (std::size_t c = 0; c < most_.size(); ++c) {
            most_[c] += set->most[c];
            least[c] += set->least[c];
        }
    for (std::size_t i = 0; i < node.pivots.size(); ++i) {
        Reach& reach = node.pivots[i];
        reach.low = std::max(reach.low, least[pivots_[i]]);
        reach.high = std::min(reach.high, most_[pivots_[i]]);
        if (reach.low > reach.high + slack) return false;
        most_[pivots_[i]] = reach.high;
    }
    for (std::size_t i = 0; i < node.pivots.size(); ++i)
        for (const std::size_t column : live_)
            if (column != pivots_[i]) lower(node, i, column);
    for (std::size_t i = 0; i < node.pivots.size(); ++i) {
        Reach& reach = node.pivots[i];
        reach.high = std::min(reach.high, most_[pivots_[i]]);
        if (reach.low > reach.high + slack) return false;
    }
    return true;
}

/// The most that places give of a column and, at a price, of a pivot.
double UpperBound::most_with(const Node& node, std::size_t pivot, std::size_t column,
                             double price) const {
    double sum = 0;
    for (std::size_t p = 0; p < node.places.size(); ++p) {
        double most = -HUGE_VAL;
        for (const int i : node.places[p]->indices) {
            const std::vector<double>& columns = option(p, i).columns;
            most = std::max(most, columns[column] + price * columns[pivot]);
        }
        sum += most;
    }
    return sum;
}

/// Any price of the pivot gives a bound of the column: what pays for less than the pivot has to
/// have, or for more than it may. The bound is convex in the price.
void UpperBound::lower(const Node& node, std::size_t pivot, std::size_t column) {
    const std::size_t held = pivots_[pivot];
    const Reach& reach = node.pivots[pivot];
    double spread = 0, pivot_spread = 0;
    for (const auto& set : node.places) {
        spread = std::max(spread, set->most[column] - set->least[column]);
        pivot_spread = std::max(pivot_spread, set->most[held] - set->least[held]);
    }
    if (spread == 0 || pivot_spread == 0) return;
    const auto bound = [&](double price) {
        const double needed = price > 0 ? reach.low : reach.high;
        return most_with(node, held, column, price) - price * needed;
    };
    constexpr double golden = 0.6180339887498949;
    for (const double side : {1.0, -1.0}) {
        double low = 0, high = 4 * spread / pivot_spread;
        double a = high - golden * (high - low), b = low + golden * (high - low);
        double at_a = bound(side * a), at_b = bound(side * b);
        for (int i = 0; i < halvings; ++i) {
            most_[column] = std::min({most_[column], at_a + slack, at_b + slack});
            if (at_a < at_b) {
                high = b;
                b = a;
                at_b = at_a;
                a = high - golden * (high - low);
                at_a = bound(side * a);
            } else {
                low = a;
                a = b;
                at_a = at_b;
                b = low + golden * (high - low);
                at_b = bound(side * b);
            }
        }
    }
}

} // namespace panoplon
