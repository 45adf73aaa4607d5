#include "judge/audit/confirming.h"

#include "base/compute_each.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// The number that decides a verdict, and where it begins to.
struct Deciding {
    bool by_grip;         ///< else by shortfall
    double threshold;     ///< of what its place is worth; or
    bool by_harm = false; ///< nothing in its place has to be better
};

std::optional<Deciding> deciding(const Armoury& armoury, Verdict verdict) {
    switch (verdict) {
    case Verdict::dominant: return Deciding{true, armoury.audit.dominant_grip};
    case Verdict::useless: return Deciding{false, armoury.audit.useless_shortfall};
    case Verdict::burden: return Deciding{false, 1, true};
    default: return std::nullopt;
    }
}

/// Up to three contexts of the window: least, middle, greatest.
std::vector<const ItemContextRow*> rows_to_fight(std::span<const ItemContextRow> rows,
                                                 bool by_grip) {
    std::vector<const ItemContextRow*> list;
    for (const ItemContextRow& row : rows)
        if (row.in_window && row.judged && (!by_grip || row.contested)) list.push_back(&row);
    std::stable_sort(list.begin(), list.end(),
                     [&](const ItemContextRow* a, const ItemContextRow* b) {
                         return by_grip ? a->grip < b->grip : a->shortfall < b->shortfall;
                     });
    std::vector<const ItemContextRow*> some;
    if (list.empty()) return some;
    for (const std::size_t at : {std::size_t{0}, list.size() / 2, list.size() - 1})
        if (some.empty() || some.back() != list[at]) some.push_back(list[at]);
    return some;
}

/// What trials add up to: logs of margins against one another, trial by trial.
struct Paired {
    Moments lost;  ///< of the best against the one without the item, or with it
    Moments worth; ///< of the best against the one with the place empty
    Moments over;  ///< lost − threshold × worth: over 0 where the verdict holds
};

class Confirmer {
  public:
    Confirmer(const Armoury& armoury, const std::vector<ItemId>& groups,
              const ConfirmOptions& options)
        : armoury_(armoury),
          options_(options),
          search_(armoury, groups),
          engine_(armoury) {}

    void fight(const ContextRow& context, const Candidate& best, const ItemContextRow& row,
               const Deciding& deciding, Paired& paired) {
        const ItemId item = row.item;
        Limits limits;
        limits.highest_rank = context.highest_rank;
        search_.limit(std::move(limits));
        search_.enter(context.context);
        if (!search_.begin_with(best)) return;
        if (deciding.by_grip)
            search_.find_without(item);
        else
            search_.find_with(item);
        const bool worn = armoury_.at(item).worn();
        const Footprint places =
            deciding.by_harm ? search_.one_place_of(item) : search_.all_places_of(item);
        if (worn)
            search_.find_empty(places);
        else
            search_.find_without_group(item);
        const Found& other = deciding.by_grip ? search_.without(item) : search_.with(item);
        const Found& empty = worn ? search_.empty(places) : search_.without_group(item);
        if (!other.any || !empty.any || search_.error()) return;
        // What counts of the worth of all these places, by even luck: one of several, or capped.
        const double counts = deciding.by_harm ? 1 : counted_share(row, deciding, other, empty);
        const std::vector<double> a = margins(context.context, search_.best());
        const std::vector<double> b = margins(context.context, other);
        const std::vector<double> c = margins(context.context, empty);
        for (std::size_t t = 0; t < std::min({a.size(), b.size(), c.size()}); ++t) {
            const double lost = std::log(a[t] / b[t]);
            const double worth = counts * std::log(a[t] / c[t]);
            paired.lost.add(lost);
            paired.worth.add(worth);
            paired.over.add(lost - deciding.threshold * worth);
        }
    }

  private:
    [[nodiscard]] double counted_share(const ItemContextRow& row, const Deciding& deciding,
                                       const Found& other, const Found& empty) const {
        const double best = search_.best().margin.value;
        const double number = deciding.by_grip ? row.grip : row.shortfall;
        const double lost = std::log(best / other.margin.value);
        const double worth = std::log(best / empty.margin.value);
        return number > 0 && lost > 0 && worth > 0 ? lost / number / worth : 1;
    }

    std::vector<double> margins(const Context& context, const Found& found) {
        const FightSetup setup =
            set_up_fight(armoury_, search_.outfit_of(found.candidate), context.encounter);
        engine_.prepare(setup);
        std::vector<double> list;
        for (std::uint64_t trial = 0; trial < options_.trials; ++trial) {
            const Margin margin = trial_margin(engine_, {options_.seed, trial}, found.margin.value);
            if (margin.error) break;
            list.push_back(margin.value);
        }
        return list;
    }

    const Armoury& armoury_;
    const ConfirmOptions& options_;
    Search search_;
    Engine engine_;
};

/// One verdict to be confirmed.
struct Task {
    ItemVerdict* verdict;
    Deciding deciding;
    std::vector<const ItemContextRow*> rows;
};

std::vector<Task> tasks_of(const Armoury& armoury, AuditResult& result) {
    std::vector<Task> tasks;
    const auto add = [&](ItemVerdict& verdict, const std::vector<ItemContextRow>& rows) {
        const auto by = deciding(armoury, verdict.verdict);
        if (!by) return;
        tasks.push_back({&verdict, *by, rows_to_fight(rows_of(rows, verdict.item), by->by_grip)});
    };
    for (ItemVerdict& one : result.items) add(one, result.rows);
    for (ConsumableVerdict& one : result.consumables) add(one.judged, result.packed_rows);
    return tasks;
}

} // namespace

void confirm_verdicts(const Judging& judging, const ConfirmOptions& options, AuditResult& result,
                      const Watch& watch) {
    if (options.trials == 0) return;
    const Armoury& armoury = judging.armoury;
    const std::vector<ItemId>& groups = judging.twins;
    std::vector<Task> tasks = tasks_of(armoury, result);
    const std::vector<std::optional<Paired>> fought = compute_each(
        tasks.size(), [&] { return Confirmer(armoury, groups, options); }, watch,
        [&](Confirmer& confirmer, std::size_t i) {
            Paired paired;
            for (const ItemContextRow* row : tasks[i].rows)
                if (!watch.stopped())
                    confirmer.fight(result.contexts[row->context], result.bests[row->context], *row,
                                    tasks[i].deciding, paired);
            return paired;
        });
    for (std::size_t i = 0; i < tasks.size(); ++i)
        if (fought[i] && fought[i]->worth.mean() > 0)
            tasks[i].verdict->confirmed = Confirmation{
                find_difference(fought[i]->over).estimate.high >= 0,
                fought[i]->lost.mean() / fought[i]->worth.mean(), tasks[i].rows.size()};
}

} // namespace panoplon
