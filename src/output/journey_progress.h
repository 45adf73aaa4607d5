// Power by level and over time, and stocks over time, as parts of a journey's document.
#pragma once

#include "journey/journey.h"
#include "output/document.h"

namespace panoplon {

/// Steps of time that power is told at.
inline constexpr std::size_t journey_moments = 41;

/// Time to each level and power at it, where it leaves the wanted corridor, and power over time.
void add_progress(const Armoury& armoury, const JourneySummary& summary, Document& document);
/// What is in the pack at the end of each stage.
void add_stocks(const Armoury& armoury, const JourneySummary& summary, Document& document);

/// Consumables that any trial had at the end of a stage, by item; most first.
[[nodiscard]] std::vector<std::size_t> stocked_items(const JourneySummary& summary);
/// Mean units of an item at the end of a stage, of the trials that passed it.
[[nodiscard]] double mean_stock(const StageSummary& stage, std::size_t item);

} // namespace panoplon
