#include "journey/journey.h"

#include "fight/trial_blocks.h"
#include "journey/journey_bytes.h"
#include "journey/traveller.h"

#include <algorithm>

namespace panoplon {

namespace {

JourneySummary empty_summary(const Armoury& armoury, const Journey& journey) {
    JourneySummary summary;
    summary.stages.resize(journey.stages.size());
    summary.items.resize(armoury.items.size());
    summary.upgrades.resize(armoury.upgrades.size());
    const auto levels = static_cast<std::size_t>(armoury.levels.last - armoury.levels.first) + 1;
    summary.fights_at.resize(levels);
    for (ItemSummary& item : summary.items) item.fights_worn_at.resize(levels);
    for (StageSummary& stage : summary.stages) stage.stock.resize(armoury.items.size());
    return summary;
}

void add_to(std::vector<double>& into, const std::vector<double>& more) {
    for (std::size_t i = 0; i < more.size(); ++i) into[i] += more[i];
}

void add_stage(StageSummary& summary, const StageTrial& trial) {
    summary.reached += 1;
    summary.passed += trial.passed;
    summary.tries.add(trial.tries);
    summary.wins.add(trial.wins);
    for (const std::string& reason : trial.missing) summary.missing[reason] += 1;
    if (!trial.passed) return;
    summary.level.add(trial.level);
    summary.time.add(trial.time);
    summary.coin.add(trial.coin);
    if (trial.power) summary.power.push_back(*trial.power);
    add_to(summary.stock, trial.stock);
}

void add_item(ItemSummary& summary, const ItemTrial& trial) {
    summary.found_in += trial.found > 0;
    summary.found.add(trial.found);
    summary.left.add(trial.left);
    summary.used.add(trial.used);
    summary.bought.add(trial.bought);
    summary.sold.add(trial.sold);
    summary.broken.add(trial.broken);
    summary.fights_worn += trial.fights_worn;
    add_to(summary.fights_worn_at, trial.fights_worn_at);
    if (trial.first_worn == 0) return;
    summary.worn_in += 1;
    summary.kept_in += trial.worn_last;
    summary.first_worn.add(trial.first_worn);
    summary.grown.add(trial.grown);
}

void add_trial(JourneySummary& summary, const Traveller& traveller) {
    summary.trials += 1;
    summary.finished += traveller.finished();
    summary.fights += traveller.fights();
    summary.ways.push_back(traveller.way());
    add_to(summary.fights_at, traveller.fights_at());
    for (std::size_t s = 0; s < traveller.stages().size(); ++s)
        add_stage(summary.stages[s], traveller.stages()[s]);
    for (std::size_t i = 0; i < summary.items.size(); ++i)
        add_item(summary.items[i], traveller.items()[i]);
    for (std::size_t u = 0; u < summary.upgrades.size(); ++u)
        summary.upgrades[u] += static_cast<std::uint64_t>(traveller.upgrades()[u]);
    if (traveller.error() && !summary.error) summary.error = traveller.error();
}

void merge_stage(StageSummary& into, const StageSummary& block) {
    into.reached += block.reached;
    into.passed += block.passed;
    into.tries.merge(block.tries);
    into.wins.merge(block.wins);
    into.level.merge(block.level);
    into.time.merge(block.time);
    into.coin.merge(block.coin);
    into.power.insert(into.power.end(), block.power.begin(), block.power.end());
    add_to(into.stock, block.stock);
    for (const auto& [reason, trials] : block.missing) into.missing[reason] += trials;
}

void merge_item(ItemSummary& into, const ItemSummary& block) {
    into.found_in += block.found_in;
    into.worn_in += block.worn_in;
    into.kept_in += block.kept_in;
    into.fights_worn += block.fights_worn;
    add_to(into.fights_worn_at, block.fights_worn_at);
    into.found.merge(block.found);
    into.left.merge(block.left);
    into.used.merge(block.used);
    into.bought.merge(block.bought);
    into.sold.merge(block.sold);
    into.broken.merge(block.broken);
    into.grown.merge(block.grown);
    into.first_worn.merge(block.first_worn);
}

void merge(JourneySummary& into, const JourneySummary& block) {
    into.trials += block.trials;
    into.finished += block.finished;
    into.fights += block.fights;
    into.ways.insert(into.ways.end(), block.ways.begin(), block.ways.end());
    add_to(into.fights_at, block.fights_at);
    for (std::size_t s = 0; s < into.stages.size(); ++s)
        merge_stage(into.stages[s], block.stages[s]);
    for (std::size_t i = 0; i < into.items.size(); ++i) merge_item(into.items[i], block.items[i]);
    for (std::size_t u = 0; u < into.upgrades.size(); ++u) into.upgrades[u] += block.upgrades[u];
    if (!into.error) into.error = block.error;
}

} // namespace

JourneySummary run_journey(const Armoury& armoury, const Journey& journey,
                           const JourneyOptions& options, const Watch& watch) {
    JourneySummary whole = empty_summary(armoury, journey);
    whole.partial = run_blocks(
        whole, options.trials, watch, [&] { return JourneyKit(armoury); },
        [&](JourneyKit& kit, std::uint64_t first, std::uint64_t last) {
            JourneySummary block = empty_summary(armoury, journey);
            for (std::uint64_t trial = first; trial < last; ++trial) {
                Traveller traveller(kit, journey, {options.seed, trial});
                traveller.go();
                add_trial(block, traveller);
            }
            return block;
        },
        merge);
    for (StageSummary& stage : whole.stages) std::sort(stage.power.begin(), stage.power.end());
    return whole;
}

} // namespace panoplon
