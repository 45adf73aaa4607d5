// The best ways to choose one option from each of several groups under limits: exactly, and not
// only the best but as many as are wanted.
#pragma once

#include <array>
#include <cstddef>
#include <limits>
#include <vector>

namespace panoplon {

/// Amounts that are limited in sum; what each is, is its user's.
inline constexpr std::size_t choice_amounts = 5;
using ChoiceAmounts = std::array<double, choice_amounts>;

struct ChoiceOption {
    double gain = 0;
    ChoiceAmounts uses = {};         ///< may be less than nothing: it makes room
    std::vector<std::size_t> takes;  ///< one of each of these; the same one several times: as many
    std::vector<std::size_t> pieces; ///< of these sets, one each
};

struct ChoiceProblem {
    /// Of each one is chosen; none may be empty. Options are their owner's, and outlive the
    /// problem.
    std::vector<std::vector<const ChoiceOption*>> groups;
    ChoiceAmounts room = {}; ///< sums of `uses` are at most this
    std::vector<int> there;  ///< how many there are of what options take
    /// By set: what it gains with so many pieces; with more, as the last.
    std::vector<std::vector<double>> sets;
    /// Of each amount, in gain: any that are not less than nothing are right, good ones find
    /// sooner.
    ChoiceAmounts prices = {};
};

/// Good prices for a problem, and for others that differ little from it.
[[nodiscard]] ChoiceAmounts choice_prices(const ChoiceProblem& problem);

struct Chosen {
    double gain = 0;
    std::vector<std::size_t> options; ///< by group
};

/// The `most` choices of the highest gain that keep the limits, the best first; fewer where there
/// are not so many. Of those that gain the same, as two rings the other way round, one. None of a
/// gain up to `least`. `most_steps`: after so many options looked at it ends with what it has (and
/// that may then not be the best).
///
/// Depth first, with a bound: what is left over can gain no more than each group's best option,
/// where amounts are not limited but cost a price. Any prices give a bound; those that
/// give about the lowest are found first, by stepping down the slope (a Lagrangian relaxation). Of
/// sets it counts the most that the pieces still to come could make of them.
[[nodiscard]] std::vector<Chosen>
best_choices(const ChoiceProblem& problem, std::size_t most,
             double least = -std::numeric_limits<double>::infinity(),
             std::size_t most_steps = 200'000);

} // namespace panoplon
