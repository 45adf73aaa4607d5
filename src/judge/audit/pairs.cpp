#include "judge/audit/pairs.h"

#include "base/compute_each.h"
#include "judge/paper/paper.h"
#include "judge/search/loadout_draws.h"
#include "judge/search/search.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

namespace panoplon {

namespace {

constexpr std::size_t least_seen = 5;
/// What is nearer to 0 no player would notice.
constexpr double least_told = 0.005;
/// Thousands of pairs are looked at: an interval is this much wider for one to be told, so that
/// none in twenty audits is by chance.
constexpr double caution = 2.2;

/// What two items of one loadout do, as logarithms of margins.
struct Together {
    ItemId first, second;
    double beyond = 0, first_gain = 0, second_gain = 0;
};

/// A thing of a candidate that can be taken off: an item in a place, or all packed of one.
struct Thing {
    ItemId item;
    std::optional<std::size_t> place;
    std::size_t packed = 0;
};

class PairFinder {
  public:
    PairFinder(const Armoury& armoury, const std::vector<ItemId>& twins)
        : search_(armoury, twins) {}

    void enter(const Context& context) { search_.enter(context); }

    std::optional<Candidate> drawn(std::uint64_t seed, std::uint64_t draw) {
        LoadoutDraws draws(seed, search_.context(), draw);
        Candidate candidate = search_.drawn([&] { return draws(); });
        if (!search_.turn(candidate)) return std::nullopt;
        return candidate;
    }

    void look(const Candidate& whole, std::vector<Together>& into) {
        const std::optional<double> all = log_margin(whole);
        if (!all) return;
        const std::vector<Thing> things = things_of(whole);
        std::vector<std::optional<double>> alone; // without one
        for (const Thing& thing : things) alone.push_back(log_margin(without(whole, thing)));
        for (std::size_t a = 0; a < things.size(); ++a)
            for (std::size_t b = a + 1; b < things.size(); ++b) {
                if (!alone[a] || !alone[b] || things[a].item == things[b].item) continue;
                const auto none = log_margin(without(without(whole, things[a]), things[b]));
                if (!none) continue;
                const bool ordered = things[a].item < things[b].item;
                const double gain_a = *all - *alone[a];
                const double gain_b = *all - *alone[b];
                into.push_back({ordered ? things[a].item : things[b].item,
                                ordered ? things[b].item : things[a].item,
                                *all - *alone[a] - *alone[b] + *none, ordered ? gain_a : gain_b,
                                ordered ? gain_b : gain_a});
            }
    }

  private:
    std::optional<double> log_margin(const Candidate& candidate) {
        const auto margin = search_.turn(candidate);
        if (!margin || margin->reach != Reach::within) return std::nullopt;
        return std::log(margin->value);
    }

    std::vector<Thing> things_of(const Candidate& candidate) const {
        std::vector<Thing> things;
        for (std::size_t p = 0; p < candidate.places.size(); ++p)
            if (candidate.places[p].item.given())
                things.push_back({candidate.places[p].item, p, 0});
        const std::vector<ItemId>& consumables = search_.wardrobe().consumables();
        for (std::size_t c = 0; c < candidate.counts.size(); ++c)
            if (candidate.counts[c] > 0) things.push_back({consumables[c], std::nullopt, c});
        return things;
    }

    static Candidate without(Candidate candidate, const Thing& thing) {
        if (thing.place)
            candidate.places[*thing.place] = {};
        else
            candidate.counts[thing.packed] = 0;
        return candidate;
    }

    Search search_;
};

std::vector<Together> look_at(PairFinder& finder, const PairOptions& options,
                              const AuditResult& result, std::size_t context) {
    std::vector<Together> found;
    finder.enter(result.contexts[context].context);
    finder.look(result.bests[context], found);
    std::uint64_t taken = 0;
    for (std::uint64_t draw = 0; draw < options.loadouts * most_loadout_draws; ++draw) {
        if (taken == options.loadouts) break;
        const auto candidate = finder.drawn(options.seed, draw);
        if (!candidate) continue;
        finder.look(*candidate, found);
        ++taken;
    }
    return found;
}

struct Sums {
    Moments beyond, first_gain, second_gain;
};

} // namespace

std::vector<PairWorth> find_pairs(const Judging& judging, const PairOptions& options,
                                  const AuditResult& result, const Watch& watch) {
    const Armoury& armoury = judging.armoury;
    const std::vector<ItemId>& twins = judging.twins;
    const auto by_context = compute_each(
        result.contexts.size(), [&] { return PairFinder(armoury, twins); }, watch,
        [&](PairFinder& finder, std::size_t c) {
            return result.contexts[c].sound() && result.contexts[c].whole()
                       ? look_at(finder, options, result, c)
                       : std::vector<Together>();
        });
    if (watch.stopped()) return {};
    std::map<std::pair<ItemId, ItemId>, Sums> sums;
    for (const auto& found : by_context)
        for (const Together& one : *found) {
            Sums& sum = sums[{one.first, one.second}];
            sum.beyond.add(one.beyond);
            sum.first_gain.add(one.first_gain);
            sum.second_gain.add(one.second_gain);
        }
    std::vector<PairWorth> pairs;
    for (const auto& [items, sum] : sums) {
        const Estimate logs = estimate_mean(sum.beyond);
        const double doubt = (logs.high - logs.low) / 2 * caution;
        const bool told = sum.beyond.count >= least_seen && std::abs(logs.mean) > doubt &&
                          std::abs(std::expm1(logs.mean)) >= least_told;
        if (!told) continue;
        pairs.push_back({items.first,
                         items.second,
                         static_cast<std::size_t>(sum.beyond.count),
                         {std::expm1(logs.mean), std::expm1(logs.low), std::expm1(logs.high)},
                         std::expm1(sum.first_gain.mean()),
                         std::expm1(sum.second_gain.mean())});
    }
    std::stable_sort(pairs.begin(), pairs.end(), [](const PairWorth& a, const PairWorth& b) {
        return std::abs(a.together.mean) > std::abs(b.together.mean);
    });
    return pairs;
}

} // namespace panoplon
