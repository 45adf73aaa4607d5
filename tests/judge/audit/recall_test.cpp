// What audits recall of contexts: the same verdicts with less work.
#include "support/armouries.h"
#include "support/local_post.h"

#include "judge/audit/audit.h"
#include "show/audit/show_audit.h"

#include <array>
#include <catch2/catch.hpp>
#include <functional>

using namespace panoplon;
using namespace panoplon::test;

namespace {

std::string gear(int axe, int late) {
    return "[item.axe]\nslot = \"hand\"\nadd = { attack = " + std::to_string(axe) +
           " }\n[item.cap]\nslot = \"head\"\nadd = { max_health = 30 }\n"
           "[item.late_cap]\nslot = \"head\"\nlevel = 5\nadd = { max_health = " +
           std::to_string(late) +
           " }\n[item.tonic]\nuse = { restore = { health = 20 }, cooldown = 5 }\n";
}

AuditResult audited(const ReadArmoury& read, Memory& memory) {
    AuditOptions options;
    options.levels = read.armoury.levels;
    return audit(read.armoury, options, {}, {memory, read});
}

/// What is known of the armoury, as an audit finds it there.
std::size_t known_of(const ReadArmoury& read, MemoryOfRun& memory) {
    const std::size_t before = memory.answered();
    (void)audited(read, memory);
    return memory.answered() - before;
}

/// All that an audit says.
std::string told(const ReadArmoury& read, const AuditResult& result) {
    AuditOptions options;
    options.levels = read.armoury.levels;
    return show_audit(read.armoury, options, result).json.dump() +
           csv_text(audit_detail(read.armoury, result));
}
std::string told_afresh(const ReadArmoury& read) {
    MemoryOfRun memory;
    return told(read, audited(read, memory));
}

/// With an ally that wears what the character can't.
std::string with_ally(int bow) {
    return with(arena(gear(5, 60)), "[encounter.bites]\n",
                "[encounter.bites]\nallies = [\"friend\"]\n") +
           "[character.archer]\nbase = { max_health = 50 }\nactions = [\"strike\"]\n"
           "[loadout.friend]\ncharacter = \"archer\"\nworn = { hand = \"bow\" }\n"
           "[item.bow]\nslot = \"hand\"\nneeds = { character = [\"archer\"] }\nadd = { attack = " +
           std::to_string(bow) + " }\n";
}

} // namespace

TEST_CASE("recall: a second audit searches nothing and says the same") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    MemoryOfRun memory;
    const AuditResult first = audited(read, memory);
    CHECK(memory.answered() == 0);
    const AuditResult second = audited(read, memory);
    CHECK(memory.answered() == second.contexts.size());
    CHECK(told(read, first) == told(read, second));
    AuditOptions options;
    options.levels = read.armoury.levels;
    CHECK(told(read, audit(read.armoury, options)) == told(read, first));
}

TEST_CASE("recall: what a change can't touch is known, and nothing else") {
    MemoryOfRun memory;
    (void)audited(test::read(arena(gear(5, 60))), memory);
    const ReadArmoury later = test::read(arena(gear(5, 90)));
    CHECK(known_of(later, memory) == 4); // levels 1 to 4 come before it
    CHECK(told(later, audited(later, memory)) == told_afresh(later));
    CHECK(known_of(test::read(arena(gear(6, 60))), memory) == 0);
    const ReadArmoury rules = test::read(
        with(arena(gear(5, 60)), "health = \"health\"", "health = \"health\"\ntime_limit = 170"));
    CHECK(known_of(rules, memory) == 0);
}

TEST_CASE("recall: a context is the same whatever else is looked at", "[M80]") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    MemoryOfRun memory;
    (void)audited(read, memory);
    AuditOptions later;
    later.levels = {5, 6};
    const AuditResult result = audit(read.armoury, later, {}, {memory, read});
    CHECK(memory.answered() == 2);
    CHECK(told(read, result) == told(read, audit(read.armoury, later)));
}

TEST_CASE("recall: items in another order mean the same") {
    const std::string one = "[item.axe]\nslot = \"hand\"\nadd = { attack = 5 }\n";
    const std::string two = "[item.late_cap]\nslot = \"head\"\nlevel = 8\nadd = { keen = 1 }\n";
    MemoryOfRun memory;
    (void)audited(test::read(arena(one + two)), memory);
    const ReadArmoury other = test::read(arena(two + one));
    CHECK(known_of(other, memory) == 7);
    CHECK(told(other, audited(other, memory)) == told_afresh(other));
}

TEST_CASE("recall: what an ally wears bears on a context that can't wear it") {
    AuditOptions options;
    options.levels = {1, 2};
    options.characters = {CharacterId(0)};
    MemoryOfRun memory;
    const auto told_with = [&](int bow) {
        const ReadArmoury read = test::read(with_ally(bow));
        INFO(mistakes(read));
        REQUIRE(read.usable());
        return told(read, audit(read.armoury, options, {}, {memory, read}));
    };
    const std::string weak = told_with(1);
    const std::string strong = told_with(9);
    CHECK(memory.answered() == 0);
    CHECK(weak != strong);
    CHECK(told_with(1) == weak);
    CHECK(memory.answered() == 2);
}

TEST_CASE("recall: another loadout or encounter is no reason to search again") {
    MemoryOfRun memory;
    (void)audited(test::read(arena(gear(5, 60))), memory);
    const std::string more = arena(gear(5, 60)) + "[loadout.late]\ncharacter = \"hero\"\n"
                                                  "[encounter.two]\nfoes = [{ foe = \"biter\", "
                                                  "count = 2 }]\n";
    CHECK(known_of(test::read(more), memory) == 10);
}

TEST_CASE("recall: what a memory says is fought again, and is not believed where it is not so") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    MemoryOfRun memory;
    const std::string first = told(read, audited(read, memory));
    const auto forged = [&](const auto& change) {
        class Forging : public MemoryOfRun {
          public:
            explicit Forging(std::function<void(Answer&)> change) : change_(std::move(change)) {}
            void keep(std::uint64_t key, const std::string& text) override {
                Answer answer = Answer::from_cbor(text);
                change_(answer);
                std::string bytes;
                Answer::to_cbor(answer, bytes);
                MemoryOfRun::keep(key, bytes);
            }

          private:
            std::function<void(Answer&)> change_;
        } false_memory(change);
        (void)audited(read, false_memory);
        const std::string again = told(read, audited(read, false_memory));
        CHECK(false_memory.answered() == 0);
        return again;
    };
    CHECK(forged([](Answer& a) { a["best"]["margin"] = 9.0; }) == first);
    CHECK(forged([](Answer& a) { a["best"]["reach"] = 7; }) == first);
    CHECK(forged([](Answer& a) {
              a["best"]["places"][0] = {"no_such_item", Answer::array()};
          }) == first);
    CHECK(forged([](Answer& a) { a["best"]["places"][0] = nullptr; }) == first);
    CHECK(forged([](Answer& a) { a["best"]["pack"] = "much"; }) == first);
    CHECK(forged([](Answer& a) { a["best"]["pack"] = {{"tonic", 1000000}}; }) == first);
    CHECK(forged([](Answer& a) { a.erase("best"); }) == first);
    CHECK(forged([](Answer& a) { a["worn"] = {{"axe", 1}}; }) == first);
    CHECK(forged([](Answer& a) { a = 3; }) == first);
}

TEST_CASE("an audit on several ranks says the same on each, and each context is searched once",
          "[M98]") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    const std::string alone = told_afresh(read);
    MemoryOfRun of_first; // keeps what it knew, as the store does
    for (const std::size_t ranks : {1, 2, 3}) {
        CAPTURE(ranks);
        std::vector<std::string> said(ranks);
        std::vector<std::size_t> known(ranks);
        on_ranks(ranks, [&](std::size_t rank, Ranks& all) {
            MemoryOfRun own;
            Memory& memory = rank == 0 ? static_cast<Memory&>(of_first) : own;
            said[rank] = told(read, audited(read, memory));
            known[rank] = rank == 0 ? of_first.size() : own.size();
            all.leave();
        });
        for (const std::string& one : said) CHECK(one == alone);
        for (const std::size_t one : known) CHECK(one >= 10);
    }
}

TEST_CASE("what only some items are judged by is shared among ranks and kept, too", "[M98]") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    AuditOptions options;
    options.levels = read.armoury.levels;
    options.judged = {true, false, false, false};
    const auto said = [&](Memory& memory) {
        return show_audit(read.armoury, options, audit(read.armoury, options, {}, {memory, read}))
            .json.dump();
    };
    MemoryOfRun alone;
    const std::string cold = said(alone);
    const std::size_t answered = alone.answered();
    CHECK(said(alone) == cold);
    CHECK(alone.answered() > answered);
    CHECK(told(read, audited(read, alone)) == told_afresh(read)); // of all items nothing is known
    std::array<std::string, 2> on_both;
    on_ranks(2, [&](std::size_t rank, Ranks& all) {
        MemoryOfRun own;
        on_both[rank] = said(own);
        all.leave();
    });
    for (const std::string& one : on_both) CHECK(one == cold);
}
