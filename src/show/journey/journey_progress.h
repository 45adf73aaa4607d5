// Power by level and over time, and stocks over time, as parts of a journey's document.
#pragma once

#include "journey/journey.h"
#include "show/document.h"

namespace panoplon {

/// Steps of time that power is told at.
inline constexpr std::size_t journey_moments = 41;

/// Time to each level and power at it, where it leaves the wanted corridor, and power over time.
void add_progress(const Armoury& armoury, const JourneySummary& summary, Document& document);
/// What is in the pack at the start and at the end of each stage.
void add_stocks(const Armoury& armoury, const Journey& journey, const JourneySummary& summary,
                Document& document);

/// Mean units of one item in the pack.
struct Stock {
    std::size_t item = 0;
    double at_start = 0;
    std::vector<double> after; ///< by stage, of the trials that passed it; 0 where none did
};
/// Of what is carried and not worn, and was in the pack at any of these times; most first.
[[nodiscard]] std::vector<Stock> stocks_of(const Armoury& armoury, const Journey& journey,
                                           const JourneySummary& summary);

} // namespace panoplon
