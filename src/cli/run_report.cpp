#include "cli/earlier_runs.h"
#include "cli/report_files.h"

#include <algorithm>

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
    MadeReport made = make_report(*opened.read, old.read ? &*old.read : nullptr, asked.value(),
                                  invocation.value("title"), earlier.recall(*opened.read), stages);
    earlier.tell();
    return write_report(invocation, *opened.read, std::move(made), folder, stages);
}

} // namespace panoplon
