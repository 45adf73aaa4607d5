#include "judge/curve.h"

#include "base/text.h"
#include "outfit/refusals.h"

#include <algorithm>
#include <fmt/format.h>
#include <tbb/blocked_range.h>
#include <tbb/enumerable_thread_specific.h>
#include <tbb/parallel_for.h>

namespace panoplon {

namespace {

std::vector<EncounterId> curve_encounters(const Armoury& armoury, const CurveOptions& options) {
    if (!options.encounters.empty()) return options.encounters;
    std::vector<EncounterId> list;
    if (armoury.yardstick.given()) list.push_back(armoury.yardstick);
    for (std::size_t i = 0; i < armoury.encounters.size(); ++i)
        if (EncounterId(i) != armoury.yardstick && armoury.encounters[i].weight > 0)
            list.emplace_back(i);
    return list;
}

std::vector<LoadoutId> curve_loadouts(const Armoury& armoury, const CurveOptions& options) {
    std::vector<LoadoutId> list = options.loadouts;
    if (list.empty())
        for (std::size_t i = 0; i < armoury.loadouts.size(); ++i) list.emplace_back(i);
    std::erase_if(list, [&](LoadoutId id) {
        const auto& wanted = options.characters;
        return !wanted.empty() &&
               std::find(wanted.begin(), wanted.end(), armoury.at(id).character) == wanted.end();
    });
    return list;
}

std::string reasons_of(const std::vector<Refusal>& refused) {
    std::vector<std::string> parts;
    for (const Refusal& refusal : refused)
        parts.push_back(fmt::format("{}: {}", refusal.thing, join(refusal.reasons, "; ")));
    return join(parts, "; ");
}

/// A point that is to be computed.
struct Task {
    std::size_t curve;
    std::size_t point;
};

void compute(Engine& engine, const Outfit& outfit, const Curve& curve, const CurveOptions& options,
             CurvePoint& point, std::optional<FightError>& error) {
    const FightSetup setup = set_up_fight(engine.armoury(), outfit, curve.encounter);
    engine.prepare(setup);
    point.even = even_margin(engine);
    error = point.even.error;
    point.load_share = outfit_load(engine.deriver(), outfit).share;
    std::vector<double> margins;
    double wins = 0;
    for (std::uint64_t trial = 0; trial < options.trials && !error; ++trial) {
        const Margin margin = trial_margin(engine, {options.seed, trial}, point.even.value);
        error = margin.error;
        margins.push_back(margin.value);
        wins += margin.value >= 1 ? 1 : 0;
        point.beyond += margin.reach != Reach::within;
    }
    point.trials = margins.size();
    if (margins.empty()) {
        point.p10 = point.p50 = point.p90 = point.even.value;
        point.win_share = point.even.value >= 1 ? 1 : 0;
        return;
    }
    std::sort(margins.begin(), margins.end());
    point.p10 = quantile(margins, 0.1);
    point.p50 = quantile(margins, 0.5);
    point.p90 = quantile(margins, 0.9);
    point.win_share = wins / static_cast<double>(margins.size());
}

/// The levels of a curve: points where the loadout is legal, gaps with reasons where it is not.
void lay_out(Deriver& deriver, const CurveOptions& options, Curve& curve) {
    const Armoury& armoury = deriver.armoury();
    const Loadout& loadout = armoury.at(curve.loadout);
    const LevelRange met = armoury.at(curve.encounter).levels;
    for (int level = options.levels.first; level <= options.levels.last; ++level) {
        if (!loadout.levels.holds(level) || !met.holds(level)) continue;
        const Outfit outfit = outfit_of(armoury, loadout, level);
        std::string reason = reasons_of(refusals(deriver, outfit));
        if (reason.empty())
            reason = join(missing_for(deriver, outfit, armoury.at(curve.encounter)), "; ");
        if (reason.empty()) {
            CurvePoint point;
            point.level = level;
            curve.points.push_back(point);
        } else if (!curve.gaps.empty() && curve.gaps.back().levels.last == level - 1) {
            curve.gaps.back().levels.last = level;
        } else {
            curve.gaps.push_back({{level, level}, reason});
        }
    }
}

/// Where a curve leaves the corridor that its encounter wants: one finding for each stretch.
void find_corridor(const Armoury& armoury, CurveResult& result, std::size_t index) {
    const Curve& curve = result.curves[index];
    const auto& wanted = armoury.at(curve.encounter).wanted_margin;
    if (!wanted) return;
    int side_before = 0;
    for (const CurvePoint& point : curve.points) {
        const int side = point.p50 < wanted->first ? -1 : point.p50 > wanted->second ? 1 : 0;
        if (side == side_before && side != 0) {
            Finding& open = result.findings.back();
            open.size = std::max(open.size, side < 0 ? wanted->first / point.p50 - 1
                                                     : point.p50 / wanted->second - 1);
        } else if (side != 0) {
            const double edge = side < 0 ? wanted->first : wanted->second;
            result.findings.push_back(
                {"corridor", point.level, index,
                 side < 0 ? edge / point.p50 - 1 : point.p50 / edge - 1,
                 fmt::format("{} against {} {} the wanted corridor of {}–{} at level {}, with a "
                             "margin of {}",
                             armoury.at(curve.loadout).id, armoury.at(curve.encounter).id,
                             side < 0 ? "falls below" : "rises above", rounded(wanted->first),
                             rounded(wanted->second), point.level, rounded(point.p50))});
        }
        side_before = side;
    }
}

} // namespace

CurveResult draw_curves(const Armoury& armoury, const CurveOptions& options, const Watch& watch) {
    CurveResult result;
    Deriver deriver(armoury);
    for (const EncounterId encounter : curve_encounters(armoury, options))
        for (const LoadoutId loadout : curve_loadouts(armoury, options)) {
            Curve curve{loadout, encounter, encounter == armoury.yardstick, {}, {}, {}};
            lay_out(deriver, options, curve);
            result.curves.push_back(std::move(curve));
        }
    std::vector<Task> tasks;
    for (std::size_t c = 0; c < result.curves.size(); ++c)
        for (std::size_t p = 0; p < result.curves[c].points.size(); ++p) tasks.push_back({c, p});

    std::vector<std::optional<FightError>> errors(tasks.size());
    std::vector<char> computed(tasks.size(), 0);
    tbb::enumerable_thread_specific<Engine> engines([&] { return Engine(armoury); });
    std::atomic<std::size_t> done = 0;
    tbb::parallel_for(
        tbb::blocked_range<std::size_t>(0, tasks.size(), 1),
        [&](const tbb::blocked_range<std::size_t>& range) {
            for (std::size_t i = range.begin(); i != range.end() && !watch.stopped(); ++i) {
                Curve& curve = result.curves[tasks[i].curve];
                CurvePoint& point = curve.points[tasks[i].point];
                compute(engines.local(), outfit_of(armoury, armoury.at(curve.loadout), point.level),
                        curve, options, point, errors[i]);
                computed[i] = 1;
                const std::size_t now = ++done;
                if (watch.progress) watch.progress(now, tasks.size());
            }
        });
    for (std::size_t i = tasks.size(); i-- > 0;) {
        Curve& curve = result.curves[tasks[i].curve];
        if (errors[i]) curve.error = errors[i];
        if (computed[i] && !errors[i]) continue;
        result.partial = result.partial || !computed[i];
        curve.points.erase(curve.points.begin() + static_cast<std::ptrdiff_t>(tasks[i].point));
    }
    for (std::size_t c = 0; c < result.curves.size(); ++c) find_corridor(armoury, result, c);
    return result;
}

} // namespace panoplon
