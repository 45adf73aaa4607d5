#include "show/curve/show_curve.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/words.h"

#include <fmt/format.h>

namespace panoplon {

namespace {

std::string curve_name(const Armoury& armoury, const Curve& curve) {
    return fmt::format("{} {} {}", curve_subject(armoury, curve), curve.power ? "power" : "against",
                       armoury.at(curve.encounter).id);
}

/// Shown: about a dozen levels a curve, the first and the last among them.
bool shown(const Curve& curve, std::size_t index) {
    const std::size_t every = (curve.points.size() + 11) / 12;
    return index % every == 0 || index + 1 == curve.points.size();
}

std::vector<std::string> worn_ids(const Armoury& armoury, const Outfit& outfit) {
    std::vector<std::string> ids;
    for_each_worn(outfit.worn,
                  [&](const WornItem& worn) { ids.push_back(armoury.at(worn.item).id); });
    return ids;
}

/// A row a level.
Table points_table(const Armoury& armoury, const Curve& curve) {
    Table table{"curve",
                {as::text("name").json(""), as::text("character").json(""),
                 as::text("loadout").json(""), as::text("encounter").json(""),
                 as::whole("level", "level"), as::number("even_luck", "even luck", 2, 5),
                 as::number("p10", "p10", 2, 5).json("margin/p10"),
                 as::number("p50", "p50", 2, 5).json("margin/p50"),
                 as::number("p90", "p90", 2, 5).json("margin/p90"),
                 as::share("win_share", "wins", 1, 5), as::share("load_share", "load", 1, 5),
                 as::whole("beyond"), as::text("tier").json(""), as::json("hits_to_fell"),
                 as::json("hits_to_fall"), as::json("worn")}};
    for (const CurvePoint& p : curve.points)
        table.row({curve_name(armoury, curve), armoury.at(curve.character).id,
                   curve.by == CurveBy::loadout ? id_cell(armoury, curve.loadout) : Cell(),
                   armoury.at(curve.encounter).id, p.level, p.even.value, p.p10, p.p50, p.p90,
                   p.win_share, p.load_share, p.beyond,
                   curve.by == CurveBy::tier ? id_cell(armoury, curve.tier) : Cell(),
                   Cell::of(p.hits.to_fell), Cell::of(p.hits.to_fall),
                   worn_ids(armoury, p.outfit)});
    return table;
}

/// What a terminal shows: by even luck there is one margin, and no share of wins.
Table shown_points(const Table& points, const Curve& curve, bool even_luck) {
    constexpr std::string_view of_trials[] = {"p10", "p50", "p90", "win_share"};
    std::vector<std::size_t> kept;
    for (std::size_t c = 0; c < points.columns.size(); ++c)
        if (!even_luck || std::find(std::begin(of_trials), std::end(of_trials),
                                    points.columns[c].key) == std::end(of_trials))
            kept.push_back(c);
    Table table{"", {}, {}};
    for (const std::size_t c : kept) table.columns.push_back(points.columns[c]);
    for (std::size_t i = 0; i < points.rows.size(); ++i) {
        if (!shown(curve, i)) continue;
        auto& row = table.rows.emplace_back();
        for (const std::size_t c : kept) row.push_back(points.rows[i][c]);
    }
    return table;
}

/// Nothing of it lies at a level that is asked for.
bool is_elsewhere(const Curve& curve) {
    return curve.points.empty() && curve.gaps.empty() && !curve.error;
}

/// Whose curves are elsewhere, in one line.
std::string elsewhere_text(const Armoury& armoury, const std::vector<Curve>& curves) {
    std::vector<std::string> subjects;
    for (const Curve& curve : curves) {
        const std::string subject = curve_subject(armoury, curve);
        if (is_elsewhere(curve) &&
            std::find(subjects.begin(), subjects.end(), subject) == subjects.end())
            subjects.push_back(subject);
    }
    if (subjects.empty()) return {};
    return folded(fmt::format("No level that is asked for is one of: {}", join(subjects, ", ")),
                  108, 2) +
           "\n\n";
}

std::string curve_text(const Armoury& armoury, const Curve& curve, bool even_luck) {
    if (is_elsewhere(curve)) return {};
    std::string text =
        fmt::format("{} {} {}\n", curve_subject(armoury, curve),
                    curve.power ? "— power against the yardstick" : "— margin against",
                    armoury.at(curve.encounter).id);
    text += terminal_text(shown_points(points_table(armoury, curve), curve, even_luck));
    for (const Curve::Gap& gap : curve.gaps) {
        const std::string levels =
            gap.levels.first == gap.levels.last
                ? fmt::format("level {}", gap.levels.first)
                : fmt::format("levels {}–{}", gap.levels.first, gap.levels.last);
        text += fmt::format("  refused at {}: {}\n", levels, gap.reason);
    }
    if (curve.error) text += fmt::format("  stopped: {}\n", curve.error->message);
    return text + "\n";
}

std::string left_out_words(std::size_t found, std::size_t told) {
    if (found <= told) return {};
    return fmt::format("  and {} more: -o writes all of them\n", found - told);
}

Table findings_table(const Armoury& armoury, const CurveResult& result) {
    Table table{"curve-findings",
                {as::text("kind"), as::whole("level"), as::text("curve"), as::number("size", 5),
                 as::text("sentence")}};
    for (const Finding& finding : result.findings)
        table.row({finding.kind, finding.level, curve_name(armoury, result.curves[finding.curve]),
                   finding.size, finding.sentence});
    return table;
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
    for (const Curve& curve : result.curves) {
        document.text += curve_text(armoury, curve, options.trials == 0);
        const Table points = points_table(armoury, curve);
        Json gaps = Json::array();
        for (const Curve::Gap& gap : curve.gaps)
            gaps.push_back(
                {{"levels", {gap.levels.first, gap.levels.last}}, {"reason", gap.reason}});
        const auto id_of = [&](bool there, const auto& id) {
            return there ? Json(armoury.at(id).id) : Json();
        };
        Json entry = {{"name", curve_name(armoury, curve)},
                      {"character", armoury.at(curve.character).id},
                      {"loadout", id_of(curve.by == CurveBy::loadout, curve.loadout)},
                      {"tier", id_of(curve.by == CurveBy::tier, curve.tier)},
                      {"encounter", armoury.at(curve.encounter).id},
                      {"power", curve.power},
                      {"points", rows_json(points)},
                      {"refused", std::move(gaps)}};
        if (curve.error) entry["error"] = curve.error->message;
        document.json["curves"].push_back(std::move(entry));
        if (document.tables.empty())
            document.tables.push_back(points);
        else
            document.tables.front().append(points);
    }
    document.text += elsewhere_text(armoury, result.curves);
    if (document.tables.empty()) document.tables.push_back(points_table(armoury, Curve()));
    Table findings = findings_table(armoury, result);
    document.json["findings"] = rows_json(findings);
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
    }
    document.text += left_out_words(under_it, most_told);
    document.tables.push_back(std::move(findings));
    document.figures = curve_figures(armoury, options, result);
    return document;
}

} // namespace panoplon
