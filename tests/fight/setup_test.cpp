// A character that is set up where another was before has nothing of that one.
#include "support/armouries.h"

#include "fight/setup.h"
#include "model/growth.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

TEST_CASE("a character set up into another's memory is as one set up anew", "[M61][M33]") {
    const Armoury a = demo_armoury();
    ActorSetup used;
    for (const Loadout& loadout : a.loadouts) {
        INFO(loadout.id);
        const Outfit outfit = outfit_of(a, loadout, loadout.levels.first);
        const ActorSetup fresh = set_up_character(a, outfit);
        set_up_character(a, outfit, base_stats(a, a.at(outfit.character), outfit.level), used);
        CHECK(used.name == fresh.name);
        CHECK(used.level == fresh.level);
        CHECK(used.base == fresh.base);
        CHECK(used.sums.add == fresh.sums.add);
        CHECK(used.sums.percent == fresh.sums.percent);
        CHECK(used.sums.times == fresh.sums.times);
        CHECK(used.actions == fresh.actions);
        CHECK(used.triggers == fresh.triggers);
        CHECK(used.worn == fresh.worn);
        CHECK(used.granted == fresh.granted);
        CHECK(used.pack.size() == fresh.pack.size());
        REQUIRE(used.rules.size() == fresh.rules.size());
        for (std::size_t i = 0; i < used.rules.size(); ++i) {
            CHECK(used.rules[i].packed == fresh.rules[i].packed);
            CHECK(used.rules[i].when.text == fresh.rules[i].when.text);
        }
    }
}
