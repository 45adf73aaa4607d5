// A fight: the summary of many trials, what even luck says, one trial told and drawn.
#pragma once

#include "fight/trials.h"
#include "outfit/sheet.h"
#include "show/document.h"

#include <optional>

namespace panoplon {

/// What `fight` has found out.
struct FightAnswer {
    LoadoutId loadout;
    EncounterId encounter;
    int level = 1;
    std::uint64_t seed = 1;
    std::uint64_t asked = 0; ///< trials; 0: even luck only
    std::optional<TrialsSummary> trials;
    std::optional<MarginTrials> margins; ///< of the trials, where they are asked for
    FightResult even;
    Margin even_margin;
    /// Of even luck or of a margin, where the trials are sound: what hangs on it is left out.
    std::optional<FightError> fault;
    std::vector<BlowCount> blows;
    Timeline told; ///< one trial, or even luck where there are none
    std::optional<std::uint64_t> told_trial;
    std::string load; ///< M55
    Sheet sheet;
    std::vector<PackedItem> pack;
    bool log = false;                 ///< the told trial line by line
    const Sources* sources = nullptr; ///< of the armoury, for places in it
    std::vector<std::string> why;     ///< what is asked about,
    Inquiry inquiry;                  ///< and why it was so
    std::uint64_t inquired = 0;       ///< in so many trials; 0: by even luck
};

[[nodiscard]] Document show_fight(const Armoury& armoury, const FightAnswer& answer);
/// `time,side,actor,event,source,target,amount,pool_after,load_share,note`
[[nodiscard]] Table timeline_table(const Timeline& timeline);
/// A timeline for a person: a line an event, in words.
[[nodiscard]] std::string log_text(const Armoury& armoury, const Timeline& timeline);
/// Pools of both sides over time, effects as bars under them.
[[nodiscard]] Figure fight_figure(const Armoury& armoury, const FightAnswer& answer);
/// Of many trials: when they end and how, and the share in which each side stands yet.
[[nodiscard]] Figure spread_figure(const Armoury& armoury, const FightAnswer& answer);

} // namespace panoplon
