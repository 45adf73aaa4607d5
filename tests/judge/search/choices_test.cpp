// The solver of choices against trying every choice.
#include "judge/search/choices.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <deque>
#include <rapidcheck.h>
#include <rapidcheck/catch.h>

using namespace panoplon;

namespace {

double gain_of(const ChoiceProblem& problem, const std::vector<std::size_t>& options) {
    double gain = 0;
    std::vector<std::size_t> pieces(problem.sets.size(), 0);
    for (std::size_t g = 0; g < options.size(); ++g) {
        const ChoiceOption& option = *problem.groups[g][options[g]];
        gain += option.gain;
        for (const std::size_t set : option.pieces) ++pieces[set];
    }
    for (std::size_t s = 0; s < pieces.size(); ++s)
        gain += problem.sets[s][std::min(pieces[s], problem.sets[s].size() - 1)];
    return gain;
}

bool keeps_limits(const ChoiceProblem& problem, const std::vector<std::size_t>& options) {
    ChoiceAmounts used = {};
    std::vector<int> there = problem.there;
    for (std::size_t g = 0; g < options.size(); ++g) {
        const ChoiceOption& option = *problem.groups[g][options[g]];
        for (std::size_t a = 0; a < choice_amounts; ++a) used[a] += option.uses[a];
        for (const std::size_t one : option.takes)
            if (--there[one] < 0) return false;
    }
    for (std::size_t a = 0; a < choice_amounts; ++a)
        if (used[a] > problem.room[a] + 1e-9) return false;
    return true;
}

/// The gains of all that keep the limits, the best first, each once.
std::vector<double> all_gains(const ChoiceProblem& problem) {
    std::vector<double> gains;
    std::vector<std::size_t> options(problem.groups.size(), 0);
    for (;;) {
        if (keeps_limits(problem, options)) gains.push_back(gain_of(problem, options));
        std::size_t g = 0;
        while (g < options.size() && ++options[g] == problem.groups[g].size()) options[g++] = 0;
        if (g == options.size()) break;
    }
    std::sort(gains.rbegin(), gains.rend());
    const auto same = [](double a, double b) { return std::abs(a - b) < 1e-9; };
    gains.erase(std::unique(gains.begin(), gains.end(), same), gains.end());
    return gains;
}

ChoiceProblem drawn_problem(std::deque<ChoiceOption>& options_of_all) {
    const auto number = [](int low, int high) {
        return static_cast<double>(*rc::gen::inRange(low, high));
    };
    ChoiceProblem problem;
    problem.there = {*rc::gen::inRange(1, 3), *rc::gen::inRange(1, 3)};
    problem.sets = {{0, 0, number(-3, 9)}, {0, number(0, 5)}};
    const int groups = *rc::gen::inRange(1, 6);
    for (int g = 0; g < groups; ++g) {
        problem.groups.emplace_back();
        const int options = *rc::gen::inRange(1, 6);
        for (int o = 0; o < options; ++o) {
            ChoiceOption option;
            option.gain = number(-10, 20);
            for (double& use : option.uses) use = number(-2, 10);
            if (*rc::gen::inRange(0, 3) == 0) option.takes = {number(0, 2) > 0 ? 1U : 0U};
            if (*rc::gen::inRange(0, 3) == 0) option.pieces = {number(0, 2) > 0 ? 1U : 0U};
            problem.groups.back().push_back(&options_of_all.emplace_back(std::move(option)));
        }
    }
    for (double& room : problem.room) room = number(0, 40);
    return problem;
}

} // namespace

TEST_CASE("property: the best choices under limits are those of trying every choice", "[M86]") {
    rc::prop("gains of the first few", [] {
        std::deque<ChoiceOption> options;
        ChoiceProblem problem = drawn_problem(options);
        if (*rc::gen::arbitrary<bool>()) problem.prices = choice_prices(problem);
        constexpr std::size_t most = 4;
        const std::vector<Chosen> found = best_choices(problem, most);
        std::vector<double> truth = all_gains(problem);
        truth.resize(std::min(truth.size(), most));
        RC_ASSERT(found.size() == truth.size());
        for (std::size_t i = 0; i < found.size(); ++i) {
            RC_ASSERT(std::abs(found[i].gain - truth[i]) < 1e-9);
            RC_ASSERT(keeps_limits(problem, found[i].options));
            RC_ASSERT(std::abs(gain_of(problem, found[i].options) - found[i].gain) < 1e-9);
        }
    });
}

TEST_CASE("choices: nothing that keeps the limits, a group without options, no group at all") {
    ChoiceProblem problem;
    CHECK(best_choices(problem, 3).size() == 1); // to choose nothing
    CHECK(best_choices(problem, 0).empty());
    const ChoiceOption heavy{1, {5, 0, 0, 0, 0}, {}, {}};
    problem.groups = {{&heavy}};
    CHECK(best_choices(problem, 3).empty());
    problem.room = {5, 0, 0, 0, 0};
    CHECK(best_choices(problem, 3).size() == 1);
    problem.groups.emplace_back();
    CHECK(best_choices(problem, 3).empty());
}
