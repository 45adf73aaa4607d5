// One number of one item: what the item is as it goes from nothing to absurd, between which values
// it is fair, and what else a change upsets.
#pragma once

#include "base/watch.h"
#include "judge/audit/item_judge.h"
#include "judge/tune/comparison.h"
#include "judge/tune/tuned_number.h"

#include <limits>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace panoplon {

/// What a verdict says of a number: more is needed, less is, or neither.
enum class Fit { weak, fair, dominant, unjudged };
[[nodiscard]] Fit fit_of(Verdict verdict);

struct TunePoint {
    double value = 0;
    ItemVerdict verdict;
    std::vector<double> picks; ///< by encounter of Tuning: share of its contexts in the window
    std::string refused;       ///< why the armoury can't be read with it; empty: it can
    bool glanced = false;      ///< nothing better was looked for (ItemJudge::judge_at_a_glance)

    [[nodiscard]] Fit fit() const {
        return refused.empty() ? fit_of(verdict.verdict) : Fit::unjudged;
    }
};

/// Where the fair range ends.
struct FairEnd {
    double value = 0;       ///< the last fair one that was found
    Fit beyond = Fit::fair; ///< what lies past it; fair: nothing else was met up to the last value
    Verdict verdict = Verdict::sound; ///< there
};

/// Where something that a player notices steps.
struct Breakpoint {
    double value = 0;
    std::string sentence;
};

struct Tuning {
    TunedNumber number;
    std::vector<EncounterId> encounters;
    std::vector<TunePoint> points;    ///< by rising value
    std::optional<FairEnd> low, high; ///< of the fair range nearest to the present value; none:
                                      ///< nowhere fair
    std::vector<Breakpoint> breakpoints;
    /// A fair value close to the present one; none where that is fair itself, or nothing is.
    std::optional<double> proposal;
    std::optional<ItemVerdict> proposed; ///< the verdict there
    std::vector<ContextRow> contexts;    ///< of the present value
    std::vector<ItemContextRow> rows;    ///< likewise, of the item
    bool partial = false;

    [[nodiscard]] const TunePoint& now() const;
};

/// An armoury that can be had with what-ifs: its files are read and understood once.
class WhatIfs {
  public:
    WhatIfs() = default;
    /// `changes` hold throughout.
    WhatIfs(Sources sources, std::vector<std::string> changes)
        : files_(std::make_shared<const UnderstoodFiles>(understand_files(std::move(sources), {}))),
          changes_(std::move(changes)) {}
    /// With more, which hold this once.
    [[nodiscard]] ReadArmoury read(const std::vector<std::string>& more) const;
    /// With more that hold throughout.
    [[nodiscard]] WhatIfs with(const std::vector<std::string>& more) const;

  private:
    std::shared_ptr<const UnderstoodFiles> files_;
    std::vector<std::string> changes_;
};

/// How much of a number is asked for.
struct TuneScope {
    /// Every value is searched, and what steps is told; else values far from where anything turns
    /// are looked at at a glance, and the range and the proposal come from searches all the same.
    bool whole = true;
    /// Where the fair range begins further from the present value, the rest is left out: nothing
    /// is proposed then.
    double furthest = std::numeric_limits<double>::infinity();
};

/// `read` is the armoury as it stands, `present` what `judge` said of it. Progress counts values.
[[nodiscard]] Tuning tune(const ReadArmoury& read, const WhatIfs& what_ifs,
                          const TunedNumber& number, ItemJudge& judge, const JudgedItem& present,
                          const TuneScope& scope = {}, const Watch& watch = {});

} // namespace panoplon
