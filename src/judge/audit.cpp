#include "judge/audit.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

struct Chain {
    ContextChain of;
    std::vector<MeasuredContext> measured;
    std::size_t recalled = 0;
    bool stopped = false;
};

std::uint64_t hash_number(std::uint64_t number, std::uint64_t seed) {
    return hash_text({reinterpret_cast<const char*>(&number), sizeof number}, seed);
}

/// What a context hangs on: the rules, what can be had in it, and the best of the level before,
/// which is where it begins.
std::uint64_t key_of(const Armoury& armoury, const Recall& recall,
                     const std::vector<ItemId>& groups, const Search& search,
                     std::uint64_t before) {
    std::uint64_t key = hash_number(recall.edition, before);
    key = hash_number(recall.content.rules, key);
    key = hash_text(armoury.at(search.context().character).id, key);
    key = hash_text(armoury.at(search.context().encounter).id, key);
    key = hash_number(static_cast<std::uint64_t>(search.context().level), key);
    for (const std::vector<ItemId>& items : {search.wearable(), search.usable()})
        for (const ItemId item : items) {
            key = hash_text(armoury.at(item).id, key);
            key = hash_text(armoury.at(groups[item.index()]).id, key);
            key = hash_number(recall.content.items[item.index()], key);
        }
    return key;
}

MeasuredContext look_up_or_measure(const Armoury& armoury, const std::vector<ItemId>& groups,
                                   const Recall& recall_from, Chain& chain, Search& search,
                                   std::uint64_t key) {
    if (recall_from.memory)
        if (const RememberedContext* known = recall_from.memory->find(key))
            if (auto recalled = recall(armoury, search, *known)) {
                ++chain.recalled;
                return std::move(*recalled);
            }
    MeasuredContext measured = measure_context(armoury, groups, search);
    if (recall_from.memory && !measured.context.error)
        recall_from.memory->keep(key, remember(armoury, search, measured));
    return measured;
}

void run_chain(const Armoury& armoury, const std::vector<ItemId>& groups, const Recall& recall,
               Chain& chain, const Watch& watch, const std::function<void()>& done) {
    Search search(armoury, groups);
    std::vector<Candidate> hint; // the best of the level before
    std::uint64_t key = hash_start;
    for (const int level : chain.of.levels) {
        if (watch.stopped()) {
            chain.stopped = true;
            return;
        }
        search.enter({chain.of.character, level, chain.of.encounter}, hint);
        if (recall.memory) key = key_of(armoury, recall, groups, search, key);
        chain.measured.push_back(
            look_up_or_measure(armoury, groups, recall, chain, search, key));
        if (chain.measured.back().context.found) hint = {chain.measured.back().best};
        done();
    }
}

void gather(AuditResult& result, std::vector<Chain>& chains) {
    for (Chain& chain : chains) {
        for (MeasuredContext& measured : chain.measured) {
            const auto append = [&](std::vector<ItemContextRow>& rows,
                                    std::vector<ItemContextRow>& into) {
                for (ItemContextRow& row : rows) {
                    row.context = result.contexts.size();
                    into.push_back(row);
                }
            };
            append(measured.rows, result.rows);
            append(measured.packed_rows, result.packed_rows);
            result.contexts.push_back(std::move(measured.context));
        }
        result.recalled += chain.recalled;
        result.partial = result.partial || chain.stopped;
    }
    for (auto* rows : {&result.rows, &result.packed_rows})
        std::stable_sort(
            rows->begin(), rows->end(),
            [](const ItemContextRow& a, const ItemContextRow& b) { return a.item < b.item; });
}

std::span<const ItemContextRow> rows_of(const std::vector<ItemContextRow>& rows, ItemId item) {
    const auto [first, last] = std::equal_range(
        rows.begin(), rows.end(), ItemContextRow{.item = item},
        [](const ItemContextRow& a, const ItemContextRow& b) { return a.item < b.item; });
    return {first, last};
}

void judge_all(const Armoury& armoury, const std::vector<PaperVerdict>& paper,
               AuditResult& result) {
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
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

void remark(const Armoury& armoury, const AuditOptions& options, AuditResult& result) {
    const bool all_levels = options.levels.first <= armoury.levels.first &&
                            options.levels.last >= armoury.levels.last && options.step == 1;
    if (!all_levels)
        result.remarks.push_back(fmt::format(
            "only some levels of {}–{} were looked at: an item is judged by what of its window is "
            "among them",
            armoury.levels.first, armoury.levels.last));
    if (result.recalled > 0)
        result.remarks.push_back(
            fmt::format("{} of {} were known from before: nothing that they hang on has changed",
                        result.recalled, counted(result.contexts.size(), "context")));
    std::size_t beyond = 0;
    for (const ContextRow& row : result.contexts) {
        if (row.error)
            result.remarks.push_back(fmt::format(
                "{} at level {} against {}: {}", armoury.at(row.context.character).id,
                row.context.level, armoury.at(row.context.encounter).id, row.error->message));
        else if (row.best.reach != Reach::within)
            ++beyond;
    }
    if (beyond > 0)
        result.remarks.push_back(
            fmt::format("{} of {} judge nobody: the best margin there is not within 1/64 and 64",
                        beyond, counted(result.contexts.size(), "context")));
}

} // namespace

AuditResult audit(const Armoury& armoury, const AuditOptions& options, const Watch& watch,
                  const Recall& recall) {
    const std::vector<PaperVerdict> paper = compare_on_paper(armoury);
    const std::vector<ItemId> groups = twin_groups(paper);
    std::vector<Chain> chains;
    for (ContextChain& of : context_chains(armoury, options))
        chains.push_back({std::move(of), {}, 0, false});
    run_chains(chains, watch, [&](Chain& chain, const std::function<void()>& done) {
        run_chain(armoury, groups, recall, chain, watch, done);
    });
    AuditResult result;
    gather(result, chains);
    judge_all(armoury, paper, result);
    remark(armoury, options, result);
    return result;
}

} // namespace panoplon
