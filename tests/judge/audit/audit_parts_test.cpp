// What an audit tells beside its verdicts: witnesses, trials, sets and tiers.
#include "support/armouries.h"
#include "support/audits.h"

#include "judge/audit/confirming.h"
#include "judge/audit/lift.h"
#include "judge/audit/set_worth.h"
#include "judge/audit/tier_summary.h"
#include "judge/audit/witness.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const ItemVerdict& of(const Armoury& armoury, const AuditResult& result, const std::string& id) {
    return *std::find_if(result.items.begin(), result.items.end(),
                         [&](const ItemVerdict& one) { return armoury.at(one.item).id == id; });
}

} // namespace

TEST_CASE("witnesses: the contexts where an item is best and worst, and what is worn instead",
          "[M81a]") {
    // The cap of level 2 does better than what there was, so the old one is best at level 1 only.
    const Armoury a = armoury(flat(piece("old", "head", "add = { attack = 3, keen = 1 }") +
                                   piece("new", "head", "level = 2\nadd = { attack = 5 }")));
    const AuditResult result = audited(a);
    const ItemVerdict& old = of(a, result, "old");
    const Witnesses found =
        find_witnesses(a, old.item, rows_of(result.rows, old.item), result.contexts);
    REQUIRE(found.best);
    REQUIRE(found.worst);
    CHECK(result.contexts[found.best->context].context.level == 1);
    CHECK(found.best->shortfall == Approx(0).margin(1e-3));
    CHECK(ids(a, found.best->instead) == "old ");
    CHECK(result.contexts[found.worst->context].context.level == 2);
    CHECK(found.worst->shortfall == Approx(std::log(15.0 / 13) / std::log(15.0 / 10)).margin(2e-3));
    CHECK(ids(a, found.worst->instead) == "new ");
    CHECK_FALSE(find_witnesses(a, old.item, {}, result.contexts).best);
}

TEST_CASE("trials bear out what even luck says of a fight without luck", "[M85]") {
    const Armoury a = armoury(flat(piece("great", "hand", "add = { attack = 10 }") +
                                   piece("poor", "hand", "add = { attack = 1, keen = 1 }")));
    AuditResult result = audited(a);
    REQUIRE(of(a, result, "great").verdict == Verdict::dominant);
    REQUIRE(of(a, result, "poor").verdict == Verdict::useless);
    CHECK_FALSE(of(a, result, "great").confirmed);
    confirm_verdicts(a, {20, 1}, result);
    REQUIRE(of(a, result, "great").confirmed);
    CHECK(of(a, result, "great").confirmed->borne_out);
    // Whole blows make margins steps, but of a long fight small ones.
    CHECK(of(a, result, "great").confirmed->by_trials ==
          Approx(std::log(20.0 / 11) / std::log(20.0 / 10)).margin(0.03));
    CHECK(of(a, result, "poor").confirmed->by_trials ==
          Approx(std::log(20.0 / 11) / std::log(20.0 / 10)).margin(0.03));
    confirm_verdicts(a, {0, 1}, result); // none asked for: nothing is taken back
    CHECK(of(a, result, "great").confirmed);
}

TEST_CASE("a verdict that trials contradict is not borne out", "[M85]") {
    const Armoury a = armoury(flat(piece("great", "hand", "add = { attack = 10 }") +
                                   piece("near", "hand", "add = { attack = 9, keen = 1 }")));
    AuditResult result = audited(a);
    // As if even luck had called it dominant: of its place 0.074 is its own, and 0.2 is asked for.
    for (ItemVerdict& one : result.items)
        if (a.at(one.item).id == "great") one.verdict = Verdict::dominant;
    confirm_verdicts(a, {20, 1}, result);
    REQUIRE(of(a, result, "great").confirmed);
    CHECK_FALSE(of(a, result, "great").confirmed->borne_out);
}

TEST_CASE("sets: a step is worth what the same loadout loses without its bonus", "[M43][M84]") {
    const std::string set = "[set.trio]\n[[set.trio.step]]\ncount = 2\nadd = { attack = 5 }\n"
                            "[[set.trio.step]]\ncount = 3\nadd = { keen = 1 }\n";
    const Armoury a = armoury(
        flat(piece("blade", "hand", "set = \"trio\"\nadd = { attack = 2 }") +
             piece("cap", "head", "level = 2\nset = \"trio\"\nadd = { attack = 1 }") + set));
    const std::vector<StepWorth> sets = judge_sets(a, audited(a));
    REQUIRE(sets.size() == 2);
    CHECK(sets[0].from_level == 2);
    CHECK(sets[0].contexts == 1);
    CHECK(sets[0].reached == 1);
    CHECK(sets[0].reached_in_all == 0.5);
    CHECK(sets[0].gain == Approx(1 - 13.0 / 18).epsilon(1e-3));
    CHECK(sets[1].from_level == 0);
    CHECK(sets[1].reached_in_all == 0);
    CHECK(has(sets[1].sentence, "There are not 3 pieces"));
}

TEST_CASE("sets: pieces that do better apart are never worn together", "[M84]") {
    const Armoury a =
        armoury(flat(piece("blade", "hand", "set = \"duo\"\nadd = { attack = 2 }") +
                     piece("cap", "head", "set = \"duo\"\nadd = { attack = 1 }") +
                     piece("club", "hand", "add = { attack = 6 }") +
                     "[set.duo]\n[[set.duo.step]]\ncount = 2\nadd = { attack = 1 }\n"));
    const std::vector<StepWorth> sets = judge_sets(a, audited(a));
    CHECK(sets[0].reached == 0);
    CHECK(sets[0].gain == 0);
    CHECK(has(sets[0].sentence, "The best never wears 2 pieces"));
}

TEST_CASE("tiers: means of their items, and what is worth less than a lower tier's", "[M84]") {
    const Armoury a =
        armoury(flat(piece("plain_blade", "hand", "tier = \"plain\"\nadd = { attack = 6 }") +
                     piece("fine_blade", "hand", "tier = \"fine\"\nadd = { attack = 1 }") + // × 2
                     piece("fine_cap", "head", "tier = \"fine\"\nadd = { attack = 2 }")));
    const std::vector<TierSummary> tiers = judge_tiers(a, audited(a));
    REQUIRE(tiers.size() == 2);
    CHECK(a.at(tiers[0].tier).id == "plain");
    CHECK(tiers[0].items == 1);
    CHECK(tiers[0].pick_share == 1);
    CHECK(tiers[0].inversions.empty());
    CHECK(tiers[1].items == 2);
    CHECK(tiers[1].pick_share == 0.5);
    REQUIRE(tiers[1].inversions.size() == 1);
    CHECK(a.at(tiers[1].inversions[0].item).id == "fine_blade");
    CHECK(a.at(tiers[1].inversions[0].better).id == "plain_blade");
    CHECK(tiers[1].inversions[0].better_shortfall == Approx(0).margin(1e-3));
}

TEST_CASE("lift: the mean gain in loadouts drawn at random, with its interval") {
    // Drawn in its place: the item itself (drawn anew), its twin-sized rival, or nothing.
    const Armoury a = armoury(flat(piece("blade", "hand", "add = { attack = 5 }") +
                                   piece("club", "hand", "add = { attack = 5, keen = 1 }") +
                                   piece("stick", "hand", "add = { attack = -5 }") +
                                   piece("cap", "head", "add = { keen = 1 }")));
    AuditResult result = audited(a);
    CHECK_FALSE(of(a, result, "blade").lift);
    find_lifts(a, {200, 7}, result);
    const auto lift = [&](const char* id) { return *of(a, result, id).lift; };
    CHECK(lift("cap").mean == Approx(0).margin(2e-4));
    CHECK(lift("blade").mean > 0.1);
    CHECK(lift("blade").mean < 2); // a stick's 5 is what it gains most against
    CHECK(lift("blade").low < lift("blade").mean);
    CHECK(lift("blade").high > lift("blade").mean);
    CHECK(lift("stick").high < -0.3);
    AuditResult again = audited(a);
    find_lifts(a, {200, 7}, again);
    CHECK(of(a, again, "blade").lift->mean == lift("blade").mean);
    find_lifts(a, {200, 8}, again);
    CHECK(of(a, again, "blade").lift->mean != lift("blade").mean);
}
