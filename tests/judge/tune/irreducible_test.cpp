#include "judge/tune/irreducible.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;

namespace {

bool holds(const std::vector<std::size_t>& kept, std::size_t one) {
    return std::find(kept.begin(), kept.end(), one) != kept.end();
}

} // namespace

TEST_CASE("what is needed stays, and of two of which one is enough, one", "[M83]") {
    const auto needed = [](const std::vector<std::size_t>& kept, std::size_t) {
        return holds(kept, 2) && (holds(kept, 0) || holds(kept, 3));
    };
    CHECK(irreducible(4, needed) == std::vector<std::size_t>{2, 3});
    CHECK(irreducible(3, needed) == std::vector<std::size_t>{0, 2});
    CHECK(irreducible(0, needed).empty());
}

TEST_CASE("none of what stays can be left out, and it is enough", "[M83]") {
    // Each has a weight and a sum has to be reached.
    rc::prop("sums", [](const std::vector<unsigned char>& weights) {
        const auto sum = [&](const std::vector<std::size_t>& kept) {
            unsigned total = 0;
            for (const std::size_t one : kept) total += weights[one];
            return total;
        };
        std::vector<std::size_t> all(weights.size());
        for (std::size_t i = 0; i < all.size(); ++i) all[i] = i;
        const unsigned wanted = sum(all) / 2;
        const auto kept = irreducible(
            weights.size(), [&](const auto& some, std::size_t) { return sum(some) >= wanted; });
        RC_ASSERT(sum(kept) >= wanted);
        for (const std::size_t one : kept) RC_ASSERT(sum(kept) - weights[one] < wanted);
    });
}
