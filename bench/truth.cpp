// What a search answers against trying everything, for several kinds of small armouries: how many
// answers are off, by how much at most (log margin), and what a context costs.
#include "support/truth.h"
#include "armoury/read.h"
#include "judge/paper/paper.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <ctime>
#include <fmt/format.h>

using namespace panoplon;

namespace {

double cpu_seconds() {
    return static_cast<double>(std::clock()) / CLOCKS_PER_SEC;
}

/// What is off in the armouries of a kind.
struct Account {
    std::size_t answers = 0, off = 0, best_off = 0, not_found = 0;
    double furthest = 0, outfits = 0, searching = 0, trying = 0;
};

void compare(const std::vector<double>& right, const std::vector<double>& found, Account& account) {
    constexpr double same = 1e-3;
    for (std::size_t i = 0; i < right.size(); ++i) {
        ++account.answers;
        if (right[i] == found[i] || std::abs(right[i] - found[i]) <= same) continue;
        ++account.off;
        account.best_off += i == 0;
        if (std::isinf(right[i]) || std::isinf(found[i]))
            ++account.not_found;
        else
            account.furthest = std::max(account.furthest, std::abs(right[i] - found[i]));
    }
}

void add_armoury(const test::TruthKind& kind, std::uint32_t seed, Account& account) {
    Sources sources;
    sources.add("armoury.toml", test::truth_armoury(kind, seed));
    const ReadArmoury read = read_sources(sources, {});
    const Judging judging(read.armoury);
    Search everything(read.armoury, judging.twins);
    everything.try_all_up_to(1e9);
    const double start = cpu_seconds();
    const std::vector<double> right = test::truth_answers(everything);
    const double middle = cpu_seconds();
    Search search(read.armoury, judging.twins);
    search.try_all_up_to(0);
    const std::vector<double> found = test::truth_answers(search);
    account.trying += middle - start;
    account.searching += cpu_seconds() - middle;
    account.outfits += everything.count_candidates();
    compare(right, found, account);
}

} // namespace

/// Takes how many armouries of each kind are made; 12 where that is not said.
int main(int argc, char** argv) {
    const int armouries = argc > 1 ? std::max(1, std::atoi(argv[1])) : 12;
    fmt::print("{:<22}{:>8}{:>22}{:>10}{:>11}{:>10}{:>10}{:>14}{:>12}\n", "kind", "answers",
               "off by over 0.1 %", "the best", "not found", "at most", "outfits", "ms searching",
               "ms trying");
    for (const test::TruthKind& kind : test::truth_kinds()) {
        Account a;
        for (int seed = 1; seed <= armouries; ++seed)
            add_armoury(kind, static_cast<std::uint32_t>(seed), a);
        const double each = 1000.0 / armouries;
        fmt::print("{:<22}{:>8}{:>22}{:>10}{:>11}{:>10.4f}{:>10.0f}{:>14.1f}{:>12.1f}\n", kind.name,
                   a.answers, a.off, a.best_off, a.not_found, a.furthest, a.outfits / armouries,
                   a.searching * each, a.trying * each);
    }
    return 0;
}
