#include "judge/curve/findings.h"

#include "base/text.h"
#include "chance/estimate.h"
#include "judge/curve/findings_parts.h"
#include "model/corridor.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// Two curves that stay this close are one: nothing is said of them.
constexpr double touching = 0.01;
/// A step of a level has to be this much beyond what its neighbours do.
constexpr double worth_telling = 0.05;
/// Steps to either side that explain a step.
constexpr std::size_t neighbourhood = 4;

std::string change_words(double log_ratio) {
    return signed_percent(std::exp(log_ratio) - 1);
}

class Findings {
  public:
    Findings(const Armoury& armoury, CurveResult& result) : armoury_(armoury), result_(result) {}

    void run() {
        for_each_curve([&](std::size_t i) { corridor(i); });
        for_each_pair([&](std::size_t a, std::size_t b) { crossings(a, b); });
        for_each_curve([&](std::size_t i) { jumps(i); });
        for_each_curve([&](std::size_t i) { stalls(i); });
        for_each_pair([&](std::size_t a, std::size_t b) { tier_step(a, b); });
        for_each_curve([&](std::size_t i) { bands(i); });
    }

  private:
    using Points = std::vector<CurvePoint>;

    template <class Visit>
    void for_each_curve(const Visit& visit) {
        for (std::size_t i = 0; i < result_.curves.size(); ++i)
            if (!result_.curves[i].points.empty()) visit(i);
    }

    /// Curves that stand in one figure and are to be told apart there: of one encounter, and of one
    /// character where loadouts or tiers are drawn.
    template <class Visit>
    void for_each_pair(const Visit& visit) {
        for (std::size_t a = 0; a < result_.curves.size(); ++a)
            for (std::size_t b = a + 1; b < result_.curves.size(); ++b) {
                const Curve& one = result_.curves[a];
                const Curve& other = result_.curves[b];
                const bool alike = one.by == CurveBy::character || one.character == other.character;
                const bool drawn = !one.points.empty() && !other.points.empty();
                if (drawn && one.encounter == other.encounter && alike &&
                    one.by != CurveBy::encounter)
                    visit(a, b);
            }
    }

    void tell(const char* kind, int level, std::size_t curve, double size, std::string sentence) {
        result_.findings.push_back({kind, level, curve, size, std::move(sentence)});
    }

    /// Where a curve leaves the corridor that its encounter wants: one finding for each stretch.
    void corridor(std::size_t index) {
        const Curve& curve = result_.curves[index];
        int side_before = 0;
        for (const CurvePoint& point : curve.points) {
            const auto wanted = wanted_corridor(armoury_, curve.encounter, point.level);
            if (!wanted) return;
            const int side = wanted->below(point.p50) ? -1 : wanted->above(point.p50) ? 1 : 0;
            const double size =
                side < 0 ? wanted->low / point.p50 - 1 : point.p50 / wanted->high - 1;
            if (side == side_before && side != 0)
                result_.findings.back().size = std::max(result_.findings.back().size, size);
            else if (side != 0)
                tell("corridor", point.level, index, size,
                     fmt::format("{} {} the wanted corridor of {}–{} at level {}, with a margin of "
                                 "{}",
                                 against(armoury_, curve), side < 0 ? "falls below" : "rises above",
                                 rounded(wanted->low), rounded(wanted->high), point.level,
                                 rounded(point.p50)));
            side_before = side;
        }
    }

    /// Levels that both curves have, as the logarithm of the second over the first.
    [[nodiscard]] static std::vector<std::pair<int, double>> ratios(const Curve& one,
                                                                    const Curve& other) {
        std::vector<std::pair<int, double>> list;
        for (const CurvePoint& p : one.points)
            for (const CurvePoint& q : other.points)
                if (p.level == q.level) list.emplace_back(p.level, std::log(q.p50 / p.p50));
        return list;
    }

    /// A crossing: one was ahead by more than a touch, and later the other is.
    void crossings(std::size_t a, std::size_t b) {
        const Curve& one = result_.curves[a];
        const Curve& other = result_.curves[b];
        double ahead = 0;
        for (const auto& [level, ratio] : ratios(one, other)) {
            if (std::abs(ratio) < touching) continue;
            if (ahead * ratio < 0) {
                const Curve& now = ratio > 0 ? other : one;
                const Curve& before = ratio > 0 ? one : other;
                tell("crossing", level, ratio > 0 ? b : a, std::abs(ratio - ahead),
                     fmt::format("{} overtakes {} at level {}, from {} to {}",
                                 against(armoury_, now), curve_subject(armoury_, before), level,
                                 change_words(-std::abs(ahead)), change_words(std::abs(ratio))));
            }
            ahead = ratio;
        }
    }

    /// Steps between neighbouring levels against the steps around them: their median, and three
    /// times their spread, of which a quarter may be jumps themselves.
    void jumps(std::size_t index) {
        const Curve& curve = result_.curves[index];
        const Points& points = curve.points;
        std::vector<double> steps; // a level's
        for (std::size_t i = 1; i < points.size(); ++i)
            steps.push_back(std::log(points[i].p50 / points[i - 1].p50) /
                            (points[i].level - points[i - 1].level));
        for (std::size_t i = 0; i < steps.size(); ++i) {
            if (as_below(index, points[i].level) && as_below(index, points[i + 1].level)) continue;
            std::vector<double> around;
            for (std::size_t j = i > neighbourhood ? i - neighbourhood : 0;
                 j < std::min(steps.size(), i + neighbourhood + 1); ++j)
                if (j != i) around.push_back(steps[j]);
            if (around.size() < neighbourhood) continue;
            const double usual = median(around);
            for (double& step : around) step = std::abs(step - usual);
            std::sort(around.begin(), around.end());
            constexpr double of_normal = 1 / 1.1503; // an upper quartile as a standard deviation
            const double spread = of_normal * quantile(around, 0.75);
            const double beyond = steps[i] - usual;
            if (std::abs(beyond) < std::max(worth_telling, 3 * spread)) continue;
            tell(beyond > 0 ? "jump" : "dip", points[i + 1].level, index, std::abs(beyond),
                 fmt::format("{} {} at level {}: {} a level where {} is usual around it{}",
                             against(armoury_, curve), beyond > 0 ? "jumps" : "dips",
                             points[i + 1].level, change_words(steps[i]), change_words(usual),
                             new_gear(points[i], points[i + 1])));
        }
    }

    [[nodiscard]] static double median(std::vector<double> values) {
        std::sort(values.begin(), values.end());
        return quantile(values, 0.5);
    }

    [[nodiscard]] static std::vector<ItemId> worn(const CurvePoint& point) {
        std::vector<ItemId> items;
        for_each_worn(point.outfit.worn, [&](const WornItem& one) { items.push_back(one.item); });
        std::sort(items.begin(), items.end());
        return items;
    }

    /// "; new: reed_coat, tin_bell": what the best wears now and did not a level ago.
    [[nodiscard]] std::string new_gear(const CurvePoint& before, const CurvePoint& now) const {
        std::vector<ItemId> fresh;
        const std::vector<ItemId> had = worn(before);
        const std::vector<ItemId> has = worn(now);
        std::set_difference(has.begin(), has.end(), had.begin(), had.end(),
                            std::back_inserter(fresh));
        std::vector<std::string> ids;
        for (const ItemId item : fresh) ids.push_back(armoury_.at(item).id);
        return ids.empty() ? "" : "; new: " + join(ids, ", ");
    }

    /// Stretches of at least a window over which the best wears the same.
    void stalls(std::size_t index) {
        const Curve& curve = result_.curves[index];
        if (curve.by == CurveBy::loadout) return;
        for_each_stretch(
            curve.points, armoury_.audit.window,
            [&](const CurvePoint& a, const CurvePoint& b) { return worn(a) == worn(b); },
            [&](int first, int last) {
                tell("stall", first, index, last - first,
                     fmt::format("{}: nothing new is worth wearing from level {} to {}",
                                 against(armoury_, curve), first + 1, last));
            });
    }

    /// Whether a rung of the tier ladder is, at a level, just the rung below it: what is told of
    /// that is not told again.
    [[nodiscard]] bool as_below(std::size_t index, int level) const {
        if (index == 0 || result_.curves[index].by != CurveBy::tier) return false;
        const Curve& curve = result_.curves[index];
        const Curve& below = result_.curves[index - 1];
        return below.character == curve.character && below.encounter == curve.encounter &&
               value_at(below.points, level) == value_at(curve.points, level);
    }

    /// How many levels later the lower rung is as far as the upper one: the median over the levels
    /// at which that can be told.
    void tier_step(std::size_t a, std::size_t b) {
        const Curve& lower = result_.curves[a];
        const Curve& upper = result_.curves[b];
        if (lower.by != CurveBy::tier || !lower.power || b != a + 1) return;
        std::vector<double> worth;
        std::size_t beyond = 0; // the lower rung never gets there: at least as many as are left
        int first = 0;
        for (const auto& [level, ratio] : ratios(lower, upper)) {
            if (ratio < touching) continue;
            if (worth.empty()) first = level;
            const auto reached = level_of(lower.points, value_at(upper.points, level), level);
            beyond += !reached;
            worth.push_back(reached ? *reached - level : upper.points.back().level - level);
        }
        const std::string step =
            fmt::format("{}: {} over {}", armoury_.at(upper.character).id,
                        armoury_.at(upper.tier).id, armoury_.at(lower.tier).id);
        if (worth.empty()) {
            tell("tier_step", upper.points.front().level, b, 0, step + " is worth nothing");
            return;
        }
        const double levels = median(worth);
        tell("tier_step", first, b, levels,
             fmt::format("{} is worth {}{} levels, in the median of the {} from level {} on at "
                         "which it is better",
                         step, 2 * beyond >= worth.size() ? "at least " : "", rounded(levels, 1),
                         counted(worth.size(), "level"), first));
    }

    [[nodiscard]] static double value_at(const Points& points, int level) {
        for (const CurvePoint& point : points)
            if (point.level == level) return point.p50;
        return 0;
    }

    /// Where a rising curve reaches a value, from a level on; between levels along the logarithm.
    [[nodiscard]] static std::optional<double> level_of(const Points& points, double value,
                                                        int from) {
        for (std::size_t i = 0; i < points.size(); ++i) {
            if (points[i].level < from || points[i].p50 < value) continue;
            if (points[i].level == from || i == 0) return points[i].level;
            const double part =
                std::log(value / points[i - 1].p50) / std::log(points[i].p50 / points[i - 1].p50);
            return points[i - 1].level +
                   std::max(0.0, part) * (points[i].level - points[i - 1].level);
        }
        return std::nullopt;
    }

    void bands(std::size_t index) {
        const Curve& curve = result_.curves[index];
        for (std::size_t i = 0; i < curve.points.size(); ++i) {
            const CurvePoint& point = curve.points[i];
            const int before = i > 0 ? curve.points[i - 1].band : -1;
            const Band* band = armoury_.carry.band(point.band);
            if (!band || point.band <= before || as_below(index, point.level)) continue;
            tell("band", point.level, index, point.load_share,
                 fmt::format("{}: the load is {} from level {} on, {} of what can be carried",
                             against(armoury_, curve), band->name, point.level,
                             percent(point.load_share)));
        }
    }

    const Armoury& armoury_;
    CurveResult& result_;
};

} // namespace

void find_all(const Armoury& armoury, CurveResult& result) {
    Findings(armoury, result).run();
    find_hits(armoury, result);
}

std::string against(const Armoury& armoury, const Curve& curve) {
    return fmt::format("{} against {}", curve_subject(armoury, curve),
                       armoury.at(curve.encounter).id);
}

} // namespace panoplon
