// Audits of armouries that are fair but for what was planted in them (M83).
#include "support/planted.h"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

using namespace panoplon::test;

TEST_CASE("property: an audit finds what was planted, and hardly anything else",
          "[M81a][M81b][M81c][M82][M83]") {
    panoplon::test::Found all;
    rc::check([&] {
        const auto seed = *rc::gen::arbitrary<std::uint64_t>();
        PlantedSize size;
        size.slots = *rc::gen::inRange(2, 5);
        size.generations = 3;
        size.share = 0.6;
        size.layout = *rc::gen::element(Layout::generations, Layout::ladder, Layout::tiers,
                                        Layout::bare_hands, Layout::rings);
        if (all.all().planted > 200) return; // enough for shares
        all.add(audit_planted(make_planted(seed, size)));
    });
    CAPTURE(all.wrong);
    CHECK(all.all().planted > 150);
    CHECK(all.recall() >= 0.95);
    CHECK(all.precision() >= 0.95);
}

TEST_CASE("a ladder with nothing planted has nothing to tell", "[M81b][M83]") {
    PlantedSize size;
    size.slots = 4;
    size.share = 0;
    size.layout = Layout::ladder;
    for (std::uint64_t seed = 1; seed <= 3; ++seed) {
        const panoplon::test::Found found = audit_planted(make_planted(seed, size));
        CHECK(found.wrong.empty());
        CHECK(found.items == 24);
    }
}

TEST_CASE("what overstays is told so") {
    // A seed that plants one is looked for, so that the case stands whatever the generator draws.
    for (std::uint64_t seed = 0; seed < 200; ++seed) {
        const PlantedArmoury planted = make_planted(seed, {2, 3, 3, 1, Layout::generations});
        for (const auto& [id, kind] : planted.planted) {
            if (kind != Planted::overstaying) continue;
            const panoplon::test::Found found = audit_planted(planted);
            CHECK(found.wrong.find(id) == std::string::npos);
            return;
        }
    }
    FAIL("no seed plants one");
}
