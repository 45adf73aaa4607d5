#include "cli/session.h"
#include "report/armoury_workbook.h"
#include "show/armoury/show_export.h"
#include "store/results_file.h"

namespace panoplon {

namespace {

/// An armoury of two files: a workbook, and armoury.toml with what no sheet holds.
std::optional<Failure> write_workbook(const Invocation& invocation, const ReadArmoury& read) {
    const std::string folder = invocation.value("xlsx");
    const std::string& armoury = invocation.operands().front();
    if (auto refused = refuse_into_armoury(folder, armoury)) return refused;
    const WrittenTables written = written_tables(read.definitions);
    Result<std::string> workbook = armoury_workbook(written);
    if (!workbook.ok()) return workbook.failure();
    const std::string bytes = workbook.take();
    const EmbeddedFile files[] = {{"armoury.toml", written.rest}, {"armoury.xlsx", bytes}};
    const Result<std::vector<std::string>> done = write_embedded(files, folder);
    if (!done.ok()) return done.failure();
    if (invocation.has("q")) return std::nullopt;
    for (const std::string& path : done.value()) outlet().complain(fmt::format("wrote {}\n", path));
    return std::nullopt;
}

} // namespace

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
    if (invocation.has("xlsx"))
        if (const auto failure = write_workbook(invocation, *opened.read))
            return report_failure(*failure);
    return show(invocation, opened.armoury(), document, 0);
}

} // namespace panoplon
