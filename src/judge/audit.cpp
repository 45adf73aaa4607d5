#include "judge/audit.h"

#include "judge/appraisal.h"

#include "base/text.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

namespace panoplon {

namespace {

/// A place worth less than this judges nobody (M81a).
const double least_worth = std::log(1.005);

/// The contexts of one character and encounter, from the lowest level up: each search starts from
/// the best of the one before.
struct Chain {
    CharacterId character;
    EncounterId encounter;
    std::vector<int> levels;
    std::vector<ContextRow> contexts;
    std::vector<ItemContextRow> rows; ///< `context` counts within the chain
    bool stopped = false;
};

std::vector<EncounterId> audited_encounters(const Armoury& armoury, const AuditOptions& options) {
    if (!options.encounters.empty()) return options.encounters;
    std::vector<EncounterId> list;
    for (std::size_t i = 0; i < armoury.encounters.size(); ++i)
        if (armoury.encounters[i].weight > 0 && EncounterId(i) != armoury.yardstick)
            list.emplace_back(i);
    return list;
}

std::vector<CharacterId> audited_characters(const Armoury& armoury, const AuditOptions& options) {
    if (!options.characters.empty()) return options.characters;
    std::vector<CharacterId> list;
    for (std::size_t i = 0; i < armoury.characters.size(); ++i) list.emplace_back(i);
    return list;
}

std::vector<Chain> make_chains(const Armoury& armoury, const AuditOptions& options) {
    std::vector<Chain> chains;
    for (const CharacterId character : audited_characters(armoury, options))
        for (const EncounterId encounter : audited_encounters(armoury, options)) {
            Chain chain{character, encounter, {}, {}, {}, false};
            for (int level = options.levels.first; level <= options.levels.last;
                 level += options.step)
                if (armoury.at(encounter).levels.holds(level)) chain.levels.push_back(level);
            if (!chain.levels.empty()) chains.push_back(std::move(chain));
        }
    return chains;
}

/// M81b: another item that could be worn in its place, is no twin of it, and is hardly older.
bool is_contested(const Armoury& armoury, const std::vector<ItemId>& groups,
                  const std::vector<ItemId>& wearable, ItemId item) {
    const Item& own = armoury.at(item);
    return std::any_of(wearable.begin(), wearable.end(), [&](ItemId other) {
        const Item& rival = armoury.at(other);
        return groups[other.index()] != groups[item.index()] && stands_against(armoury, rival, own);
    });
}

/// Levels since an item could first be worn.
int age_of(const Armoury& armoury, ItemId item, int level) {
    return level - std::max(armoury.at(item).wear_level(), armoury.levels.first);
}

ItemContextRow measure(const Armoury& armoury, const Search& search, ItemId item, int level) {
    const auto value = [](const Found& found) { return found.any ? found.margin.value : weakest; };
    ItemContextRow row;
    row.item = item;
    row.best = value(search.best());
    row.with = value(search.with(item));
    row.without = value(search.without(item));
    row.empty = value(search.empty(search.one_place_of(item)));
    row.worth = std::log(row.best / row.empty);
    row.judged = row.worth >= least_worth;
    if (row.judged) {
        // What is worn twice is measured against both of its places together (M81a).
        const double all_its_places = value(search.empty(search.places_of(item)));
        row.grip = std::log(row.best / row.without) / std::log(row.best / all_its_places);
        row.shortfall = std::log(row.best / row.with) / row.worth;
    }
    const int age = age_of(armoury, item, level);
    row.in_window = age < armoury.audit.window;
    row.after_window = !row.in_window && age < 2 * armoury.audit.window;
    return row;
}

/// Items whose verdict hangs on this level: those in their window, or in as many levels after it.
std::vector<ItemId> judged_here(const Armoury& armoury, const Search& search, int level) {
    std::vector<ItemId> items = search.wearable();
    std::erase_if(items, [&](ItemId item) {
        return age_of(armoury, item, level) >= 2 * armoury.audit.window;
    });
    return items;
}

/// Finds the best of the context, then what each condition costs.
void search_context(Search& search, const std::vector<ItemId>& items) {
    if (!search.find_best()) return;
    for (const ItemId item : items) search.find_with(item);
    // Last, since the searches before may have found a better best: what that wears is banned, and
    // its places are emptied.
    const Candidate best = search.best().candidate;
    for_each_item(best, [&](ItemId item) { search.find_without(item); });
    for (const Footprint& places : search.footprints()) search.find_empty(places);
}

ContextRow context_row(const Armoury& armoury, const Search& search, const Context& context) {
    ContextRow row{
        context,       armoury.at(context.encounter).weight, search.best().margin, {}, false,
        search.error()};
    if (search.best().any) row.outfit = search.outfit_of(search.best().candidate);
    return row;
}

void run_chain(const Armoury& armoury, const std::vector<ItemId>& groups, Chain& chain,
               const Watch& watch, const std::function<void()>& done) {
    Search search(armoury, groups);
    std::vector<Candidate> hint; // the best of the level before
    for (const int level : chain.levels) {
        if (watch.stopped()) {
            chain.stopped = true;
            return;
        }
        const Context context{chain.character, level, chain.encounter};
        search.enter(context, hint);
        const std::vector<ItemId> items = judged_here(armoury, search, level);
        search_context(search, items);
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
        chain.contexts.push_back(context_row(armoury, search, context));
        done();
    }
}

void gather(AuditResult& result, std::vector<Chain>& chains) {
    for (Chain& chain : chains) {
        const std::size_t offset = result.contexts.size();
        for (ItemContextRow& row : chain.rows) {
            row.context += offset;
            result.rows.push_back(row);
        }
        std::move(chain.contexts.begin(), chain.contexts.end(),
                  std::back_inserter(result.contexts));
        result.partial = result.partial || chain.stopped;
    }
    std::stable_sort(
        result.rows.begin(), result.rows.end(),
        [](const ItemContextRow& a, const ItemContextRow& b) { return a.item < b.item; });
}

void judge_all(const Armoury& armoury, const std::vector<PaperVerdict>& paper,
               AuditResult& result) {
    for (std::size_t i = 0; i < armoury.items.size(); ++i) {
        if (!armoury.items[i].worn()) continue;
        const auto [first, last] = std::equal_range(
            result.rows.begin(), result.rows.end(), ItemContextRow{.item = ItemId(i)},
            [](const ItemContextRow& a, const ItemContextRow& b) { return a.item < b.item; });
        result.items.push_back(
            judge_item(armoury, ItemId(i), paper[i], std::span(first, last), result.contexts));
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
    const auto used = static_cast<std::size_t>(
        std::count_if(armoury.items.begin(), armoury.items.end(),
                      [](const Item& item) { return item.use.has_value(); }));
    if (used > 0)
        result.remarks.push_back(
            fmt::format("{} packed as the search likes best, without a verdict of their own",
                        counted(used, "consumable")));
}

} // namespace

AuditResult audit(const Armoury& armoury, const AuditOptions& options, const Watch& watch) {
    const std::vector<PaperVerdict> paper = compare_on_paper(armoury);
    const std::vector<ItemId> groups = twin_groups(paper);
    std::vector<Chain> chains = make_chains(armoury, options);
    std::size_t total = 0;
    for (const Chain& chain : chains) total += chain.levels.size();
    std::atomic<std::size_t> finished = 0;
    const auto done = [&] {
        const std::size_t now = ++finished;
        if (watch.progress) watch.progress(now, total);
    };
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, chains.size(), 1),
                      [&](const tbb::blocked_range<std::size_t>& range) {
                          for (std::size_t i = range.begin(); i != range.end(); ++i)
                              run_chain(armoury, groups, chains[i], watch, done);
                      });
    AuditResult result;
    gather(result, chains);
    judge_all(armoury, paper, result);
    remark(armoury, options, result);
    return result;
}

} // namespace panoplon
