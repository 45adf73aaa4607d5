#include "judge/search/choices.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace panoplon {

namespace {

/// Sums that are so near to the room are within it.
constexpr double slack = 1e-9;
/// Choices whose gains are so near to one another are told once.
constexpr double same_gain = 1e-9;

/// What an option is worth at prices.
double priced_gain(const ChoiceOption& option, const ChoiceAmounts& prices) {
    double gain = option.gain;
    for (std::size_t a = 0; a < choice_amounts; ++a) gain -= prices[a] * option.uses[a];
    return gain;
}

double room_in(const ChoiceProblem& problem, std::size_t amount) {
    return std::min(problem.room[amount], 1e12);
}

/// A gain that no choice exceeds, at prices; `used`: what the options that reach it use.
double relaxed(const ChoiceProblem& problem, const ChoiceAmounts& prices, ChoiceAmounts& used) {
    used = {};
    double sum = 0;
    for (const auto& group : problem.groups) {
        const ChoiceOption* best = nullptr;
        double most = 0;
        for (const ChoiceOption* option : group) {
            const double gain = priced_gain(*option, prices);
            if (best && gain <= most) continue;
            best = option;
            most = gain;
        }
        if (!best) continue;
        sum += most;
        for (std::size_t a = 0; a < choice_amounts; ++a) used[a] += best->uses[a];
    }
    for (std::size_t a = 0; a < choice_amounts; ++a) sum += prices[a] * room_in(problem, a);
    return sum;
}

class Chooser {
  public:
    Chooser(const ChoiceProblem& problem, std::size_t most, double least, std::size_t most_steps)
        : problem_(problem),
          most_(most),
          least_(least),
          steps_left_(most_steps),
          prices_(problem.prices),
          there_(problem.there),
          pieces_(problem.sets.size(), 0),
          picked_(problem.groups.size(), 0) {}

    std::vector<Chosen> run() {
        if (most_ == 0) return {};
        for (const auto& group : problem_.groups)
            if (group.empty()) return {};
        if (most_at_all() <= least_) return {};
        sort_groups();
        bound_the_rest();
        if (leaves_room({}, 0)) descend(0, 0, {});
        return std::move(best_);
    }

  private:
    [[nodiscard]] double priced(const ChoiceOption& option) const {
        return priced_gain(option, prices_);
    }
    /// What no choice exceeds, told quickly.
    [[nodiscard]] double most_at_all() const {
        ChoiceAmounts used;
        double most = relaxed(problem_, prices_, used);
        for (const auto& gains : problem_.sets)
            if (!gains.empty()) most += *std::max_element(gains.begin(), gains.end());
        return most;
    }
    [[nodiscard]] double room_of(std::size_t amount) const { return room_in(problem_, amount); }

    /// Groups with the widest spread of gains first; within each the best at the prices first.
    void sort_groups() {
        const std::size_t count = problem_.groups.size();
        order_.resize(count);
        options_.resize(count);
        std::vector<double> spread(count, 0);
        for (std::size_t g = 0; g < count; ++g) {
            const auto& group = problem_.groups[g];
            options_[g].resize(group.size());
            std::iota(options_[g].begin(), options_[g].end(), std::size_t{0});
            std::stable_sort(options_[g].begin(), options_[g].end(),
                             [&](std::size_t a, std::size_t b) {
                                 return priced(*group[a]) > priced(*group[b]);
                             });
            const std::size_t second = options_[g][std::min<std::size_t>(1, group.size() - 1)];
            spread[g] = priced(*group[options_[g].front()]) - priced(*group[second]);
        }
        std::iota(order_.begin(), order_.end(), std::size_t{0});
        std::stable_sort(order_.begin(), order_.end(),
                         [&](std::size_t a, std::size_t b) { return spread[a] > spread[b]; });
    }

    void bound_the_rest() {
        rest_.assign(order_.size() + 1, 0);
        for (std::size_t at = order_.size(); at-- > 0;)
            rest_[at] =
                rest_[at + 1] + priced(*problem_.groups[order_[at]][options_[order_[at]].front()]);
        least_to_come_.assign(order_.size() + 1, {});
        for (std::size_t at = order_.size(); at-- > 0;)
            for (std::size_t a = 0; a < choice_amounts; ++a) {
                double least = std::numeric_limits<double>::infinity();
                for (const ChoiceOption* option : problem_.groups[order_[at]])
                    least = std::min(least, option->uses[a]);
                least_to_come_[at][a] = least_to_come_[at + 1][a] + least;
            }
        // By place of the order and set: so many pieces can come from there on.
        pieces_to_come_.assign(order_.size() + 1, std::vector<int>(problem_.sets.size(), 0));
        for (std::size_t at = order_.size(); at-- > 0;) {
            pieces_to_come_[at] = pieces_to_come_[at + 1];
            for (std::size_t s = 0; s < problem_.sets.size(); ++s) {
                std::ptrdiff_t most = 0;
                for (const ChoiceOption* option : problem_.groups[order_[at]])
                    most =
                        std::max(most, std::count(option->pieces.begin(), option->pieces.end(), s));
                pieces_to_come_[at][s] += static_cast<int>(most);
            }
        }
    }

    [[nodiscard]] double set_gain(std::size_t set, int pieces) const {
        const auto& gains = problem_.sets[set];
        return gains.empty() ? 0
                             : gains[std::min(static_cast<std::size_t>(pieces), gains.size() - 1)];
    }

    /// The most that sets can gain with what is chosen and what can come from a place of the order.
    [[nodiscard]] double sets_at_most(std::size_t at) const {
        double sum = 0;
        for (std::size_t s = 0; s < pieces_.size(); ++s) {
            double most = set_gain(s, pieces_[s]);
            for (int more = 1; more <= pieces_to_come_[at][s]; ++more)
                most = std::max(most, set_gain(s, pieces_[s] + more));
            sum += most;
        }
        return sum;
    }

    /// The least gain that is still of use.
    [[nodiscard]] double floor() const { return best_.size() < most_ ? least_ : best_.back().gain; }

    /// `gain` and `used` of the groups before.
    void descend(std::size_t at, double gain, const ChoiceAmounts& used) {
        if (at == order_.size()) return keep(gain + sets_at_most(at));
        const std::size_t g = order_[at];
        const double sets = sets_at_most(at);
        for (const std::size_t o : options_[g]) {
            if (steps_left_ == 0) return;
            --steps_left_;
            const ChoiceOption& option = *problem_.groups[g][o];
            ChoiceAmounts after = used;
            double paid = 0;
            for (std::size_t a = 0; a < choice_amounts; ++a) {
                after[a] += option.uses[a];
                paid += prices_[a] * (room_of(a) - after[a]);
            }
            // Options come by what they are worth at the prices: none after this can do better.
            if (gain + option.gain + paid + rest_[at + 1] + sets <= floor()) return;
            if (!leaves_room(after, at + 1) || !take(option)) continue;
            picked_[g] = o;
            descend(at + 1, gain + option.gain, after);
            give_back(option);
        }
    }

    /// Whether the limits can still be kept by what comes from a place of the order on.
    [[nodiscard]] bool leaves_room(const ChoiceAmounts& used, std::size_t at) const {
        for (std::size_t a = 0; a < choice_amounts; ++a)
            if (used[a] + least_to_come_[at][a] > problem_.room[a] + slack) return false;
        return true;
    }

    [[nodiscard]] bool take(const ChoiceOption& option) {
        for (std::size_t i = 0; i < option.takes.size(); ++i)
            if (--there_[option.takes[i]] < 0) {
                for (std::size_t back = 0; back <= i; ++back) ++there_[option.takes[back]];
                return false;
            }
        for (const std::size_t set : option.pieces) ++pieces_[set];
        return true;
    }

    void give_back(const ChoiceOption& option) {
        for (const std::size_t one : option.takes) ++there_[one];
        for (const std::size_t set : option.pieces) --pieces_[set];
    }

    void keep(double gain) {
        if (gain <= floor() || std::any_of(best_.begin(), best_.end(), [&](const Chosen& one) {
                return std::abs(one.gain - gain) < same_gain;
            }))
            return;
        const auto at = std::upper_bound(
            best_.begin(), best_.end(), gain,
            [](double value, const Chosen& chosen) { return value > chosen.gain; });
        best_.insert(at, {gain, picked_});
        if (best_.size() > most_) best_.pop_back();
    }

    const ChoiceProblem& problem_;
    std::size_t most_;
    double least_;
    std::size_t steps_left_;
    const ChoiceAmounts prices_;
    std::vector<std::size_t> order_;                ///< of groups
    std::vector<std::vector<std::size_t>> options_; ///< of each group, in order
    std::vector<double> rest_;                      ///< at most, from a place of the order on
    std::vector<ChoiceAmounts> least_to_come_;      ///< used at least, likewise
    std::vector<std::vector<int>> pieces_to_come_;
    std::vector<int> there_, pieces_;
    std::vector<std::size_t> picked_;
    std::vector<Chosen> best_;
};

} // namespace

/// They bound about as low as any: each is raised while too much is used, and lowered while there
/// is room, in shrinking steps.
ChoiceAmounts choice_prices(const ChoiceProblem& problem) {
    constexpr int rounds = 60;
    ChoiceAmounts scale = {};
    double gain = 0;
    for (const auto& group : problem.groups)
        for (const ChoiceOption* option : group) {
            gain = std::max(gain, std::abs(option->gain));
            for (std::size_t a = 0; a < choice_amounts; ++a)
                scale[a] = std::max(scale[a], std::abs(option->uses[a]));
        }
    ChoiceAmounts prices = {};
    ChoiceAmounts best_prices = {};
    double lowest = std::numeric_limits<double>::infinity();
    for (int round = 0; round < rounds; ++round) {
        ChoiceAmounts used;
        const double bound = relaxed(problem, prices, used);
        if (bound < lowest) {
            lowest = bound;
            best_prices = prices;
        }
        bool moved = false;
        for (std::size_t a = 0; a < choice_amounts; ++a) {
            if (scale[a] <= 0) continue;
            const double over = (used[a] - room_in(problem, a)) / scale[a];
            const double step = 2 * gain / scale[a] / (1 + round) * std::clamp(over, -1.0, 1.0);
            const double price = std::max(0.0, prices[a] + step);
            moved = moved || price != prices[a];
            prices[a] = price;
        }
        if (!moved) break;
    }
    return best_prices;
}

std::vector<Chosen> best_choices(const ChoiceProblem& problem, std::size_t most, double least,
                                 std::size_t most_steps) {
    return Chooser(problem, most, least, most_steps).run();
}

} // namespace panoplon
