// The best legal loadout of each context under what is asked for, and what comes closest without
// each thing that it has (M80).
#pragma once

#include "base/watch.h"
#include "judge/paper/paper.h"
#include "judge/search/contexts.h"
#include "judge/search/recall.h"

#include <string>
#include <vector>

namespace panoplon {

struct BestOptions : ContextScope {
    Limits limits;
    int bound_fights = 5000; ///< for each context, to bound what no outfit exceeds; 0: no bound
};

/// The best without one thing that the best has.
struct Rival {
    ItemId item;      ///< what it does without
    bool any = false; ///< false: nothing legal was found
    double margin = 0;
    Outfit outfit;
    /// What it has and the best has not, worn or packed, as far as that makes a difference.
    std::vector<PackedItem> instead;
};

struct BestOfContext {
    Context context;
    bool any = false; ///< false: see `reason`
    std::string reason;
    Margin margin;
    double roughness = 0;        ///< of the margin (M69b): smaller differences tell nothing
    double searched = 0;         ///< margin without bounding, which may come upon something better
    bool proven = false;         ///< tried or bounded, and nothing is better
    std::optional<double> bound; ///< no outfit exceeds it, on paper; none: tried, or not bounded
    double candidates = 0;       ///< how many the context has; ≥ 1, may be infinite
    Outfit outfit;
    Load load;
    double value = 0;
    std::vector<Rival> rivals; ///< what costs the most to do without first
};

/// What bounding told of a context that was searched further: refuted where that found more.
void tell_bound(const Bounded& bounded, BestOfContext& best);

struct BestResult {
    std::vector<BestOfContext> contexts; ///< by character, encounter, level
    bool partial = false;
};

/// Contexts are searched in parallel; the result is the same for any number of threads, and
/// whatever is known from before.
[[nodiscard]] BestResult find_bests(const Judging& judging, const BestOptions& options,
                                    const Watch& watch = {}, const Recall& recall = {});

} // namespace panoplon
