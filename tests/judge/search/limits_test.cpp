// What keeps the best from something better, and that it packs nothing that it does not need.
#include "judge/audit/audit.h"
#include "judge/paper/paper.h"
#include "judge/search/search.h"
#include "support/armouries.h"
#include "support/truth.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

struct Best {
    explicit Best(const std::string& text)
        : a(armoury(text)),
          twins(twin_groups(compare_on_paper(a))),
          search(a, twins) {
        search.enter({CharacterId(0), 1, EncounterId(0)});
        REQUIRE(search.find_best());
    }
    [[nodiscard]] double margin() const { return search.best().margin.value; }

    Armoury a;
    std::vector<ItemId> twins;
    Search search;
};

/// More than what is told as binding has to be worth.
bool is_better(double more, double than) {
    return more > than * 1.002;
}

} // namespace

TEST_CASE("search: weight binds where a larger capacity would lead to a better best", "[M86c]") {
    std::size_t binding = 0;
    for (const char* kind : {"a hard limit", "load bands"})
        for (std::uint32_t seed = 1; seed <= 6; ++seed)
            for (const char* strength : {"strength = 40", "strength = 400"}) {
                const auto& of = *std::find_if(
                    truth_kinds().begin(), truth_kinds().end(),
                    [&](const TruthKind& one) { return one.name == std::string(kind); });
                const std::string text = with(truth_armoury(of, seed), "strength = 40", strength);
                const Best best(text);
                const Best free(with(text, strength, "strength = 4000"));
                INFO(kind << " " << seed << " " << strength);
                CHECK(best.search.limiting().weight_binds ==
                      is_better(free.margin(), best.margin()));
                CHECK_FALSE(best.search.limiting().bag_binds);
                binding += best.search.limiting().weight_binds;
            }
    CHECK(binding > 3);
}

TEST_CASE("search: the bag binds where a larger one would lead to a better best", "[M86c]") {
    const auto& of = *std::find_if(truth_kinds().begin(), truth_kinds().end(),
                                   [](const TruthKind& one) { return one.bag && !one.limit; });
    std::size_t binding = 0;
    for (std::uint32_t seed = 1; seed <= 4; ++seed)
        for (const char* bag : {"bag = 1", "bag = 2", "bag = 9"}) {
            const std::string text = with(truth_armoury(of, seed), "bag = 2", bag);
            const Best best(text);
            INFO(seed << " " << bag);
            const bool rises = is_better(Best(with(text, bag, "bag = 20")).margin(), best.margin());
            CHECK(best.search.limiting().bag_binds == rises);
            CHECK(best.search.limiting().stacks <= best.search.limiting().bag);
            binding += rises;
        }
    CHECK(binding > 2);
}

TEST_CASE("search: each unit that a best packs makes a difference", "[M80]") {
    for (const TruthKind& kind : truth_kinds()) {
        if (!kind.bag) continue;
        for (std::uint32_t seed = 1; seed <= 3; ++seed) {
            Best best(truth_armoury(kind, seed));
            const Candidate told = best.search.best().candidate;
            for (std::size_t c = 0; c < told.counts.size(); ++c) {
                if (told.counts[c] == 0) continue;
                Candidate less = told;
                --less.counts[c];
                const auto margin = best.search.turn(less);
                REQUIRE(margin);
                INFO(kind.name << " " << seed << " consumable " << c);
                CHECK(margin->value < best.margin() * (1 - 5e-5));
            }
        }
    }
}

TEST_CASE("audit: says in how many bests weight and the bag bind, and where they would", "[M86c]") {
    const auto remarks = [](const std::string& capacity) {
        const Armoury a = armoury(
            with(truth_armoury(truth_kinds()[6], 1), "strength = 40", "strength = " + capacity));
        AuditOptions options;
        options.levels = a.levels;
        std::string text;
        for (const std::string& remark : audit(a, options).remarks) text += remark + "\n";
        return text;
    };
    CHECK(has(remarks("40"), "weight binds in 1 of 1 best:"));
    CHECK(has(remarks("4000"), "weight binds in none of 1 best:"));
    CHECK(has(remarks("4000"), "the bag binds in "));
}
