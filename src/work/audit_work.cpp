#include "work/audit_work.h"

namespace panoplon {

AuditFound find_audit(const Judging& judging, const AuditRequest& request, const Recall& recall,
                      Stages& stages) {
    const Armoury& armoury = judging.armoury;
    AuditFound found;
    AuditResult& result = found.result;
    AuditExtras& extras = found.extras;
    result = in_stage(stages, "contexts", [&](const Watch& watch) {
        return audit(judging, request.options, watch, recall);
    });
    in_stage(stages, "verdicts by trials", [&](const Watch& watch) {
        confirm_verdicts(judging, request.confirm, result, watch);
    });
    in_stage(stages, "items in random loadouts",
             [&](const Watch& watch) { find_lifts(judging, request.lift, result, watch); });
    extras.sets = judge_sets(judging, result);
    extras.tiers = judge_tiers(armoury, result);
    extras.upgrades = in_stage(stages, "contexts with upgrades", [&](const Watch& watch) {
        return judge_upgrades(armoury, result, watch);
    });
    extras.break_evens = in_stage(stages, "consumables", [&](const Watch& watch) {
        return find_break_evens(armoury, result, watch);
    });
    extras.has_groups = request.groups.has_value();
    if (request.groups)
        extras.groups = in_stage(stages, "contexts without groups", [&](const Watch& watch) {
            return judge_groups(judging, result, *request.groups, watch);
        });
    if (request.groups == GroupBy::tier)
        extras.tier_steps = in_stage(stages, "points of curves", [&](const Watch& watch) {
            return find_tier_steps(armoury, request.options.levels, request.options.characters,
                                   watch, recall);
        });
    extras.has_pairs = request.pairs.has_value();
    if (request.pairs)
        extras.pairs = in_stage(stages, "contexts for pairs", [&](const Watch& watch) {
            return find_pairs(judging, *request.pairs, result, watch);
        });
    return found;
}

std::optional<FightError> first_error(const AuditResult& result) {
    for (const ContextRow& row : result.contexts)
        if (row.error) return row.error;
    return std::nullopt;
}

} // namespace panoplon
