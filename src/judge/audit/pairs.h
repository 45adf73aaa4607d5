// Pairs of things that work together beyond their parts, or get in each other's way (M93).
#pragma once

#include "base/watch.h"
#include "judge/audit/audit.h"

#include <vector>

namespace panoplon {

struct PairOptions {
    std::uint64_t loadouts = 8; ///< drawn at random in each context, beside its best; ≥ 0
    std::uint64_t seed = 1;
};

/// Two items, the one with the lower number first.
struct PairWorth {
    ItemId first, second;
    std::size_t seen = 0; ///< loadouts that had both
    /// What the two do together beyond the product of what each does alone, as a share of the
    /// margin, with its interval: over 0 they help, under 0 they hinder each other.
    Estimate together;
    /// What each gives to a margin when the other is there, in the mean.
    double first_gain = 0, second_gain = 0;
};

/// Takes things off loadouts, one alone and two at once, and compares by even luck: of every
/// context its best loadout, and others drawn at random. Only pairs that were seen often enough for
/// an interval and lie clearly off 0, the strongest first. The same for any number of
/// threads. Stopped, it has nothing.
[[nodiscard]] std::vector<PairWorth> find_pairs(const Judging& judging, const PairOptions& options,
                                                const AuditResult& result, const Watch& watch = {});

} // namespace panoplon
