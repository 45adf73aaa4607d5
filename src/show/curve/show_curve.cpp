#include "show/curve/show_curve.h"

#include "base/text.h"
#include "show/text_table.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string curve_name(const Armoury& armoury, const Curve& curve) {
    return fmt::format("{} {} {}", curve_subject(armoury, curve), curve.power ? "power" : "against",
                       armoury.at(curve.encounter).id);
}

std::string two_places(double margin) {
    return fmt::format("{:.2f}", margin);
}

/// Shown: about a dozen levels a curve, the first and the last among them.
bool shown(const Curve& curve, std::size_t index) {
    const std::size_t every = (curve.points.size() + 11) / 12;
    return index % every == 0 || index + 1 == curve.points.size();
}

std::string curve_text(const Armoury& armoury, const Curve& curve) {
    std::string text =
        fmt::format("{} {} {}\n", curve_subject(armoury, curve),
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
        table.row({std::to_string(p.level), two_places(p.even.value), two_places(p.p10),
                   two_places(p.p50), two_places(p.p90), percent(p.win_share),
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

std::string left_out_words(std::size_t found, std::size_t told) {
    if (found <= told) return {};
    return fmt::format("  and {} more: -o writes all of them\n", found - told);
}

CsvTable findings_table(const Armoury& armoury, const CurveResult& result) {
    CsvTable table{"curve-findings", {"kind", "level", "curve", "size", "sentence"}, {}};
    for (const Finding& finding : result.findings)
        table.rows.push_back({finding.kind, std::to_string(finding.level),
                              curve_name(armoury, result.curves[finding.curve]),
                              rounded(finding.size, 5), finding.sentence});
    return table;
}

std::vector<std::string> worn_ids(const Armoury& armoury, const Outfit& outfit) {
    std::vector<std::string> ids;
    for_each_worn(outfit.worn,
                  [&](const WornItem& worn) { ids.push_back(armoury.at(worn.item).id); });
    return ids;
}

} // namespace

std::string finding_heading(const std::string& kind) {
    struct Heading {
        const char *kind, *words;
    };
    constexpr Heading headings[] = {
        {"corridor", "Out of the wanted corridor"},
        {"crossing", "Crossings"},
        {"jump", "Jumps and dips beyond what the levels around explain"},
        {"dip", "Jumps and dips beyond what the levels around explain"},
        {"stall", "Levels at which nothing new is worth wearing"},
        {"tier_step", "What a tier is worth"},
        {"band", "Load bands"},
        {"hits", "Hits that a player counts"},
        {"flat", "Levels at which nothing that a player counts changes"},
    };
    for (const Heading& heading : headings)
        if (kind == heading.kind) return heading.words;
    return kind;
}

Document show_curves(const Armoury& armoury, const CurveOptions& options,
                     const CurveResult& result) {
    Document document;
    document.partial = result.partial;
    document.json["by"] = curve_by_names[static_cast<int>(options.by)];
    document.json["trials"] = options.trials;
    document.json["curves"] = Json::array();
    CsvTable table{"curve",
                   {"name", "character", "loadout", "encounter", "level", "even_luck", "p10", "p50",
                    "p90", "win_share", "load_share", "beyond", "tier"},
                   {}};
    for (const Curve& curve : result.curves) {
        document.text += curve_text(armoury, curve) + "\n";
        const std::string loadout =
            curve.by == CurveBy::loadout ? armoury.at(curve.loadout).id : std::string();
        const std::string tier = curve.by == CurveBy::tier ? armoury.at(curve.tier).id : "";
        const std::string& character = armoury.at(curve.character).id;
        Json points = Json::array();
        for (const CurvePoint& p : curve.points) {
            points.push_back({{"level", p.level},
                              {"margin", {{"p10", p.p10}, {"p50", p.p50}, {"p90", p.p90}}},
                              {"even_luck", p.even.value},
                              {"win_share", p.win_share},
                              {"load_share", p.load_share},
                              {"beyond", p.beyond},
                              {"hits_to_fell", p.hits.to_fell},
                              {"hits_to_fall", p.hits.to_fall},
                              {"worn", worn_ids(armoury, p.outfit)}});
            table.rows.push_back({curve_name(armoury, curve), character, loadout,
                                  armoury.at(curve.encounter).id, std::to_string(p.level),
                                  rounded(p.even.value, 5), rounded(p.p10, 5), rounded(p.p50, 5),
                                  rounded(p.p90, 5), rounded(p.win_share, 5),
                                  rounded(p.load_share, 5), std::to_string(p.beyond), tier});
        }
        Json gaps = Json::array();
        for (const Curve::Gap& gap : curve.gaps)
            gaps.push_back(
                {{"levels", {gap.levels.first, gap.levels.last}}, {"reason", gap.reason}});
        Json entry = {{"name", curve_name(armoury, curve)},
                      {"character", character},
                      {"loadout", loadout.empty() ? Json() : Json(loadout)},
                      {"tier", tier.empty() ? Json() : Json(tier)},
                      {"encounter", armoury.at(curve.encounter).id},
                      {"power", curve.power},
                      {"points", std::move(points)},
                      {"refused", std::move(gaps)}};
        if (curve.error) entry["error"] = curve.error->message;
        document.json["curves"].push_back(std::move(entry));
    }
    document.json["findings"] = Json::array();
    std::string last_heading;
    std::size_t under_it = 0;
    constexpr std::size_t most_told = 15; // of a kind; the JSON has all
    for (const Finding& finding : result.findings) {
        const std::string heading = finding_heading(finding.kind);
        if (heading != last_heading) {
            document.text += left_out_words(under_it, most_told) + heading + "\n";
            under_it = 0;
        }
        last_heading = heading;
        if (under_it++ < most_told) document.text += fmt::format("  {}\n", finding.sentence);
        document.json["findings"].push_back(
            {{"kind", finding.kind},
             {"level", finding.level},
             {"curve", curve_name(armoury, result.curves[finding.curve])},
             {"size", finding.size},
             {"sentence", finding.sentence}});
    }
    document.text += left_out_words(under_it, most_told);
    document.tables.push_back(std::move(table));
    document.tables.push_back(findings_table(armoury, result));
    document.figures = curve_figures(armoury, options, result);
    return document;
}

} // namespace panoplon
