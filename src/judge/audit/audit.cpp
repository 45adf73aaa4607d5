#include "judge/audit/audit.h"

#include "base/text.h"
#include "judge/audit/measuring.h"
#include "judge/audit/overshadowed.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

void gather(AuditResult& result, MeasuredContexts& all) {
    for (MeasuredContext& measured : all.contexts) {
        const auto append = [&](std::vector<ItemContextRow>& rows,
                                std::vector<ItemContextRow>& into) {
            for (ItemContextRow& row : rows) {
                row.context = result.contexts.size();
                into.push_back(row);
            }
        };
        append(measured.rows, result.rows);
        append(measured.packed_rows, result.packed_rows);
        result.bests.push_back(std::move(measured.best));
        result.seen.push_back(std::move(measured.seen));
        result.contexts.push_back(std::move(measured.context));
    }
    result.partial = all.partial;
    for (auto* rows : {&result.rows, &result.packed_rows})
        std::stable_sort(
            rows->begin(), rows->end(),
            [](const ItemContextRow& a, const ItemContextRow& b) { return a.item < b.item; });
}

void judge_all(const Judging& judging, const std::vector<bool>& asked_for, AuditResult& result) {
    const Armoury& armoury = judging.armoury;
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        if (!asked_for.empty() && !asked_for[i]) continue;
        const ItemId item(i);
        const auto judged = [&](const std::vector<ItemContextRow>& rows) {
            return judge_item(judging, item, rows_of(rows, item), result.contexts);
        };
        if (armoury.at(item).worn()) result.items.push_back(judged(result.rows));
        if (armoury.at(item).worn() || !armoury.at(item).consumed()) continue;
        result.consumables.push_back(
            {judged(result.packed_rows),
             worth_of(armoury.at(item), rows_of(result.packed_rows, item), result.contexts)});
    }
    std::vector<ItemVerdict*> worn, packed;
    for (ItemVerdict& one : result.items) worn.push_back(&one);
    for (ConsumableVerdict& one : result.consumables) packed.push_back(&one.judged);
    see_overshadowed(judging, result.rows, result.contexts, worn);
    see_overshadowed(judging, result.packed_rows, result.contexts, packed);
}

std::size_t contexts_in_all(const Armoury& armoury, ContextScope scope) {
    scope.sample = 0;
    return contexts_of(armoury, std::move(scope)).size();
}

std::string context_words(const Armoury& armoury, const Context& context) {
    return fmt::format("{} at level {} against {}", armoury.at(context.character).id, context.level,
                       armoury.at(context.encounter).id);
}

/// The context whose best is the fullest by a measure.
template <class Fullness>
const ContextRow& fullest(const std::vector<const ContextRow*>& rows, const Fullness& fullness) {
    return **std::max_element(
        rows.begin(), rows.end(),
        [&](const ContextRow* a, const ContextRow* b) { return fullness(*a) < fullness(*b); });
}

/// In how many bests a limit binds; where in none, how far that is off (M86c).
void remark_weight(const Armoury& armoury, const std::vector<const ContextRow*>& rows,
                   std::vector<std::string>& remarks) {
    const auto binds = [](const ContextRow* row) { return row->limiting.weight_binds; };
    const auto count = std::count_if(rows.begin(), rows.end(), binds);
    if (count > 0) {
        remarks.push_back(
            fmt::format("weight binds in {} of {}: there the best would be better if it "
                        "weighed less, or something that is too heavy for it would be",
                        count, counted(rows.size(), "best")));
        return;
    }
    const auto of_edge = [](const ContextRow& row) {
        return row.limiting.load_share / row.limiting.edge;
    };
    const ContextRow& row = fullest(rows, of_edge);
    std::string text =
        fmt::format("weight binds in none of {}: nothing would be better if it weighed less",
                    counted(rows.size(), "best"));
    if (of_edge(row) > 0)
        text += fmt::format("; with less than {} of today's capacity it would begin to ({})",
                            percent(of_edge(row)), context_words(armoury, row.context));
    remarks.push_back(std::move(text));
}

void remark_bag(const Armoury& armoury, const std::vector<const ContextRow*>& rows,
                std::vector<std::string>& remarks) {
    const auto binds = [](const ContextRow* row) { return row->limiting.bag_binds; };
    const auto count = std::count_if(rows.begin(), rows.end(), binds);
    if (count > 0) {
        remarks.push_back(fmt::format("the bag binds in {} of {}: there another stack would be "
                                      "better",
                                      count, counted(rows.size(), "best")));
        return;
    }
    const ContextRow& row =
        fullest(rows, [](const ContextRow& one) { return one.limiting.stacks; });
    remarks.push_back(fmt::format("the bag binds in none of {}: the fullest has {} of {} ({})",
                                  counted(rows.size(), "best"), row.limiting.stacks,
                                  counted(static_cast<std::size_t>(row.limiting.bag), "stack"),
                                  context_words(armoury, row.context)));
}

void remark_limits(const Armoury& armoury, AuditResult& result) {
    std::vector<const ContextRow*> rows, bagged;
    for (const ContextRow& row : result.contexts) {
        if (!row.sound() || !row.whole()) continue;
        rows.push_back(&row);
        if (row.limiting.bag != unlimited) bagged.push_back(&row);
    }
    if (!rows.empty() && armoury.carry.capacity.given())
        remark_weight(armoury, rows, result.remarks);
    if (!bagged.empty()) remark_bag(armoury, bagged, result.remarks);
}

/// What was accepted and is not so, and what is.
void remark_accepted(const Armoury& armoury, AuditResult& result) {
    const auto look = [&](const ItemVerdict& verdict) {
        if (verdict.contexts == 0 && !calls_for_change(verdict.verdict)) return;
        for (const std::string& word : verdict.untrue_accept)
            result.remarks.push_back(
                fmt::format("{} accepts '{}' and is {}{}: take that out of its accept",
                            armoury.at(verdict.item).id, word, verdict_name(verdict.verdict),
                            word == "overstays" ? ", and does not overstay" : ""));
    };
    for (const ItemVerdict& one : result.items) look(one);
    for (const ConsumableVerdict& one : result.consumables) look(one.judged);
}

void remark(const Armoury& armoury, const AuditOptions& options, AuditResult& result) {
    const bool all_levels = options.levels.first <= armoury.levels.first &&
                            options.levels.last >= armoury.levels.last && options.step == 1;
    if (!all_levels)
        result.remarks.push_back(fmt::format(
            "only some levels of {}–{} were looked at: an item is judged by what of its window is "
            "among them",
            armoury.levels.first, armoury.levels.last));
    const std::size_t all = contexts_in_all(armoury, options);
    if (options.sample > 0 && all > options.sample)
        result.remarks.push_back(fmt::format(
            "{} of {}, spread over all, were looked at: enough to see what stands out; what is "
            "seldom best, or best against few, may be told as never, and a window of few levels "
            "not be met at all",
            result.whole_contexts(), counted(all, "context")));
    if (!options.judged.empty())
        result.remarks.push_back(
            "only what was asked for was judged: tiers are told by these items alone");
    remark_limits(armoury, result);
    remark_accepted(armoury, result);
    std::size_t beyond = 0;
    std::size_t missed = 0;
    double furthest = 0;
    for (const ContextRow& row : result.contexts) {
        constexpr double worth_telling = 1e-3;
        missed += row.missed > worth_telling;
        furthest = std::max(furthest, row.missed);
        if (row.error)
            result.remarks.push_back(fmt::format(
                "{} at level {} against {}: {}", armoury.at(row.context.character).id,
                row.context.level, armoury.at(row.context.encounter).id, row.error->message));
        else if (row.best.reach != Reach::within)
            ++beyond;
    }
    if (missed > 0)
        result.remarks.push_back(fmt::format(
            "in {} of {} the best with or without something came out above the best itself, by {} "
            "at most: there the best is not quite the best, and what was found counts as no more",
            missed, counted(result.contexts.size(), "search", "searches"), percent(furthest)));
    if (beyond > 0)
        result.remarks.push_back(
            fmt::format("{} of {} judge nobody: the best margin there is not within 1/64 and 64",
                        beyond, counted(result.contexts.size(), "search", "searches")));
}

AuditResult judged(const Judging& judging, const AuditOptions& options, MeasuredContexts measured) {
    AuditResult result;
    gather(result, measured);
    judge_all(judging, options.judged, result);
    remark(judging.armoury, options, result);
    return result;
}

} // namespace

AuditResult audit(const Judging& judging, const AuditOptions& options, const Watch& watch,
                  const Recall& recall) {
    return judged(judging, options, measure_contexts(judging, options, watch, recall));
}

AuditResult audit_again(const Judging& judging, const AuditOptions& options,
                        const EarlierAudit& earlier, const Watch& watch, const Recall& recall) {
    return judged(judging, options, measure_again(judging, options, earlier, watch, recall));
}

} // namespace panoplon
