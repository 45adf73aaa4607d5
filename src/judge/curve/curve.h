// Power and margin over level (M70, vocabulary: power curve): of loadouts, of the best gear of each
// tier and those below, of the best of all.
#pragma once

#include "fight/trials.h"
#include "judge/search/recall.h"
#include "outfit/outfit.h"

#include <string>
#include <vector>

namespace panoplon {

/// What each curve is of.
enum class CurveBy {
    loadout,
    tier,      ///< the best legal outfit of a tier and those below: the tier ladder
    character, ///< the best legal outfit of all; a figure an encounter, a line a character
    encounter, ///< the same; a figure a character, a line an encounter
};
inline constexpr const char* curve_by_names[] = {"loadout", "tier", "character", "encounter"};

struct CurveOptions {
    CurveBy by = CurveBy::loadout;
    std::vector<LoadoutId> loadouts;     ///< empty: all; for CurveBy::loadout
    std::vector<CharacterId> characters; ///< empty: all; loadouts of others are left out
    std::vector<EncounterId> encounters; ///< empty: the yardstick and all that have a weight
    LevelRange levels;
    std::uint64_t trials = 100; ///< 0: even luck only
    std::uint64_t seed = 1;
    bool linear = false; ///< the axis of figures
};

/// Hits that a player counts (M92), the fewest of any action; 0: none ever does it.
struct HitCounts {
    std::vector<int> to_fell; ///< by kind of foe, in the order of arrival
    std::vector<int> to_fall; ///< likewise: of theirs on the character

    bool operator==(const HitCounts&) const = default;
};

/// What an outfit comes to against an encounter.
struct PointNumbers {
    Margin even; ///< by even luck
    double p10 = 0, p50 = 0,
           p90 = 0;           ///< margins of the trials; those beyond reach count as the bound
    double win_share = 0;     ///< share of trials with a margin of at least 1 (M70)
    std::uint64_t beyond = 0; ///< trials whose margin is not within 1/64 and 64
    std::uint64_t trials = 0;
    double load_share = 0;
    int band = -1; ///< of load; -1: none
    HitCounts hits;
};

struct CurvePoint : PointNumbers {
    int level = 1;
    Outfit outfit;
};

struct Curve {
    CurveBy by = CurveBy::loadout;
    CharacterId character;
    LoadoutId loadout; ///< of CurveBy::loadout
    TierId tier;       ///< of CurveBy::tier
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

/// Ids of the foes of an encounter, each once, in the order of HitCounts.
[[nodiscard]] std::vector<std::string> kinds_of_foes(const Armoury& armoury,
                                                     const Encounter& encounter);

/// Of the blows that an engine counts.
[[nodiscard]] HitCounts count_hits(const std::vector<std::string>& foes,
                                   const std::vector<BlowCount>& blows);

/// "ringer_early", "ringer in fine and below", "ringer at best": what a curve is of.
[[nodiscard]] std::string curve_subject(const Armoury& armoury, const Curve& curve);
/// The same, for people: names in place of ids.
[[nodiscard]] std::string curve_label(const Armoury& armoury, const Curve& curve);

/// A sentence about one curve, or about two.
struct Finding {
    std::string kind; ///< corridor, crossing, jump, dip, stall, tier_step, band, hits or flat
    int level = 1;    ///< where it is, or begins
    std::size_t curve = 0;
    double size = 0; ///< as the kind has it: a share, or levels
    std::string sentence;
};

struct CurveResult {
    std::vector<Curve> curves;
    std::vector<Finding> findings;
    bool partial = false;
};

/// Power first; the same for any number of threads. Best outfits are looked for at the levels that
/// matter: the first, the last, every `audit.step`, and where something new can be worn.
[[nodiscard]] CurveResult draw_curves(const Armoury& armoury, const CurveOptions& options,
                                      const Watch& watch = {}, const Recall& recall = {});

} // namespace panoplon
