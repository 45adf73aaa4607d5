#include "journey/progress.h"

#include "model/corridor.h"

#include <algorithm>

namespace panoplon {

namespace {

Percentiles percentiles_of(std::vector<double> values) {
    std::sort(values.begin(), values.end());
    return {quantile(values, 0.1), quantile(values, 0.5), quantile(values, 0.9)};
}

/// Where a trial last stood by a time; its first point is at time 0.
const WayPoint& last_by(const Way& way, double time) {
    return *std::prev(
        std::upper_bound(std::next(way.begin()), way.end(), time,
                         [](double at, const WayPoint& point) { return at < point.time; }));
}

bool has_power(const JourneySummary& summary) {
    return !summary.ways.empty() && summary.ways.front().front().power > 0;
}

} // namespace

std::vector<LevelProgress> progress_by_level(const JourneySummary& summary) {
    struct Samples {
        std::vector<double> times, powers;
    };
    std::map<int, Samples> by_level;
    for (const Way& way : summary.ways)
        for (std::size_t i = 0; i < way.size(); ++i) {
            Samples& samples = by_level[way[i].level];
            if (i == 0 || way[i - 1].level < way[i].level) samples.times.push_back(way[i].time);
            const bool last = i + 1 == way.size() || way[i + 1].level > way[i].level;
            if (last) samples.powers.push_back(way[i].power);
        }
    std::vector<LevelProgress> list;
    for (auto& [level, samples] : by_level) {
        LevelProgress& progress = list.emplace_back();
        progress.level = level;
        progress.reached = samples.times.size();
        progress.time = percentiles_of(std::move(samples.times));
        if (has_power(summary)) progress.power = percentiles_of(std::move(samples.powers));
    }
    return list;
}

std::vector<TimeProgress> progress_over_time(const JourneySummary& summary, std::size_t points) {
    if (!has_power(summary)) return {};
    std::vector<double> ends;
    for (const Way& way : summary.ways) ends.push_back(way.back().time);
    std::sort(ends.begin(), ends.end());
    const double end = quantile(ends, 0.9);
    std::vector<TimeProgress> list;
    for (std::size_t i = 0; i < points; ++i) {
        TimeProgress progress;
        progress.time = end * static_cast<double>(i) / static_cast<double>(points - 1);
        std::vector<double> powers;
        for (const Way& way : summary.ways)
            if (way.back().time >= progress.time)
                powers.push_back(last_by(way, progress.time).power);
        if (powers.empty()) break;
        progress.under_way = powers.size();
        progress.power = percentiles_of(std::move(powers));
        list.push_back(progress);
    }
    return list;
}

std::vector<Straying> find_straying(const Armoury& armoury,
                                    const std::vector<LevelProgress>& levels) {
    std::vector<Straying> list;
    int side_before = 0;
    for (const LevelProgress& progress : levels) {
        if (!progress.power) break;
        const auto wanted = wanted_corridor(armoury, armoury.yardstick, progress.level);
        if (!wanted) break;
        const double power = progress.power->p50;
        const int side = wanted->below(power) ? -1 : wanted->above(power) ? 1 : 0;
        if (side != 0 && side != side_before)
            list.push_back({progress.level, side, power, wanted->low, wanted->high});
        side_before = side;
    }
    return list;
}

} // namespace panoplon
