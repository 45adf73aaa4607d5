// Audits of armouries that are fair but for what was planted in them (M83).
#include "support/planted.h"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

using namespace panoplon::test;

TEST_CASE("property: an audit finds what was planted, and hardly anything else",
          "[M81a][M82][M83]") {
    panoplon::test::Found all;
    rc::check([&] {
        const auto seed = *rc::gen::arbitrary<std::uint64_t>();
        PlantedSize size;
        size.slots = *rc::gen::inRange(2, 5);
        size.generations = 3;
        size.share = 0.6;
        if (all.planted > 150) return; // enough for shares
        all.add(audit_planted(make_planted(seed, size)));
    });
    CAPTURE(all.wrong);
    CHECK(all.planted > 100);
    CHECK(all.recall() >= 0.95);
    CHECK(all.precision() >= 0.95);
}

TEST_CASE("what overstays is told so") {
    // A seed that plants one is looked for, so that the case stands whatever the generator draws.
    for (std::uint64_t seed = 0; seed < 200; ++seed) {
        const PlantedArmoury planted = make_planted(seed, {2, 3, 3, 1});
        for (const auto& [id, kind] : planted.planted) {
            if (kind != Planted::overstaying) continue;
            const panoplon::test::Found found = audit_planted(planted);
            CHECK(found.wrong.find(id) == std::string::npos);
            return;
        }
    }
    FAIL("no seed plants one");
}
