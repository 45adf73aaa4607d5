#include "judge/tune/tuning.h"

#include "judge/tune/breakpoints.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace panoplon {

namespace {

/// A range is narrowed down by halves this often at most.
constexpr int most_halvings = 12;
/// Values looked at while the ends are narrowed down and the proposal is tried, about.
constexpr std::size_t values_after = 14;

class Tuner {
  public:
    Tuner(const ReadArmoury& read, const WhatIfs& what_ifs, const TunedNumber& number,
          ItemJudge& judge, const JudgedItem& present, const TuneScope& scope, const Watch& watch)
        : armoury_(read.armoury),
          what_ifs_(what_ifs),
          judge_(judge),
          scope_(scope),
          watch_(watch),
          present_verdict_(present.verdict) {
        tuning_.number = number;
        tuning_.contexts = present.contexts;
        tuning_.rows = present.rows;
        for (const Context& context : judge.contexts())
            if (std::find(tuning_.encounters.begin(), tuning_.encounters.end(),
                          context.encounter) == tuning_.encounters.end())
                tuning_.encounters.push_back(context.encounter);
    }

    Tuning run() {
        const std::vector<double> values = values_to_try(armoury_, tuning_.number);
        expected_ = values.size() + values_after;
        tuning_.points.push_back(
            point_of(tuning_.number.now, {present_verdict_, tuning_.contexts, tuning_.rows}));
        if (scope_.whole) {
            for (const double value : values) look_at(value);
            find_range();
        } else if (may_matter(values.front(), values.back())) {
            for (const double value : values) glance_at(value);
            find_range();
        }
        if (!watch_.stopped()) propose();
        if (scope_.whole && !watch_.stopped())
            tuning_.breakpoints = find_breakpoints(armoury_, what_ifs_, tuning_);
        tuning_.partial = watch_.stopped();
        return std::move(tuning_);
    }

  private:
    void count() {
        ++done_;
        if (watch_.progress) watch_.progress(std::min(done_, expected_), expected_);
    }

    TunePoint point_of(double value, const JudgedItem& judged) const {
        TunePoint point{value, judged.verdict, {}, {}};
        for (const EncounterId encounter : tuning_.encounters) {
            double picks = 0;
            double all = 0;
            for (const ItemContextRow& row : judged.rows) {
                if (judged.contexts[row.context].context.encounter != encounter || !row.judged)
                    continue;
                ++all;
                picks += row.picked();
            }
            point.picks.push_back(all > 0 ? picks / all : 0);
        }
        return point;
    }

    /// The point of a value, searched when it is asked for first.
    const TunePoint* look_at(double value) { return point_at(value, false); }
    /// Likewise, or at a glance where it was not searched.
    const TunePoint* glance_at(double value) { return point_at(value, true); }

    const TunePoint* point_at(double value, bool glance) {
        auto at = std::lower_bound(
            tuning_.points.begin(), tuning_.points.end(), value,
            [](const TunePoint& point, double limit) { return point.value < limit; });
        const bool known = at != tuning_.points.end() && at->value == value;
        if (known && (glance || !at->glanced)) return &*at;
        if (watch_.stopped()) return nullptr;
        if (!known) at = tuning_.points.insert(at, {value, {}, {}, {}});
        const ReadArmoury read = what_ifs_.read({tuning_.number.what_if(value)});
        if (read.usable())
            *at = point_of(value, glance ? judge_.judge_at_a_glance(read.armoury)
                                         : judge_.judge_near(read.armoury));
        else
            at->refused = read.sink.sorted(Severity::mistake).front().message;
        at->glanced = glance && read.usable();
        count();
        return &*at;
    }

    /// Whether it is anything else at a glance at one end than at the other: of what does nothing
    /// no other value is looked at.
    [[nodiscard]] bool may_matter(double least, double most) {
        const TunePoint* point = glance_at(most);
        if (!point) return false;
        const auto judged = [](const TunePoint& of) {
            return std::tuple(of.refused.empty(), of.verdict.verdict, of.verdict.grip.mean,
                              of.verdict.shortfall.mean, of.picks);
        };
        const auto at_most = judged(*point);
        point = glance_at(least);
        return point && judged(*point) != at_most;
    }

    [[nodiscard]] bool is_fair(double value) {
        const TunePoint* point = look_at(value);
        return point && point->fit() == Fit::fair;
    }

    [[nodiscard]] double distance(double value) const {
        return std::abs(value - tuning_.number.now);
    }

    /// The fair point nearest to the present value; none: nowhere is it fair.
    std::optional<double> nearest_fair() {
        for (;;) {
            const TunePoint* nearest = nullptr;
            for (const TunePoint& point : tuning_.points)
                if (point.fit() == Fit::fair &&
                    (!nearest || distance(point.value) < distance(nearest->value)))
                    nearest = &point;
            if (!nearest || watch_.stopped()) return std::nullopt;
            const double value = nearest->value;
            if (is_fair(value)) return value;
        }
    }

    /// What was looked at or glanced at on one side of a value, the nearest first.
    [[nodiscard]] std::vector<double> values_from(double value, bool upward) const {
        std::vector<double> values;
        for (const TunePoint& point : tuning_.points)
            if (upward ? point.value > value : point.value < value) values.push_back(point.value);
        if (!upward) std::reverse(values.begin(), values.end());
        return values;
    }

    /// Goes from a fair value to the last of its run of fair ones, and narrows down where it ends.
    /// A value that is fair at a glance is passed over as long as one further out is fair.
    FairEnd end_from(double fair, bool upward) {
        std::vector<double> passed = {fair};
        for (const double value : values_from(fair, upward)) {
            const TunePoint* point = glance_at(value);
            if (!point || (point->fit() != Fit::fair && !is_fair(value)))
                return narrowed(passed, value);
            passed.push_back(value);
        }
        if (is_fair(passed.back())) return {passed.back(), Fit::fair, Verdict::sound};
        const double beyond = passed.back();
        passed.pop_back();
        return narrowed(passed, beyond);
    }

    /// The end lies past the first of the values that is fair, from the last to the first, and
    /// before what lies beyond.
    FairEnd narrowed(std::vector<double> passed, double beyond) {
        while (passed.size() > 1 && !is_fair(passed.back())) {
            beyond = passed.back();
            passed.pop_back();
        }
        double fair = passed.back();
        if (!scope_.whole) close_in(fair, beyond);
        halve(fair, beyond, [&](double value) { return look_at(value); });
        const TunePoint* past = look_at(beyond);
        if (!past) return {fair, Fit::fair, Verdict::sound};
        return {fair, past->fit(), past->verdict.verdict};
    }

    /// Halves the way between what is fair and what is not, down to the resolution.
    template <class Look>
    void halve(double& fair, double& beyond, const Look& look) const {
        const double step = resolution(armoury_, tuning_.number);
        for (int i = 0; i < most_halvings && std::abs(beyond - fair) > step * 1.001; ++i) {
            const double middle = on_grid(fair + (beyond - fair) / 2, step);
            if (middle == fair || middle == beyond) return;
            const TunePoint* point = look(middle);
            if (!point) return;
            (point->fit() == Fit::fair ? fair : beyond) = middle;
        }
    }

    /// Where the end lies at a glance, the values on either side of it are searched: mostly that
    /// is where it is.
    void close_in(double& fair, double& beyond) {
        double seen_fair = fair;
        double seen_beyond = beyond;
        halve(seen_fair, seen_beyond, [&](double value) { return glance_at(value); });
        for (const double value : {seen_fair, seen_beyond})
            if (value != fair && value != beyond) (is_fair(value) ? fair : beyond) = value;
    }

    void find_range() {
        std::optional<double> fair = nearest_fair();
        if (!fair) fair = fair_between();
        if (!fair) return;
        const bool present_is_below = tuning_.number.now < *fair;
        const FairEnd near = end_from(*fair, !present_is_below);
        if (distance(near.value) > scope_.furthest) return;
        const FairEnd far = end_from(*fair, present_is_below);
        tuning_.low = present_is_below ? near : far;
        tuning_.high = present_is_below ? far : near;
    }

    /// Where one value is weak and the next dominant, something fair may lie between; and what is
    /// weak at a glance, at either end, may be fair.
    std::optional<double> fair_between() {
        for (const double value : {tuning_.points.front().value, tuning_.points.back().value})
            if (is_fair(value)) return value;
        const double step = resolution(armoury_, tuning_.number);
        for (std::size_t i = 0; i + 1 < tuning_.points.size(); ++i) {
            double a = tuning_.points[i].value;
            double b = tuning_.points[i + 1].value;
            const Fit left = tuning_.points[i].fit();
            const Fit right = tuning_.points[i + 1].fit();
            if (left == right || left == Fit::unjudged || right == Fit::unjudged) continue;
            while (std::abs(b - a) > step * 1.001) {
                const double middle = on_grid(a + (b - a) / 2, step);
                const TunePoint* point = middle == a || middle == b ? nullptr : look_at(middle);
                if (!point) break;
                if (point->fit() == Fit::fair) return middle;
                (point->fit() == left ? a : b) = middle;
            }
        }
        return std::nullopt;
    }

    /// A little inward from the end of the range that is nearer to the present value: on the edge
    /// the next search may see it on the other side.
    void propose() {
        if (!tuning_.low || tuning_.now().fit() == Fit::fair) return;
        const double now = tuning_.number.now;
        const bool from_low =
            std::abs(tuning_.low->value - now) <= std::abs(tuning_.high->value - now);
        const double first = from_low ? tuning_.low->value : tuning_.high->value;
        const double last = from_low ? tuning_.high->value : tuning_.low->value;
        constexpr double inward = 0.1;
        const double value = tidy(first + (last - first) * inward, first, last);
        const TunePoint* point = look_at(value);
        if (!point || point->fit() != Fit::fair) return;
        tuning_.proposal = value;
        tuning_.proposed = point->verdict;
    }

    /// The shortest number close to a value that lies within the range; a whole one where all
    /// others are whole; with a step of its own the multiple next to the value, towards `first`.
    [[nodiscard]] double tidy(double value, double first, double last) const {
        const auto [low, high] = std::minmax(first, last);
        const double step = resolution(armoury_, tuning_.number);
        if (step_of_stat(armoury_, tuning_.number))
            return on_grid(first + std::trunc((value - first) / step) * step, step);
        if (step < 1 && is_whole_everywhere(armoury_, tuning_.number)) {
            const double whole = last > first ? std::ceil(value) : std::floor(value);
            if (whole >= low && whole <= high) return whole;
        }
        for (const double grain : {step * 10, step * 5, step * 2, step}) {
            const double direction = last > first ? 1 : -1;
            const double steps = value / grain;
            const double rounded =
                on_grid(direction > 0 ? std::ceil(steps) * grain : std::floor(steps) * grain, step);
            const bool close = std::abs(rounded - value) <= 0.05 * (high - low) + step;
            if (close && rounded >= low && rounded <= high) return rounded;
        }
        return first;
    }

    const Armoury& armoury_;
    const WhatIfs& what_ifs_;
    ItemJudge& judge_;
    const TuneScope& scope_;
    const Watch& watch_;
    ItemVerdict present_verdict_;
    Tuning tuning_;
    std::size_t done_ = 0;
    std::size_t expected_ = 0;
};

} // namespace

Fit fit_of(Verdict verdict) {
    switch (verdict) {
    case Verdict::burden:
    case Verdict::useless:
    case Verdict::outclassed: return Fit::weak;
    case Verdict::dominant: return Fit::dominant;
    case Verdict::idle:
    case Verdict::unjudged:
    case Verdict::unreachable: return Fit::unjudged;
    default: return Fit::fair;
    }
}

const TunePoint& Tuning::now() const {
    return *std::find_if(points.begin(), points.end(),
                         [&](const TunePoint& point) { return point.value == number.now; });
}

ReadArmoury WhatIfs::read(const std::vector<std::string>& more) const {
    std::vector<std::string> changes = changes_;
    changes.insert(changes.end(), more.begin(), more.end());
    return resolve(*files_, changes);
}

WhatIfs WhatIfs::with(const std::vector<std::string>& more) const {
    WhatIfs what_ifs = *this;
    what_ifs.changes_.insert(what_ifs.changes_.end(), more.begin(), more.end());
    return what_ifs;
}

Tuning tune(const ReadArmoury& read, const WhatIfs& what_ifs, const TunedNumber& number,
            ItemJudge& judge, const JudgedItem& present, const TuneScope& scope,
            const Watch& watch) {
    return Tuner(read, what_ifs, number, judge, present, scope, watch).run();
}

} // namespace panoplon
