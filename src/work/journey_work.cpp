#include "work/journey_work.h"

#include "journey/kit.h"
#include "outfit/needs.h"

namespace panoplon {

JourneyStart find_start(const Armoury& armoury, const Journey& journey) {
    Deriver deriver(armoury);
    JourneyStart start{journey_start(armoury, journey), {}, {}};
    start.refused = refusals(deriver, start.outfit);
    if (start.refused.empty())
        start.missing =
            missing_for(deriver, start.outfit, armoury.at(journey.stages.front().encounter));
    return start;
}

} // namespace panoplon
