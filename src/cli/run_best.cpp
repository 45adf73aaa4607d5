#include "cli/earlier_runs.h"
#include "show/loadout/show_best.h"

#include <algorithm>
#include <limits>

namespace panoplon {

namespace {

Result<int> highest_rank(const Invocation& invocation, const Armoury& armoury) {
    if (!invocation.has("tier")) return Limits().highest_rank;
    const Result<TierId> tier = look_up<TierId>("tier", armoury.tiers, invocation.value("tier"));
    if (!tier.ok()) return tier.failure();
    return armoury.at(tier.value()).rank;
}

} // namespace

int run_best(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    BestOptions options;
    FirstFailure take;
    narrow_by_step(invocation, armoury, take, options);
    Limits& limits = options.limits;
    limits.highest_rank = take(highest_rank(invocation, armoury));
    limits.with = take(look_up_all<ItemId>("item", armoury.items, invocation.values("with")));
    limits.without = take(look_up_all<ItemId>("item", armoury.items, invocation.values("without")));
    limits.value =
        take(number_option(invocation, "value-limit", 0, std::numeric_limits<double>::max()));
    options.bound_fights =
        static_cast<int>(take(whole_option(invocation, "bound-fights", 0, 1'000'000'000,
                                           static_cast<std::uint64_t>(options.bound_fights))));
    if (take.failure()) return report_failure(*take.failure());
    EarlierRuns earlier(invocation);
    const BestResult result = watched(invocation, "contexts", [&](const Watch& watch) {
        return find_bests(armoury, options, watch, earlier.recall(*opened.read));
    });
    earlier.tell();
    if (result.contexts.empty() && !result.partial)
        return report_failure(
            {Cause::refused, "there is no such context: nobody meets that encounter at that level",
             "panoplon list ARMOURY encounter"});
    const bool any = std::any_of(result.contexts.begin(), result.contexts.end(),
                                 [](const BestOfContext& best) { return best.any; });
    return show(invocation, armoury, show_best(armoury, options, result), 0,
                any ? Exit::done : Exit::refused);
}

} // namespace panoplon
