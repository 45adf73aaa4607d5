#include "judge/search/choices.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace panoplon {

namespace {

/// Sums that are so near to the room are within it.
constexpr double slack = 1e-9;

class Chooser {
  public:
    Chooser(const ChoiceProblem& problem, std::size_t most, double least, std::size_t most_steps)
        : problem_(problem),
          most_(most),
          least_(least),
          steps_left_(most_steps),
          there_(problem.there),
          pieces_(problem.sets.size(), 0),
          picked_(problem.groups.size(), 0) {}

    std::vector<Chosen> run() {
        if (most_ == 0) return {};
        for (const auto& group : problem_.groups)
            if (group.empty()) return {};
        find_prices();
        sort_groups();
        bound_the_rest();
        descend(0, 0, {});
        return std::move(best_);
    }

  private:
    /// What an option is worth at the prices.
    [[nodiscard]] double priced(const ChoiceOption& option) const {
        double gain = option.gain;
        for (std::size_t a = 0; a < choice_amounts; ++a) gain -= prices_[a] * option.uses[a];
        return gain;
    }

    /// A gain that no choice exceeds, at the prices; `used`: what the options that reach it use.
    [[nodiscard]] double relaxed(ChoiceAmounts& used) const {
        used = {};
        double sum = 0;
        for (const auto& group : problem_.groups) {
            const ChoiceOption* const best = *std::max_element(
                group.begin(), group.end(), [&](const ChoiceOption* a, const ChoiceOption* b) {
                    return priced(*a) < priced(*b);
                });
            sum += priced(*best);
            for (std::size_t a = 0; a < choice_amounts; ++a) used[a] += best->uses[a];
        }
        for (std::size_t a = 0; a < choice_amounts; ++a) sum += prices_[a] * room_of(a);
        return sum;
    }

    [[nodiscard]] double room_of(std::size_t amount) const {
        return std::min(problem_.room[amount], 1e12);
    }

    /// Prices that bound about as low as any: each is raised while too much is used, and lowered
    /// while there is room, in shrinking steps.
    void find_prices() {
        constexpr int rounds = 60;
        ChoiceAmounts scale = {};
        double gain = 0;
        for (const auto& group : problem_.groups)
            for (const ChoiceOption* option : group) {
                gain = std::max(gain, std::abs(option->gain));
                for (std::size_t a = 0; a < choice_amounts; ++a)
                    scale[a] = std::max(scale[a], std::abs(option->uses[a]));
            }
        ChoiceAmounts best_prices = {};
        double lowest = std::numeric_limits<double>::infinity();
        for (int round = 0; round < rounds; ++round) {
            ChoiceAmounts used;
            const double bound = relaxed(used);
            if (bound < lowest) {
                lowest = bound;
                best_prices = prices_;
            }
            bool moved = false;
            for (std::size_t a = 0; a < choice_amounts; ++a) {
                if (scale[a] <= 0) continue;
                const double over = (used[a] - room_of(a)) / scale[a];
                const double step = 2 * gain / scale[a] / (1 + round) * std::clamp(over, -1.0, 1.0);
                const double price = std::max(0.0, prices_[a] + step);
                moved = moved || price != prices_[a];
                prices_[a] = price;
            }
            if (!moved) break;
        }
        prices_ = best_prices;
    }

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
        if (at == order_.size()) return keep(gain + sets_at_most(at), used);
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
            if (!take(option)) continue;
            picked_[g] = o;
            descend(at + 1, gain + option.gain, after);
            give_back(option);
        }
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

    void keep(double gain, const ChoiceAmounts& used) {
        for (std::size_t a = 0; a < choice_amounts; ++a)
            if (used[a] > problem_.room[a] + slack) return;
        if (gain <= floor()) return;
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
    ChoiceAmounts prices_ = {};
    std::vector<std::size_t> order_;                ///< of groups
    std::vector<std::vector<std::size_t>> options_; ///< of each group, in order
    std::vector<double> rest_;                      ///< at most, from a place of the order on
    std::vector<std::vector<int>> pieces_to_come_;
    std::vector<int> there_, pieces_;
    std::vector<std::size_t> picked_;
    std::vector<Chosen> best_;
};

} // namespace

std::vector<Chosen> best_choices(const ChoiceProblem& problem, std::size_t most, double least,
                                 std::size_t most_steps) {
    return Chooser(problem, most, least, most_steps).run();
}

} // namespace panoplon
