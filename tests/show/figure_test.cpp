#include "support/armouries.h"
#include "support/tables.h"

#include "base/text.h"
#include "show/audit/show_audit.h"
#include "show/curve/show_curve.h"
#include "show/fight/show_fight.h"
#include "show/fight/show_fight_two.h"
#include "show/plot.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <rapidcheck/catch.h>

using namespace panoplon;
using namespace panoplon::test;

namespace {

/// A block of a script's data and the clause that draws it.
struct Layer {
    std::vector<std::vector<std::string>> rows;
    std::string drawing;
};

std::vector<Layer> layers_of(const std::string& script) {
    std::vector<Layer> layers;
    bool inside = false;
    for (const std::string& line : split(script, '\n')) {
        if (line.starts_with("$layer")) {
            layers.emplace_back();
            inside = true;
        } else if (line == "END_OF_LAYER") {
            inside = false;
        } else if (inside && !line.empty()) {
            layers.back().rows.push_back(split(line, '\t'));
        }
    }
    std::size_t at = 0;
    for (const std::string& line : split(script, '\n'))
        if (line.starts_with("    $layer"))
            layers.at(at++).drawing = line.substr(line.find(" using"));
    REQUIRE(at == layers.size());
    return layers;
}

/// Points of every layer that is drawn in a way that has the given words.
std::vector<std::pair<double, double>> points(const std::string& script,
                                              const std::string& drawing) {
    std::vector<std::pair<double, double>> list;
    for (const Layer& layer : layers_of(script))
        if (layer.drawing.find(drawing) != std::string::npos)
            for (const auto& row : layer.rows)
                list.emplace_back(std::stod(row[0]), std::stod(row[1]));
    return list;
}

/// Where a text stands in the figure.
std::pair<double, double> place_of(const std::string& script, const std::string& words) {
    for (const Layer& layer : layers_of(script))
        for (const auto& row : layer.rows)
            if (row.size() == 3 && row[2] == words) return {std::stod(row[0]), std::stod(row[1])};
    FAIL("not drawn: " << words);
    return {};
}

CurvePoint point(int level, double p10, double p50, double p90) {
    CurvePoint result;
    result.level = level;
    result.p10 = p10;
    result.p50 = p50;
    result.p90 = p90;
    return result;
}

} // namespace

TEST_CASE("labels at line ends keep apart and stay between their bounds") {
    rc::prop("for any heights", [] {
        const auto heights = *rc::gen::container<std::vector<int>>(rc::gen::inRange(100, 700));
        if (heights.size() > 30) return;
        Plot plot("t", "s");
        std::vector<Plot::EndLabel> labels;
        for (const int height : heights)
            labels.push_back(
                {static_cast<double>(height), "l" + std::to_string(labels.size()), 0x123456});
        plot.end_labels(1000, labels, 90, 690, 10);
        std::vector<double> ys;
        for (const auto& [x, y] : points(plot.figure("t", {}).script, "#123456")) ys.push_back(y);
        RC_ASSERT(ys.size() == heights.size());
        std::sort(ys.begin(), ys.end());
        for (std::size_t i = 0; i < ys.size(); ++i) {
            RC_ASSERT(ys[i] >= 90.0 && ys[i] <= 690.01);
            if (i > 0) RC_ASSERT(ys[i] - ys[i - 1] > 17.0);
        }
    });
}

TEST_CASE("names are shortened in their middle, and told apart") {
    CHECK(shortened("Tin bell", 200, 10) == "Tin bell");
    const std::string cut = shortened("The long-forgotten bell of the lower marsh", 140, 10);
    CHECK(cut.starts_with("The long-f"));
    CHECK(cut.ends_with("marsh"));
    CHECK(text_width(cut, 10) <= 140);
    const auto apart = [](const std::vector<std::string>& names) {
        return join(shortened_apart(names, 100, 10), "; ");
    };
    CHECK(apart({"Tin bell", "The mended bell of the lower marsh",
                 "The mended rattle of the lower marsh"}) ==
          "Tin bell; The mended be…; The mended ra…");
    CHECK(apart({"The long-lost bell of the marsh", "The long-lost beam of the marsh"}) ==
          "…bell of the…; …beam of the…");
    rc::prop("none is too long, and what is short stays", [] {
        const auto words = rc::gen::container<std::vector<std::string>>(
            rc::gen::container<std::string>(rc::gen::elementOf(std::string("ab c"))));
        const std::vector<std::string> names = *words;
        const std::vector<std::string> list = shortened_apart(names, 60, 10);
        RC_ASSERT(list.size() == names.size());
        for (std::size_t i = 0; i < names.size(); ++i) {
            if (text_width(names[i], 10) <= 60) RC_ASSERT(list[i] == names[i]);
            RC_ASSERT(text_width(list[i], 10) <= 60);
        }
    });
}

TEST_CASE("more curves than lines can be told apart are drawn in several figures") {
    const Armoury a = armoury(duel());
    CurveResult result;
    for (int i = 0; i < 40; ++i) {
        Curve& curve = result.curves.emplace_back();
        curve.character = CharacterId(0);
        curve.loadout = LoadoutId(0);
        curve.encounter = EncounterId(0);
        curve.points = {point(1, 5, 5, 5), point(3, 6, 6 + i, 60)};
    }
    const std::vector<Figure> figures = curve_figures(a, CurveOptions(), result);
    REQUIRE(figures.size() == 4);
    CHECK(figures[0].name == "curve-spar-1");
    CHECK(figures[3].name == "curve-spar-4");
    CHECK(figures[0].title.ends_with("(1 of 4)"));
    std::size_t rows = 0;
    for (const Figure& figure : figures) rows += figure.data.rows.size();
    CHECK(rows == 80);
    // The axis fits what is drawn: an even match is far below it.
    for (const auto& row : layers_of(figures[0].script))
        for (const auto& cells : row.rows)
            CHECK_FALSE((cells.size() == 3 && cells[2] == "1" && std::stod(cells[0]) < 90));
}

TEST_CASE("one label stands at its line") {
    Plot plot("t", "s");
    plot.end_labels(1000, {{250, "one", ink::dark}}, 90, 690);
    CHECK(place_of(plot.figure("t", {}).script, "one") == std::pair<double, double>{1000, 250});
}

TEST_CASE("a curve is drawn where its numbers are, its band around it") {
    const Armoury a = armoury(with(duel(), "foes = [ { foe = \"dummy\" } ]",
                                   "foes = [ { foe = \"dummy\" } ]\nwanted_margin = [0.5, 2]"));
    CurveResult result;
    Curve curve;
    curve.character = CharacterId(0);
    curve.loadout = LoadoutId(0);
    curve.encounter = EncounterId(0);
    curve.points = {point(1, 0.5, 1, 2), point(3, 1, 2, 4)};
    result.curves.push_back(curve);
    CurveOptions options;
    const Figure figure = curve_figures(a, options, result).at(0);
    CHECK(figure.name == "curve-spar");
    const auto middle = points(figure.script, "lw 2.5");
    REQUIRE(middle.size() == 2);
    CHECK(middle[0].first == 90);
    CHECK(middle[1].first == 1050);
    const double one = place_of(figure.script, "1").second;
    const double two = place_of(figure.script, "2").second;
    CHECK(middle[0].second == Approx(one));
    CHECK(middle[1].second == Approx(two));
    const auto band = points(figure.script, "filledcurves closed fc rgb \"" +
                                                hex(mixed(line_look(0).colour, 0.18)));
    REQUIRE(band.size() == 4);
    const double octave = two - one; // on a logarithmic axis every doubling is as high
    CHECK(band[0].second == Approx(one - octave).margin(0.02));
    CHECK(band[1].second == Approx(one).margin(0.02));
    CHECK(band[2].second == Approx(two + octave).margin(0.02));
    CHECK(band[3].second == Approx(two).margin(0.02));
    const auto corridor = points(figure.script, hex(ink::tint));
    CHECK(corridor[0].second == Approx(one - octave).margin(0.02));
    CHECK(corridor[2].second == Approx(two).margin(0.02));
    CHECK(row_texts(figure.data, 1) == Texts{"bare", "3", "1", "2", "4", "1"});
}

TEST_CASE("what is found where curves meet is said once, and no words cover others") {
    const Armoury a = armoury(duel());
    CurveResult result;
    for (const double height : {1.0, 1.0, 1.03}) {
        Curve curve;
        curve.character = CharacterId(0);
        curve.loadout = LoadoutId(0);
        curve.encounter = EncounterId(0);
        curve.points = {point(1, height, height, height), point(2, height, height, height),
                        point(3, 3 * height, 3 * height, 3 * height)};
        result.curves.push_back(curve);
    }
    const auto find = [&](const char* kind, std::size_t curve) {
        Finding finding;
        finding.kind = kind;
        finding.curve = curve;
        finding.level = 2;
        result.findings.push_back(finding);
    };
    find("crossing", 0);
    find("crossing", 1);
    find("stall", 2);
    const Figure figure = curve_figures(a, CurveOptions(), result).at(0);
    const auto said = [&](const std::string& words) {
        std::size_t times = 0;
        for (std::size_t at = figure.script.find(words); at != std::string::npos;
             at = figure.script.find(words, at + 1))
            ++times;
        return times;
    };
    CHECK(said("crossing") == 1);
    REQUIRE(said("stall") == 1);
    constexpr double line = 13;
    CHECK(std::abs(place_of(figure.script, "crossing").second -
                   place_of(figure.script, "stall").second) >= line);
}

TEST_CASE("the audit's map marks what is picked and shades what is lost") {
    const Armoury a = armoury(duel() + "[item.x]\nslot = \"hand\"\nadd = { attack = 1 }\n");
    AuditResult result;
    AuditOptions options;
    options.levels = {1, 3};
    for (int level = 1; level <= 3; ++level) {
        ContextRow context;
        context.context.level = level;
        ItemContextRow row;
        row.item = ItemId(0);
        row.context = result.contexts.size();
        row.judged = true;
        row.in_window = level < 3;
        row.shortfall = level - 1; // 0, 1 and 2
        result.rows.push_back(row);
        result.contexts.push_back(context);
    }
    ItemVerdict verdict;
    verdict.item = ItemId(0);
    verdict.verdict = Verdict::dominant;
    result.items.push_back(verdict);
    const std::string script = audit_figures(a, options, result).at(0).script;
    CHECK(points(script, "with points").size() == 2); // level 1, and the key
    CHECK(points(script, "filledcurves closed fc rgb \"#1f5a8c\"").size() ==
          8); // level 1, and the key
    CHECK(points(script, "filledcurves closed fc rgb \"" + hex(mixed(0x1f5a8c, 0.08)) + "\"")
              .size() == 12); // 2, 3, key
    CHECK(place_of(script, "dominant").first > place_of(script, "x").first);
    const auto window = points(script, "lw 1.6");
    REQUIRE(window.size() == 2);
    CHECK(window[1].first - window[0].first == Approx(2 * 760.0 / 3).margin(2));
}

TEST_CASE("a table read back from its CSV is the same table") {
    rc::prop("any cells", [] {
        const auto cells = *rc::gen::container<std::vector<std::string>>(
            4, rc::gen::container<std::string>(
                   rc::gen::element('a', ',', '"', '\n', ' ', 'x', ';', '\'')));
        const std::string text =
            csv_text(table_of_texts("t", {"a", "b", "c", "d", "e", "f"},
                                    {{"start", cells[0], cells[1], cells[2], cells[3], "end"}}));
        // A plain reader of RFC 4180.
        std::vector<std::string> read = {""};
        bool quoted = false;
        for (std::size_t i = text.find('\n') + 1; i + 1 < text.size(); ++i) {
            const char c = text[i];
            if (quoted && c == '"' && text[i + 1] == '"') {
                read.back() += c;
                ++i;
            } else if (c == '"') {
                quoted = !quoted;
            } else if (c == ',' && !quoted) {
                read.emplace_back();
            } else {
                read.back() += c;
            }
        }
        RC_ASSERT(read == (std::vector<std::string>{"start", cells[0], cells[1], cells[2], cells[3],
                                                    "end"}));
    });
}

TEST_CASE("the spread of trials is drawn as what ended when, and who stands yet", "[M94]") {
    const Armoury demo = demo_armoury();
    Bout bout(demo, "ringer_early", "causeway", 7);
    FightAnswer report;
    report.loadout = find_id<LoadoutKind>(demo.loadouts, "ringer_early");
    report.encounter = bout.setup.encounter;
    report.level = 7;
    report.trials = run_trials(demo, bout.setup, {400, 1, 1});
    const Figure figure = spread_figure(demo, report);
    double won = 0;
    double lost = 0;
    for (std::size_t r = 0; r < figure.data.rows.size(); ++r) {
        const Texts row = row_texts(figure.data, r);
        won += std::stod(row[2]);
        lost += std::stod(row[3]);
    }
    const double share = static_cast<double>(report.trials->won) / 400;
    CHECK(won == Approx(share).margin(1e-3));
    CHECK(lost == Approx(1 - share).margin(1e-3));
    // The character's line ends where the lost trials leave it, the foes' where the won ones do.
    const auto ours = points(figure.script, "lc rgb \"" + hex(line_look(0).colour) + "\" lw 2.2");
    REQUIRE(ours.size() > 2);
    CHECK(ours.back().second == Approx(100 + 240 * share).margin(0.5));
}

TEST_CASE("shares won over strength fall from 1 to 0, through the share of wins at 1", "[M70]") {
    const std::vector<double> margins = {0.8, 0.9, 1.1, 1.2, 1.3};
    const Figure figure = margin_figure("t", "s", {{"one", margins}});
    const auto line = points(figure.script, "lw 2.4");
    REQUIRE(line.size() > 2);
    CHECK(line.front().second == 660);
    CHECK(line.back().second == 110);
    for (std::size_t i = 1; i < line.size(); ++i) {
        CHECK(line[i].first >= line[i - 1].first);
        CHECK(line[i].second <= line[i - 1].second);
    }
    static_cast<void>(place_of(figure.script, "one: 60.0 % won"));
}

TEST_CASE("the figure of grips names what is unfair, and has a dot for each that was judged") {
    const Armoury a = armoury(arena("[item.great]\nslot = \"hand\"\nadd = { attack = 40 }\n"
                                    "[item.poor]\nslot = \"hand\"\nadd = { attack = 1 }\n"));
    AuditOptions options;
    options.levels = a.levels;
    const AuditResult result = audit(a, options);
    const Figure figure = grip_figure(a, result);
    CHECK(figure.data.rows.size() == 2);
    CHECK(has(figure.script, "\tgreat\n"));
    const bool told = std::any_of(figure.hovers.begin(), figure.hovers.end(),
                                  [](const std::string& words) { return has(words, "great, "); });
    CHECK(told);
}

TEST_CASE("the figure of pairs shows each with its interval, and there is none without any") {
    const Armoury a = armoury(arena("[item.one]\nslot = \"hand\"\n[item.two]\nslot = \"head\"\n"));
    CHECK_FALSE(pairs_figure(a, {}));
    const auto figure =
        pairs_figure(a, {{ItemId(0), ItemId(1), 12, {-0.12, -0.14, -0.1}, 0.3, 0.2}});
    REQUIRE(figure);
    CHECK(has(figure->script, "one + two"));
    CHECK(has(figure->script, "-12.0 %"));
    CHECK(row_texts(figure->data, 0) ==
          std::vector<std::string>{"one", "two", "-0.12", "-0.14", "-0.1"});
}
