// A character's way through stages: fights won and lost, finds, levels, changes of gear.
#pragma once

#include "fight/trials.h"

#include <map>
#include <string>
#include <vector>

namespace panoplon {

/// What a journey's trials came to at one of its stages.
struct StageSummary {
    std::uint64_t reached = 0; ///< trials
    std::uint64_t passed = 0;  ///< trials that won often enough
    Moments tries;             ///< fights, of those that reached it
    Moments wins;
    Moments level;             ///< at its end, of those that passed
    Moments time;              ///< fought since the start of the journey, at its end
    Moments coin;              ///< in hand at its end
    std::vector<double> power; ///< at its end, sorted; empty without a yardstick
    std::vector<double> stock; ///< by item: units of consumables at its end, of all that passed
    /// What the encounter asked for and was not there, with the trials that ended for it.
    std::map<std::string, std::uint64_t> missing;
};

/// Where a trial stood: at its start, and at the end of each stage that it reached.
struct WayPoint {
    int level = 1;
    double time = 0;  ///< fought since the start
    double power = 0; ///< 0 without a yardstick
};
using Way = std::vector<WayPoint>;

/// What became of an item.
struct ItemSummary {
    std::uint64_t found_in = 0; ///< trials in which it was found
    std::uint64_t worn_in = 0;  ///< trials in which it was worn for a fight
    Moments found, left;        ///< units a trial; left behind where it was found or taken off
    Moments used;               ///< units a trial; gear that broke among them
    Moments bought, sold;       ///< units a trial; sold: of what was left behind
    Moments broken;             ///< likewise, of what was used
    Moments grown;      ///< times a trial that one grew (M97e), of the trials in which it was worn
    Moments first_worn; ///< level, of the trials in which it was worn
    double fights_worn = 0;             ///< fights in which it was worn,
    std::vector<double> fights_worn_at; ///< and by level, from the armoury's first
    std::uint64_t kept_in = 0;          ///< trials in which, once worn, it was worn to the end
};

struct JourneySummary {
    std::uint64_t trials = 0;
    std::uint64_t finished = 0; ///< trials that passed every stage
    bool partial = false;
    double fights = 0;             ///< of all trials,
    std::vector<double> fights_at; ///< and by level, from the armoury's first
    std::vector<StageSummary> stages;
    std::vector<Way> ways;               ///< by trial
    std::vector<ItemSummary> items;      ///< by item
    std::vector<std::uint64_t> upgrades; ///< by upgrade: levels bought, of all trials
    std::optional<FightError> error;
};

struct JourneyOptions {
    std::uint64_t trials = 1000; ///< ≥ 1
    std::uint64_t seed = 1;
};

/// The outfit that a journey starts with, at the first of its loadout's levels.
[[nodiscard]] Outfit journey_start(const Armoury& armoury, const Journey& journey);

/// Plays the trials; the same for any number of threads. The start can be worn and can fight the
/// first encounter. A trial ends where a stage is not won within its tries, or where gear is asked
/// for that the character has not. Units are counted in each trial: what it set out with and found
/// is what it used, left and still has; where that does not hold, `error` says so.
[[nodiscard]] JourneySummary run_journey(const Armoury& armoury, const Journey& journey,
                                         const JourneyOptions& options, const Watch& watch = {});

} // namespace panoplon
