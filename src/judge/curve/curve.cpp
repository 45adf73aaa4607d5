#include "judge/curve/curve.h"

#include "base/compute_each.h"
#include "base/text.h"
#include "fight/roughness.h"
#include "fight/trial_bytes.h"
#include "judge/appraise/standing.h"
#include "judge/curve/findings.h"
#include "judge/paper/paper.h"
#include "judge/search/ladder.h"
#include "judge/search/shared_answers.h"
#include "outfit/refusals.h"

#include <algorithm>
#include <fmt/format.h>
#include <limits>

namespace panoplon {

namespace {

std::vector<EncounterId> curve_encounters(const Armoury& armoury, const CurveOptions& options) {
    if (!options.encounters.empty()) return options.encounters;
    return encounters_that_count(armoury);
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

} // namespace

template <class Archive>
void serialize(Archive& archive, HitCounts& hits) {
    archive(hits.to_fell, hits.to_fall);
}

template <class Archive>
void serialize(Archive& archive, PointNumbers& numbers) {
    archive(numbers.even, numbers.p10, numbers.p50, numbers.p90, numbers.win_share, numbers.beyond,
            numbers.trials, numbers.load_share, numbers.band, numbers.hits);
}

namespace {

/// A point that is to be computed.
struct Task {
    std::size_t curve;
    std::size_t point;
};

struct Computed {
    PointNumbers numbers;
    std::optional<FightError> error; ///< of any fight

    template <class Archive>
    void serialize(Archive& archive) {
        archive(numbers, error);
    }
};

Computed compute(Engine& engine, EncounterId encounter, const Outfit& outfit,
                 const CurveOptions& options) {
    const FightSetup setup = set_up_fight(engine.armoury(), outfit, encounter);
    engine.prepare(setup);
    PointNumbers numbers;
    numbers.even = even_margin(engine);
    std::optional<FightError> error = numbers.even.error;
    const Load load = outfit_load(engine.deriver(), outfit);
    numbers.load_share = load.share;
    numbers.band = load.band;
    if (!error)
        numbers.hits = count_hits(kinds_of_foes(engine.armoury(), engine.armoury().at(encounter)),
                                  engine.blows());
    std::vector<double> margins;
    double wins = 0;
    for (std::uint64_t trial = 0; trial < options.trials && !error; ++trial) {
        const Margin margin = trial_margin(engine, {options.seed, trial}, numbers.even.value);
        error = margin.error;
        margins.push_back(margin.value);
        wins += margin.value >= 1 ? 1 : 0;
        numbers.beyond += margin.reach != Reach::within;
    }
    numbers.trials = margins.size();
    if (margins.empty()) {
        numbers.p10 = numbers.p50 = numbers.p90 = numbers.even.value;
        numbers.win_share = numbers.even.value >= 1 ? 1 : 0;
    } else {
        std::sort(margins.begin(), margins.end());
        numbers.p10 = quantile(margins, 0.1);
        numbers.p50 = quantile(margins, 0.5);
        numbers.p90 = quantile(margins, 0.9);
        numbers.win_share = wins / static_cast<double>(margins.size());
    }
    return {std::move(numbers), std::move(error)};
}

/// The levels of a curve: points where the loadout is legal, gaps with reasons where it is not.
void lay_out(Deriver& deriver, const CurveOptions& options, Curve& curve) {
    const Armoury& armoury = deriver.armoury();
    const Loadout& loadout = armoury.at(curve.loadout);
    const LevelRange met = armoury.at(curve.encounter).levels;
    for (int level = options.levels.first; level <= options.levels.last; ++level) {
        if (!loadout.levels.holds(level) || !met.holds(level)) continue;
        Outfit outfit = outfit_of(armoury, loadout, level);
        std::string reason = reasons_in_a_line(refusals(deriver, outfit));
        if (reason.empty())
            reason = join(missing_for(deriver, outfit, armoury.at(curve.encounter)), "; ");
        if (reason.empty()) {
            CurvePoint point;
            point.level = level;
            point.outfit = std::move(outfit);
            curve.points.push_back(std::move(point));
        } else if (!curve.gaps.empty() && curve.gaps.back().levels.last == level - 1) {
            curve.gaps.back().levels.last = level;
        } else {
            curve.gaps.push_back({{level, level}, reason});
        }
    }
}

/// Curves of loadouts: laid out by level, nothing to look for.
std::vector<Curve> loadout_curves(const Armoury& armoury, const CurveOptions& options) {
    std::vector<Curve> curves;
    Deriver deriver(armoury);
    for (const EncounterId encounter : curve_encounters(armoury, options))
        for (const LoadoutId loadout : curve_loadouts(armoury, options)) {
            Curve curve;
            curve.character = armoury.at(loadout).character;
            curve.loadout = loadout;
            curve.encounter = encounter;
            lay_out(deriver, options, curve);
            curves.push_back(std::move(curve));
        }
    return curves;
}

/// A character against an encounter: the best of each rung at each of its levels.
struct Chain {
    struct Level {
        int level = 1;
        std::vector<std::optional<Outfit>> ladder; ///< fewer than there are rungs: not searched
        std::optional<FightError> error;
    };

    CharacterId character;
    EncounterId encounter;
    std::vector<Level> levels;
};

/// Rungs of the ladder: tiers by rank, or all that there is at once.
std::vector<TierId> rungs_of(const Armoury& armoury, CurveBy by) {
    if (by != CurveBy::tier) return {TierId()};
    std::vector<TierId> rungs;
    for (std::size_t i = 0; i < armoury.tiers.size(); ++i) rungs.emplace_back(i);
    std::stable_sort(rungs.begin(), rungs.end(),
                     [&](TierId a, TierId b) { return armoury.at(a).rank < armoury.at(b).rank; });
    return rungs;
}

std::vector<Chain> make_chains(const Armoury& armoury, const CurveOptions& options) {
    std::vector<Chain> chains;
    for (const EncounterId encounter : curve_encounters(armoury, options))
        for (std::size_t c = 0; c < armoury.characters.size(); ++c) {
            const auto& wanted = options.characters;
            const LevelRange met = armoury.at(encounter).levels;
            const LevelRange levels{std::max(options.levels.first, met.first),
                                    std::min(options.levels.last, met.last)};
            if ((!wanted.empty() &&
                 std::find(wanted.begin(), wanted.end(), CharacterId(c)) == wanted.end()) ||
                levels.first > levels.last)
                continue;
            Chain chain{CharacterId(c), encounter, {}};
            for (const int level :
                 levels_that_matter(armoury, chain.character, levels, armoury.audit.step))
                chain.levels.push_back({level, {}, std::nullopt});
            chains.push_back(std::move(chain));
        }
    return chains;
}

/// Looks for the best outfits of every chain, on all threads. Progress counts levels.
void find_best(const Armoury& armoury, const std::vector<int>& ranks, std::vector<Chain>& chains,
               const Watch& watch, const Recall& recall) {
    const std::vector<ItemId> groups = twin_groups(compare_on_paper(armoury));
    std::vector<std::pair<const Chain*, Chain::Level*>> tasks;
    for (Chain& chain : chains)
        for (Chain::Level& level : chain.levels) tasks.emplace_back(&chain, &level);
    const auto context_of = [&](std::size_t i) {
        const auto& [chain, level] = tasks[i];
        return Context{chain->character, level->level, chain->encounter};
    };
    find_on_all_ranks(
        recall, tasks.size(), [&] { return Search(armoury, groups, watch); }, watch,
        [&](Search& search, std::size_t i, const Recall& known) {
            return is_ladder_known(armoury, groups, context_of(i), ranks, known, search);
        },
        [&](Search& search, std::size_t i, const Recall& into) {
            (void)find_ladder(armoury, groups, context_of(i), ranks, into, search);
        });
    for_each_with_worker(
        tasks.size(), [&] { return Search(armoury, groups, watch); }, watch,
        [&](Search& search, std::size_t i) {
            Chain::Level* level = tasks[i].second;
            level->ladder = find_ladder(armoury, groups, context_of(i), ranks, recall, search);
            level->error = search.error();
        });
}

/// One rung of a chain: points where something legal was found, gaps where nothing was.
Curve curve_of(const Chain& chain, std::size_t rung, TierId tier, const CurveOptions& options) {
    Curve curve;
    curve.by = options.by;
    curve.character = chain.character;
    curve.tier = tier;
    curve.encounter = chain.encounter;
    for (const Chain::Level& level : chain.levels) {
        if (level.error) curve.error = level.error;
        if (rung >= level.ladder.size()) continue;
        if (const std::optional<Outfit>& outfit = level.ladder[rung]) {
            CurvePoint point;
            point.level = level.level;
            point.outfit = *outfit;
            curve.points.push_back(std::move(point));
        } else {
            curve.gaps.push_back(
                {{level.level, level.level}, "nothing that can be worn there is legal"});
        }
    }
    return curve;
}

std::vector<Curve> best_curves(const Armoury& armoury, const CurveOptions& options,
                               const Watch& watch, const Recall& recall, bool& partial) {
    const std::vector<TierId> rungs = rungs_of(armoury, options.by);
    std::vector<int> ranks;
    for (const TierId rung : rungs)
        ranks.push_back(rung.given() ? armoury.at(rung).rank : std::numeric_limits<int>::max());
    std::vector<Chain> chains = make_chains(armoury, options);
    find_best(armoury, ranks, chains, watch, recall);
    partial = partial || watch.stopped();
    std::vector<Curve> curves;
    for (const Chain& chain : chains)
        for (std::size_t r = 0; r < rungs.size(); ++r)
            curves.push_back(curve_of(chain, r, rungs[r], options));
    return curves;
}

} // namespace

std::vector<std::string> kinds_of_foes(const Armoury& armoury, const Encounter& encounter) {
    std::vector<std::string> kinds;
    for (const FoeGroup& group : encounter.foes) {
        const std::string& id = armoury.at(group.foe).id;
        if (std::find(kinds.begin(), kinds.end(), id) == kinds.end()) kinds.push_back(id);
    }
    return kinds;
}

namespace {

/// A crossing, jump or dip that is no larger than the margin is rough tells nothing (M69b).
void drop_rough_findings(const Armoury& armoury, CurveResult& result) {
    Engine engine(armoury);
    const auto is_rough = [&](const Finding& finding) {
        if (finding.kind != "crossing" && finding.kind != "jump" && finding.kind != "dip")
            return false;
        const Curve& curve = result.curves[finding.curve];
        const auto point =
            std::find_if(curve.points.begin(), curve.points.end(),
                         [&](const CurvePoint& one) { return one.level == finding.level; });
        const FightSetup setup = set_up_fight(armoury, point->outfit, curve.encounter);
        engine.prepare(setup);
        const double roughness = roughness_near(engine, setup.actors.front(), point->even.value);
        return finding.size <= std::log1p(roughness);
    };
    std::erase_if(result.findings, is_rough);
}

} // namespace

HitCounts count_hits(const std::vector<std::string>& foes, const std::vector<BlowCount>& blows) {
    HitCounts counts{std::vector<int>(foes.size(), 0), std::vector<int>(foes.size(), 0)};
    for (const BlowCount& blow : blows) {
        const auto foe = std::find(foes.begin(), foes.end(), blow.ours ? blow.target : blow.actor);
        int& least = (blow.ours ? counts.to_fell
                                : counts.to_fall)[static_cast<std::size_t>(foe - foes.begin())];
        const int hits = blow.plain_hits().value_or(0);
        if (hits > 0 && (least == 0 || hits < least)) least = hits;
    }
    return counts;
}

std::string curve_subject(const Armoury& armoury, const Curve& curve) {
    const std::string& character = armoury.at(curve.character).id;
    if (curve.by == CurveBy::loadout) return armoury.at(curve.loadout).id;
    if (curve.by == CurveBy::tier)
        return fmt::format("{} in {} and below", character, armoury.at(curve.tier).id);
    return fmt::format("{} at best", character);
}

std::string curve_label(const Armoury& armoury, const Curve& curve) {
    switch (curve.by) {
    case CurveBy::loadout: return armoury.at(curve.loadout).name;
    case CurveBy::tier: return armoury.at(curve.tier).name;
    case CurveBy::character: return armoury.at(curve.character).name;
    case CurveBy::encounter: break;
    }
    return armoury.at(curve.encounter).name;
}

CurveResult draw_curves(const Armoury& armoury, const CurveOptions& options, const Watch& watch,
                        const Recall& recall) {
    CurveResult result;
    result.curves = options.by == CurveBy::loadout
                        ? loadout_curves(armoury, options)
                        : best_curves(armoury, options, watch, recall, result.partial);
    for (Curve& curve : result.curves) curve.power = curve.encounter == armoury.yardstick;
    std::vector<Task> tasks;
    for (std::size_t c = 0; c < result.curves.size(); ++c)
        for (std::size_t p = 0; p < result.curves[c].points.size(); ++p) tasks.push_back({c, p});

    std::vector<std::optional<Computed>> computed = compute_each(
        tasks.size(), [&] { return Engine(armoury); }, watch,
        [&](Engine& engine, std::size_t i) {
            const Curve& curve = result.curves[tasks[i].curve];
            return compute(engine, curve.encounter, curve.points[tasks[i].point].outfit, options);
        });
    for (std::size_t i = tasks.size(); i-- > 0;) {
        Curve& curve = result.curves[tasks[i].curve];
        const auto point = curve.points.begin() + static_cast<std::ptrdiff_t>(tasks[i].point);
        if (computed[i] && !computed[i]->error) {
            static_cast<PointNumbers&>(*point) = std::move(computed[i]->numbers);
            continue;
        }
        if (computed[i]) curve.error = computed[i]->error;
        result.partial = result.partial || !computed[i];
        curve.points.erase(point);
    }
    find_all(armoury, result);
    drop_rough_findings(armoury, result);
    return result;
}

} // namespace panoplon
