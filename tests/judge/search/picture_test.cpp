// What a search answers where weight, the bag and places bind, against trying everything.
#include "fight/setup.h"
#include "judge/audit/audit.h"
#include "judge/paper/paper.h"
#include "outfit/refusals.h"
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

/// The same answers with nothing of the search: outfits of one thing a slot (or nothing), held to
/// the rules of wearing, and fought. No consumables, no slot of two places.
std::vector<double> answers_by_hand(const Armoury& a) {
    Engine engine(a);
    std::vector<std::vector<ItemId>> choices;
    for (std::size_t s = 0; s < a.slots.size(); ++s) {
        choices.push_back({{}});
        for (std::size_t i = 0; i < a.items.size(); ++i)
            if (a.items[i].slot == SlotId(s)) choices.back().emplace_back(i);
    }
    constexpr double none = -HUGE_VAL;
    double best = none;
    std::vector<double> with(a.items.size(), none), without(with), empty(a.slots.size(), none);
    std::vector<std::size_t> at(choices.size(), 0);
    for (std::size_t s = 0; s < at.size();) {
        Outfit outfit{CharacterId(0), 1, {}, {}, {}, {}, {}};
        for (std::size_t c = 0; c < at.size(); ++c)
            if (at[c] > 0) outfit.worn.push_back({SlotId(c), choices[c][at[c]], {}, {}});
        if (refusals(engine.deriver(), outfit).empty()) {
            const FightSetup setup = set_up_fight(a, outfit, EncounterId(0));
            engine.prepare(setup);
            const double margin = std::log(even_margin(engine).value);
            best = std::max(best, margin);
            for (std::size_t c = 0; c < at.size(); ++c) {
                if (at[c] == 0) empty[c] = std::max(empty[c], margin);
                for (std::size_t o = 1; o < choices[c].size(); ++o) {
                    double& known = (o == at[c] ? with : without)[choices[c][o].index()];
                    known = std::max(known, margin);
                }
            }
        }
        for (s = 0; s < at.size() && ++at[s] == choices[s].size(); ++s) at[s] = 0;
    }
    std::vector<double> answers = {best};
    for (std::size_t i = 0; i < a.items.size(); ++i)
        for (const double one : {with[i], without[i], empty[a.items[i].slot.index()]})
            answers.push_back(one);
    return answers;
}

void check_same(const std::vector<double>& right, const std::vector<double>& found, double within) {
    REQUIRE(right.size() == found.size());
    for (std::size_t i = 0; i < right.size(); ++i)
        CHECK((right[i] == found[i] || std::abs(right[i] - found[i]) < within));
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
            INFO(kind.name << ", seed " << seed);
            check_same(answers(a, 1e9), answers(a, 0), 1e-3);
        }
    }
}

TEST_CASE("search: trying everything gives what outfits give that are put together by hand",
          "[M80][M81]") {
    for (const TruthKind& kind : truth_kinds()) {
        if (kind.bag || kind.rings || kind.hands) continue;
        const Armoury a = armoury(truth_armoury(kind, 201));
        INFO(kind.name);
        check_same(answers_by_hand(a), answers(a, 1e9), 3e-4);
    }
}

TEST_CASE("search: a full bag does not keep from what is asked for", "[M86a]") {
    TruthKind small = *std::find_if(truth_kinds().begin(), truth_kinds().end(),
                                    [](const TruthKind& kind) { return kind.bag; });
    small.items = 2;
    for (const std::uint32_t seed : {1U, 7U}) {
        const Armoury a = armoury(truth_armoury(small, seed));
        INFO("seed " << seed);
        check_same(answers(a, 1e9), answers(a, 0), 2e-3);
    }
}

TEST_CASE("search: what is asked for makes room for itself, whatever was too heavy beside it",
          "[M86a]") {
    const Armoury a = armoury(arena(heavy));
    const Judging judging(a);
    Search search(a, judging.twins);
    search.try_all_up_to(0);
    search.enter({CharacterId(0), 1, EncounterId(0)});
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
