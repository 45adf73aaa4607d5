#include "work/report_work.h"

#include "judge/paper/doubts.h"
#include "show/tune/show_comparison.h"
#include "work/fight_work.h"
#include "work/journey_work.h"

#include <algorithm>

namespace panoplon {

ReportWork::ReportWork(const ReadArmoury& read, ReportRequest request, Recall recall,
                       Stages& stages)
    : stages_(stages),
      read_(read),
      armoury_(read.armoury),
      judging_(read.armoury),
      request_(std::move(request)),
      recall_(std::move(recall)) {}

std::optional<FightError> ReportWork::run(const ReadArmoury* old) {
    if (wants_audit()) judge();
    const Audited audited{request_.audit, audit_.result, audit_.extras};
    if (request_.wants("first")) add(can_judge() ? first_section(armoury_, audited) : unjudged());
    if (old) changes(*old);
    if (request_.wants("verdicts") && can_judge()) add(verdict_section(armoury_, audited));
    if (request_.wants("map") && can_judge()) add(map_section(armoury_, audited));
    if (request_.wants("pairs") && can_judge()) add(pair_section(armoury_, audit_.extras.pairs));
    if (request_.wants("curves")) curves();
    if (request_.wants("ladder") && !armoury_.tiers.empty()) ladder();
    if (request_.wants("journeys")) journeys();
    if (request_.wants("loadouts") || request_.wants("fights")) loadouts();
    if (request_.wants("doubts")) doubts();
    if (request_.wants("items"))
        add(item_section(armoury_, wants_audit() ? &audit_.result : nullptr));
    add(about_section(read_, audited, request_.trials));
    return error_;
}

void ReportWork::add(Section section) {
    report_.sections.push_back(std::move(section));
}

void ReportWork::keep(const Document& document) {
    for (const Table& table : document.tables) {
        const auto at = std::find_if(tables_.begin(), tables_.end(),
                                     [&](const Table& one) { return one.name == table.name; });
        if (at == tables_.end())
            tables_.push_back(table);
        else
            at->append(table);
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
        if (request_.wants(section)) return true;
    return false;
}

void ReportWork::judge() {
    AuditRequest request;
    request.options = request_.audit;
    request.confirm.seed = request.lift.seed = request_.seed;
    if (request_.wants("pairs")) request.pairs.emplace().seed = request_.seed;
    audit_ = find_audit(judging_, request, recall_, stages_);
    note(audit_.result.partial);
    keep(show_audit(armoury_, request_.audit, audit_.result, audit_.extras));
    if (!error_) error_ = first_error(audit_.result);
}

void ReportWork::changes(const ReadArmoury& old) {
    Reading before{old, request_.audit};
    Reading after{read_, request_.audit};
    before.scope.levels = old.armoury.levels;
    const Comparison comparison = in_stage(stages_, "contexts of both", [&](const Watch& watch) {
        return compare_readings(before, after, *recall_.memory, watch);
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
    const CurveResult result = in_stage(stages_, "points of curves", [&](const Watch& watch) {
        return draw_curves(armoury_, options, watch, recall_);
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
    options.levels = request_.audit.levels;
    options.trials = request_.trials;
    options.seed = request_.seed;
    add(curve_section("curves", {curves_by(options)}));
}

void ReportWork::ladder() {
    CurveOptions options;
    options.by = CurveBy::tier;
    options.levels = request_.audit.levels;
    options.characters = request_.audit.characters;
    const std::vector<EncounterId> encounters = encounters_that_count(armoury_);
    if (encounters.empty() || armoury_.characters.empty()) return;
    options.encounters = {encounters.front()};
    options.trials = 0;
    add(curve_section("ladder", {curves_by(options)}));
}

void ReportWork::journeys() {
    std::vector<std::pair<std::string, Document>> documents;
    for (const Journey& journey : armoury_.journeys) {
        if (!find_start(armoury_, journey).can_set_out()) continue; // `check` has a doubt about it
        const JourneyOptions options{request_.trials, request_.seed};
        const JourneySummary summary = in_stage(stages_, "journeys", [&](const Watch& watch) {
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
    const std::vector<Standing> standings = in_stage(
        stages_, "loadouts", [&](const Watch& watch) { return find_standings(armoury_, watch); });
    note(standings.size() < armoury_.loadouts.size());
    if (request_.wants("loadouts")) add(loadout_section(armoury_, standings));
    if (!request_.wants("fights")) return;
    std::vector<std::pair<const Standing*, Document>> fights;
    for (const Standing& standing : standings)
        if (standing.closest.given())
            if (auto document = fight_of(standing))
                fights.emplace_back(&standing, std::move(*document));
    if (!fights.empty()) add(fight_section(armoury_, fights));
}

std::optional<Document> ReportWork::fight_of(const Standing& standing) {
    const FightSide side = make_side(armoury_, standing.loadout, standing.closest, standing.level);
    if (!side.ready()) return std::nullopt;
    FightRequest request;
    request.loadout = standing.loadout;
    request.encounter = standing.closest;
    request.level = standing.level;
    request.trials = request_.trials;
    request.seed = request_.seed;
    const auto [answer, error] = find_answer(read_, side, request, stages_);
    if (error && !error_) error_ = error;
    if (answer.trials) note(answer.trials->partial);
    if (error || !answer.trials || answer.trials->trials == 0) return std::nullopt;
    return show_fight(armoury_, answer);
}

} // namespace panoplon
