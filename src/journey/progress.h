// How far the trials of a journey are, by level and by time, and where they leave the corridor.
#pragma once

#include "journey/journey.h"

namespace panoplon {

struct Percentiles {
    double p10 = 0, p50 = 0, p90 = 0;
};

/// Trials at a level that any of them stood at.
struct LevelProgress {
    int level = 1;
    std::uint64_t reached = 0; ///< trials that stood at it or above
    Percentiles time;          ///< fought until they first did
    std::optional<Percentiles>
        power; ///< where they last stood at this level; none without a yardstick
};
[[nodiscard]] std::vector<LevelProgress> progress_by_level(const JourneySummary& summary);

/// Trials after so much time of fighting.
struct TimeProgress {
    double time = 0;
    std::uint64_t under_way = 0; ///< trials that stood again at that time or later
    Percentiles power;           ///< of these: where they last stood by then
};
/// At `points` ≥ 2 equal steps, from the start until a tenth of the trials is under way. Empty
/// without a yardstick.
[[nodiscard]] std::vector<TimeProgress> progress_over_time(const JourneySummary& summary,
                                                           std::size_t points);

/// A level from which on the median power is on one side of the wanted corridor.
struct Straying {
    int level = 1;
    int side = 0; ///< -1: below, 1: above
    double power = 0;
    double low = 0, high = 0; ///< what is wanted there
};
[[nodiscard]] std::vector<Straying> find_straying(const Armoury& armoury,
                                                  const std::vector<LevelProgress>& levels);

} // namespace panoplon
