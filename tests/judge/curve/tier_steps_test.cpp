#include "judge/curve/tier_steps.h"

#include "support/armouries.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// The hero gains an attack a level; the fine hat gives 3, the plain one nothing that counts.
std::string hats() {
    return duel() + "[item.cap]\nslot = \"head\"\ntier = \"plain\"\nadd = { keen = 1 }\n"
                    "[item.crown]\nslot = \"head\"\ntier = \"fine\"\nadd = { attack = 1.5 }\n";
}

} // namespace

TEST_CASE("a tier whose gear gives what three levels give is worth three levels", "[M80]") {
    const Armoury a = armoury(hats() + "[yardstick]\nencounter = \"spar\"\n");
    const std::vector<TierStep> steps = find_tier_steps(a, a.levels, {});
    REQUIRE(steps.size() == 1);
    CHECK(a.at(steps[0].tier).id == "fine");
    CHECK(a.at(steps[0].character).id == "hero");
    CHECK(steps[0].levels == Approx(3).epsilon(0.02));
    CHECK(steps[0].from == 1);
}

TEST_CASE("without a yardstick tiers have no steps in levels") {
    const Armoury a = armoury(hats());
    CHECK(find_tier_steps(a, a.levels, {}).empty());
}
