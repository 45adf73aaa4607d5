#include "report/workbook.h"

#include "base/text.h"
#include "report/workbook_charts.h"
#include "report/workbook_sheets.h"
#include "show/written_files.h"

#include <fmt/format.h>
#include <sys/mman.h>
#include <unistd.h>

namespace panoplon {

namespace {

Failure workbook_failure(const std::string& why) {
    return {Cause::file, "can't make the workbook: " + why, {}};
}

void gather_calls(const std::vector<ReportBlock>& blocks, Table& table) {
    for (const ReportBlock& block : blocks) {
        if (const auto* fold = std::get_if<Fold>(&block.content)) gather_calls(fold->blocks, table);
        if (const auto* calls = std::get_if<Calls>(&block.content))
            for (const Call& call : calls->list)
                table.row({call.item, call.name, call.verdict, call.sentence});
    }
}

Table calls_table(const Report& report) {
    Table table{
        "calls",
        {as::text("", "item"), as::text("", "name"), as::text("", "verdict"), as::text("", "why")},
        {},
        "Look at first"};
    for (const Section& section : report.sections) gather_calls(section.blocks, table);
    return table;
}

void gather_sentences(const std::string& title, const std::vector<ReportBlock>& blocks,
                      Table& table) {
    for (const ReportBlock& block : blocks) {
        if (const auto* fold = std::get_if<Fold>(&block.content))
            gather_sentences(title, fold->blocks, table);
        if (const auto* sentences = std::get_if<Sentences>(&block.content))
            for (const std::string& line : sentences->lines) table.row({title, line});
    }
}

Table findings_table(const Report& report) {
    Table table{"findings", {as::text("", "of"), as::text("", "finding")}, {}, "Findings"};
    for (const Section& section : report.sections)
        gather_sentences(section.title, section.blocks, table);
    return table;
}

void add_tables(WorkbookSheets& sheets, const std::vector<ReportBlock>& blocks) {
    for (const ReportBlock& block : blocks) {
        if (const auto* fold = std::get_if<Fold>(&block.content)) add_tables(sheets, fold->blocks);
        if (const auto* table = std::get_if<Table>(&block.content))
            add_charts(sheets.workbook(), sheets.add(*table), *table);
    }
}

/// One fight's tables are for the page: there would be a sheet for each of some forty.
void fill(WorkbookSheets& sheets, const Report& report) {
    for (const Table& table : {calls_table(report), findings_table(report)})
        if (!table.rows.empty()) sheets.add(table);
    for (const Section& section : report.sections)
        if (section.id != "fights") add_tables(sheets, section.blocks);
}

} // namespace

Result<std::string> workbook_bytes(const Report& report) {
    // The library writes to a path: one that leads into memory.
    const int memory = memfd_create("workbook", MFD_CLOEXEC);
    if (memory < 0) return workbook_failure("no memory for it");
    const std::string path = fmt::format("/proc/self/fd/{}", memory);
    lxw_error error = LXW_NO_ERROR;
    {
        lxw_workbook* workbook = workbook_new(path.c_str());
        if (workbook) {
            WorkbookSheets sheets(workbook);
            fill(sheets, report);
            error = workbook_close(workbook);
        } else {
            error = LXW_ERROR_MEMORY_MALLOC_FAILED;
        }
    }
    const std::string bytes = file_text(path);
    close(memory);
    if (error != LXW_NO_ERROR) return workbook_failure(lxw_strerror(error));
    return bytes;
}

} // namespace panoplon
