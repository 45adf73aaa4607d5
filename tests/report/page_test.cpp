// Reports put together by hand: what the page and the workbook make of any text.
#include "report/page.h"
#include "report/workbook.h"
#include "support/armouries.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

namespace {

const std::string hostile = "<script>alert(1)</script> & \"quoted\" `touch x` {{title}} \x1b[31m";

Report report_with(std::vector<ReportBlock> blocks) {
    return {"Title", "Armoury", "by hand", false, {{"first", "First", std::move(blocks)}}};
}

std::string page_with(std::vector<ReportBlock> blocks) {
    return page_text(report_with(std::move(blocks)));
}

/// What stands in the page's body.
std::string body(const std::string& page) {
    return page.substr(page.find("<body>"));
}

} // namespace

TEST_CASE("page: text from an armoury is escaped wherever it stands") {
    const Table table{
        "t", {as::text("", hostile).on_page(hostile, hostile)}, {{Cell(hostile)}}, hostile};
    const std::vector<ReportBlock> blocks = {
        {Heading{hostile}},
        {Paragraph{hostile, true}},
        {Sentences{{hostile}}},
        {Terms{{{hostile, hostile}}}},
        {table},
        {Fold{hostile, {{Paragraph{hostile, false}}}}},
        {Calls{{{"x", hostile, "useless", hostile, {{hostile, hostile}}, hostile}}}},
        {Card{"x",
              hostile,
              hostile,
              hostile,
              hostile,
              {0x123456, 0xffffff},
              "useless",
              hostile,
              {{hostile, hostile}}}}};
    for (const ReportBlock& block : blocks) {
        const std::string page = body(page_with({block}));
        CHECK(has(page, "&lt;script&gt;alert(1)"));
        CHECK_FALSE(has(page, "<script>alert"));
        CHECK_FALSE(has(page, "\x1b"));
        CHECK(has(page, "{{title}}"));
    }
    Report named = report_with({});
    named.title = named.armoury = named.origin = hostile;
    CHECK_FALSE(has(page_text(named), "<script>alert"));
}

TEST_CASE("page: numbers are shown as people read them and sorted as what they are") {
    const Table table{"t",
                      {as::share("", "share", 0), as::gain("", "gain", 1),
                       as::number("", "number", 2), as::whole("", "none"),
                       as::gain("", "nothing", 2)},
                      {{0.934, -0.0561, 0.4686, {}, -1e-6}},
                      "Table"};
    const std::string page = body(page_with({{table}}));
    CHECK(has(page, "data-value=\"0.934\">93 %<"));
    CHECK(has(page, "data-value=\"-0.0561\">-5.6 %<"));
    CHECK(has(page, "data-value=\"0.4686\">0.47<"));
    CHECK(has(page, "data-value=\"\">—<"));
    CHECK(has(page, ">0.00 %<"));
}

TEST_CASE("page: an item leads to its card only where the cards are") {
    const Table table{"t", {as::item("", "item")}, {{Cell("reed_coat")}}, "T"};
    Report report = report_with({{table}});
    CHECK_FALSE(has(page_text(report), "#item-reed_coat"));
    Section items{"items", "Items", {}};
    items.add(Card{"reed_coat", "Reed coat", "", "", "", {}, "", "", {}});
    report.sections.push_back(items);
    CHECK(has(page_text(report), "<a href=\"#item-reed_coat\">reed_coat</a>"));
    CHECK(has(page_text(report), "id=\"item-reed_coat\""));
}

TEST_CASE("page: a fold in a fold holds what is in it, once") {
    const Fold inner{"inner", {{Paragraph{"the innermost", false}}}};
    const std::string page = body(page_with({{Fold{"outer", {{inner}}}}}));
    const std::size_t at = page.find("the innermost");
    REQUIRE(at != std::string::npos);
    CHECK(page.find("the innermost", at + 1) == std::string::npos);
}

TEST_CASE("page: a partial report says so") {
    Report report = report_with({});
    CHECK_FALSE(has(body(page_text(report)), "Partial:"));
    report.partial = true;
    CHECK(has(body(page_text(report)), "Partial:"));
}

TEST_CASE("page: a figure's ids are its own, and each layer says what the figure says of it") {
    const std::string svg =
        "<?xml version=\"1.0\"?><svg width=\"9\" height=\"9\" viewBox=\"0 0 9 9\" "
        "xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\">"
        "<title>Gnuplot</title><desc>by</desc><defs><circle id='dot'/></defs>"
        "<g id=\"gnuplot_plot_1\"><title>one</title><use xlink:href='#dot'/>"
        "<g font-family=\"Inter:Bold\" clip-path=\"url(#dot)\"><text>a</text></g></g>"
        "<g id=\"gnuplot_plot_2\"><title>two</title></g></svg>";
    const Figure figure{"f", "A <title>", "", {}, {"what it is & does", ""}};
    const std::string drawn = svg_for_page(svg, figure, "f1-");
    CHECK_FALSE(has(drawn, "<?xml"));
    CHECK_FALSE(has(drawn, "width=\"9\""));
    CHECK(has(drawn, "viewBox=\"0 0 9 9\""));
    CHECK(has(drawn, "<title>A &lt;title&gt;</title>"));
    CHECK(has(drawn, "id=\"f1-dot\""));
    CHECK(has(drawn, "xlink:href=\"#f1-dot\""));
    CHECK(has(drawn, "url(#f1-dot)"));
    CHECK(has(drawn, "<title>what it is &amp; does</title>"));
    CHECK_FALSE(has(drawn, "<title>two</title>"));
    CHECK(has(drawn, "font-family=\"Inter\""));
    CHECK(has(drawn, "font-weight=\"bold\""));
    CHECK(svg_for_page("no svg at all", figure, "x").empty());
    CHECK(svg_for_page("<p>other</p>", figure, "x").empty());
}

TEST_CASE("workbook: any number of tables of one caption, with letters that sheets can't have") {
    std::vector<ReportBlock> blocks;
    for (int i = 0; i < 12; ++i)
        blocks.push_back({Table{"t" + std::to_string(i),
                                {as::number("", "x", 1).on_page("x", "about")},
                                {{Cell(1.5)}, {Cell()}},
                                "A [caption]: longer than any sheet's name may ever be?"}});
    const Result<std::string> bytes = workbook_bytes(report_with(std::move(blocks)));
    REQUIRE(bytes.ok());
    CHECK(bytes.value().substr(0, 2) == "PK");
}

TEST_CASE("page: a tier with a ground of its own is a label, any other has a dot") {
    Report report = report_with({});
    Section items{"items", "Items", {}};
    items.add(Card{"a", "A", "", "Plain", "I", {0x9c6c00, std::nullopt}, "", "", {}});
    items.add(Card{"b", "B", "", "Gilt", "II", {0xf4ecd8, 0x4a4a9c}, "", "", {}});
    report.sections.push_back(items);
    const std::string page = page_text(report);
    CHECK(has(page, "class=\"tier chip\" style=\"--tier:#9c6c00\""));
    CHECK(has(page, "class=\"tier label\" style=\"--tier:#f4ecd8;--ground:#4a4a9c\""));
}
