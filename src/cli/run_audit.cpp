#include "cli/session.h"
#include "output/folder.h"
#include "output/show_audit.h"

namespace panoplon {

int run_audit(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Armoury& armoury = opened.armoury();
    AuditOptions options;
    FirstFailure take;
    narrow(invocation, armoury, take, options);
    options.step = static_cast<int>(take(
        whole_option(invocation, "step", 1, 1000, static_cast<std::uint64_t>(armoury.audit.step))));
    if (take.failure()) return report_failure(*take.failure());
    if (armoury.characters.empty() || armoury.encounters.empty())
        return report_failure({Cause::refused,
                               "an audit needs a character and an encounter; the armoury has none",
                               "[character.ID] and [encounter.ID]"});
    const AuditResult result = watched(
        invocation, "contexts", [&](const Watch& watch) { return audit(armoury, options, watch); });
    if (invocation.has("detail")) {
        const Result<std::string> written =
            write_whole(invocation.value("detail"), csv_text(audit_detail(armoury, result)));
        if (!written.ok()) return report_failure(written.failure());
    }
    int exit = Exit::done;
    for (const ContextRow& row : result.contexts) {
        if (!row.error) continue;
        exit = report_fight_error(*opened.read, *row.error);
        break; // the remarks tell of every context that had one
    }
    return show(invocation, armoury, show_audit(armoury, options, result), 0, exit);
}

} // namespace panoplon
