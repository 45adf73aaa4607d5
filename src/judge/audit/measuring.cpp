#include "judge/audit/measuring.h"

#include "base/parallel.h"
#include "base/text.h"

#include <algorithm>
#include <atomic>

namespace panoplon {

namespace {

std::uint64_t hash_number(std::uint64_t number, std::uint64_t seed) {
    return hash_text({reinterpret_cast<const char*>(&number), sizeof number}, seed);
}

/// What a context hangs on: the rules, and what can be had in it.
std::uint64_t key_of(const Armoury& armoury, const Recall& recall,
                     const std::vector<ItemId>& groups, const Search& search) {
    std::uint64_t key = hash_number(recall.edition, hash_start);
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

/// None where the work was stopped in its midst, or nothing is asked for that is judged there.
std::optional<MeasuredContext>
measured_in(const Armoury& armoury, const std::vector<ItemId>& groups, const Recall& recall_from,
            const std::vector<bool>& judged, const Context& context, Search& search,
            const Watch& watch, std::atomic<std::size_t>& recalled) {
    search.enter(context);
    std::uint64_t key = 0;
    if (!judged.empty() && !judges_any(armoury, judged, search)) return std::nullopt;
    const bool whole = recall_from.memory && judged.empty();
    if (whole) {
        key = key_of(armoury, recall_from, groups, search);
        const RememberedContext* known = recall_from.memory->find(key);
        if (auto measured = known ? recall(armoury, search, *known) : std::nullopt) {
            ++recalled;
            return std::move(*measured);
        }
    }
    (void)search.find_best();
    MeasuredContext measured = measure_context(armoury, groups, judged, search);
    if (watch.stopped()) return std::nullopt;
    if (whole && !measured.context.error)
        recall_from.memory->keep(key, remember(armoury, search, measured));
    return measured;
}

} // namespace

MeasuredContexts measure_contexts(const Armoury& armoury, const std::vector<ItemId>& groups,
                                  const AuditOptions& options, const Watch& watch,
                                  const Recall& recall) {
    const std::vector<Context> contexts = contexts_of(armoury, options);
    std::vector<std::optional<MeasuredContext>> found(contexts.size());
    std::atomic<std::size_t> recalled = 0;
    for_each_with_worker(
        contexts.size(),
        [&] {
            Search search(armoury, groups);
            search.heed(watch);
            return search;
        },
        watch,
        [&](Search& search, std::size_t i) {
            found[i] = measured_in(armoury, groups, recall, options.judged, contexts[i], search,
                                   watch, recalled);
        });
    MeasuredContexts measured;
    measured.recalled = recalled;
    for (std::optional<MeasuredContext>& one : found)
        if (one) measured.contexts.push_back(std::move(*one));
    measured.partial = watch.stopped();
    return measured;
}

} // namespace panoplon
