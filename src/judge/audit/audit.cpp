#include "judge/audit/audit.h"

#include "base/text.h"
#include "judge/audit/measuring.h"

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
        result.contexts.push_back(std::move(measured.context));
    }
    result.partial = all.partial;
    for (auto* rows : {&result.rows, &result.packed_rows})
        std::stable_sort(
            rows->begin(), rows->end(),
            [](const ItemContextRow& a, const ItemContextRow& b) { return a.item < b.item; });
}

void judge_all(const Armoury& armoury, const std::vector<PaperVerdict>& paper,
               const std::vector<bool>& asked_for, AuditResult& result) {
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        if (!asked_for.empty() && !asked_for[i]) continue;
        const ItemId item(i);
        const auto judged = [&](const std::vector<ItemContextRow>& rows) {
            return judge_item(armoury, item, paper[i], rows_of(rows, item), result.contexts);
        };
        if (armoury.at(item).worn()) result.items.push_back(judged(result.rows));
        if (armoury.at(item).worn() || !armoury.at(item).use) continue;
        result.consumables.push_back(
            {judged(result.packed_rows),
             worth_of(armoury.at(item), rows_of(result.packed_rows, item), result.contexts)});
    }
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
        if (!row.sound()) continue;
        rows.push_back(&row);
        if (row.limiting.bag != unlimited) bagged.push_back(&row);
    }
    if (!rows.empty() && armoury.carry.capacity.given())
        remark_weight(armoury, rows, result.remarks);
    if (!bagged.empty()) remark_bag(armoury, bagged, result.remarks);
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
            result.contexts.size(), counted(all, "context")));
    if (!options.judged.empty())
        result.remarks.push_back(
            "only what was asked for was judged: tiers are told by these items alone");
    remark_limits(armoury, result);
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
            "in {} of {} the search with or without something came upon more than the best, at "
            "most {}: there the best is not quite the best, and what was found counts as no more",
            missed, counted(result.contexts.size(), "context"), percent(furthest)));
    if (beyond > 0)
        result.remarks.push_back(
            fmt::format("{} of {} judge nobody: the best margin there is not within 1/64 and 64",
                        beyond, counted(result.contexts.size(), "context")));
}

} // namespace

std::span<const ItemContextRow> rows_of(const std::vector<ItemContextRow>& rows, ItemId item) {
    const auto [first, last] = std::equal_range(
        rows.begin(), rows.end(), ItemContextRow{.item = item},
        [](const ItemContextRow& a, const ItemContextRow& b) { return a.item < b.item; });
    return {first, last};
}

AuditResult audit(const Judging& judging, const AuditOptions& options, const Watch& watch,
                  const Recall& recall) {
    const Armoury& armoury = judging.armoury;
    const std::vector<PaperVerdict>& paper = judging.paper;
    const std::vector<ItemId>& groups = judging.twins;
    MeasuredContexts measured = measure_contexts(armoury, groups, options, watch, recall);
    AuditResult result;
    gather(result, measured);
    judge_all(armoury, paper, options.judged, result);
    remark(armoury, options, result);
    return result;
}

} // namespace panoplon
