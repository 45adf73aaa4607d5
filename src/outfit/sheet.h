// The sheet of an outfit: every stat with the parts that it is made from (M4), and the load.
#pragma once

#include "outfit/outfit.h"
#include "outfit/refusals.h"

namespace panoplon {

/// One thing that a stat is made from.
struct Part {
    std::string bearer; ///< `character.ringer`, `item.reed_coat`, `tier.plain`, `band.Laden`
    std::string kind;   ///< base, formula, add, percent or times
    double amount = 0;
};

struct Sheet {
    struct Line {
        double value = 0;
        std::vector<Part> parts; ///< in the order in which they are summed
    };
    std::vector<Line> stats; ///< by stat
    Load load;
    std::int64_t stacks = 0;
    std::int64_t bag = unlimited; ///< stacks that fit, with what gear grants
    /// How far a set of which something is worn has come (M43).
    struct SetStanding {
        SetId set;
        int pieces = 0;              ///< different ones that are worn
        int reached = 0;             ///< count of the highest step that applies; 0: none
        int next = 0;                ///< of the next step; 0: there is none
        std::vector<ItemId> missing; ///< pieces that are not worn
    };
    std::vector<SetStanding> sets;
    std::vector<Refusal> refused;
    /// What crossing the next edge above would do to each stat: (stat, now, then), where it
    /// changes.
    struct Crossing {
        StatId stat;
        double now = 0;
        double then = 0;
    };
    std::vector<Crossing> beyond_edge;
};

[[nodiscard]] Sheet make_sheet(Deriver& deriver, const Outfit& outfit);

/// The value that parts make: (base + formula + Σ add) × (1 + Σ percent / 100) × Π times, rounded
/// and clamped as the stat says. It is bitwise the value on the sheet.
[[nodiscard]] double compose(const Stat& stat, const std::vector<Part>& parts);
/// By how much those parts would go past the stat's cap; 0 where they don't (M91).
[[nodiscard]] double beyond_cap(const Stat& stat, const std::vector<Part>& parts);

} // namespace panoplon
