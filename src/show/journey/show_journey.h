// A journey: how far it leads, power on the way, and what became of each item.
#pragma once

#include "journey/journey.h"
#include "show/document.h"

namespace panoplon {

[[nodiscard]] Document show_journey(const Armoury& armoury, const Journey& journey,
                                    const JourneyOptions& options, const JourneySummary& summary);
/// Power at the end of each stage as a band, and the tries that each took.
[[nodiscard]] Figure journey_figure(const Armoury& armoury, const Journey& journey,
                                    const JourneyOptions& options, const JourneySummary& summary);

/// Power by level against the wanted corridor, and over time; none without a yardstick.
[[nodiscard]] std::optional<Figure> journey_power_figure(const Armoury& armoury,
                                                         const Journey& journey,
                                                         const JourneyOptions& options,
                                                         const JourneySummary& summary);

/// Units of consumables at the end of each stage; none where nothing is ever carried.
[[nodiscard]] std::optional<Figure> journey_stock_figure(const Armoury& armoury,
                                                         const Journey& journey,
                                                         const JourneyOptions& options,
                                                         const JourneySummary& summary);

/// The life of items: rows by slot, the share of a level's fights in which each is worn as shade.
[[nodiscard]] Figure item_life_figure(const Armoury& armoury, const Journey& journey,
                                      const JourneyOptions& options, const JourneySummary& summary);

} // namespace panoplon
