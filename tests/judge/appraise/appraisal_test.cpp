#include "support/armouries.h"

#include "judge/appraise/appraisal.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;

namespace {

Appraisal of(const Armoury& armoury, const std::string& item) {
    return appraise(armoury, find_id<ItemKind>(armoury.items, item), compare_on_paper(armoury));
}

} // namespace

TEST_CASE("an appraisal says from which level who can wear it, or why never", "[M41]") {
    const Armoury a = armoury(
        duel() + "[character.porter]\ncalling = \"porter\"\nbase = { max_health = 9, might = 3 "
                 "}\ngrowth = { might = 4 }\nactions = [\"strike\"]\n"
                 "[item.yoke]\nslot = \"charm\"\nlevel = 2\nneeds = { calling = \"porter\", stats "
                 "= { might = 14 } }\n");
    const Appraisal yoke = of(a, "yoke");
    REQUIRE(yoke.wearers.size() == 2);
    CHECK(yoke.wearers[0].first == 0);
    CHECK(yoke.wearers[0].reasons ==
          std::vector<std::string>{"it is for porter only; hero is of no calling",
                                   "it needs 14 might; hero has 10 with nothing worn at level 10"});
    CHECK(yoke.wearers[1].first == 4); // 3 + 3 × 4 is 15
    CHECK(yoke.wearers[1].reasons.empty());
}

TEST_CASE("what it does alone is power with nothing else worn", "[M70]") {
    const Armoury a = armoury(
        duel() + "[action.bite]\nevery = \"1\"\ndeals = { blunt = \"self.attack\" }\n[foe.post]\n"
                 "base = { max_health = 100, attack = 10 }\nactions = [\"bite\"]\n"
                 "[encounter.post]\nfoe_level = \"1\"\nfoes = [ { foe = \"post\" } ]\n"
                 "[yardstick]\nencounter = \"post\"\n"
                 "[item.club]\nslot = \"hand\"\nadd = { attack = 2 }\n");
    const Appraisal club = of(a, "club");
    REQUIRE(club.wearers.at(0).bare);
    CHECK(*club.wearers[0].bare == Approx(1).epsilon(1e-3));
    CHECK(*club.wearers[0].wearing == Approx(std::sqrt(1.2)).epsilon(1e-3));
}

TEST_CASE("rivals share a place and are neither older nor newer by more than the grace", "[M81b]") {
    const Armoury a =
        armoury(duel() + "[audit]\nwindow = 3\ngrace = 1\n"
                         "[item.one]\nslot = \"hand\"\nlevel = 4\nadd = { attack = 1 }\n"
                         "[item.old]\nslot = \"hand\"\nlevel = 2\nadd = { attack = 2 }\n"
                         "[item.near]\nslot = \"hand\"\nlevel = 3\nadd = { attack = 3 }\n"
                         "[item.late]\nslot = \"hand\"\nlevel = 5\nadd = { attack = 4 }\n"
                         "[item.later]\nslot = \"hand\"\nlevel = 6\nadd = { attack = 5 }\n"
                         "[item.cap]\nslot = \"head\"\nlevel = 4\nadd = { attack = 6 }\n"
                         "[item.maul]\nslot = \"head\"\ntakes = [\"hand\"]\nlevel = 4\n"
                         "[item.twin]\nslot = \"hand\"\nlevel = 4\nadd = { attack = 1 }\n");
    CHECK(ids(a, of(a, "one").rivals) == "near late maul ");
}

TEST_CASE("after the way out nothing outclasses it", "[M82]") {
    const std::string costs = with(with(duel(), "[stat.attack]\n", "[stat.attack]\ncost = 2\n"),
                                   "[stat.guard]\n", "[stat.guard]\ncost = 0.5\n");
    const std::string hats =
        "[item.high]\nslot = \"head\"\nadd = { attack = 5, guard = 9 }\nweight = 2\n"
        "[item.higher]\nslot = \"head\"\nadd = { attack = 4, guard = 12 }\nweight = "
        "1.5\n";
    const std::string low =
        "[item.low]\nslot = \"head\"\nadd = { attack = 4, guard = 8 }\nweight = 3\n";
    const Armoury a = armoury(costs + hats + low);
    const Appraisal before = of(a, "low");
    REQUIRE(before.way_out);
    // 6 attack cost 4 points more, 13 guard 2.5.
    CHECK(a.at(before.way_out->stat).id == "guard");
    CHECK(before.way_out->now == 8);
    CHECK(before.way_out->then == 13);
    CHECK(before.way_out->cost == 2.5);
    CHECK(before.way_out->weight_below == 1.5);
    const Armoury by_stat = armoury(costs + hats + with(low, "guard = 8", "guard = 13"));
    CHECK_FALSE(of(by_stat, "low").way_out);
    const Armoury nearly = armoury(costs + hats + with(low, "guard = 8", "guard = 12"));
    CHECK(of(nearly, "low").way_out);
    const Armoury by_weight = armoury(costs + hats + with(low, "weight = 3", "weight = 1.4"));
    CHECK_FALSE(of(by_weight, "low").way_out);
}
