#include "cli/session.h"
#include "output/folder.h"
#include "output/show_equip.h"
#include "output/show_fight.h"

namespace panoplon {

namespace {

constexpr std::uint64_t most_trials = 10'000'000;

struct Asked {
    std::uint64_t trials, seed, told;
};

Result<Asked> asked_for(const Invocation& invocation) {
    const Result<std::uint64_t> trials = whole_option(invocation, "trials", 1, most_trials, 1000);
    if (!trials.ok()) return trials.failure();
    const Result<std::uint64_t> seed = whole_option(invocation, "seed", 0, ~std::uint64_t{0}, 1);
    if (!seed.ok()) return seed.failure();
    const Result<std::uint64_t> told = whole_option(invocation, "trial", 0, most_trials, 0);
    if (!told.ok()) return told.failure();
    return Asked{invocation.has("even-luck") ? 0 : trials.value(), seed.value(), told.value()};
}

/// Runs what the report needs; the first error of any of it.
std::optional<FightError> fill(const Armoury& armoury, const FightSetup& setup, const Watch& watch,
                               const Asked& asked, FightReport& report) {
    Engine engine(armoury);
    engine.prepare(setup);
    report.even = engine.run(1, std::nullopt);
    if (report.even.error) return report.even.error;
    report.even_margin = even_margin(engine);
    if (report.even_margin.error) return report.even_margin.error;
    std::optional<Luck> told;
    if (asked.trials > 0) {
        report.trials = run_trials(armoury, setup, {asked.trials, asked.seed, 1}, watch);
        if (report.trials->error) return report.trials->error;
        told = Luck{asked.seed, asked.told};
        report.told_trial = asked.told;
    }
    report.told = engine.tell(1, told);
    return std::nullopt;
}

} // namespace

int run_fight(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    const Result<LoadoutId> loadout_id =
        look_up<LoadoutId>("loadout", armoury.loadouts, invocation.operands()[1]);
    if (!loadout_id.ok()) return report_failure(loadout_id.failure());
    const Result<EncounterId> encounter =
        look_up<EncounterId>("encounter", armoury.encounters, invocation.operands()[2]);
    if (!encounter.ok()) return report_failure(encounter.failure());
    const Loadout& loadout = armoury.at(loadout_id.value());
    const Result<int> level = level_option(invocation, armoury, loadout);
    if (!level.ok()) return report_failure(level.failure());
    const Result<Asked> asked = asked_for(invocation);
    if (!asked.ok()) return report_failure(asked.failure());

    Deriver deriver(armoury);
    const Outfit outfit = outfit_of(loadout, level.value());
    const Sheet sheet = make_sheet(deriver, outfit);
    if (!sheet.refused.empty()) {
        fmt::print(stderr, "panoplon: '{}' can't be worn at level {}, so nothing is fought\n{}",
                   loadout.id, level.value(), refusals_text(sheet.refused));
        return Exit::refused;
    }
    FightReport report;
    report.loadout = loadout_id.value();
    report.encounter = encounter.value();
    report.level = level.value();
    report.seed = asked.value().seed;
    report.asked = asked.value().trials;
    report.load = load_words(armoury, sheet);
    report.pack = outfit.pack;
    const FightSetup setup = set_up_fight(armoury, outfit, encounter.value());
    const auto error = watched(invocation, "trials", [&](const Watch& watch) {
        return fill(armoury, setup, watch, asked.value(), report);
    });
    if (error) return report_fight_error(*opened.read, *error);
    if (report.trials && report.trials->trials == 0) return Exit::interrupted;
    if (invocation.has("timeline")) {
        const Result<std::string> written =
            write_whole(invocation.value("timeline"), csv_text(timeline_table(report.told)));
        if (!written.ok()) return report_failure(written.failure());
    }
    return show(invocation, armoury, show_fight(armoury, report), report.seed);
}

} // namespace panoplon
