// What has to hold before a journey is played.
#pragma once

#include "journey/journey.h"
#include "outfit/refusals.h"

#include <string>
#include <vector>

namespace panoplon {

/// How a journey's character sets out.
struct JourneyStart {
    Outfit outfit;
    std::vector<Refusal> refused;     ///< of the outfit
    std::vector<std::string> missing; ///< for the first stage's encounter

    [[nodiscard]] bool can_set_out() const { return refused.empty() && missing.empty(); }
};
[[nodiscard]] JourneyStart find_start(const Armoury& armoury, const Journey& journey);

} // namespace panoplon
