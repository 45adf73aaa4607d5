// What audits remember of contexts: the same verdicts with less work.
#include "support/armouries.h"

#include "judge/audit/audit.h"
#include "show/audit/memory_file.h"
#include "show/audit/show_audit.h"

#include <catch2/catch.hpp>

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

AuditResult audited(const ReadArmoury& read, ContextMemory* memory, std::uint64_t edition = 1) {
    AuditOptions options;
    options.levels = read.armoury.levels;
    return audit(read.armoury, options, {}, {memory, content_of(read), edition});
}

/// All that an audit says, but for what it saved.
std::string told(const ReadArmoury& read, AuditResult result) {
    result.recalled = 0;
    result.remarks.clear();
    AuditOptions options;
    options.levels = read.armoury.levels;
    return show_audit(read.armoury, options, result).json.dump() +
           csv_text(audit_detail(read.armoury, result));
}

} // namespace

TEST_CASE("memory: a second audit searches nothing and says the same") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    ContextMemory memory;
    const AuditResult first = audited(read, &memory);
    CHECK(first.recalled == 0);
    const AuditResult second = audited(read, &memory);
    CHECK(second.recalled == second.contexts.size());
    CHECK(told(read, first) == told(read, second));
    CHECK(told(read, audited(read, nullptr)) == told(read, first));
    CHECK(audited(read, &memory, 2).recalled == 0); // another program may search otherwise
}

TEST_CASE("memory: what a change can't touch is known, and nothing else") {
    ContextMemory memory;
    (void)audited(test::read(arena(gear(5, 60))), &memory);
    const ReadArmoury later = test::read(arena(gear(5, 90)));
    const AuditResult result = audited(later, &memory);
    CHECK(result.recalled == 4); // levels 1 to 4 come before it
    CHECK(told(later, result) == told(later, audited(later, nullptr)));
    const ReadArmoury axe = test::read(arena(gear(6, 60)));
    CHECK(audited(axe, &memory).recalled == 0);
    const ReadArmoury rules = test::read(
        with(arena(gear(5, 60)), "health = \"health\"", "health = \"health\"\ntime_limit = 170"));
    CHECK(audited(rules, &memory).recalled == 0);
}

TEST_CASE("memory: a context is the same whatever else is looked at", "[M80]") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    ContextMemory memory;
    (void)audited(read, &memory);
    AuditOptions later;
    later.levels = {5, 6};
    const AuditResult result = audit(read.armoury, later, {}, {&memory, content_of(read), 1});
    CHECK(result.recalled == 2);
    CHECK(told(read, result) == told(read, audit(read.armoury, later)));
}

TEST_CASE("memory: items in another order mean the same") {
    const std::string one = "[item.axe]\nslot = \"hand\"\nadd = { attack = 5 }\n";
    const std::string two = "[item.late_cap]\nslot = \"head\"\nlevel = 8\nadd = { keen = 1 }\n";
    ContextMemory memory;
    (void)audited(test::read(arena(one + two)), &memory);
    const ReadArmoury other = test::read(arena(two + one));
    const AuditResult result = audited(other, &memory);
    CHECK(result.recalled == 7);
    CHECK(told(other, result) == told(other, audited(other, nullptr)));
}

TEST_CASE("memory: a file of it reads back, and a damaged one does no harm") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    ContextMemory memory;
    const AuditResult first = audited(read, &memory);
    const std::string text = memory_text(memory);
    ContextMemory back;
    read_memory(text, back);
    CHECK(back.all().size() == first.contexts.size());
    const AuditResult second = audited(read, &back);
    CHECK(second.recalled == second.contexts.size());
    CHECK(told(read, first) == told(read, second));

    for (std::size_t cut = 0; cut < text.size(); cut += text.size() / 50 + 1) {
        ContextMemory part;
        read_memory(text.substr(0, cut), part);
        read_memory(text.substr(0, cut) + "9" + text.substr(cut), part);
        CHECK(part.all().size() <= first.contexts.size());
        (void)audited(read, &part);
    }
    for (const char* foreign : {"", "[]", "{}", "{\"contexts\": 3}",
                                "{\"contexts\": {\"zz\": {}, \"12\": [], \"13\": null}}"}) {
        ContextMemory none;
        read_memory(foreign, none);
        CHECK(none.all().empty());
    }
}

TEST_CASE("memory: what nobody asked for in five runs is forgotten") {
    const ReadArmoury read = test::read(arena(gear(5, 60)));
    ContextMemory memory;
    const std::size_t contexts = audited(read, &memory).contexts.size();
    std::string text = memory_text(memory);
    for (int run = 0; run < 7; ++run) {
        ContextMemory next;
        read_memory(text, next);
        CHECK(next.all().size() == (run < 6 ? contexts : 0));
        text = memory_text(next);
    }
}
