// Workbooks: cells of every kind, in both formats, and what is none.
#include "armoury/workbook.h"
#include "report/armoury_workbook.h"
#include "show/armoury/show_export.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>
#include <map>
#include <zip.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// An archive with these parts.
std::string archive(const std::map<std::string, std::string>& parts) {
    const TempFolder folder;
    int error = 0;
    zip_t* const zip = zip_open((folder / "a.zip").c_str(), ZIP_CREATE, &error);
    for (const auto& [path, text] : parts)
        zip_file_add(zip, path.c_str(), zip_source_buffer(zip, text.data(), text.size(), 0), 0);
    zip_close(zip);
    return folder.read("a.zip");
}

const std::string relations_head =
    "<Relationships "
    "xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\">";
const std::string type_head =
    "http://schemas.openxmlformats.org/officeDocument/2006/relationships/";

std::string relation(const std::string& id, const std::string& type, const std::string& target) {
    return "<Relationship Id=\"" + id + "\" Type=\"" + type_head + type + "\" Target=\"" + target +
           "\"/>";
}

/// One sheet of these rows, as Office Open XML has them.
std::string office_open(const std::string& rows) {
    return archive(
        {{"_rels/.rels", relations_head + relation("r1", "officeDocument", "xl/workbook.xml") +
                             "</Relationships>"},
         {"xl/workbook.xml", "<workbook xmlns:r=\"x\"><sheets><sheet name=\"Items\" "
                             "r:id=\"rId7\"/></sheets></workbook>"},
         {"xl/_rels/workbook.xml.rels",
          relations_head + relation("rId7", "worksheet", "worksheets/first.xml") +
              relation("rId8", "sharedStrings", "sharedStrings.xml") +
              relation("rId9", "styles", "styles.xml") + "</Relationships>"},
         {"xl/sharedStrings.xml",
          "<sst><si><t>Copper</t></si><si><r><t>two </t></r><r><t>runs</t></r></si></sst>"},
         {"xl/styles.xml",
          "<styleSheet><numFmts><numFmt numFmtId=\"170\" formatCode=\"0.0%\"/><numFmt "
          "numFmtId=\"171\" formatCode=\"0 &quot;days&quot;\"/></numFmts><cellXfs><xf "
          "numFmtId=\"0\"/><xf numFmtId=\"9\"/><xf numFmtId=\"170\"/><xf numFmtId=\"14\"/><xf "
          "numFmtId=\"171\"/></cellXfs></styleSheet>"},
         {"xl/worksheets/first.xml",
          "<worksheet><sheetData>" + rows + "</sheetData></worksheet>"}});
}

std::string open_document(const std::string& rows) {
    return archive({{"content.xml", "<office:document-content><office:body><office:spreadsheet>"
                                    "<table:table table:name=\"Items\">" +
                                        rows +
                                        "</table:table></office:spreadsheet></office:body></"
                                        "office:document-content>"}});
}

/// The cells of the first sheet: `a|b` a row.
std::vector<std::string> cells(const std::string& bytes) {
    const auto sheets = read_workbook(bytes);
    INFO((sheets.ok() ? std::string() : sheets.failure().message));
    REQUIRE(sheets.ok());
    std::vector<std::string> rows;
    for (const auto& row : sheets.value().front().rows) {
        std::string& line = rows.emplace_back();
        for (std::size_t i = 0; i < row.size(); ++i) line += (i > 0 ? "|" : "") + row[i];
    }
    return rows;
}

} // namespace

TEST_CASE("workbooks: cells of Office Open XML, shared and inline, with gaps") {
    CHECK(cells(office_open(
              "<row r=\"2\"><c r=\"A2\" t=\"s\"><v>0</v></c><c r=\"C2\" t=\"s\"><v>1</v></c>"
              "<c r=\"D2\" t=\"inlineStr\"><is><t>inline</t></is></c></row>"
              "<row r=\"4\"><c r=\"A4\"><v>2.5</v></c><c r=\"B4\" t=\"b\"><v>1</v></c>"
              "<c r=\"C4\" t=\"str\"><f>A1</f><v>result</v></c></row>")) ==
          std::vector<std::string>{"", "Copper||two runs|inline", "", "2.5|true|result"});
}

TEST_CASE("workbooks: numbers are told as they are shown") {
    CHECK(cells(office_open("<row><c s=\"0\"><v>0.30000000000000004</v></c><c s=\"1\"><v>0.05</v>"
                            "</c><c s=\"2\"><v>0.125</v></c><c s=\"3\"><v>46053</v></c><c "
                            "s=\"4\"><v>3</v></c></row>")) ==
          std::vector<std::string>{"0.3|5%|12.5%|2026-01-31|3"});
}

TEST_CASE("workbooks: cells of OpenDocument, repeated and in groups") {
    CHECK(cells(open_document(
              "<table:table-header-rows><table:table-row><table:table-cell "
              "office:value-type=\"string\"><text:p>a<text:s text:c=\"2\"/>b</text:p>"
              "</table:table-cell><table:table-cell table:number-columns-repeated=\"2\"/>"
              "<table:table-cell office:value-type=\"percentage\" office:value=\"0.05\"/>"
              "</table:table-row></table:table-header-rows>"
              "<table:table-row table:number-rows-repeated=\"2\"><table:table-cell "
              "office:value-type=\"float\" office:value=\"1.5\" "
              "table:number-columns-repeated=\"2\"><text:p>1,5</text:p></table:table-cell>"
              "</table:table-row><table:table-row table:number-rows-repeated=\"1048000\">"
              "<table:table-cell/></table:table-row>")) ==
          std::vector<std::string>{"a  b|||5%", "1.5|1.5", "1.5|1.5"});
}

TEST_CASE("workbooks: what is none, is damaged or has no end is refused") {
    CHECK_FALSE(read_workbook("").ok());
    CHECK_FALSE(read_workbook("item,slot\n").ok());
    CHECK_FALSE(read_workbook(archive({{"mimetype", "text"}})).ok());
    const std::string sound = office_open("<row><c><v>1</v></c></row>");
    for (std::size_t size = 0; size < sound.size(); size += 97)
        CHECK_FALSE(read_workbook(sound.substr(0, size)).ok());
    CHECK_FALSE(read_workbook(office_open("<row><c><v>1</c></row>")).ok());
    const auto endless = read_workbook(
        open_document("<table:table-row table:number-rows-repeated=\"1000000\"><table:table-cell "
                      "table:number-columns-repeated=\"16000\" office:value-type=\"float\" "
                      "office:value=\"1\"/></table:table-row>"));
    REQUIRE_FALSE(endless.ok());
    CHECK(has(endless.failure().message, "2000000 filled cells"));
}

TEST_CASE("workbooks: an armoury that is exported as one reads back to the same") {
    const TempFolder demo;
    write_demo(demo);
    const Result<ReadArmoury> before = read_armoury(demo.path());
    REQUIRE(before.ok());
    const WrittenTables written = written_tables(before.value().definitions);
    const Result<std::string> bytes = armoury_workbook(written);
    REQUIRE(bytes.ok());
    const TempFolder folder;
    folder.write("armoury.toml", written.rest);
    folder.write("armoury.xlsx", bytes.value());
    const Result<ReadArmoury> after = read_armoury(folder.path());
    REQUIRE(after.ok());
    INFO(mistakes(after.value()));
    REQUIRE(after.value().usable());
    CHECK(resolved_json(after.value()) == resolved_json(before.value()));
    CHECK(after.value().sources.notes().empty());
}

TEST_CASE("workbooks: a mistake has the place of its cell, a sheet without a table is noted") {
    const TempFolder folder;
    folder.write("armoury.toml", duel());
    folder.write("gear.xlsx", office_open("<row r=\"3\"><c r=\"B3\" t=\"inlineStr\"><is><t>Name"
                                          "</t></is></c><c r=\"C3\" t=\"inlineStr\"><is><t>Slot"
                                          "</t></is></c></row><row r=\"5\"><c r=\"B5\" t=\"s\">"
                                          "<v>0</v></c><c r=\"C5\" t=\"s\"><v>1</v></c></row>"));
    folder.write("notes.ods", open_document("<table:table-row><table:table-cell "
                                            "office:value-type=\"string\"><text:p>Read me"
                                            "</text:p></table:table-cell></table:table-row>"));
    const Result<ReadArmoury> result = read_armoury(folder.path());
    REQUIRE(result.ok());
    CHECK(has(mistakes(result.value()), "gear.xlsx: Items!C5: unknown slot 'two_runs'"));
    REQUIRE(result.value().sources.notes().size() == 2);
    CHECK(has(result.value().sources.notes()[1], "ids are made from names: 'Copper' is copper"));
    CHECK(has(result.value().sources.notes()[0], "notes.ods: left out"));
}
