#include "judge/tune/comparison.h"

#include "fight/roughness.h"
#include "judge/curve/curve.h"
#include "model/corridor.h"
#include "outfit/sheet.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace panoplon {

namespace {

/// Ratios nearer to 1 than this are the solver's, not the armoury's: margins are found to 0.01 %.
constexpr double margin_noise = 3e-4;
/// Roughness was never seen to come near this, as a logarithm: what is further has moved.
constexpr double surely_moved = 0.05;

double distance(double ratio) {
    return std::abs(std::log(ratio));
}

bool has_moved(double ratio, double roughness) {
    return distance(ratio) > std::max(margin_noise, std::log1p(roughness));
}

double roughness_of(Engine& engine, const CurvePoint& point, EncounterId encounter) {
    const FightSetup setup = set_up_fight(engine.armoury(), point.outfit, encounter);
    engine.prepare(setup);
    return roughness_near(engine, setup.actors.front(), point.even.value);
}

template <class List>
std::optional<std::size_t> find_id(const List& list, const std::string& id) {
    const auto at =
        std::find_if(list.begin(), list.end(), [&](const auto& one) { return one.id == id; });
    if (at == list.end()) return std::nullopt;
    return static_cast<std::size_t>(at - list.begin());
}

using ContextName = std::tuple<std::string, std::string, int>;

ContextName name_of(const Armoury& armoury, const Context& context) {
    return {armoury.at(context.character).id, armoury.at(context.encounter).id, context.level};
}

std::vector<std::pair<std::string, const ItemVerdict*>> verdicts_of(const Armoury& armoury,
                                                                    const AuditResult& result) {
    std::vector<std::pair<std::string, const ItemVerdict*>> list;
    for (const ItemVerdict& one : result.items) list.emplace_back(armoury.at(one.item).id, &one);
    for (const ConsumableVerdict& one : result.consumables)
        list.emplace_back(armoury.at(one.judged.item).id, &one.judged);
    return list;
}

Comparison::Corridors corridors_of(const Armoury& armoury, const CurveResult& result) {
    Comparison::Corridors corridors;
    for (const Curve& curve : result.curves) {
        bool wanted = false, kept = true;
        for (const CurvePoint& point : curve.points) {
            const auto corridor = wanted_corridor(armoury, curve.encounter, point.level);
            wanted = wanted || corridor;
            kept = kept && (!corridor || (point.even.value >= corridor->low &&
                                          point.even.value <= corridor->high));
        }
        corridors.wanted += wanted;
        corridors.kept += wanted && kept;
    }
    return corridors;
}

CurveResult curves_of(const Armoury& armoury, const Watch& watch) {
    CurveOptions options;
    options.levels = armoury.levels;
    options.trials = 0;
    return draw_curves(armoury, options, {{}, watch.stop});
}

class LoadoutComparer {
  public:
    LoadoutComparer(const Armoury& before, const Armoury& after)
        : before_(before),
          after_(after),
          engine_before_(before_),
          engine_after_(after_) {}

    void compare_sheets(Comparison& result) {
        Deriver old(before_);
        Deriver now(after_);
        for (std::size_t i = 0; i < before_.loadouts.size(); ++i) {
            const Loadout& loadout = before_.loadouts[i];
            const auto other = find_id(after_.loadouts, loadout.id);
            if (!other) {
                result.incomparable.push_back(
                    fmt::format("{} is not there after the change", loadout.id));
                continue;
            }
            const int level = std::min({loadout.levels.last, before_.levels.last,
                                        after_.levels.last, after_.loadouts[*other].levels.last});
            const Sheet was = make_sheet(old, outfit_of(before_, loadout, level));
            const Sheet is = make_sheet(now, outfit_of(after_, after_.loadouts[*other], level));
            if (refuses(was, "before", loadout, level, result) ||
                refuses(is, "after", loadout, level, result))
                continue;
            compare_stats(loadout, level, was, is, result);
        }
    }

    void compare_curves(Comparison& result, const Watch& watch) {
        const CurveResult was = curves_of(before_, watch);
        const CurveResult is = curves_of(after_, watch);
        std::map<std::pair<std::string, std::string>, const Curve*> now;
        for (const Curve& curve : is.curves) now.emplace(name_of(after_, curve), &curve);
        for (const Curve& curve : was.curves) {
            const auto other = now.find(name_of(before_, curve));
            if (other == now.end()) continue;
            CurveShift shift{name_of(before_, curve).first,
                             name_of(before_, curve).second,
                             curve.power && other->second->power,
                             {}};
            for (const CurvePoint& point : curve.points)
                for (const CurvePoint& later : other->second->points)
                    if (later.level == point.level && both_within(point.even, later.even))
                        shift.points.push_back(shift_of(curve, point, *other->second, later));
            if (!shift.points.empty()) result.curves.push_back(std::move(shift));
        }
        result.corridors_before = corridors_of(before_, was);
        result.corridors_after = corridors_of(after_, is);
        result.partial = result.partial || was.partial || is.partial;
    }

  private:
    static bool refuses(const Sheet& sheet, const char* when, const Loadout& loadout, int level,
                        Comparison& result) {
        if (sheet.refused.empty()) return false;
        result.incomparable.push_back(fmt::format("{} is refused {} the change at level {}: {}",
                                                  loadout.id, when, level,
                                                  sheet.refused.front().reasons.front()));
        return true;
    }

    void compare_stats(const Loadout& loadout, int level, const Sheet& was, const Sheet& is,
                       Comparison& result) const {
        for (std::size_t s = 0; s < before_.stats.size(); ++s) {
            const auto other = find_id(after_.stats, before_.stats[s].id);
            if (!other || was.stats[s].value == is.stats[*other].value) continue;
            result.sheets.push_back({loadout.id, before_.stats[s].id, level, was.stats[s].value,
                                     is.stats[*other].value});
        }
    }

    [[nodiscard]] CurveShift::Point shift_of(const Curve& curve, const CurvePoint& point,
                                             const Curve& later, const CurvePoint& now) {
        CurveShift::Point shift{point.level, point.even.value, now.even.value, 0};
        if (has_moved(shift.ratio(), 0) && distance(shift.ratio()) < surely_moved)
            shift.roughness = std::max(roughness_of(engine_before_, point, curve.encounter),
                                       roughness_of(engine_after_, now, later.encounter));
        return shift;
    }

    static std::pair<std::string, std::string> name_of(const Armoury& armoury, const Curve& curve) {
        return {armoury.at(curve.loadout).id, armoury.at(curve.encounter).id};
    }
    static bool both_within(const Margin& a, const Margin& b) {
        return a.reach == Reach::within && b.reach == Reach::within;
    }

    const Armoury& before_;
    const Armoury& after_;
    Engine engine_before_, engine_after_;
};

void compare_bests(const Armoury& before, const AuditResult& was, const Armoury& after,
                   const AuditResult& is, std::vector<BestShift>& into) {
    std::map<ContextName, const ContextRow*> now;
    for (const ContextRow& row : is.contexts)
        if (row.sound() && row.whole()) now.emplace(name_of(after, row.context), &row);
    for (const ContextRow& row : was.contexts) {
        const auto other = now.find(name_of(before, row.context));
        if (!row.sound() || !row.whole() || other == now.end()) continue;
        const auto& [character, encounter, level] = other->first;
        into.push_back({character, encounter, level, row.best.value, other->second->best.value,
                        std::max(row.roughness, other->second->roughness)});
    }
}

void compare_verdicts(const Armoury& before, const AuditResult& was, const Armoury& after,
                      const AuditResult& is, std::vector<VerdictShift>& into) {
    const auto later = verdicts_of(after, is);
    std::map<std::string, const ItemVerdict*> now(later.begin(), later.end());
    for (const auto& [id, verdict] : verdicts_of(before, was)) {
        VerdictShift shift{id, *verdict, std::nullopt};
        if (const auto other = now.find(id); other != now.end()) {
            shift.after = *other->second;
            now.erase(other);
        }
        into.push_back(std::move(shift));
    }
    for (const auto& [id, verdict] : later)
        if (now.contains(id)) into.push_back({id, std::nullopt, *verdict});
}

} // namespace

bool CurveShift::Point::moved() const {
    return has_moved(ratio(), roughness);
}

const CurveShift::Point& CurveShift::most() const {
    return *std::max_element(points.begin(), points.end(), [](const Point& a, const Point& b) {
        return std::pair(a.moved(), distance(a.ratio())) <
               std::pair(b.moved(), distance(b.ratio()));
    });
}

bool BestShift::moved() const {
    return has_moved(ratio(), roughness);
}

bool VerdictShift::moved() const {
    return !before || !after || before->verdict != after->verdict ||
           before->overstays != after->overstays;
}

bool VerdictShift::stays_fair() const {
    const auto fair = [](const std::optional<ItemVerdict>& verdict) {
        if (!verdict) return false;
        switch (verdict->verdict) {
        case Verdict::strong:
        case Verdict::niche:
        case Verdict::sound:
        case Verdict::weak: return true;
        default: return false;
        }
    };
    return fair(before) && fair(after) && before->overstays == after->overstays;
}

std::size_t Comparison::calling_before() const {
    return static_cast<std::size_t>(
        std::count_if(verdicts.begin(), verdicts.end(),
                      [](const VerdictShift& shift) { return shift.called(); }));
}

std::size_t Comparison::calling_after() const {
    return static_cast<std::size_t>(std::count_if(
        verdicts.begin(), verdicts.end(), [](const VerdictShift& shift) { return shift.calls(); }));
}

std::vector<const VerdictShift*> Comparison::newly_calling() const {
    std::vector<const VerdictShift*> list;
    for (const VerdictShift& shift : verdicts)
        if (shift.calls() && !shift.called()) list.push_back(&shift);
    return list;
}

std::vector<const VerdictShift*> Comparison::no_longer_calling() const {
    std::vector<const VerdictShift*> list;
    for (const VerdictShift& shift : verdicts)
        if (shift.called() && !shift.calls()) list.push_back(&shift);
    return list;
}

std::optional<int> Comparison::better() const {
    const auto sign = [](std::size_t more, std::size_t less) {
        return more > less ? 1 : more < less ? -1 : 0;
    };
    const int calls = sign(calling_before(), calling_after());
    const int curves_kept = sign(corridors_after.kept, corridors_before.kept);
    if (calls * curves_kept < 0) return std::nullopt;
    return calls != 0 ? calls : curves_kept;
}

double Comparison::furthest() const {
    double most = 0;
    for (const CurveShift& curve : curves)
        if (curve.moved()) most = std::max(most, std::abs(curve.most().ratio() - 1));
    return most;
}

Comparison::Corridors corridors_kept(const Armoury& armoury, const Watch& watch) {
    return corridors_of(armoury, curves_of(armoury, watch));
}

Comparison compare_loadouts(const ReadArmoury& before, const ReadArmoury& after,
                            const Watch& watch) {
    Comparison result;
    result.changes = differences(before, after);
    LoadoutComparer comparer(before.armoury, after.armoury);
    comparer.compare_sheets(result);
    comparer.compare_curves(result, watch);
    return result;
}

void compare_audits(const Armoury& before, const AuditResult& was, const Armoury& after,
                    const AuditResult& is, Comparison& into) {
    compare_bests(before, was, after, is, into.bests);
    compare_verdicts(before, was, after, is, into.verdicts);
    into.contexts = is.whole_contexts();
    into.partial = into.partial || was.partial || is.partial;
}

Comparison compare_readings(const Reading& before, const Reading& after, Memory& memory,
                            const Watch& watch) {
    Comparison result = compare_loadouts(before.read, after.read, watch);
    const auto audited = [&](const Reading& reading) {
        return audit(reading.read.armoury, reading.scope, watch, Recall(memory, reading.read));
    };
    const AuditResult was = audited(before);
    compare_audits(before.read.armoury, was, after.read.armoury, audited(after), result);
    return result;
}

} // namespace panoplon
