// What gear does first, last or not at all: the search takes the best order.
#include "support/armouries.h"

#include "chance/draws.h"
#include "judge/audit/audit.h"
#include "judge/search/action_orders.h"
#include "judge/search/search.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <fmt/format.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// Two gloves and two hats, each with health and an action of random force and cooldown; the hero
/// strikes for 10.
Armoury acting(std::uint64_t seed) {
    std::uint64_t drawn = 0;
    const auto draw = [&](int low, int high) {
        return low + static_cast<int>(blow_draws({seed, 0}, 0, drawn++).hit * (high - low));
    };
    std::string text;
    for (const char* id : {"hand0", "hand1", "head0", "head1"})
        text += fmt::format("[action.{0}]\nevery = \"{1}\"\ncooldown = {2}\n"
                            "deals = {{ blunt = \"{3}\" }}\n"
                            "[item.{0}]\nslot = \"{4}\"\nadd = {{ max_health = {5} }}\n"
                            "actions = [\"{0}\"]\n",
                            id, draw(1, 4), draw(0, 6), draw(2, 50), std::string(id).substr(0, 4),
                            draw(0, 30));
    return armoury(arena(text));
}

/// The highest margin of everything that can be worn in every order, by trying everything.
double best_of_all_orders(const Armoury& a, EncounterId encounter) {
    Engine engine(a);
    double best = 0;
    const auto id = [&](const std::string& name) { return find_id<ItemKind>(a.items, name); };
    const auto try_order = [&](Outfit outfit, const std::vector<ActionId>& order) {
        outfit.actions = order;
        const FightSetup setup = set_up_fight(a, outfit, encounter);
        engine.prepare(setup);
        best = std::max(best, even_margin(engine).value);
    };
    for (const ItemId hand : {ItemId(), id("hand0"), id("hand1")})
        for (const ItemId head : {ItemId(), id("head0"), id("head1")}) {
            Outfit outfit{CharacterId(0), 1, {}, {}, {}, {}, {}};
            std::vector<ActionId> all = a.characters.front().actions;
            for (const ItemId item : {hand, head}) {
                if (!item.given()) continue;
                outfit.worn.push_back({a.at(item).slot, item, {}, {}});
                all.push_back(a.at(item).actions.front());
            }
            std::sort(all.begin(), all.end());
            do
                for (std::size_t n = 1; n <= all.size(); ++n)
                    try_order(outfit, {all.begin(), all.begin() + static_cast<std::ptrdiff_t>(n)});
            while (std::next_permutation(all.begin(), all.end()));
        }
    return best;
}

} // namespace

TEST_CASE("each action of gear stands first, last, or is left out", "[M61][M80]") {
    const ActionId strike(0), bolt(1), slam(2);
    CHECK(action_orders({}, {strike}) == std::vector<std::vector<ActionId>>{{strike}});
    CHECK(action_orders({bolt}, {strike}) ==
          std::vector<std::vector<ActionId>>{{bolt, strike}, {strike, bolt}, {strike}});
    CHECK(action_orders({bolt, bolt}, {strike}) ==
          std::vector<std::vector<ActionId>>{{bolt, bolt, strike}, {strike, bolt, bolt}, {strike}});
    CHECK(action_orders({bolt, slam}, {strike}).size() == 11);
    CHECK(action_orders({bolt}, {}) == std::vector<std::vector<ActionId>>{{bolt}});
}

TEST_CASE("the best has its actions in the order in which it is best", "[M80]") {
    constexpr int armouries = 40;
    int found = 0, ordered = 0;
    for (std::uint64_t seed = 0; seed < armouries; ++seed) {
        const Armoury a = acting(seed);
        const EncounterId bites = find_id<EncounterKind>(a.encounters, "bites");
        const std::vector<ItemId> groups = twin_groups(compare_on_paper(a));
        Search search(a, groups);
        search.try_all_up_to(seed % 2 == 0 ? 0 : 5000);
        search.enter({CharacterId(0), 1, bites});
        REQUIRE(search.find_best());
        const double best = best_of_all_orders(a, bites);
        INFO("seed " << seed);
        CHECK(search.best().margin.value < best * 1.001);
        found += search.best().margin.value > best * 0.999;
        // What is told is an outfit that reaches that margin by itself.
        const Outfit outfit = search.outfit_of(search.best().candidate);
        ordered += !outfit.actions.empty();
        const FightSetup setup = set_up_fight(a, outfit, bites);
        Engine engine(a);
        engine.prepare(setup);
        CHECK(even_margin(engine).value == search.best().margin.value);
    }
    CHECK(found >= armouries - 1);
    CHECK(ordered >= armouries / 4);
}

TEST_CASE("good gloves are no burden for a bolt that is weaker than a strike", "[M80][M83]") {
    const Armoury a = armoury(arena("[action.bolt]\nevery = \"1\"\ndeals = { blunt = \"3\" }\n"
                                    "[item.gloves]\nslot = \"hand\"\nadd = { max_health = 30 }\n"
                                    "actions = [\"bolt\"]\n"));
    AuditOptions options;
    options.levels = {1, 1};
    const AuditResult result = audit(a, options);
    REQUIRE(result.items.size() == 1);
    CHECK(result.items[0].verdict == Verdict::sound);
    CHECK(result.contexts[0].outfit.actions.front() == a.characters.front().actions.front());
}
