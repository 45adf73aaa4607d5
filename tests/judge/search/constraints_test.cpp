// What a search finds under more constraints is never more, and under fewer never less.
#include "judge/paper/paper.h"
#include "judge/search/search.h"
#include "support/armouries.h"
#include "support/truth.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// The best margin of an armoury of truth under these limits; 0: nothing legal. `most_tried`:
/// candidates up to which all are.
double best_of(const std::string& text, const Limits& limits, double most_tried = 0) {
    const Armoury a = armoury(text);
    const std::vector<ItemId> twins = twin_groups(compare_on_paper(a));
    Search search(a, twins);
    search.try_all_up_to(most_tried);
    search.limit(limits);
    search.enter({CharacterId(0), 1, EncounterId(0)});
    return search.find_best() ? search.best().margin.value : 0;
}

/// A margin may be 0.01 % off, and a search misses 0.1 % at times.
bool no_more(double constrained, double free) {
    return constrained <= free * 1.001;
}

std::string replaced(std::string text, const std::string& from, const std::string& to) {
    const std::size_t at = text.find(from);
    return at == std::string::npos ? text : with(text, from, to);
}

} // namespace

TEST_CASE("search: a constraint never raises the margin, whatever is asked", "[M80]") {
    for (const TruthKind& kind : truth_kinds()) {
        const std::string text = truth_armoury(kind, 3);
        const Armoury a = armoury(text);
        INFO(kind.name);
        const double free = best_of(text, {});
        REQUIRE(free > 0);
        double without_more = free;
        Limits more;
        for (std::size_t i = 0; i < a.items.size(); i += 3) {
            INFO(a.items[i].id);
            const ItemId item(i);
            Limits without;
            without.without = {item};
            Limits with_it;
            with_it.with = {item};
            const double best_without = best_of(text, without);
            const double best_with = best_of(text, with_it);
            CHECK(no_more(best_without, free));
            CHECK(no_more(best_with, free));
            CHECK(no_more(free, std::max(best_without, best_with))); // one of them holds
            more.without.push_back(item);
            const double now = best_of(text, more);
            CHECK(no_more(now, without_more));
            without_more = now;
        }
    }
}

TEST_CASE("search: more room never lowers the margin", "[M80][M50]") {
    for (const TruthKind& kind : truth_kinds()) {
        const std::string text = truth_armoury(kind, 4);
        INFO(kind.name);
        const double tight = best_of(text, {});
        CHECK(no_more(tight, best_of(replaced(text, "strength = 40", "strength = 55"), {})));
        CHECK(no_more(tight, best_of(replaced(text, "bag = 2", "bag = 3"), {})));
        CHECK(no_more(tight, best_of(replaced(text, "limit = 1.0", "limit = 1.4"), {})));
        CHECK(no_more(tight, best_of(replaced(text, "stack = 2", "stack = 3"), {})));
    }
}

TEST_CASE("search: a value limit is kept, and costs no less the lower it is", "[M80]") {
    std::string text = truth_armoury(truth_kinds().front(), 5);
    for (std::size_t at = text.find("\nweight = "), n = 0; at != std::string::npos;
         at = text.find("\nweight = ", at + 20), ++n)
        text.insert(at, "\nvalue = " + std::to_string(1 + n % 7));
    double before = best_of(text, {});
    for (const double value : {20.0, 12.0, 8.0, 4.0, 2.0, 0.0}) {
        Limits limits;
        limits.value = value;
        const double now = best_of(text, limits);
        CHECK(no_more(now, before));
        CHECK(now == Approx(best_of(text, limits, 1e6)).epsilon(1e-3)); // as trying everything
        before = now;
    }
}
