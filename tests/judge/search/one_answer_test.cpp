// What is found hangs on the context and on what is asked for, on nothing else; and a margin on the
// outfit and the context alone.
#include "fight/setup.h"
#include "judge/audit/audit.h"
#include "judge/paper/paper.h"
#include "judge/search/best.h"
#include "judge/search/ladder.h"
#include "support/armouries.h"
#include "support/truth.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const TruthKind& kind(std::string_view name) {
    return *std::find_if(truth_kinds().begin(), truth_kinds().end(),
                         [&](const TruthKind& one) { return one.name == name; });
}

/// Outfits of small armouries with a bag of draughts, put together at random.
template <class Visit>
void for_each_drawn(const Visit& visit) {
    std::mt19937 numbers(7);
    std::uniform_real_distribution<double> share(0, 1);
    for (std::uint32_t seed = 1; seed <= 5; ++seed) {
        const Armoury a = armoury(truth_armoury(kind("a bag"), seed));
        const std::vector<ItemId> twins = twin_groups(compare_on_paper(a));
        Search search(a, twins);
        search.enter({CharacterId(0), 1, EncounterId(0)});
        Engine engine(a);
        for (int i = 0; i < 8; ++i) {
            const Outfit outfit = search.outfit_of(search.drawn([&] { return share(numbers); }));
            const FightSetup setup = set_up_fight(a, outfit, EncounterId(0));
            engine.prepare(setup);
            visit(engine);
        }
    }
}

/// The numbers of an item where its conditions are searched in an order.
std::vector<double> numbers_of(const Armoury& a, std::vector<ItemId> order, ItemId of) {
    const std::vector<ItemId> twins = twin_groups(compare_on_paper(a));
    Search search(a, twins);
    search.try_all_up_to(0);
    search.enter({CharacterId(0), 1, EncounterId(0)});
    REQUIRE(search.find_best());
    for (const ItemId item : order) search.find_for(item);
    search.settle();
    std::vector<double> numbers = {search.best().margin.value};
    for (const Found* found :
         {&search.with(of), &search.without(of), &search.empty(search.one_place_of(of))})
        numbers.push_back(found->any ? found->margin.value : 0);
    return numbers;
}

std::string told(const Armoury& a, const Outfit& outfit) {
    std::string text;
    for_each_worn(outfit.worn, [&](const WornItem& worn) { text += a.at(worn.item).id + " "; });
    for (const PackedItem& packed : outfit.pack)
        text += std::to_string(packed.count) + " " + a.at(packed.item).id + " ";
    return text;
}

} // namespace

TEST_CASE("a margin is the lowest turn on the grid, and the same from every guess", "[M69a]") {
    for_each_drawn([](Engine& engine) {
        const Margin margin = even_margin(engine);
        REQUIRE(margin.reach == Reach::within);
        for (const double guess :
             {weakest, 0.3, margin.value * 0.96, margin.value * 1.04, 3.0, strongest})
            CHECK(even_margin(engine, guess).value == margin.value);
        constexpr int lines_of_the_half = 416;
        const double apart = std::log(strongest) / lines_of_the_half;
        const int lost = static_cast<int>(std::ceil(std::log(margin.value) / apart));
        const auto won = [&](int line) {
            return engine.run(std::exp(line * apart), std::nullopt, Detail::outcome).won;
        };
        CHECK_FALSE(won(lost));
        for (int line = lost - 10; line < lost; ++line) CHECK(won(line));
    });
}

TEST_CASE("what an item is measured by does not hang on what else is asked", "[M80]") {
    const Armoury a = armoury(truth_armoury(kind("all at once"), 2));
    std::vector<ItemId> all;
    for (std::size_t i = 0; i < a.items.size(); ++i)
        if (a.items[i].worn()) all.emplace_back(i);
    std::vector<ItemId> backward(all.rbegin(), all.rend());
    for (const ItemId item : {all.front(), all[all.size() / 2], all.back()}) {
        const std::vector<double> alone = numbers_of(a, {item}, item);
        CHECK(numbers_of(a, all, item) == alone);
        CHECK(numbers_of(a, backward, item) == alone);
        CHECK(*std::max_element(alone.begin(), alone.end()) == alone.front());
    }
}

TEST_CASE("what is searched again does not hang on the context that came before", "[M80]") {
    const Armoury demo = demo_armoury();
    const std::vector<ItemId> twins = twin_groups(compare_on_paper(demo));
    const ItemId crest = find_id<ItemKind>(demo.items, "reed_crest");
    const EncounterId ford = find_id<EncounterKind>(demo.encounters, "ford");
    const Context context{find_id<CharacterKind>(demo.characters, "warden"), 20, ford};
    Search whole(demo, twins);
    whole.enter(context);
    REQUIRE(whole.find_best());
    whole.find_for(crest);
    const Search::Findings findings = whole.findings_for(crest);
    const auto with_it = [&](Search& search) {
        search.enter(context);
        REQUIRE(search.find_again(crest, findings));
        return search.with(crest).margin.value;
    };
    Search fresh(demo, twins);
    Search used(demo, twins);
    used.enter({CharacterId(0), 12, ford});
    REQUIRE(used.find_best());
    CHECK(with_it(used) == with_it(fresh));
}

TEST_CASE("with an item and for it alone is one search, also beside a two-handed best", "[M80b]") {
    // On this place of the demo the best with a bell for two hands and the best with a mallet and a
    // shield share hardly anything.
    const Armoury demo = demo_armoury();
    const std::vector<ItemId> twins = twin_groups(compare_on_paper(demo));
    const ItemId mallet = find_id<ItemKind>(demo.items, "choir_mallet");
    const Context context{find_id<CharacterKind>(demo.characters, "ringer"), 19,
                          find_id<EncounterKind>(demo.encounters, "causeway")};
    Limits limits;
    limits.highest_rank = demo.at(find_id<TierKind>(demo.tiers, "chorus")).rank;
    Search search(demo, twins);
    search.limit(limits);
    search.enter(context);
    REQUIRE(search.find_best());
    search.find_with(mallet);
    limits.with = {mallet};
    Search required(demo, twins);
    required.limit(limits);
    required.enter(context);
    REQUIRE(required.find_best());
    constexpr double near = 1e-3;
    CHECK(std::abs(std::log(search.with(mallet).margin.value / required.best().margin.value)) <
          near);
}

TEST_CASE("the best, a rung of the tier ladder and an audit tell one outfit and one margin",
          "[M80][M95]") {
    const Armoury demo = demo_armoury();
    const Judging judging(demo);
    const CharacterId ringer = find_id<CharacterKind>(demo.characters, "ringer");
    const EncounterId ford = find_id<EncounterKind>(demo.encounters, "ford");
    const int middle = demo.at(find_id<TierKind>(demo.tiers, "tuned")).rank;
    const int all = std::numeric_limits<int>::max();
    Search search(demo, judging.twins);
    const auto ladder =
        find_ladder(demo, judging.twins, {ringer, 16, ford}, {middle, all}, {}, search);
    REQUIRE(ladder.size() == 2);
    BestOptions options;
    options.characters = {ringer};
    options.encounters = {ford};
    options.levels = {16, 16};
    options.bound_fights = 0;
    const auto best_up_to = [&](int rank) {
        options.limits.highest_rank = rank;
        return find_bests(judging, options).contexts.front();
    };
    CHECK(told(demo, best_up_to(middle).outfit) == told(demo, ladder[0].value()));
    const BestOfContext best = best_up_to(all);
    CHECK(told(demo, best.outfit) == told(demo, ladder[1].value()));
    AuditOptions audit_options;
    audit_options.characters = {ringer};
    audit_options.encounters = {ford};
    audit_options.levels = {16, 16};
    const ContextRow row = audit(judging, audit_options).contexts.front();
    CHECK(row.best.value == best.margin.value);
    CHECK(told(demo, row.outfit) == told(demo, best.outfit));
}
