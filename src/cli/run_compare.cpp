#include "cli/earlier_runs.h"
#include "cli/verdict_names.h"
#include "show/tune/show_comparison.h"

namespace panoplon {

namespace {

struct TwoOpened {
    Opened before, after;
    std::string before_name, after_name;
};

/// Two folders, or one with and without what --set says.
TwoOpened open_two(const Invocation& invocation) {
    const std::string& folder = invocation.operands().front();
    const std::vector<std::string> changes = invocation.values("set");
    const bool two = invocation.operands().size() > 1;
    const std::string& changed = two ? invocation.operands()[1] : folder;
    TwoOpened opened;
    opened.before = open_folder(invocation, folder, {});
    if (opened.before.read) opened.after = open_folder(invocation, changed, changes);
    opened.before_name = folder;
    opened.after_name = two ? changed : "the same";
    if (!changes.empty()) opened.after_name += " with " + join(changes, ", ");
    return opened;
}

/// What has come to have a verdict that it was not to have.
std::vector<std::string> newly(const Comparison& comparison, const std::set<Verdict>& verdicts) {
    std::vector<std::string> list;
    for (const VerdictShift& shift : comparison.verdicts) {
        const bool was = shift.before && verdicts.contains(shift.before->verdict);
        if (shift.after && verdicts.contains(shift.after->verdict) && !was)
            list.push_back(fmt::format("{} ({})", shift.id, verdict_name(shift.after->verdict)));
    }
    return list;
}

} // namespace

int run_compare(const Invocation& invocation) {
    if (invocation.operands().size() == 1 && !invocation.has("set"))
        return report_failure({Cause::usage, "'compare' needs a second folder, or --set",
                               "panoplon compare ARMOURY --set item.reed_coat.add.guard=20"});
    const TwoOpened opened = open_two(invocation);
    if (!opened.before.read) return opened.before.exit;
    if (!opened.after.read) return opened.after.exit;
    FirstFailure take;
    Reading before{*opened.before.read, {}};
    Reading after{*opened.after.read, {}};
    narrow_by_step(invocation, before.read.armoury, take, before.scope);
    narrow_by_step(invocation, after.read.armoury, take, after.scope);
    after.scope.step = before.scope.step;
    const auto tolerance = take(number_option(invocation, "tolerance", 0, 1000));
    const std::set<Verdict> fail_on = take(verdicts_to_fail_on(invocation));
    if (take.failure()) return report_failure(*take.failure());
    EarlierRuns earlier(invocation);
    const Comparison comparison = watched(invocation, "contexts", [&](const Watch& watch) {
        return compare_readings(before, after, earlier.memory(), watch);
    });
    std::vector<std::string> failing = newly(comparison, fail_on);
    constexpr double in_percent = 100;
    if (tolerance && comparison.furthest() * in_percent > *tolerance)
        failing.push_back(fmt::format("a margin moved by {}, over the tolerance of {} %",
                                      percent(comparison.furthest()), shortest(*tolerance)));
    Document document =
        show_comparison(before, after, opened.before_name, opened.after_name, comparison);
    earlier.tell();
    return show(invocation, before.read.armoury, document, 0,
                passed(failing) ? Exit::done : Exit::failed_check);
}

} // namespace panoplon
