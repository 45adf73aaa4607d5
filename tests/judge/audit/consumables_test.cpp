// What an audit says of consumables: their place is that of their group in the pack (M84).
#include "support/armouries.h"
#include "support/audits.h"

#include "judge/audit/audit.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// A brew: attack for the whole fight, one of which can be packed and one of a group be drunk.
std::string brew(const std::string& id, double attack, int level = 1,
                 const std::string& group = "brew") {
    return "[item." + id + "]\nlevel = " + std::to_string(level) +
           "\nweight = 2\nstack = 1\nmax_stacks = 1\nuse = { effect = \"" + id +
           "_drunk\", duration = 1000, cooldown = 1000" +
           (group.empty() ? "" : ", group = \"" + group + "\"") + " }\n[effect." + id +
           "_drunk]\nadd = { attack = " + std::to_string(attack) + " }\n";
}

AuditResult audited_there(const Armoury& armoury) {
    AuditOptions options;
    options.encounters = {EncounterId(0)};
    return audited(armoury, options);
}

const ConsumableVerdict& consumable_of(const Armoury& armoury, const AuditResult& result,
                                       const std::string& id) {
    return *std::find_if(
        result.consumables.begin(), result.consumables.end(),
        [&](const ConsumableVerdict& one) { return armoury.at(one.judged.item).id == id; });
}

std::string verdict(const Armoury& armoury, const std::string& id) {
    return verdict_name(consumable_of(armoury, audited_there(armoury), id).judged.verdict);
}

} // namespace

TEST_CASE("of two brews of a group the much better one is dominant, the other is of little use",
          "[M84]") {
    const Armoury a = armoury(duel() + brew("storm", 9) + brew("breeze", 2));
    const AuditResult result = audited_there(a);
    CHECK(result.items.empty());
    REQUIRE(result.consumables.size() == 2);
    const ConsumableVerdict& storm = consumable_of(a, result, "storm");
    CHECK(verdict_name(storm.judged.verdict) == std::string("dominant"));
    CHECK(storm.worth.packed == 1);
    CHECK(storm.worth.units == 1);
    const ConsumableVerdict& breeze = consumable_of(a, result, "breeze");
    CHECK(breeze.judged.pick_share == 0);
    CHECK(breeze.judged.shortfall.min > 0.4);
}

TEST_CASE("a consumable of no group has its place to itself", "[M81b][M84]") {
    const Armoury a = armoury(duel() + brew("storm", 9, 1, "") + brew("breeze", 2, 1, ""));
    CHECK(verdict(a, "storm") == "sound");
    CHECK(verdict(a, "breeze") == "sound"); // both are drunk: neither is in the other's way
}

TEST_CASE("an older brew is no rival, and what does nothing is judged nobody", "[M81b][M84]") {
    const Armoury a = armoury(duel() + brew("old", 2) + brew("fresh", 9, 4) +
                              "[item.dust]\nuse = { restore = { breath = 1 } }\n");
    CHECK(verdict(a, "fresh") == "sound");
    const AuditResult result = audited_there(a);
    CHECK(verdict_name(consumable_of(a, result, "dust").judged.verdict) == std::string("unjudged"));
    CHECK(consumable_of(a, result, "dust").judged.sentence.starts_with("It nowhere matters"));
}

TEST_CASE("what a unit is worth is told for one, for a weight and for a stack", "[M84]") {
    const Armoury a =
        armoury(with(duel(), "levels = [1, 10]", "levels = [1, 1]") + brew("storm", 5, 1));
    const ConsumableVerdict storm = consumable_of(a, audited_there(a), "storm");
    // Against a foe that does nothing the margin goes with attack: 15 for 10.
    CHECK(storm.worth.per_unit == Approx(0.5).epsilon(2e-3));
    CHECK(storm.worth.per_weight == Approx(0.25).epsilon(2e-3));
    CHECK(storm.worth.per_stack == Approx(0.5).epsilon(2e-3));
    CHECK(storm.judged.ban_loss.mean == Approx(1 - 10.0 / 15).epsilon(2e-3));
}
