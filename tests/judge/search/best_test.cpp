// The best legal loadout under what is asked for, its rivals, and what trying everything proves.
#include "support/armouries.h"

#include "judge/paper/paper.h"
#include "judge/search/best.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

std::string priced(const std::string& id, const std::string& slot, const std::string& add,
                   double value = 0) {
    return "[item." + id + "]\nslot = \"" + slot + "\"\nadd = { " + add +
           " }\nvalue = " + std::to_string(value) + "\n";
}

/// The duel at its first level with three to wear and a draught of two.
Armoury shop(const std::string& more = {}) {
    return armoury(with(duel(), "levels = [1, 10]", "levels = [1, 1]") +
                   priced("club", "hand", "attack = 5", 10) +
                   priced("stick", "hand", "attack = 3", 4) +
                   priced("cap", "head", "attack = 1", 7) + more);
}

BestOfContext best_of(const Armoury& armoury, const Limits& limits = {}, int bound_fights = 100) {
    BestOptions options;
    options.levels = armoury.levels;
    options.encounters = {EncounterId(0)};
    options.limits = limits;
    options.bound_fights = bound_fights;
    const BestResult result = find_bests(armoury, options);
    REQUIRE(result.contexts.size() == 1);
    return result.contexts.front();
}

/// Limits of which one is set.
template <class Value>
Limits only(Value Limits::*limit, Value value) {
    Limits limits;
    limits.*limit = std::move(value);
    return limits;
}
Limits worth(double most) {
    return only(&Limits::value, std::optional(most));
}

ItemId item(const Armoury& armoury, const std::string& id) {
    return find_id<ItemKind>(armoury.items, id);
}

std::vector<std::string> worn(const Armoury& armoury, const Outfit& outfit) {
    std::vector<std::string> ids;
    for_each_worn(outfit.worn,
                  [&](const WornItem& one) { ids.push_back(armoury.at(one.item).id); });
    std::sort(ids.begin(), ids.end());
    return ids;
}

using Ids = std::vector<std::string>;

} // namespace

TEST_CASE("where everything is tried the best is proven", "[M80]") {
    const Armoury a = shop();
    const BestOfContext best = best_of(a);
    REQUIRE(best.any);
    CHECK(best.proven);
    CHECK(best.candidates == 6); // club, stick or nothing; cap or nothing
    CHECK(worn(a, best.outfit) == Ids{"cap", "club"});
    CHECK(best.value == 17);
    const Armoury endless = shop("[item.nut]\nstack = \"unlimited\"\nuse = { restore = { health "
                                 "= 1 } }\n");
    CHECK_FALSE(best_of(endless, {}, 0).proven);
    CHECK_FALSE(best_of(endless, {}, 0).bound);
    // No number of nuts helps where nothing hurts.
    const BestOfContext bounded = best_of(endless);
    CHECK(bounded.proven);
    CHECK(bounded.bound == Approx(bounded.margin.value * (1 + 3e-4)).epsilon(1e-9));
}

TEST_CASE("a bound that something exceeds is not told", "[M80]") {
    const auto told = [](double margin) {
        BestOfContext best;
        best.margin.value = margin;
        tell_bound({2, 100, true}, best);
        return best;
    };
    CHECK(told(2).proven);
    CHECK(told(2).bound == 2.0);
    CHECK_FALSE(told(2.001).proven);
    CHECK_FALSE(told(2.001).bound);
}

TEST_CASE("rivals are the best without each thing, the dearest loss first", "[M81]") {
    const Armoury a = shop();
    const BestOfContext best = best_of(a);
    REQUIRE(best.rivals.size() == 2);
    // Attack is 16 with both, 14 with the stick for the club, 15 without the cap.
    CHECK(a.at(best.rivals[0].item).id == "club");
    CHECK(best.rivals[0].margin / best.margin.value == Approx(14.0 / 16).epsilon(1e-3));
    REQUIRE(best.rivals[0].instead.size() == 1);
    CHECK(a.at(best.rivals[0].instead[0].item).id == "stick");
    CHECK(a.at(best.rivals[1].item).id == "cap");
    CHECK(best.rivals[1].margin / best.margin.value == Approx(15.0 / 16).epsilon(1e-3));
    CHECK(best.rivals[1].instead.empty());
}

TEST_CASE("what a rival has instead leaves out what makes no difference", "[M81]") {
    // Without the club there is room for the helm, which is better by less than can be told.
    const Armoury a = armoury(with(duel(), "levels = [1, 10]", "levels = [1, 1]") +
                              piece("club", "hand", "add = { attack = 5 }\nweight = 9") +
                              piece("stick", "hand", "add = { attack = 4 }\nweight = 1") +
                              piece("cap", "head", "add = { attack = 1 }\nweight = 1") +
                              piece("helm", "head", "add = { attack = 1.01 }\nweight = 5") +
                              "[carry]\ncapacity = \"10\"\nlimit = 1\n");
    const BestOfContext best = best_of(a);
    CHECK(worn(a, best.outfit) == Ids{"cap", "club"});
    REQUIRE(a.at(best.rivals[0].item).id == "club");
    CHECK(worn(a, best.rivals[0].outfit) == Ids{"helm", "stick"});
    REQUIRE(best.rivals[0].instead.size() == 1);
    CHECK(a.at(best.rivals[0].instead[0].item).id == "stick");
}

TEST_CASE("the best keeps to what is asked for", "[M80]") {
    const Armoury a = shop();
    CHECK(worn(a, best_of(a, only(&Limits::without, {item(a, "club")})).outfit) ==
          Ids{"cap", "stick"});
    CHECK(worn(a, best_of(a, only(&Limits::with, {item(a, "stick")})).outfit) ==
          Ids{"cap", "stick"});
    // 10 buys the club; 11 the stick and the cap, but the club alone is better; 16 no more.
    CHECK(worn(a, best_of(a, worth(9)).outfit) == Ids{"stick"});
    CHECK(worn(a, best_of(a, worth(11)).outfit) == Ids{"club"});
    CHECK(worn(a, best_of(a, worth(17)).outfit) == Ids{"cap", "club"});
    CHECK(worn(a, best_of(a, worth(0)).outfit).empty());
    const Armoury tiers = shop("[item.blade]\nslot = \"hand\"\ntier = \"fine\"\nadd = { attack = "
                               "8 }\n");
    CHECK(worn(tiers, best_of(tiers).outfit) == Ids{"blade", "cap"});
    CHECK(worn(tiers, best_of(tiers, only(&Limits::highest_rank, 1)).outfit) == Ids{"cap", "club"});
}

TEST_CASE("what can't be worn there is told with its reason", "[M80]") {
    const Armoury a =
        shop("[item.late]\nslot = \"hand\"\nlevel = 1\nneeds = { level = 1, calling = "
             "[\"other\"] }\n[character.second]\ncalling = \"other\"\nbase = { "
             "max_health = 1 }\nactions = [\"strike\"]\n");
    BestOptions options;
    options.levels = a.levels;
    options.characters = {CharacterId(0)};
    options.encounters = {EncounterId(0)};
    options.limits.with = {item(a, "late")};
    const BestResult result = find_bests(a, options);
    REQUIRE(result.contexts.size() == 1);
    CHECK_FALSE(result.contexts[0].any);
    CHECK(result.contexts[0].reason.starts_with("late: "));
    Limits both;
    both.with = both.without = {item(a, "club")};
    options.limits = both;
    CHECK(find_bests(a, options).contexts[0].reason == "club: it is left out by what is asked for");
}

TEST_CASE("a proven best with sockets, uniques and two places is that of the search", "[M80]") {
    const Armoury a = shop("[slot.gem]\nsocket = true\n"
                           "[item.helm]\nslot = \"head\"\nsockets = [\"gem\", \"gem\"]\n"
                           "[item.ruby]\nslot = \"gem\"\nunique = \"red\"\nadd = { attack = 2 }\n"
                           "[item.flint]\nslot = \"gem\"\nadd = { attack = 1 }\n");
    const BestOfContext best = best_of(a);
    CHECK(best.proven);
    // hand 3 ways, head: nothing, cap, helm with 3 × 3 fillings
    CHECK(best.candidates == 3 * (1 + 1 + 9));
    CHECK(worn(a, best.outfit) == Ids{"club", "flint", "helm", "ruby"});
}
