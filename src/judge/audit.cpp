#include "judge/audit.h"

#include "judge/appraisal.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// A place worth less than this judges nobody (M81a).
const double least_worth = std::log(1.005);

struct Chain {
    ContextChain of;
    std::vector<ContextRow> contexts;
    std::vector<ItemContextRow> rows, packed_rows; ///< `context` counts within the chain
    bool stopped = false;
};

/// M81b: another item that could be worn in its place, is no twin of it, and is hardly older.
bool is_contested(const Armoury& armoury, const std::vector<ItemId>& groups,
                  const std::vector<ItemId>& wearable, ItemId item) {
    const Item& own = armoury.at(item);
    return std::any_of(wearable.begin(), wearable.end(), [&](ItemId other) {
        const Item& rival = armoury.at(other);
        return groups[other.index()] != groups[item.index()] && stands_against(armoury, rival, own);
    });
}

/// M84: another of its group that is hardly older.
bool is_contested_in_pack(const Armoury& armoury, const std::vector<ItemId>& usable, ItemId item) {
    const Item& own = armoury.at(item);
    return !own.use->group.empty() && std::any_of(usable.begin(), usable.end(), [&](ItemId other) {
        const Item& rival = armoury.at(other);
        return other != item && rival.use->group == own.use->group &&
               rival.wear_level() >= own.wear_level() - armoury.audit.grace;
    });
}

/// Levels since an item could first be worn.
int age_of(const Armoury& armoury, ItemId item, int level) {
    return level - std::max(armoury.at(item).wear_level(), armoury.levels.first);
}

double margin_in(const Found& found) {
    return found.any ? found.margin.value : weakest;
}

/// What the item comes to against its place empty, and all the places that the best uses for it.
ItemContextRow measure_against(const Armoury& armoury, const Search& search, ItemId item, int level,
                               double empty, double all_empty) {
    ItemContextRow row;
    row.item = item;
    row.best = margin_in(search.best());
    row.with = margin_in(search.with(item));
    row.without = margin_in(search.without(item));
    row.empty = empty;
    row.worth = std::log(row.best / row.empty);
    row.judged = row.worth >= least_worth;
    if (row.judged) {
        row.grip = std::log(row.best / row.without) / std::log(row.best / all_empty);
        row.shortfall = std::log(row.best / row.with) / row.worth;
    }
    const int age = age_of(armoury, item, level);
    row.in_window = age < armoury.audit.window;
    row.after_window = !row.in_window && age < 2 * armoury.audit.window;
    return row;
}

/// What is worn twice is measured against both of its places together (M81a).
ItemContextRow measure(const Armoury& armoury, const Search& search, ItemId item, int level) {
    return measure_against(armoury, search, item, level,
                           margin_in(search.empty(search.one_place_of(item))),
                           margin_in(search.empty(search.places_of(item))));
}

ItemContextRow measure_packed(const Armoury& armoury, const Search& search, ItemId item,
                              int level) {
    const double empty = margin_in(search.without_group(item));
    ItemContextRow row = measure_against(armoury, search, item, level, empty, empty);
    row.units = search.packed(search.best().candidate, item);
    return row;
}

/// Items whose verdict hangs on this level: those in their window, or in as many levels after it.
std::vector<ItemId> judged_here(const Armoury& armoury, std::vector<ItemId> items, int level) {
    std::erase_if(items, [&](ItemId item) {
        return age_of(armoury, item, level) >= 2 * armoury.audit.window;
    });
    return items;
}

/// Finds the best of the context, then what each condition costs.
void search_context(Search& search, const std::vector<ItemId>& items,
                    const std::vector<ItemId>& consumables) {
    if (!search.find_best()) return;
    for (const ItemId item : items) search.find_with(item);
    for (const ItemId item : consumables) search.find_with(item);
    // Last, since the searches before may have found a better best: what that wears is banned, and
    // its places are emptied.
    const Candidate best = search.best().candidate;
    for_each_item(best, [&](ItemId item) { search.find_without(item); });
    for (const ItemId item : consumables)
        if (search.packed(best, item) > 0) search.find_without(item);
    for (const Footprint& places : search.footprints()) search.find_empty(places);
    for (const ItemId item : consumables) search.find_without_group(item);
}

ContextRow context_row(const Armoury& armoury, const Search& search, const Context& context) {
    ContextRow row{context,
                   armoury.at(context.encounter).weight,
                   search.best().margin,
                   {},
                   search.proven(),
                   search.error()};
    if (search.best().any) row.outfit = search.outfit_of(search.best().candidate);
    return row;
}

void run_chain(const Armoury& armoury, const std::vector<ItemId>& groups, Chain& chain,
               const Watch& watch, const std::function<void()>& done) {
    Search search(armoury, groups);
    std::vector<Candidate> hint; // the best of the level before
    for (const int level : chain.of.levels) {
        if (watch.stopped()) {
            chain.stopped = true;
            return;
        }
        const Context context{chain.of.character, level, chain.of.encounter};
        search.enter(context, hint);
        const std::vector<ItemId> items = judged_here(armoury, search.wearable(), level);
        const std::vector<ItemId> consumables = judged_here(armoury, search.usable(), level);
        search_context(search, items, consumables);
        if (search.best().any) hint = {search.best().candidate};
        const bool sound =
            search.best().any && !search.error() && search.best().margin.reach == Reach::within;
        for (const ItemId item : items) {
            if (!sound) break;
            ItemContextRow row = measure(armoury, search, item, level);
            row.context = chain.contexts.size();
            row.contested = is_contested(armoury, groups, search.wearable(), item);
            chain.rows.push_back(row);
        }
        for (const ItemId item : consumables) {
            if (!sound) break;
            ItemContextRow row = measure_packed(armoury, search, item, level);
            row.context = chain.contexts.size();
            row.contested = is_contested_in_pack(armoury, search.usable(), item);
            chain.packed_rows.push_back(row);
        }
        chain.contexts.push_back(context_row(armoury, search, context));
        done();
    }
}

void gather(AuditResult& result, std::vector<Chain>& chains) {
    for (Chain& chain : chains) {
        const std::size_t offset = result.contexts.size();
        const auto append = [&](std::vector<ItemContextRow>& rows,
                                std::vector<ItemContextRow>& into) {
            for (ItemContextRow& row : rows) {
                row.context += offset;
                into.push_back(row);
            }
        };
        append(chain.rows, result.rows);
        append(chain.packed_rows, result.packed_rows);
        std::move(chain.contexts.begin(), chain.contexts.end(),
                  std::back_inserter(result.contexts));
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

AuditResult audit(const Armoury& armoury, const AuditOptions& options, const Watch& watch) {
    const std::vector<PaperVerdict> paper = compare_on_paper(armoury);
    const std::vector<ItemId> groups = twin_groups(paper);
    std::vector<Chain> chains;
    for (ContextChain& of : context_chains(armoury, options))
        chains.push_back({std::move(of), {}, {}, {}, false});
    run_chains(chains, watch, [&](Chain& chain, const std::function<void()>& done) {
        run_chain(armoury, groups, chain, watch, done);
    });
    AuditResult result;
    gather(result, chains);
    judge_all(armoury, paper, result);
    remark(armoury, options, result);
    return result;
}

} // namespace panoplon
