#include "cli/report_files.h"

#include "base/ranks.h"
#include "report/draw.h"
#include "report/page.h"
#include "report/workbook.h"

#include <filesystem>

namespace panoplon {

namespace {

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

} // namespace

MadeReport make_report(const ReadArmoury& read, const ReadArmoury* old,
                       const ReportRequest& request, const std::string& title, const Recall& recall,
                       Stages& stages) {
    ReportWork work(read, request, recall, stages);
    MadeReport made;
    made.error = work.run(old);
    made.report = work.take();
    made.tables = work.take_tables();
    made.seed = request.seed;
    made.report.armoury = read.armoury.name;
    made.report.title = title.empty() ? fmt::format("{}: gear report", read.armoury.name) : title;
    made.report.origin = fmt::format("panoplon {}, armoury {}, seed {}", PANOPLON_VERSION,
                                     read.armoury.hash, request.seed);
    return made;
}

int write_report(const Invocation& invocation, const ReadArmoury& read, MadeReport made,
                 const std::string& folder, Stages& stages) {
    if (only_helps()) return Exit::done;
    int exit = made.error ? report_fight_error(read, *made.error) : Exit::done;
    Report& report = made.report;
    const auto drawn = in_stage(stages, "figures", [&](const Watch& watch) {
        return draw_pictures(report, folder, watch);
    });
    if (!drawn.ok()) return report_failure(drawn.failure());
    const Result<std::string> workbook = workbook_bytes(report);
    if (!workbook.ok()) return report_failure(workbook.failure());
    report.partial = report.partial || was_interrupted();
    Document document = summary_of(report);
    document.files.push_back({"report.html", page_text(report)});
    document.files.push_back({"report.xlsx", workbook.value()});
    exit = show_into(folder, invocation, read.armoury, document, made.seed, exit);
    if (!invocation.has("q"))
        tell_beside(invocation, fmt::format("wrote {} into {}\n",
                                            counted(drawn.value().size(), "file of figures",
                                                    "files of figures"),
                                            (std::filesystem::path(folder) / "figures").string()));
    if (exit == Exit::file_trouble) return exit;
    document.tables = std::move(made.tables);
    return keep_results(folder, invocation, read.armoury, document, made.seed, exit);
}

} // namespace panoplon
