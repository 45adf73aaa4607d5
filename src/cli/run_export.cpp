#include "cli/session.h"
#include "show/armoury/show_export.h"
#include "store/results_file.h"

namespace panoplon {

int run_export(const Invocation& invocation) {
    const Opened opened = open_armoury(invocation);
    if (!opened.read) return opened.exit;
    const Document document = show_export(*opened.read);
    if (invocation.has("sqlite")) {
        const Result<std::string> written =
            write_sqlite(invocation.value("sqlite"), kind_tables(document.json["resolved"]));
        if (!written.ok()) return report_failure(written.failure());
        if (!invocation.has("q")) outlet().complain(fmt::format("wrote {}\n", written.value()));
    }
    return show(invocation, opened.armoury(), document, 0);
}

} // namespace panoplon
