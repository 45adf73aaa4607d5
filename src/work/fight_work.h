// A fight from what is asked for to what was found: one loadout, or two under the same luck.
#pragma once

#include "armoury/read.h"
#include "base/stages.h"
#include "fight/setup.h"
#include "outfit/sheet.h"
#include "show/fight/show_fight.h"
#include "show/fight/show_fight_two.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// More than anybody waits for.
inline constexpr std::uint64_t most_trials = 10'000'000;

/// What was asked for.
struct FightRequest {
    LoadoutId loadout;
    EncounterId encounter;
    int level = 1;
    std::uint64_t trials = 0; ///< 0: even luck only
    std::uint64_t seed = 1;
    std::uint64_t told = 0;       ///< the trial that is told
    double precision = 0;         ///< of the share of wins; 0: whatever so many trials give
    bool margins = false;         ///< of each trial
    std::vector<std::string> why; ///< what is asked about
};

/// A loadout made ready for an encounter.
struct FightSide {
    Outfit outfit;
    Sheet sheet;                      ///< which tells what of it is refused
    std::vector<std::string> missing; ///< that the encounter asks for
    FightSetup setup;                 ///< once it is ready

    [[nodiscard]] bool ready() const { return sheet.refused.empty() && missing.empty(); }
};
[[nodiscard]] FightSide make_side(const Armoury& armoury, LoadoutId loadout, EncounterId encounter,
                                  int level);

/// `error`: of what the answer can't do without; one of even luck or of a margin beside sound
/// trials is the answer's own `fault`.
struct FightFound {
    FightAnswer answer;
    std::optional<FightError> error;
};
/// `side` is ready. The answer points into `read`.
[[nodiscard]] FightFound find_answer(const ReadArmoury& read, const FightSide& side,
                                     const FightRequest& request, Stages& stages);

/// The same of two sides; an error is of the first's armoury or of the second's.
struct TwoFound {
    TwoFights two;
    std::optional<FightError> first_error, second_error;
};
struct ArmedSide {
    const Armoury& armoury;
    const FightSide& side;
};
[[nodiscard]] TwoFound find_two(const ArmedSide& first, const ArmedSide& second,
                                const FightRequest& request, Stages& stages);

} // namespace panoplon
