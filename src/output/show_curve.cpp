#include "output/show_curve.h"

#include "base/text.h"
#include "output/text_table.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string curve_name(const Armoury& armoury, const Curve& curve) {
    return fmt::format("{} {} {}", armoury.at(curve.loadout).id, curve.power ? "power" : "against",
                       armoury.at(curve.encounter).id);
}

std::string margin_words(double margin) {
    return fmt::format("{:.2f}", margin);
}

/// Shown: about a dozen levels a curve, the first and the last among them.
bool shown(const Curve& curve, std::size_t index) {
    const std::size_t every = (curve.points.size() + 11) / 12;
    return index % every == 0 || index + 1 == curve.points.size();
}

std::string curve_text(const Armoury& armoury, const Curve& curve) {
    std::string text =
        fmt::format("{} {} {}\n", armoury.at(curve.loadout).id,
                    curve.power ? "— power against the yardstick" : "— margin against",
                    armoury.at(curve.encounter).id);
    TextTable table({{"level", Align::right},
                     {"even luck", Align::right},
                     {"p10", Align::right},
                     {"p50", Align::right},
                     {"p90", Align::right},
                     {"wins", Align::right},
                     {"load", Align::right}});
    for (std::size_t i = 0; i < curve.points.size(); ++i) {
        if (!shown(curve, i)) continue;
        const CurvePoint& p = curve.points[i];
        table.row({std::to_string(p.level), margin_words(p.even.value), margin_words(p.p10),
                   margin_words(p.p50), margin_words(p.p90), percent(p.win_share),
                   percent(p.load_share)});
    }
    if (!table.empty()) text += table.text();
    for (const Curve::Gap& gap : curve.gaps) {
        const std::string levels =
            gap.levels.first == gap.levels.last
                ? fmt::format("level {}", gap.levels.first)
                : fmt::format("levels {}–{}", gap.levels.first, gap.levels.last);
        text += fmt::format("  refused at {}: {}\n", levels, gap.reason);
    }
    if (curve.error) text += fmt::format("  stopped: {}\n", curve.error->message);
    if (curve.points.empty() && curve.gaps.empty() && !curve.error)
        text += "  no level of it is asked for\n";
    return text;
}

} // namespace

Document show_curves(const Armoury& armoury, const CurveOptions& options,
                     const CurveResult& result) {
    Document document;
    document.partial = result.partial;
    document.json["trials"] = options.trials;
    document.json["curves"] = Json::array();
    CsvTable table{"curve",
                   {"name", "character", "loadout", "encounter", "level", "even_luck", "p10", "p50",
                    "p90", "win_share", "load_share", "beyond"},
                   {}};
    for (const Curve& curve : result.curves) {
        document.text += curve_text(armoury, curve) + "\n";
        const Loadout& loadout = armoury.at(curve.loadout);
        Json points = Json::array();
        for (const CurvePoint& p : curve.points) {
            points.push_back({{"level", p.level},
                              {"margin", {{"p10", p.p10}, {"p50", p.p50}, {"p90", p.p90}}},
                              {"even_luck", p.even.value},
                              {"win_share", p.win_share},
                              {"load_share", p.load_share},
                              {"beyond", p.beyond}});
            table.rows.push_back(
                {curve_name(armoury, curve), armoury.at(loadout.character).id, loadout.id,
                 armoury.at(curve.encounter).id, std::to_string(p.level), rounded(p.even.value, 5),
                 rounded(p.p10, 5), rounded(p.p50, 5), rounded(p.p90, 5), rounded(p.win_share, 5),
                 rounded(p.load_share, 5), std::to_string(p.beyond)});
        }
        Json gaps = Json::array();
        for (const Curve::Gap& gap : curve.gaps)
            gaps.push_back(
                {{"levels", {gap.levels.first, gap.levels.last}}, {"reason", gap.reason}});
        Json entry = {{"name", curve_name(armoury, curve)},
                      {"character", armoury.at(loadout.character).id},
                      {"loadout", loadout.id},
                      {"encounter", armoury.at(curve.encounter).id},
                      {"power", curve.power},
                      {"points", std::move(points)},
                      {"refused", std::move(gaps)}};
        if (curve.error) entry["error"] = curve.error->message;
        document.json["curves"].push_back(std::move(entry));
    }
    document.json["findings"] = Json::array();
    if (!result.findings.empty()) document.text += "Findings\n";
    for (const Finding& finding : result.findings) {
        document.text += fmt::format("  {}\n", finding.sentence);
        document.json["findings"].push_back(
            {{"kind", finding.kind},
             {"level", finding.level},
             {"curve", curve_name(armoury, result.curves[finding.curve])},
             {"size", finding.size},
             {"sentence", finding.sentence}});
    }
    document.tables.push_back(std::move(table));
    document.figures = curve_figures(armoury, options, result);
    return document;
}

} // namespace panoplon
