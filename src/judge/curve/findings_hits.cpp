#include "judge/curve/findings_parts.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

/// More hits than this nobody counts: they are many.
constexpr int countable = 20;

/// The counts as a player has them.
HitCounts counted_hits(const CurvePoint& point) {
    HitCounts hits = point.hits;
    for (auto* list : {&hits.to_fell, &hits.to_fall})
        for (int& count : *list) count = std::min(count, countable + 1);
    return hits;
}

/// A count over the levels of a curve.
using Counts = std::vector<std::pair<int, int>>; // level, count

/// "4, 3 from level 7"
std::string steps_of(const Counts& counts) {
    std::string words;
    for (std::size_t i = 0; i < counts.size(); ++i) {
        const auto& [level, now] = counts[i];
        if (i > 0 && now == counts[i - 1].second) continue;
        const std::string hits = now == 0          ? "never"
                                 : now > countable ? "many"
                                                   : std::to_string(now);
        words += i == 0 ? hits : fmt::format(", {} from level {}", hits, level);
    }
    return words;
}

void find_steps(const Armoury& armoury, CurveResult& result, std::size_t index) {
    const Curve& curve = result.curves[index];
    const std::vector<std::string> foes = kinds_of_foes(armoury, armoury.at(curve.encounter));
    for (std::size_t f = 0; f < foes.size(); ++f)
        for (const bool fell : {true, false}) {
            Counts counts;
            int first = 0;
            int steps = 0;
            for (const CurvePoint& point : curve.points) {
                const HitCounts hits = counted_hits(point);
                const int now = (fell ? hits.to_fell : hits.to_fall)[f];
                if (!counts.empty() && now != counts.back().second && steps++ == 0)
                    first = point.level;
                counts.emplace_back(point.level, now);
            }
            if (steps == 0) continue;
            result.findings.push_back(
                {"hits", first, index, static_cast<double>(steps),
                 fmt::format("{}: hits that fell {}: {}", against(armoury, curve),
                             fell ? foes[f] : fmt::format("it, of {}", foes[f]),
                             steps_of(counts))});
        }
}

void find_flats(const Armoury& armoury, CurveResult& result, std::size_t index) {
    const Curve& curve = result.curves[index];
    for_each_stretch(
        curve.points, armoury.audit.window,
        [](const CurvePoint& a, const CurvePoint& b) { return counted_hits(a) == counted_hits(b); },
        [&](int first, int last) {
            result.findings.push_back(
                {"flat", first, index, static_cast<double>(last - first),
                 fmt::format("{}: from level {} to {} no hit more or fewer fells anybody",
                             against(armoury, curve), first, last)});
        });
}

} // namespace

void find_hits(const Armoury& armoury, CurveResult& result) {
    for (auto* find : {&find_steps, &find_flats})
        for (std::size_t i = 0; i < result.curves.size(); ++i)
            // Rungs of a ladder wear what nobody wears for long: their hits would say little.
            if (result.curves[i].by != CurveBy::tier) find(armoury, result, i);
}

} // namespace panoplon
