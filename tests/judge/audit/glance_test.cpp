// What an audit at a glance tells after a change, against a whole one.
#include "support/armouries.h"
#include "support/audits.h"

#include "judge/audit/earlier_audit.h"
#include "judge/tune/comparison.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace panoplon;
using namespace panoplon::test;

namespace {

AuditOptions all_levels(const Armoury& armoury) {
    AuditOptions options;
    options.levels = armoury.levels;
    return options;
}

std::string gear(const std::string& axe, const std::string& more = {}) {
    return arena(piece("axe", "hand", "add = { attack = " + axe + " }") +
                 piece("club", "hand", "add = { attack = 8 }") +
                 piece("cap", "head", "add = { max_health = 30 }") +
                 "[item.tonic]\nuse = { restore = { health = 20 }, cooldown = 5 }\n" + more);
}

/// Both looks at an armoury after a change, without anything that is known of it.
struct Looks {
    Looks(const ReadArmoury& before, const ReadArmoury& now) {
        const AuditResult earlier = audit(before.armoury, all_levels(before.armoury));
        MemoryOfRun nothing;
        glance = audit_again(now.armoury, all_levels(now.armoury), EarlierAudit(before, earlier),
                             {}, Recall(nothing, now));
        whole = audit(now.armoury, all_levels(now.armoury));
    }
    AuditResult glance, whole;
};

std::string verdicts(const Armoury& armoury, const AuditResult& result) {
    std::string text;
    const auto tell = [&](const ItemVerdict& one) {
        text += armoury.at(one.item).id + " " + verdict_name(one.verdict) + "\n";
    };
    for (const ItemVerdict& one : result.items) tell(one);
    for (const ConsumableVerdict& one : result.consumables) tell(one.judged);
    return text;
}

void check_same(const ReadArmoury& now, const Looks& looks, double tolerance = 3e-4) {
    REQUIRE(looks.glance.contexts.size() == looks.whole.contexts.size());
    for (std::size_t i = 0; i < looks.whole.contexts.size(); ++i)
        CHECK(looks.glance.contexts[i].best.value ==
              Approx(looks.whole.contexts[i].best.value).epsilon(tolerance));
    CHECK(verdicts(now.armoury, looks.glance) == verdicts(now.armoury, looks.whole));
}

} // namespace

TEST_CASE("a glance tells what a search tells where the outfits are the same ones", "[M86d]") {
    const ReadArmoury before = test::read(gear("6"));
    for (const char* attack : {"6.5", "3", "8", "12", "40"}) {
        INFO(attack);
        const ReadArmoury now = test::read(gear(attack));
        check_same(now, Looks(before, now));
    }
}

TEST_CASE("a glance fights all anew where a rule, a foe or a character is another", "[M86d]") {
    const ReadArmoury before = test::read(gear("6"));
    const std::string text = gear("6");
    for (const auto& [from, to] :
         {std::pair("attack = 0.5", "attack = 0.7"), std::pair("attack = 10", "attack = 13"),
          std::pair("growth = { max_health = 10", "growth = { max_health = 14")}) {
        INFO(from);
        const ReadArmoury now = test::read(with(text, from, to));
        check_same(now, Looks(before, now), 0.02); // a draught more may pay now
    }
}

TEST_CASE("a glance tries what is new, and leaves out what is gone", "[M86d]") {
    const ReadArmoury before = test::read(gear("6"));
    const ReadArmoury more = test::read(gear("6", piece("blade", "hand", "add = { attack = 20 }")));
    check_same(more, Looks(before, more));
    check_same(before, Looks(more, before));
    const ReadArmoury draught = test::read(
        gear("6", "[item.draught]\nuse = { restore = { health = 60 }, cooldown = 5 }\n"));
    check_same(draught, Looks(before, draught), 0.06); // how many are best a search finds out
}

TEST_CASE("what is too heavy at one glance is there again at the next", "[M86d]") {
    const auto weighing = [](const std::string& weight) {
        return test::read(
            gear("12", "[carry]\ncapacity = \"10\"\nlimit = 1\n" +
                           piece("stone", "hand", "add = { attack = 30 }\nweight = " + weight)));
    };
    const ReadArmoury light = weighing("5"), heavy = weighing("50");
    REQUIRE(mistakes(light).empty());
    MemoryOfRun nothing, still_nothing;
    const AuditResult first = audit(light.armoury, all_levels(light.armoury));
    const AuditResult second = audit_again(heavy.armoury, all_levels(heavy.armoury),
                                           EarlierAudit(light, first), {}, Recall(nothing, heavy));
    const AuditResult third =
        audit_again(light.armoury, all_levels(light.armoury), EarlierAudit(heavy, second), {},
                    Recall(still_nothing, light));
    CHECK(second.contexts.front().best.value < first.contexts.front().best.value);
    CHECK(third.contexts.front().best.value ==
          Approx(first.contexts.front().best.value).epsilon(3e-4));
}

TEST_CASE("no best is higher at a glance than one that a search would take", "[M86d]") {
    const TempFolder folder;
    write_demo(folder);
    AuditOptions options;
    options.levels = {8, 8};
    const auto reading = [&](const std::string& change) {
        Result<ReadArmoury> read = read_armoury(
            folder.path(), change.empty() ? std::vector<std::string>() : std::vector{change});
        REQUIRE(read.ok());
        REQUIRE(read.value().usable());
        return read.take();
    };
    const ReadArmoury before = reading("");
    const AuditResult earlier = audit(before.armoury, options);
    const EarlierAudit known(before, earlier);
    for (const char* change : {"item.ash_striker.add.attack=16", "item.mint_drop.weight=0.1",
                               "character.ringer.base.max_health=150"}) {
        INFO(change);
        const ReadArmoury now = reading(change);
        MemoryOfRun memory;
        const AuditResult glance =
            audit_again(now.armoury, options, known, {}, Recall(memory, now));
        const AuditResult whole = audit(now.armoury, options);
        REQUIRE(glance.contexts.size() == whole.contexts.size());
        for (std::size_t i = 0; i < whole.contexts.size(); ++i) {
            CHECK(glance.contexts[i].best.value < whole.contexts[i].best.value * 1.01);
            CHECK(glance.contexts[i].best.value > whole.contexts[i].best.value * 0.95);
        }
    }
}

TEST_CASE("outfits that were seen are read back by name") {
    const ReadArmoury before = test::read(gear("6"));
    const AuditResult result = audit(before.armoury, all_levels(before.armoury));
    const Judging judging(before.armoury);
    Search search(before.armoury, judging.twins);
    search.enter(result.contexts.front().context);
    const AnswerNames names(before.armoury, search.wardrobe());
    const std::vector<Found> outfits = result.seen.front().read(names);
    CHECK(outfits.size() > 3);
    CHECK(SeenOutfits(outfits, names).bytes() == result.seen.front().bytes());
    const ReadArmoury fewer = test::read(with(gear("6"), "[item.axe]", "[item.hatchet]"));
    const Judging judging_fewer(fewer.armoury);
    const Search search_fewer(fewer.armoury, judging_fewer.twins);
    std::size_t whole = 0;
    for (const Found& one :
         result.seen.front().read(AnswerNames(fewer.armoury, search_fewer.wardrobe())))
        whole += one.any;
    CHECK(whole > 0);
    CHECK(whole < outfits.size());
}

TEST_CASE("a glance tries in the best whatever the outfits have in the place of each thing",
          "[M86d]") {
    const TempFolder folder;
    write_demo(folder);
    AuditOptions options;
    options.levels = {24, 24};
    const Result<ReadArmoury> before = read_armoury(folder.path());
    const Result<ReadArmoury> now =
        read_armoury(folder.path(), {"item.deep_clapper.percent.attack=40"});
    REQUIRE(before.ok());
    REQUIRE(now.ok());
    const AuditResult earlier = audit(before.value().armoury, options);
    MemoryOfRun memory;
    const AuditResult glance =
        audit_again(now.value().armoury, options, EarlierAudit(before.value(), earlier), {},
                    Recall(memory, now.value()));
    const AuditResult whole = audit(now.value().armoury, options);
    REQUIRE(glance.rows.size() == whole.rows.size());
    double lost = 0;
    std::size_t judged = 0;
    for (std::size_t i = 0; i < whole.rows.size(); ++i) {
        const ItemContextRow &seen = glance.rows[i], &right = whole.rows[i];
        if (!right.judged || right.without == right.best || seen.without <= 0) continue;
        ++judged;
        lost += std::max(0.0, std::log(right.without / seen.without));
    }
    REQUIRE(judged > 10);
    CHECK(lost / static_cast<double>(judged) < 0.005); // 0.0047; without that, 0.0058
}
