// What the files of findings share; used by judge/findings*.cpp only.
#pragma once

#include "judge/curve/curve.h"

#include <string>
#include <vector>

namespace panoplon {

/// "ringer_early against ford".
[[nodiscard]] std::string against(const Armoury& armoury, const Curve& curve);

/// Calls visit(first, last) for every longest stretch over which neighbouring points are alike and
/// that is a window of levels long.
template <class Alike, class Visit>
void for_each_stretch(const std::vector<CurvePoint>& points, int window, const Alike& alike,
                      const Visit& visit) {
    for (std::size_t i = 0; i < points.size();) {
        std::size_t last = i;
        while (last + 1 < points.size() && alike(points[last], points[last + 1])) ++last;
        if (points[last].level - points[i].level >= window)
            visit(points[i].level, points[last].level);
        i = last + 1;
    }
}

/// Where the hits that a player counts step (`hits`), and where none does (`flat`).
void find_hits(const Armoury& armoury, CurveResult& result);

} // namespace panoplon
