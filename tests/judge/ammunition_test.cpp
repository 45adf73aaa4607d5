// What actions spend, in searches and audits: it is packed with what spends it, and judged (M61b).
#include "judge/audit/audit.h"
#include "judge/search/search.h"
#include "support/armouries.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;
using Catch::Matchers::WithinRel;

namespace {

/// A bow that is of no use without arrows, and a club; what is carried has a limit.
std::string with_bow(const std::string& more) {
    return duel() + biter(400) +
           "[action.shoot]\nevery = 1\nspends = { arrow = 1 }\ndeals = { blunt = 30 }\n"
           "[item.bow]\nslot = \"hand\"\nactions = [\"shoot\"]\n[item.arrow]\nstack = 20\nweight = "
           "1\n" +
           piece("club", "hand", "add = { attack = 4 }\n") + more;
}

} // namespace

TEST_CASE("a search packs what an action spends, as much as helps", "[M61b][M80]") {
    const Armoury a = armoury(with_bow("[carry]\ncapacity = \"30\"\nbag = 2\nlimit = 1\n"));
    Judging judging(a);
    Search search(a, judging.twins, {});
    search.enter({CharacterId(0), 1, find_id<EncounterKind>(a.encounters, "bites")});
    REQUIRE(search.find_best());
    const Outfit best = search.outfit_of(search.best().candidate);
    CHECK(ids(a, {best.worn.at(0).item}) == "bow ");
    REQUIRE(best.pack.size() == 1);
    CHECK(a.at(best.pack[0].item).id == "arrow");
    // The best of every number of arrows that can be carried, and of the club.
    double most = 0;
    Engine engine(a);
    for (int arrows = 0; arrows <= 30; ++arrows) {
        Outfit outfit = best;
        outfit.pack[0].count = arrows;
        const FightSetup setup =
            set_up_fight(a, outfit, find_id<EncounterKind>(a.encounters, "bites"));
        engine.prepare(setup);
        most = std::max(most, even_margin(engine).value);
    }
    CHECK_THAT(search.best().margin.value, WithinRel(most, 1e-3));
}

TEST_CASE("ammunition is judged as consumables are", "[M61b][M84]") {
    const Armoury a = armoury(
        with(with_bow("[item.slug]\nstack = 20\n[action.sling]\nevery = "
                      "1\nspends = { slug = 1 }\ndeals = { blunt = 2 }\n"
                      "[item.sling]\nslot = \"hand\"\nactions = [\"sling\"]\n"),
             "foes = [ { foe = \"dummy\" } ]", "foes = [ { foe = \"dummy\" } ]\nweight = 0"));
    const AuditResult result = audit(Judging(a), {});
    REQUIRE(result.consumables.size() == 2);
    const ItemVerdict& arrow = result.consumables[0].judged;
    const ItemVerdict& slug = result.consumables[1].judged;
    CHECK(a.at(arrow.item).id == "arrow");
    CHECK(arrow.pick_share == 1);
    CHECK(arrow.ban_loss.mean > 0.2); // the club is what is left
    CHECK(slug.pick_share < 1);
    INFO(arrow.sentence);
    CHECK(has(arrow.sentence, "Best in 100 % of its contexts"));
}
