#include "panoplon/fight.h"

#include "chance/estimate.h"
#include "face/inside.h"
#include "fight/margin.h"
#include "fight/trials.h"
#include "outfit/refusals.h"

#include <algorithm>

namespace panoplon::core {

namespace {

void throw_error(const std::optional<FightError>& error) {
    if (error) throw std::runtime_error(error->message);
}

} // namespace

FightOutcome fight(const Armoury& armoury, const FightQuery& query) {
    const panoplon::Armoury& a = usable(armoury);
    const Loadout& loadout = a.at(known<LoadoutId>("loadout", a.loadouts, query.loadout));
    const auto encounter = known<EncounterId>("encounter", a.encounters, query.encounter);
    const int last = std::clamp(loadout.levels.last, a.levels.first, a.levels.last);
    const int level = query.level == 0 ? last : known_level(a, query.level);
    const Outfit outfit = outfit_of(a, loadout, level);
    Engine engine(a);
    if (const auto refused = refusals(engine.deriver(), outfit); !refused.empty())
        throw std::runtime_error("'" + loadout.id + "' is refused: " + reasons_in_a_line(refused));
    const FightSetup setup = set_up_fight(a, outfit, encounter);
    engine.prepare(setup);
    FightOutcome outcome;
    const FightResult& even = engine.run(1, std::nullopt);
    throw_error(even.error);
    outcome.even_won = even.won;
    outcome.even_time = even.time;
    const Margin margin = even_margin(engine);
    throw_error(margin.error);
    outcome.margin = margin.value;
    if (query.trials == 0) return outcome;
    const TrialsSummary trials = run_trials(a, setup, {query.trials, query.seed, 1});
    throw_error(trials.error);
    const Estimate wins =
        estimate_share(static_cast<double>(trials.won), static_cast<double>(trials.trials));
    outcome.trials = trials.trials;
    outcome.win_share = wins.mean;
    outcome.win_low = wins.low;
    outcome.win_high = wins.high;
    outcome.mean_time = trials.time.mean();
    return outcome;
}

} // namespace panoplon::core
