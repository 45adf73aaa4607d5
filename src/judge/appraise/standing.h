// Where a loadout stands: against every encounter that counts, at the last of its levels.
#pragma once

#include "fight/trials.h"
#include "outfit/sheet.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

struct Standing {
    LoadoutId loadout;
    int level = 1;
    Sheet sheet;
    std::string refused; ///< why it can't be worn; empty: it can
    /// Margins by even luck, as encounters_that_count() has them; none where it can't fight there.
    std::vector<std::optional<Margin>> margins;
    /// The encounter, other than the yardstick, that is the nearest to an even match: what there is
    /// most to see in. None where it can fight nowhere.
    EncounterId closest;
};

/// By loadout. Progress counts loadouts.
[[nodiscard]] std::vector<Standing> find_standings(const Armoury& armoury, const Watch& watch = {});

} // namespace panoplon
