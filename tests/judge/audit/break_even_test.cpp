// From when on a consumable pays.
#include "support/armouries.h"

#include "judge/audit/break_even.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// A fight of one against one: samples of (time, own share, the foe's share).
Timeline told(const std::vector<std::array<double, 3>>& samples) {
    Timeline timeline;
    timeline.actors = {"hero", "foe"};
    for (const auto& [time, own, theirs] : samples)
        timeline.samples.push_back({time, {{own}, {theirs}}, -1});
    return timeline;
}

} // namespace

TEST_CASE("one fight is ahead of another from where its lead stays above", "[M84c]") {
    const Timeline plain = told({{0, 1, 1}, {10, 0.5, 0}});
    // Nothing done for 2, then a third faster: level again at 5, between two samples.
    const Timeline late = told({{0, 1, 1}, {2, 0.9, 1}, {8, 0.6, 0}});
    const auto from = ahead_from(late, plain, 1, 0);
    REQUIRE(from);
    CHECK(*from == Approx(5.0).epsilon(1e-6));
    CHECK_FALSE(ahead_from(plain, plain, 1, 0));
    CHECK_FALSE(ahead_from(told({{0, 1, 1}, {8, 0.6, 0.5}}), plain, 1, 0));
    CHECK(ahead_from(told({{0, 1, 1}, {10, 0.6, 0}}), plain, 1, 0) == Approx(0));
    CHECK_FALSE(ahead_from({}, plain, 1, 0));
}

TEST_CASE("a brew that takes a second and doubles attack for three pays after two", "[M84c]") {
    const Armoury a = armoury(
        with(arena("[effect.strong]\nadd = { attack = 10 }\n[item.brew]\n"
                   "use = { effect = \"strong\", duration = 4, takes = 1, cooldown = 100 }\n"),
             "growth = { max_health = 10, attack = 1 }", "growth = { max_health = 10 }"));
    AuditOptions options;
    options.levels = {1, 1};
    const AuditResult result = audit(a, options);
    REQUIRE(result.consumables.size() == 1);
    const std::vector<BreakEven> found = find_break_evens(a, result);
    REQUIRE(found.size() == 1);
    CHECK(found[0].contexts == 1);
    REQUIRE(found[0].pays == 1);
    CHECK(found[0].time == Approx(2).margin(0.05));
    CHECK(found[0].least == found[0].most);
}
