#include "show/plot.h"
#include "show/text_table.h"
#include "show/written_files.h"
#include "support/armouries.h"
#include "support/tables.h"

#include <catch2/catch.hpp>

using namespace panoplon;
using namespace panoplon::test;

TEST_CASE("CSV is quoted where it has to be") {
    CHECK(csv_text(table_of_texts(
              "t", {"a", "b"},
              {{"plain", "with, comma"}, {"a \"quote\"", "two\nlines"}, {"", "é"}})) ==
          "a,b\nplain,\"with, comma\"\n\"a \"\"quote\"\"\",\"two\nlines\"\n,é\n");
}

TEST_CASE("text tables align by characters, numbers to the right") {
    TextTable table({{"name"}, {"n", Align::right}});
    table.row({"é", "1"});
    table.row({"long", "100"});
    CHECK(table.text() == "  name    n\n  é       1\n  long  100\n");
}

TEST_CASE("text is folded at blanks") {
    CHECK(folded("one two three four", 9, 2) == "one two\n  three\n  four");
}

TEST_CASE("axes map values to pixels, linear and logarithmic") {
    const Axis linear{100, 200, 0, 10, false};
    CHECK(linear.pixel(5) == 150);
    const Axis log{0, 100, 1, 100, true};
    CHECK(log.pixel(10) == Approx(50));
    CHECK(round_ticks(linear, 5) == std::vector<double>{0, 2, 4, 6, 8, 10});
    for (const double tick : round_ticks(log, 5)) CHECK((tick >= 0.99 && tick <= 101));
}

TEST_CASE("text of an armoury is data in a figure, never a command") {
    CHECK(plot_text("a\tb\nc") == "a b c");
    CHECK(plot_text("back\\slash") == "back\\\\slash");
    CHECK(plot_text("日本") == "□□");
    CHECK(plot_text("Größe – “x”") == "Größe – “x”");
}

TEST_CASE("a figure is drawn whatever its text, and runs nothing") {
    const TempFolder folder;
    const std::string trap = folder / "trap";
    Plot plot("`touch " + trap + "` \"quoted\" <script> END_OF_LAYER", "END_OF_LAYER");
    plot.text(100, 100, "$(touch " + trap + ") @x {/Bold=40 y} # %s \\n", Plot::Anchor::left, 10,
              ink::dark);
    plot.text(100, 200, std::string(2000, 'x'), Plot::Anchor::left, 10, ink::dark);
    plot.line({{0, 0}, {100, 100}}, ink::dark, 1);
    Document document;
    document.figures.push_back(plot.figure("trial", table_of_texts("trial", {"x"}, {{"1"}})));
    const Result<WrittenDocument> written =
        write_document(folder / "out", "test", Json::object(), document);
    REQUIRE(written.ok());
    CHECK(written.value().paths.size() == 5);
    CHECK(written.value().left_out.empty());
    CHECK_FALSE(folder.has("trap"));
    CHECK(folder.read("out/trial.png").substr(1, 3) == "PNG");
    CHECK(folder.read("out/trial.svg").find("&lt;script>") != std::string::npos);
    CHECK(folder.read("out/trial.csv") == "x\n1\n");
    CHECK_FALSE(folder.has("out/trial.gp.log"));
}

TEST_CASE("a file is written whole or not at all") {
    const TempFolder folder;
    CHECK(write_whole(folder / "a.txt", "one").ok());
    CHECK(write_whole(folder / "a.txt", "two").ok());
    CHECK(folder.read("a.txt") == "two");
    const Result<std::string> failed = write_whole(folder / "nowhere/a.txt", "x");
    REQUIRE_FALSE(failed.ok());
    CHECK(failed.failure().cause == Cause::file);
    folder.write("dir/x", "");
    CHECK_FALSE(write_whole(folder / "dir", "x").ok());
    CHECK_FALSE(write_document("/proc/panoplon", "x", Json::object(), {}).ok());
}

TEST_CASE("inks are readable on every tier colour") {
    for (const std::uint32_t colour : {0x000000u, 0xffffffu, 0x6d6a63u, 0xffff00u, 0x1f5a8cu})
        CHECK(ink_on(colour) != colour);
    CHECK(mixed(0x000000, 0) == ink::ground);
    CHECK(mixed(0x123456, 1) == 0x123456);
}
