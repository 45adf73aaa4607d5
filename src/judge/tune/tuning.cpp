#include "judge/tune/tuning.h"

#include "judge/tune/breakpoints.h"

#include <algorithm>
#include <cmath>

namespace panoplon {

namespace {

/// A range is narrowed down by halves this often at most.
constexpr int most_halvings = 12;
/// Values looked at while the ends are narrowed down and the proposal is tried, about.
constexpr std::size_t values_after = 14;

class Tuner {
  public:
    Tuner(const ReadArmoury& read, const WhatIfs& what_ifs, const TunedNumber& number,
          ItemJudge& judge, const JudgedItem& present, const Watch& watch)
        : armoury_(read.armoury),
          what_ifs_(what_ifs),
          judge_(judge),
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
        // From the present value outward, so that each search begins close to where it ends.
        const auto now = std::find(values.begin(), values.end(), tuning_.number.now);
        for (auto at = now; at != values.end(); ++at) look_at(*at);
        for (auto at = std::make_reverse_iterator(now); at != values.rend(); ++at) look_at(*at);
        find_range();
        if (!watch_.stopped()) propose();
        if (!watch_.stopped()) tuning_.breakpoints = find_breakpoints(armoury_, what_ifs_, tuning_);
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

    /// The point of a value, looked at when it is asked for first.
    const TunePoint* look_at(double value) {
        const auto at = std::lower_bound(
            tuning_.points.begin(), tuning_.points.end(), value,
            [](const TunePoint& point, double limit) { return point.value < limit; });
        if (at != tuning_.points.end() && at->value == value) return &*at;
        if (watch_.stopped()) return nullptr;
        const ReadArmoury read = what_ifs_.read({tuning_.number.what_if(value)});
        TunePoint point;
        if (read.usable())
            point = point_of(value, judge_.judge_near(read.armoury));
        else
            point = {value, {}, {}, read.sink.sorted(Severity::mistake).front().message};
        count();
        return &*tuning_.points.insert(at, std::move(point));
    }

    /// The fair point nearest to the present value; none: nowhere is it fair.
    [[nodiscard]] std::optional<double> nearest_fair() const {
        const double now = tuning_.number.now;
        std::optional<double> nearest;
        for (const TunePoint& point : tuning_.points)
            if (point.fit() == Fit::fair &&
                (!nearest || std::abs(point.value - now) < std::abs(*nearest - now)))
                nearest = point.value;
        return nearest;
    }

    /// Goes from a fair value to the last of its run of fair ones, and narrows down where it ends.
    FairEnd end_from(double fair, bool upward) {
        std::vector<double> values;
        for (const TunePoint& point : tuning_.points)
            if (upward ? point.value > fair : point.value < fair) values.push_back(point.value);
        if (!upward) std::reverse(values.begin(), values.end());
        for (const double value : values) {
            const TunePoint* point = look_at(value);
            if (point->fit() != Fit::fair) return narrowed(fair, value);
            fair = value;
        }
        return {fair, Fit::fair, Verdict::sound};
    }

    FairEnd narrowed(double fair, double beyond) {
        const double step = resolution(armoury_, tuning_.number);
        for (int i = 0; i < most_halvings && std::abs(beyond - fair) > step * 1.001; ++i) {
            const double middle = on_grid(fair + (beyond - fair) / 2, step);
            if (middle == fair || middle == beyond) break;
            const TunePoint* point = look_at(middle);
            if (!point) break;
            (point->fit() == Fit::fair ? fair : beyond) = middle;
        }
        const TunePoint& past = *look_at(beyond);
        return {fair, past.fit(), past.verdict.verdict};
    }

    void find_range() {
        std::optional<double> fair = nearest_fair();
        if (!fair) fair = fair_between();
        if (!fair) return;
        tuning_.low = end_from(*fair, false);
        tuning_.high = end_from(*fair, true);
    }

    /// Where one value is weak and the next dominant, something fair may lie between.
    std::optional<double> fair_between() {
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
            ItemJudge& judge, const JudgedItem& present, const Watch& watch) {
    return Tuner(read, what_ifs, number, judge, present, watch).run();
}

} // namespace panoplon
