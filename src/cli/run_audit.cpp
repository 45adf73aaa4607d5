#include "cli/earlier_runs.h"
#include "cli/told_verdicts.h"
#include "cli/verdict_names.h"
#include "show/audit/show_audit.h"
#include "show/written_files.h"
#include "work/audit_work.h"

namespace panoplon {

namespace {

/// Says what has a verdict that was not to be; true when nothing has.
bool passes(const Armoury& armoury, const AuditResult& result, const std::set<Verdict>& fail_on) {
    std::vector<std::string> failing;
    const auto look = [&](const ItemVerdict& item) {
        if (fail_on.contains(item.verdict) && !item.accepted)
            failing.push_back(
                fmt::format("{} ({})", armoury.at(item.item).id, verdict_name(item.verdict)));
    };
    for (const ItemVerdict& item : result.items) look(item);
    for (const ConsumableVerdict& one : result.consumables) look(one.judged);
    return passed(failing);
}

/// By item, whether --item, --slot and --tier ask for it; empty where they ask for nothing.
std::vector<bool> asked_for(const Invocation& invocation, const Armoury& armoury,
                            FirstFailure& take) {
    const auto items = take(look_up_all<ItemId>("item", armoury.items, invocation.values("item")));
    const auto slots = take(look_up_all<SlotId>("slot", armoury.slots, invocation.values("slot")));
    const auto tiers = take(look_up_all<TierId>("tier", armoury.tiers, invocation.values("tier")));
    if (items.empty() && slots.empty() && tiers.empty()) return {};
    const auto among = [](const auto& list, const auto& one) {
        return list.empty() || std::find(list.begin(), list.end(), one) != list.end();
    };
    std::vector<bool> asked;
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        const Item& item = armoury.items[i];
        asked.push_back(among(items, ItemId(i)) && among(slots, item.slot) &&
                        among(tiers, item.tier));
    }
    if (std::find(asked.begin(), asked.end(), true) == asked.end())
        take(Result<bool>(Failure{Cause::usage, "no item is all of what is asked for",
                                  "--item, --slot and --tier narrow each other"}));
    return asked;
}

Result<std::optional<GroupBy>> group_by_option(const Invocation& invocation) {
    if (!invocation.has("by")) return std::optional<GroupBy>();
    const std::string by = invocation.value("by");
    for (std::size_t i = 0; i < std::size(group_by_names); ++i)
        if (by == group_by_names[i]) return std::optional(static_cast<GroupBy>(i));
    const std::vector<std::string> known(std::begin(group_by_names), std::end(group_by_names));
    return Failure{
        Cause::usage, fmt::format("--by is '{}'; allowed: {}", by, join(known, ", ")), {}};
}

} // namespace

int run_audit(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    AuditRequest request;
    FirstFailure take;
    narrow_by_step(invocation, armoury, take, request.options);
    request.options.sample = take(whole_option(invocation, "sample", 1, 1'000'000, 0));
    request.options.judged = asked_for(invocation, armoury, take);
    const std::set<Verdict> fail_on = take(verdicts_to_fail_on(invocation));
    if (take.failure()) return report_failure(*take.failure());
    if (armoury.characters.empty() || armoury.encounters.empty())
        return report_failure({Cause::refused,
                               "an audit needs a character and an encounter; the armoury has none",
                               "[character.ID] and [encounter.ID]"});
    request.groups = take(group_by_option(invocation));
    ConfirmOptions& confirm = request.confirm;
    confirm.trials = take(whole_option(invocation, "trials", 0, 1000000, confirm.trials));
    confirm.seed = request.lift.seed = take(seed_option(invocation));
    if (confirm.trials == 0) request.lift.loadouts = 0;
    if (invocation.has("pairs")) request.pairs.emplace().seed = confirm.seed;
    if (take.failure()) return report_failure(*take.failure());
    EarlierRuns earlier(invocation);
    WatchedStages stages(invocation);
    const Judging judging(armoury);
    const auto [result, extras] =
        find_audit(judging, request, earlier.recall(*opened.read), stages);
    if (invocation.has("detail")) {
        const Result<std::string> written =
            write_whole(invocation.value("detail"), csv_text(audit_detail(armoury, result)));
        if (!written.ok()) return report_failure(written.failure());
    }
    int exit = Exit::done;
    if (const auto error = first_error(result)) // the remarks tell of every context that had one
        exit = report_fight_error(*opened.read, *error);
    if (exit == Exit::done && !passes(armoury, result, fail_on)) exit = Exit::failed_check;
    Document document = show_audit(armoury, request.options, result, extras,
                                   invocation.has("all") ? Listed::every_row : Listed::what_calls);
    earlier.tell();
    keep_told(earlier.memory(), invocation, *opened.read, result);
    return show(invocation, armoury, document, confirm.seed, exit);
}

} // namespace panoplon
