#include "judge/audit/lift.h"

#include "base/compute_each.h"
#include "judge/search/loadout_draws.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// The first, the middle and the last context of the window.
std::vector<std::size_t> contexts_of(std::span<const ItemContextRow> rows) {
    std::vector<std::size_t> all;
    for (const ItemContextRow& row : rows)
        if (row.in_window) all.push_back(row.context);
    std::vector<std::size_t> some;
    if (all.empty()) return some;
    for (const std::size_t at : {std::size_t{0}, all.size() / 2, all.size() - 1})
        if (some.empty() || some.back() != all[at]) some.push_back(all[at]);
    return some;
}

class LiftFinder {
  public:
    LiftFinder(const Armoury& armoury, const std::vector<ItemId>& groups,
               const LiftOptions& options)
        : options_(options),
          search_(armoury, groups) {}

    void add(const ContextRow& row, ItemId item, Moments& gains) {
        const Context& context = row.context;
        Limits limits;
        limits.highest_rank = row.highest_rank;
        search_.limit(std::move(limits));
        search_.enter(context);
        std::uint64_t found = 0;
        for (std::uint64_t draw = 0; draw < options_.loadouts * most_loadout_draws; ++draw) {
            if (found == options_.loadouts || search_.error()) return;
            LoadoutDraws draws(options_.seed, context, draw);
            const Candidate drawn = search_.drawn([&] { return draws(); });
            const auto wearing = search_.wearing(drawn, item, [&] { return draws(); });
            if (!wearing || *wearing == drawn) continue;
            const auto with = search_.turn(*wearing);
            const auto without = search_.turn(drawn);
            if (!with || !without) continue;
            gains.add(std::log(with->value / without->value));
            ++found;
        }
    }

  private:
    const LiftOptions& options_;
    Search search_;
};

} // namespace

void find_lifts(const Judging& judging, const LiftOptions& options, AuditResult& result,
                const Watch& watch) {
    if (options.loadouts == 0) return;
    const Armoury& armoury = judging.armoury;
    const std::vector<ItemId>& groups = judging.twins;
    const std::vector<std::optional<Moments>> gains = compute_each(
        result.items.size(), [&] { return LiftFinder(armoury, groups, options); }, watch,
        [&](LiftFinder& finder, std::size_t i) {
            const ItemId item = result.items[i].item;
            Moments sum;
            for (const std::size_t context : contexts_of(rows_of(result.rows, item)))
                finder.add(result.contexts[context], item, sum);
            return sum;
        });
    for (std::size_t i = 0; i < gains.size(); ++i) {
        if (!gains[i] || gains[i]->count < 2) continue;
        const Estimate logs = estimate_mean(*gains[i]);
        result.items[i].lift =
            Estimate{std::expm1(logs.mean), std::expm1(logs.low), std::expm1(logs.high)};
    }
}

} // namespace panoplon
