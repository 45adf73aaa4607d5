#include "cli/known_contexts.h"
#include "cli/verdict_names.h"
#include "judge/audit/confirming.h"
#include "judge/audit/lift.h"
#include "show/audit/show_audit.h"
#include "show/written_files.h"

namespace panoplon {

namespace {

/// Says what has a verdict that was not to be; true when nothing has.
bool passes(const Armoury& armoury, const AuditResult& result, const std::set<Verdict>& fail_on) {
    std::vector<std::string> failing;
    const auto look = [&](const ItemVerdict& item) {
        if (fail_on.contains(item.verdict))
            failing.push_back(
                fmt::format("{} ({})", armoury.at(item.item).id, verdict_name(item.verdict)));
    };
    for (const ItemVerdict& item : result.items) look(item);
    for (const ConsumableVerdict& one : result.consumables) look(one.judged);
    return passed(failing);
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

/// What is told beside the verdicts.
AuditExtras find_extras(const Invocation& invocation, const Judging& judging,
                        const AuditOptions& options, std::optional<GroupBy> by, std::uint64_t seed,
                        const AuditResult& result) {
    const Armoury& armoury = judging.armoury;
    AuditExtras extras;
    extras.sets = judge_sets(armoury, result);
    extras.tiers = judge_tiers(armoury, result);
    extras.upgrades = watched(invocation, "contexts with upgrades", [&](const Watch& watch) {
        return judge_upgrades(armoury, result, watch);
    });
    extras.break_evens = watched(invocation, "consumables", [&](const Watch& watch) {
        return find_break_evens(armoury, result, watch);
    });
    extras.has_groups = by.has_value();
    if (by)
        extras.groups = watched(invocation, "contexts without groups", [&](const Watch& watch) {
            return judge_groups(judging, result, *by, watch);
        });
    if (by == GroupBy::tier)
        extras.tier_steps = watched(invocation, "points of curves", [&](const Watch& watch) {
            return find_tier_steps(armoury, options.levels, options.characters, watch);
        });
    extras.has_pairs = invocation.has("pairs");
    if (extras.has_pairs) {
        PairOptions wanted;
        wanted.seed = seed;
        extras.pairs = watched(invocation, "contexts for pairs", [&](const Watch& watch) {
            return find_pairs(judging, wanted, result, watch);
        });
    }
    return extras;
}

} // namespace

int run_audit(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    const Judging judging(armoury);
    AuditOptions options;
    FirstFailure take;
    narrow_by_step(invocation, armoury, take, options);
    const std::set<Verdict> fail_on = take(verdicts_to_fail_on(invocation));
    if (take.failure()) return report_failure(*take.failure());
    if (armoury.characters.empty() || armoury.encounters.empty())
        return report_failure({Cause::refused,
                               "an audit needs a character and an encounter; the armoury has none",
                               "[character.ID] and [encounter.ID]"});
    const std::optional<GroupBy> by = take(group_by_option(invocation));
    KnownContexts known(invocation);
    ConfirmOptions confirm;
    confirm.trials = take(whole_option(invocation, "trials", 0, 1000000, confirm.trials));
    confirm.seed = take(seed_option(invocation));
    if (take.failure()) return report_failure(*take.failure());
    AuditResult result = watched(invocation, "contexts", [&](const Watch& watch) {
        return audit(judging, options, watch, known.recall(*opened.read));
    });
    watched(invocation, "verdicts by trials",
            [&](const Watch& watch) { confirm_verdicts(judging, confirm, result, watch); });
    LiftOptions lift;
    lift.seed = confirm.seed;
    if (confirm.trials == 0) lift.loadouts = 0;
    watched(invocation, "items in random loadouts",
            [&](const Watch& watch) { find_lifts(judging, lift, result, watch); });
    const AuditExtras extras = find_extras(invocation, judging, options, by, confirm.seed, result);
    if (invocation.has("detail")) {
        const Result<std::string> written =
            write_whole(invocation.value("detail"), csv_text(audit_detail(armoury, result)));
        if (!written.ok()) return report_failure(written.failure());
    }
    int exit = Exit::done;
    for (const ContextRow& row : result.contexts) {
        if (!row.error) continue;
        exit = report_fight_error(*opened.read, *row.error);
        break; // the remarks tell of every context that had one
    }
    if (exit == Exit::done && !passes(armoury, result, fail_on)) exit = Exit::failed_check;
    Document document = show_audit(armoury, options, result, extras);
    known.keep_in(document);
    return show(invocation, armoury, document, confirm.seed, exit);
}

} // namespace panoplon
