#include "cli/report_work.h"

#include "cli/fight_answer.h"
#include "judge/audit/confirming.h"
#include "judge/audit/lift.h"
#include "judge/paper/doubts.h"
#include "show/tune/show_comparison.h"

#include <algorithm>

namespace panoplon {

ReportWork::ReportWork(const Invocation& invocation, const ReadArmoury& read, ReportAsked asked)
    : invocation_(invocation),
      read_(read),
      armoury_(read.armoury),
      judging_(read.armoury),
      asked_(std::move(asked)),
      known_(invocation) {}

std::optional<FightError> ReportWork::run(const ReadArmoury* old) {
    if (wants_audit()) judge();
    const Audited audited{asked_.audit, audit_, extras_};
    if (asked_.wants("first")) add(can_judge() ? first_section(armoury_, audited) : unjudged());
    if (old) changes(*old);
    if (asked_.wants("verdicts") && can_judge()) add(verdict_section(armoury_, audited));
    if (asked_.wants("map") && can_judge()) add(map_section(armoury_, audited));
    if (asked_.wants("pairs") && can_judge()) add(pair_section(armoury_, extras_.pairs));
    if (asked_.wants("curves")) curves();
    if (asked_.wants("ladder") && !armoury_.tiers.empty()) ladder();
    if (asked_.wants("journeys")) journeys();
    if (asked_.wants("loadouts") || asked_.wants("fights")) loadouts();
    if (asked_.wants("doubts")) doubts();
    if (asked_.wants("items")) add(item_section(armoury_, wants_audit() ? &audit_ : nullptr));
    add(about_section(read_, audited, asked_.trials));
    return error_;
}

void ReportWork::add(Section section) {
    report_.sections.push_back(std::move(section));
}

void ReportWork::keep(const Document& document) {
    for (const CsvTable& table : document.tables) {
        const auto at = std::find_if(tables_.begin(), tables_.end(),
                                     [&](const CsvTable& one) { return one.name == table.name; });
        if (at == tables_.end())
            tables_.push_back(table);
        else
            at->rows.insert(at->rows.end(), table.rows.begin(), table.rows.end());
    }
}

void ReportWork::note(bool partial) {
    report_.partial = report_.partial || partial;
}

bool ReportWork::can_judge() const {
    return !armoury_.characters.empty() && !armoury_.encounters.empty() && !armoury_.items.empty();
}

Section ReportWork::unjudged() {
    Section section = section_of("first");
    section.add(Paragraph{"Nothing was judged: that takes an item, a character and an "
                          "encounter, and the armoury lacks one of these.",
                          false});
    return section;
}

bool ReportWork::wants_audit() const {
    if (!can_judge()) return false;
    for (const char* section : {"first", "verdicts", "map", "pairs", "items"})
        if (asked_.wants(section)) return true;
    return false;
}

void ReportWork::judge() {
    audit_ = watched(invocation_, "contexts", [&](const Watch& watch) {
        return audit(judging_, asked_.audit, watch, known_.recall(read_));
    });
    ConfirmOptions confirm;
    confirm.seed = asked_.seed;
    watched(invocation_, "verdicts by trials",
            [&](const Watch& watch) { confirm_verdicts(judging_, confirm, audit_, watch); });
    LiftOptions lift;
    lift.seed = asked_.seed;
    watched(invocation_, "items in random loadouts",
            [&](const Watch& watch) { find_lifts(judging_, lift, audit_, watch); });
    extras_.sets = judge_sets(armoury_, audit_);
    extras_.tiers = judge_tiers(armoury_, audit_);
    extras_.upgrades = watched(invocation_, "contexts with upgrades", [&](const Watch& watch) {
        return judge_upgrades(armoury_, audit_, watch);
    });
    extras_.break_evens = watched(invocation_, "consumables", [&](const Watch& watch) {
        return find_break_evens(armoury_, audit_, watch);
    });
    extras_.has_pairs = asked_.wants("pairs");
    if (extras_.has_pairs)
        extras_.pairs = watched(invocation_, "contexts for pairs", [&](const Watch& watch) {
            return find_pairs(judging_, {8, asked_.seed}, audit_, watch);
        });
    note(audit_.partial);
    keep(show_audit(armoury_, asked_.audit, audit_, extras_));
    for (const ContextRow& row : audit_.contexts)
        if (row.error && !error_) error_ = row.error;
}

void ReportWork::changes(const ReadArmoury& old) {
    Reading before{old, asked_.audit};
    Reading after{read_, asked_.audit};
    before.scope.levels = old.armoury.levels;
    const Comparison comparison = watched(invocation_, "contexts of both", [&](const Watch& watch) {
        return compare_readings(before, after, known_.memory(), known_.edition(), watch);
    });
    note(comparison.partial);
    const Document document = show_comparison(before, after, old.armoury.name + ", before",
                                              armoury_.name + ", now", comparison);
    keep(document);
    add(change_section(document));
}

void ReportWork::doubts() {
    ReadArmoury doubted = read_;
    find_doubts(doubted.armoury, doubted.sink);
    add(doubt_section(doubted));
}

Document ReportWork::curves_by(const CurveOptions& options) {
    const CurveResult result = watched(invocation_, "points of curves", [&](const Watch& watch) {
        return draw_curves(armoury_, options, watch);
    });
    note(result.partial);
    for (const Curve& curve : result.curves)
        if (curve.error && !error_) error_ = curve.error;
    const Document document = show_curves(armoury_, options, result);
    keep(document);
    return document;
}

void ReportWork::curves() {
    if (armoury_.loadouts.empty()) return;
    CurveOptions options;
    options.levels = asked_.audit.levels;
    options.trials = asked_.trials;
    options.seed = asked_.seed;
    add(curve_section("curves", {curves_by(options)}));
}

void ReportWork::ladder() {
    CurveOptions options;
    options.by = CurveBy::tier;
    options.levels = asked_.audit.levels;
    options.characters = asked_.audit.characters;
    const std::vector<EncounterId> encounters = encounters_that_count(armoury_);
    if (encounters.empty() || armoury_.characters.empty()) return;
    options.encounters = {encounters.front()};
    options.trials = 0;
    add(curve_section("ladder", {curves_by(options)}));
}

void ReportWork::journeys() {
    std::vector<std::pair<std::string, Document>> documents;
    for (const Journey& journey : armoury_.journeys) {
        Deriver deriver(armoury_);
        const Outfit start = journey_start(armoury_, journey);
        const Encounter& first = armoury_.at(journey.stages.front().encounter);
        if (!refusals(deriver, start).empty() || !missing_for(deriver, start, first).empty())
            continue; // `check` has a doubt about it
        const JourneyOptions options{asked_.trials, asked_.seed};
        const JourneySummary summary = watched(invocation_, "journeys", [&](const Watch& watch) {
            return run_journey(armoury_, journey, options, watch);
        });
        note(summary.partial);
        if (summary.error && !error_) error_ = summary.error;
        if (summary.trials > 0)
            documents.emplace_back(journey.id, show_journey(armoury_, journey, options, summary));
    }
    add(journey_section(documents));
}

void ReportWork::loadouts() {
    const std::vector<Standing> standings =
        watched(invocation_, "loadouts",
                [&](const Watch& watch) { return find_standings(armoury_, watch); });
    note(standings.size() < armoury_.loadouts.size());
    if (asked_.wants("loadouts")) add(loadout_section(armoury_, standings));
    if (!asked_.wants("fights")) return;
    std::vector<std::pair<const Standing*, Document>> fights;
    for (const Standing& standing : standings)
        if (standing.closest.given())
            if (auto document = fight_of(standing))
                fights.emplace_back(&standing, std::move(*document));
    if (!fights.empty()) add(fight_section(armoury_, fights));
}

std::optional<Document> ReportWork::fight_of(const Standing& standing) {
    const auto side = fight_side(armoury_, standing.loadout, standing.closest, standing.level);
    if (!side) return std::nullopt;
    FightAnswer report;
    report.loadout = standing.loadout;
    report.encounter = standing.closest;
    report.level = standing.level;
    report.seed = asked_.seed;
    report.asked = asked_.trials;
    report.sheet = side->sheet;
    report.sources = &read_.sources;
    report.pack = side->outfit.pack;
    FightAsked asked;
    asked.trials = asked_.trials;
    asked.seed = asked_.seed;
    const auto error = watched(invocation_, "trials", [&](const Watch& watch) {
        return find_answer(armoury_, side->setup, watch, asked, false, report);
    });
    if (error && !error_) error_ = error;
    if (report.trials) note(report.trials->partial);
    if (error || !report.trials || report.trials->trials == 0) return std::nullopt;
    return show_fight(armoury_, report);
}

} // namespace panoplon
