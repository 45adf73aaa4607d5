// Two readings of an armoury, before and after a change: what it does to sheets, curves, the best
// of each context, and verdicts.
#pragma once

#include "armoury/content.h"
#include "base/watch.h"
#include "judge/audit/audit.h"

#include <string>
#include <vector>

namespace panoplon {

/// A stat of a loadout, at the last level of its own that both readings have.
struct SheetShift {
    std::string loadout, stat;
    int level = 1;
    double before = 0, after = 0;
};

/// A loadout against an encounter over level, by even luck.
struct CurveShift {
    struct Point {
        int level = 1;
        double before = 0, after = 0;
        double roughness = 0; ///< of the rougher of both, where they lie close together (M69b)
        [[nodiscard]] double ratio() const { return after / before; }
        /// Whether the ratio is further from 1 than margins are sure.
        [[nodiscard]] bool moved() const;
    };

    std::string loadout, encounter;
    bool power = false; ///< against the yardstick, both before and after
    std::vector<Point> points;
    /// Of the points that moved, or where none did of all, the one whose ratio is the furthest
    /// from 1.
    [[nodiscard]] const Point& most() const;
    [[nodiscard]] bool moved() const { return most().moved(); }
};

/// The best margin of a context of the audit.
struct BestShift {
    std::string character, encounter;
    int level = 1;
    double before = 0, after = 0;
    double roughness = 0; ///< of the rougher of both (M69b)
    [[nodiscard]] double ratio() const { return after / before; }
    [[nodiscard]] bool moved() const;
};

struct VerdictShift {
    std::string id;
    std::optional<ItemVerdict> before, after; ///< none: not there
    [[nodiscard]] bool moved() const;
    [[nodiscard]] bool called() const { return before && before->calls(); }
    [[nodiscard]] bool calls() const { return after && after->calls(); }
    /// Whether neither asks for a designer's hand: strong, niche, sound or weak, before and after.
    [[nodiscard]] bool stays_fair() const;
};

struct Comparison {
    std::vector<DefinitionChange> changes;
    std::vector<SheetShift> sheets;        ///< those that differ
    std::vector<CurveShift> curves;        ///< of every loadout and encounter that both have
    std::vector<std::string> incomparable; ///< loadouts that one of them refuses or lacks, and why
    std::vector<BestShift> bests;          ///< of every context that both have
    std::vector<VerdictShift> verdicts;    ///< of every worn item and consumable
    std::size_t contexts = 0;              ///< that were judged after the change
    bool partial = false;

    /// Of a loadout's curves of which a corridor is wanted: how many stay within it at every level.
    struct Corridors {
        std::size_t kept = 0, wanted = 0;
    };
    Corridors corridors_before, corridors_after;

    /// What calls for a designer's hand, before and after.
    [[nodiscard]] std::size_t calling_before() const;
    [[nodiscard]] std::size_t calling_after() const;
    [[nodiscard]] std::vector<const VerdictShift*> newly_calling() const;
    [[nodiscard]] std::vector<const VerdictShift*> no_longer_calling() const;
    /// Above 0 where fewer things call and no fewer curves keep to their corridor, or more do and
    /// no more things call; below 0 the other way round; 0 where nothing differs; none where one is
    /// better and the other is worse.
    [[nodiscard]] std::optional<int> better() const;

    /// The furthest that the margin of a loadout moved, as a ratio's distance from 1; 0 for none.
    [[nodiscard]] double furthest() const;
};

/// One side of a comparison.
struct Reading {
    const ReadArmoury& read;
    AuditOptions scope; ///< what is audited
};

/// Of an armoury as it stands, by even luck.
[[nodiscard]] Comparison::Corridors corridors_kept(const Armoury& armoury, const Watch& watch = {});

/// Sheets and curves of loadouts, and what was changed: all that takes no audit.
[[nodiscard]] Comparison compare_loadouts(const ReadArmoury& before, const ReadArmoury& after,
                                          const Watch& watch = {});
/// Adds the bests and the verdicts of an audit of each.
void compare_audits(const Armoury& before, const AuditResult& was, const Armoury& after,
                    const AuditResult& is, Comparison& into);

/// `memory` spares the searches of contexts that the change does not touch. Progress counts the
/// contexts of one audit, then those of the other.
[[nodiscard]] Comparison compare_readings(const Reading& before, const Reading& after,
                                          Memory& memory, const Watch& watch = {});

} // namespace panoplon
