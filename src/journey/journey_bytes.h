// What journeys came to as bytes, for other ranks.
#pragma once

#include "fight/trial_bytes.h"
#include "journey/journey.h"

namespace panoplon {

template <class Archive>
void serialize(Archive& archive, WayPoint& point) {
    archive(point.level, point.time, point.power);
}

template <class Archive>
void serialize(Archive& archive, StageSummary& stage) {
    archive(stage.reached, stage.passed, stage.tries, stage.wins, stage.level, stage.time,
            stage.coin, stage.power, stage.stock, stage.missing);
}

template <class Archive>
void serialize(Archive& archive, ItemSummary& item) {
    archive(item.found_in, item.worn_in, item.found, item.left, item.used, item.bought, item.sold,
            item.broken, item.grown, item.first_worn, item.fights_worn, item.fights_worn_at,
            item.kept_in);
}

template <class Archive>
void serialize(Archive& archive, JourneySummary& summary) {
    archive(summary.trials, summary.finished, summary.partial, summary.fights, summary.fights_at,
            summary.stages, summary.ways, summary.items, summary.upgrades, summary.error);
}

} // namespace panoplon
