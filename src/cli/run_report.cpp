#include "cli/earlier_runs.h"
#include "report/draw.h"
#include "report/page.h"
#include "report/workbook.h"
#include "work/report_work.h"

#include <algorithm>
#include <filesystem>

namespace panoplon {

namespace {

Result<std::set<std::string>> sections_asked(const Invocation& invocation) {
    std::vector<std::string> known;
    for (const SectionRow& row : section_rows()) known.emplace_back(row.id);
    std::set<std::string> asked;
    for (const std::string& list : invocation.values("only"))
        for (const std::string& name : split(list, ',')) {
            if (std::find(known.begin(), known.end(), name) == known.end()) {
                const auto near = nearest_name(name, known);
                return Failure{Cause::usage,
                               fmt::format("--only: there is no section '{}'{}", name,
                                           near ? fmt::format("; did you mean '{}'?", *near) : ""),
                               near ? "" : "sections: " + join(known, ", ")};
            }
            asked.insert(name);
        }
    return asked;
}

/// What the terminal tells: the most urgent, and what the report has.
Document summary_of(const Report& report) {
    Document document;
    document.partial = report.partial;
    document.text = report.title + "\n";
    document.json["title"] = report.title;
    document.json["sections"] = Json::array();
    document.json["calls"] = Json::array();
    for (const Section& section : report.sections) {
        document.json["sections"].push_back({{"id", section.id}, {"title", section.title}});
        for (const ReportBlock& block : section.blocks)
            if (const auto* calls = std::get_if<Calls>(&block.content))
                for (const Call& call : calls->list) {
                    document.text += fmt::format("  {} — {}\n", call.item, call.verdict);
                    document.json["calls"].push_back({{"item", call.item},
                                                      {"verdict", call.verdict},
                                                      {"sentence", call.sentence}});
                }
    }
    return document;
}

Result<ReportRequest> asked_of(const Invocation& invocation, const Armoury& armoury) {
    ReportRequest asked;
    FirstFailure take;
    narrow_by_step(invocation, armoury, take, asked.audit);
    asked.trials = take(whole_option(invocation, "trials", 1, 1'000'000, 200));
    asked.seed = take(seed_option(invocation));
    asked.only = take(sections_asked(invocation));
    if (take.failure()) return *take.failure();
    return asked;
}

} // namespace

int run_report(const Invocation& invocation) {
    const std::string folder = invocation.has("o") ? invocation.value("o") : "panoplon-report";
    if (const auto refused = refuse_into_armoury(folder, invocation.operands().front()))
        return report_failure(*refused);
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    Result<ReportRequest> asked = asked_of(invocation, armoury);
    if (!asked.ok()) return report_failure(asked.failure());
    Opened old;
    if (asked.value().only.contains("changes") && !invocation.has("compare"))
        return report_failure(
            {Cause::usage, "the section 'changes' needs an older armoury", "--compare OLD"});
    if (invocation.has("compare")) {
        old = open_folder(invocation, invocation.value("compare"), {});
        if (!old.read) return old.exit;
    }
    EarlierRuns earlier(invocation);
    WatchedStages stages(invocation);
    ReportWork work(*opened.read, asked.value(), earlier.recall(*opened.read), stages);
    int exit = Exit::done;
    if (const auto error = work.run(old.read ? &*old.read : nullptr))
        exit = report_fight_error(*opened.read, *error);
    Report report = work.take();
    report.armoury = armoury.name;
    report.title = invocation.has("title") ? invocation.value("title")
                                           : fmt::format("{}: gear report", armoury.name);
    report.origin = fmt::format("panoplon {}, armoury {}, seed {}", PANOPLON_VERSION, armoury.hash,
                                asked.value().seed);
    const auto drawn = watched(invocation, "figures", [&](const Watch& watch) {
        return draw_pictures(report, folder, watch);
    });
    if (!drawn.ok()) return report_failure(drawn.failure());
    const Result<std::string> workbook = workbook_bytes(report);
    if (!workbook.ok()) return report_failure(workbook.failure());
    report.partial = report.partial || was_interrupted();
    Document document = summary_of(report);
    document.files.push_back({"report.html", page_text(report)});
    document.files.push_back({"report.xlsx", workbook.value()});
    earlier.tell();
    exit = show_into(folder, invocation, armoury, document, asked.value().seed, exit);
    if (!invocation.has("q"))
        tell_beside(invocation, fmt::format("wrote {} into {}\n",
                                            counted(drawn.value().size(), "file of figures",
                                                    "files of figures"),
                                            (std::filesystem::path(folder) / "figures").string()));
    if (exit == Exit::file_trouble) return exit;
    document.tables = work.take_tables();
    return keep_results(folder, invocation, armoury, document, asked.value().seed, exit);
}

} // namespace panoplon
