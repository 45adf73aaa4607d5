// One item looked at by itself: what it costs and gives, who can wear it, what it stands against.
#pragma once

#include "judge/paper/paper.h"
#include "model/budget.h"
#include "outfit/derive.h"
#include "outfit/draw_ends.h"

#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// A character and an item.
struct Wearer {
    CharacterId character;
    int first = 0;                    ///< lowest level at which it can wear or use it; 0: never
    std::vector<std::string> reasons; ///< why never; empty when it can
    /// Power at that level with nothing worn, and with only this; none where there is no yardstick
    /// or the item needs something else to be in.
    std::optional<double> bare, wearing;
    std::optional<double> worst_rolled,
        best_rolled; ///< `wearing`, with its rolls at one end (M44a)
    DrawEnds ends;   ///< what these are
};

/// From which level a character can wear or use an item, or why never; without its powers.
[[nodiscard]] Wearer find_wearer(Deriver& deriver, const Item& item, CharacterId character);

/// The smallest change after which nothing outclasses an item on paper. Of stats, the one that
/// costs the fewest budget points among those that the item or what outclasses it has.
struct WayOut {
    StatId stat;              ///< none: only a lower weight would do
    double now = 0, then = 0; ///< the item's own amount
    double cost = 0;          ///< budget points
    std::optional<double> weight_below;
};

struct Appraisal {
    std::optional<BudgetUse> budget;
    std::vector<Wearer> wearers;   ///< by character; empty for what is neither worn nor used
    std::vector<ItemId> rivals;    ///< its peers (M81b)
    std::optional<WayOut> way_out; ///< where something outclasses it
};

/// `paper`: compare_on_paper().
[[nodiscard]] Appraisal appraise(const Armoury& armoury, ItemId item,
                                 const std::vector<PaperVerdict>& paper);

} // namespace panoplon
