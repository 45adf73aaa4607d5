#include "report/workbook.h"

#include "report/workbook_charts.h"
#include "report/workbook_memory.h"
#include "report/workbook_sheets.h"

namespace panoplon {

namespace {

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
    return workbook_in_memory([&](lxw_workbook* workbook) {
        WorkbookSheets sheets(workbook);
        fill(sheets, report);
    });
}

} // namespace panoplon
