// Power and margin over level for loadouts (M70, vocabulary: power curve).
#pragma once

#include "fight/trials.h"

#include <string>
#include <vector>

namespace panoplon {

struct CurveOptions {
    std::vector<LoadoutId> loadouts;     ///< empty: all
    std::vector<CharacterId> characters; ///< empty: all; loadouts of others are left out
    std::vector<EncounterId> encounters; ///< empty: the yardstick and all that have a weight
    LevelRange levels;
    std::uint64_t trials = 100; ///< 0: even luck only
    std::uint64_t seed = 1;
};

struct CurvePoint {
    int level = 1;
    Margin even; ///< by even luck
    double p10 = 0, p50 = 0,
           p90 = 0;           ///< margins of the trials; those beyond reach count as the bound
    double win_share = 0;     ///< share of trials with a margin of at least 1 (M70)
    std::uint64_t beyond = 0; ///< trials whose margin is not within 1/64 and 64
    std::uint64_t trials = 0;
    double load_share = 0;
};

struct Curve {
    LoadoutId loadout;
    EncounterId encounter;
    bool power = false; ///< against the yardstick
    std::vector<CurvePoint> points;
    /// Levels at which the loadout is refused, and why; such levels have no point.
    struct Gap {
        LevelRange levels;
        std::string reason;
    };
    std::vector<Gap> gaps;
    std::optional<FightError> error;
};

/// A sentence about one curve.
struct Finding {
    std::string kind; ///< `corridor`
    int level = 1;    ///< where it begins
    std::size_t curve = 0;
    double size = 0; ///< how far outside, as a share
    std::string sentence;
};

struct CurveResult {
    std::vector<Curve> curves;
    std::vector<Finding> findings;
    bool partial = false;
};

/// One curve for each loadout and encounter, power first; the same for any number of threads.
[[nodiscard]] CurveResult draw_curves(const Armoury& armoury, const CurveOptions& options,
                                      const Watch& watch = {});

} // namespace panoplon
