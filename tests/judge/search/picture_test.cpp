// What a search answers where weight, the bag and places bind, against trying everything.
#include "judge/audit/audit.h"
#include "judge/paper/paper.h"
#include "show/audit/show_audit.h"
#include "show/audit/verdict_words.h"
#include "support/armouries.h"
#include "support/truth.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;

namespace {

std::vector<double> answers(const Armoury& armoury, double all_up_to) {
    const Judging judging(armoury);
    Search search(armoury, judging.twins);
    search.try_all_up_to(all_up_to);
    return truth_answers(search);
}

/// Two armours of which only one can be carried beside the blade that is asked for.
const std::string heavy = R"(
[carry]
capacity = "10"
limit = 1.0
[item.blade]
slot = "hand"
weight = 7
add = { attack = 4 }
[item.knife]
slot = "hand"
weight = 1
add = { attack = 3 }
[item.plate]
slot = "head"
weight = 9
add = { max_health = 80 }
[item.cap]
slot = "head"
weight = 3
add = { max_health = 30 }
[item.anvil]
slot = "charm"
weight = 11
add = { max_health = 500 }
)";

} // namespace

TEST_CASE("search: answers under limits are those of trying everything", "[M80][M86a]") {
    for (const TruthKind& kind : truth_kinds()) {
        if (kind.bag) continue; // too many outfits to be tried here: bench/ does
        for (std::uint32_t seed = 101; seed <= 102; ++seed) {
            const Armoury a = armoury(truth_armoury(kind, seed));
            const std::vector<double> right = answers(a, 1e9);
            const std::vector<double> found = answers(a, 0);
            REQUIRE(right.size() == found.size());
            INFO(kind.name << ", seed " << seed);
            for (std::size_t i = 0; i < right.size(); ++i)
                CHECK((right[i] == found[i] || std::abs(right[i] - found[i]) < 1e-3));
        }
    }
}

TEST_CASE("search: a full bag does not keep from what is asked for", "[M86a]") {
    TruthKind small = *std::find_if(truth_kinds().begin(), truth_kinds().end(),
                                    [](const TruthKind& kind) { return kind.bag; });
    small.items = 2;
    const Armoury a = armoury(truth_armoury(small, 7));
    const std::vector<double> right = answers(a, 1e9);
    const std::vector<double> found = answers(a, 0);
    REQUIRE(right.size() == found.size());
    for (std::size_t i = 0; i < right.size(); ++i)
        CHECK((right[i] == found[i] || std::abs(right[i] - found[i]) < 2e-3));
}

TEST_CASE("search: what is asked for makes room for itself, whatever was too heavy beside it",
          "[M86a]") {
    const Armoury a = armoury(arena(heavy));
    const Judging judging(a);
    Search search(a, judging.twins);
    search.try_all_up_to(0);
    search.enter({CharacterId(0), 1, EncounterId(0)}, {});
    REQUIRE(search.find_best());
    const auto item = [&](const char* id) {
        return ItemId(
            static_cast<std::size_t>(std::find_if(a.items.begin(), a.items.end(),
                                                  [&](const Item& one) { return one.id == id; }) -
                                     a.items.begin()));
    };
    for (const char* id : {"blade", "plate", "anvil"}) search.find_with(item(id));
    CHECK(search.with(item("blade")).any);
    CHECK(search.with(item("plate")).any);
    CHECK_FALSE(search.with(item("anvil")).any);
}

TEST_CASE("audit: what no legal loadout has is unjudged, and its sentence says why", "[M86b]") {
    const Armoury a = armoury(arena(heavy));
    AuditOptions options;
    options.levels = {1, 2};
    const AuditResult result = audit(a, options);
    for (const ItemVerdict& verdict : result.items) {
        const std::string& id = a.at(verdict.item).id;
        if (id != "anvil") continue;
        CHECK(verdict.verdict == Verdict::unjudged);
        CHECK(has(verdict.sentence, "No legal loadout has it"));
        CHECK(urgency(verdict) < calls_for_nothing);
        for (const ItemContextRow& row : result.rows)
            if (row.item == verdict.item) CHECK(row.with == nothing_legal);
    }
    const std::string text = show_audit(a, options, result).text;
    CHECK(has(text, "anvil — unjudged: No legal loadout has it"));
}
