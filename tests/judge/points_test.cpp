// Points that a character spends on upgrades: by loadouts in parts, by searches as is best (M45).
#include "judge/search/best.h"
#include "judge/search/search.h"
#include "outfit/points.h"
#include "outfit/refusals.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;
using Catch::Matchers::WithinAbs;
using Catch::Matchers::WithinRel;

namespace {

/// The duel, whose hero has six points a level for three upgrades; `deft` takes two a level.
std::string with_points(const std::string& more) {
    return with(duel(), "[character.hero]\n", "[character.hero]\npoints = \"6 * level\"\n") +
           "[upgrade.strong]\npoints = 1\nmax = 99\nadd = { attack = 1 }\n[upgrade.tough]\npoints "
           "= 1\nmax = 99\nadd = { max_health = 10 }\n[upgrade.deft]\npoints = 2\nmax = 2\nadd = { "
           "haste = 5 }\n" +
           more;
}

std::string levels_of(const Armoury& armoury, const std::vector<BoughtUpgrade>& upgrades) {
    std::string text;
    for (const BoughtUpgrade& bought : upgrades)
        text += armoury.at(bought.upgrade).id + " " + std::to_string(bought.levels) + " ";
    return text;
}

} // namespace

TEST_CASE("a loadout spends its points in parts at each level", "[M45]") {
    const Armoury a = armoury(with_points(
        "[loadout.two]\ncharacter = \"hero\"\npoints = { strong = 2, tough = 1 }\n[loadout.odd]\n"
        "character = \"hero\"\npoints = { deft = 1, strong = 1 }\n"));
    const auto spent = [&](std::size_t loadout, int level) {
        return levels_of(a, outfit_of(a, a.loadouts[loadout], level).upgrades);
    };
    CHECK(spent(0, 1) == "");
    CHECK(spent(1, 1) == "strong 4 tough 2 ");
    CHECK(spent(1, 2) == "strong 8 tough 4 ");
    // Two levels of deft are all that there are: four points, and two for the other; then all.
    CHECK(spent(2, 1) == "deft 1 strong 4 ");
    CHECK(spent(2, 2) == "deft 2 strong 8 ");
    CHECK(spent(2, 3) == "deft 2 strong 14 ");
    CHECK(points_spent(a, outfit_of(a, a.loadouts[2], 3).upgrades) == 18);
}

TEST_CASE("who spends more than it has is refused", "[M45][M42]") {
    const Armoury a = armoury(with_points(
        "[loadout.l]\ncharacter = \"hero\"\nlevels = [1, 3]\nupgrades = { strong = 9 }\n"));
    Deriver deriver(a);
    const std::vector<Refusal> at_first = refusals(deriver, outfit_of(a, a.loadouts[1], 1));
    REQUIRE(at_first.size() == 1);
    CHECK(at_first[0].reasons[0] == "9 are spent, and hero has 6 at level 1");
    CHECK(refusals(deriver, outfit_of(a, a.loadouts[1], 2)).empty());
    CHECK(has(mistakes(read(with_points("[upgrade.grit]\nadd = { might = 1 }\n[loadout.l]\n"
                                        "character = \"hero\"\npoints = { grit = 1 }\n"))),
              "the upgrade 'grit' takes no points"));
}

TEST_CASE("a search spends points as trying every way does", "[M45][M80]") {
    // Against a biter the margin goes with attack × health: (10 + s)(100 + 10 t), s + t = 6 l.
    const Armoury a = armoury(with_points(biter(400)));
    for (const int level : {1, 2, 4}) {
        Judging judging(a);
        Search search(a, judging.twins, {});
        search.enter({CharacterId(0), level, find_id<EncounterKind>(a.encounters, "bites")});
        REQUIRE(search.find_best());
        const int points = points_at(a, CharacterId(0), level);
        double best = 0;
        Engine engine(a);
        for (int deft = 0; deft <= 2; ++deft)
            for (int strong = 0; strong + 2 * deft <= points; ++strong) {
                Outfit outfit = outfit_of(a, a.loadouts[0], level);
                outfit.upgrades = {{UpgradeId(0), strong, {}},
                                   {UpgradeId(1), points - strong - 2 * deft, {}},
                                   {UpgradeId(2), deft, {}}};
                const FightSetup setup =
                    set_up_fight(a, outfit, find_id<EncounterKind>(a.encounters, "bites"));
                engine.prepare(setup);
                best = std::max(best, even_margin(engine).value);
            }
        INFO(level << " " << levels_of(a, search.outfit_of(search.best().candidate).upgrades));
        CHECK_THAT(search.best().margin.value, WithinRel(best, 1e-3));
        CHECK(points_spent(a, search.outfit_of(search.best().candidate).upgrades) <= points);
        CHECK_FALSE(search.proven());
    }
}

TEST_CASE("gear that asks for a stat is worn by who spends points on it", "[M45][M41]") {
    const Armoury a = armoury(with_points(
        "[upgrade.mighty]\npoints = 1\nmax = 99\nadd = { might = 1 }\n" +
        piece("maul", "hand", "needs = { stats = { might = 14 } }\nadd = { attack = 50 }\n") +
        piece("boulder", "hand", "needs = { stats = { might = 40 } }\nadd = { attack = 500 }\n")));
    Judging judging(a);
    Search search(a, judging.twins, {});
    search.enter({CharacterId(0), 1, EncounterId(0)});
    REQUIRE(search.find_best());
    const Outfit best = search.outfit_of(search.best().candidate);
    CHECK(ids(a, {best.worn.at(0).item}) == "maul ");
    Deriver deriver(a);
    CHECK(refusals(deriver, best).empty());
    CHECK_FALSE(search.available(find_id<ItemKind>(a.items, "boulder")));
}
