// What an audit at a glance tells after a change, against a whole one: random numbers of random
// items of an armoury, each changed by itself. FOLDER [CHANGES] [STEP] [SEED]
#include "judge/audit/earlier_audit.h"
#include "judge/tune/numbers_tried.h"
#include "judge/tune/tuned_number.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdlib>
#include <fmt/format.h>
#include <random>

using namespace panoplon;

namespace {

double seconds() {
    return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch())
        .count();
}

/// What differs between the two, over all changes.
struct Account {
    std::size_t items = 0, verdicts = 0, calls = 0, moved = 0, moved_seen = 0, invented = 0;
    std::size_t contexts = 0, bests_off = 0;
    double furthest = 0, glancing = 0, auditing = 0, longest_glance = 0;
};

struct Judged {
    Verdict verdict;
    bool calls;
    bool operator==(const Judged&) const = default;
};

std::vector<Judged> verdicts_of(const AuditResult& result) {
    std::vector<Judged> list;
    for (const ItemVerdict& one : result.items) list.push_back({one.verdict, one.calls()});
    for (const ConsumableVerdict& one : result.consumables)
        list.push_back({one.judged.verdict, one.judged.calls()});
    return list;
}

void compare(const AuditResult& before, const AuditResult& whole, const AuditResult& glance,
             Account& account) {
    const std::vector<Judged> was = verdicts_of(before), right = verdicts_of(whole),
                              told = verdicts_of(glance);
    for (std::size_t i = 0; i < right.size(); ++i) {
        ++account.items;
        account.verdicts += right[i].verdict != told[i].verdict;
        account.calls += right[i].calls != told[i].calls;
        const bool moved = right[i].calls != was[i].calls;
        const bool said = told[i].calls != was[i].calls;
        account.moved += moved;
        account.moved_seen += moved && said;
        account.invented += said && !moved;
    }
    for (std::size_t i = 0; i < std::min(whole.contexts.size(), glance.contexts.size()); ++i) {
        const double off =
            std::abs(std::log(glance.contexts[i].best.value / whole.contexts[i].best.value));
        ++account.contexts;
        account.bests_off += off > 1e-3;
        account.furthest = std::max(account.furthest, off);
    }
}

} // namespace

int main(int count, char** words) {
    if (count < 2) return 2;
    const int changes = count > 2 ? std::atoi(words[2]) : 10;
    const Result<ReadArmoury> opened = read_armoury(words[1]);
    if (!opened.ok()) return 1;
    const ReadArmoury& read = opened.value();
    AuditOptions options;
    options.levels = read.armoury.levels;
    options.step = count > 3 ? std::atoi(words[3]) : read.armoury.audit.step;
    std::mt19937 random(count > 4 ? static_cast<unsigned>(std::atoi(words[4])) : 1);
    MemoryOfRun memory;
    const Judging judging(read.armoury);
    const AuditResult before = audit(judging, options, {}, Recall(memory, read));
    const EarlierAudit earlier(read, before);
    Account account;
    for (int tried = 0; tried < changes;) {
        const ItemId item(random() % read.armoury.items.size());
        if (!read.armoury.at(item).worn() && !read.armoury.at(item).consumed()) continue;
        const std::vector<std::string> numbers = numbers_of(read.armoury, item, 8);
        if (numbers.empty()) continue;
        const auto number = find_number(read, item, numbers[random() % numbers.size()]);
        if (!number.ok() || number.value().now == 0) continue;
        constexpr double factors[] = {0.5, 0.8, 0.9, 1.1, 1.25, 2};
        double value = number.value().now * factors[random() % std::size(factors)];
        if (number.value().whole) value = std::round(value);
        const std::string what_if = number.value().what_if(value);
        const Result<ReadArmoury> again = read_armoury(words[1], {what_if});
        if (!again.ok() || !again.value().usable()) continue;
        ++tried;
        const ReadArmoury& now = again.value();
        const Judging judging_now(now.armoury);
        const double start = seconds();
        const AuditResult glance =
            audit_again(judging_now, options, earlier, {}, Recall(memory, now));
        const double middle = seconds();
        const AuditResult whole = audit(judging_now, options, {}, Recall(memory, now));
        const double end = seconds();
        Account one;
        compare(before, whole, glance, one);
        compare(before, whole, glance, account);
        account.glancing += middle - start;
        account.longest_glance = std::max(account.longest_glance, middle - start);
        account.auditing += end - middle;
        fmt::print(
            "{}: {:.2f} s and {:.2f} s; calls moved {}, seen {}, invented {}; bests off {}\n",
            what_if, middle - start, end - middle, one.moved, one.moved_seen, one.invented,
            one.bests_off);
        std::fflush(stdout);
    }
    fmt::print("{} changes: glances {:.2f} s in the mean, {:.2f} s at most; whole audits {:.2f} s\n"
               "verdicts: {} of {} differ, {} in whether they call for a hand\n"
               "calls that moved: {}, of these seen {}; told and not so: {}\n"
               "bests off by over 0.1 %: {} of {}, by {:.2f} % at most\n",
               changes, account.glancing / changes, account.longest_glance,
               account.auditing / changes, account.verdicts, account.items, account.calls,
               account.moved, account.moved_seen, account.invented, account.bests_off,
               account.contexts, std::expm1(account.furthest) * 100);
    return 0;
}
