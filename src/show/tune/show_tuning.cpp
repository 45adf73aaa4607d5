#include "show/tune/show_tuning.h"
#include "show/audit/verdict_words.h"

#include "base/text.h"
#include "show/text_table.h"
#include "show/tune/show_comparison.h"
#include "show/words.h"

#include <algorithm>
#include <fmt/format.h>

namespace panoplon {

namespace {

std::string fit_words(Fit fit, Verdict verdict) {
    return fit == Fit::dominant ? "dominant" : verdict_name(verdict);
}

std::string present_text(const Armoury& armoury, const Tuning& tuning) {
    const TunePoint& now = tuning.now();
    const ItemVerdict& v = now.verdict;
    std::string text =
        fmt::format("{} ({}): {} is {}{}\n{} now", armoury.at(tuning.number.item).name,
                    armoury.at(tuning.number.item).id, tuning.number.name(),
                    value_words(tuning.number, tuning.number.now),
                    tuning.number.given ? "" : " (not given)", verdict_words(v));
    if (v.contexts > 0)
        text +=
            fmt::format(": best in {:.0f} %, {:.0f} % lost without it, {:.0f} % with it (at least "
                        "{:.0f} %), in {} of its time",
                        v.pick_share * 100, v.grip.mean * 100, v.shortfall.mean * 100,
                        v.shortfall.min * 100, counted(v.contexts, "context"));
    return text + "\n";
}

/// What lies past an end of the fair range.
std::string end_words(const Tuning& tuning, const FairEnd& end, const char* side) {
    const std::string value = value_words(tuning.number, end.value);
    if (end.beyond == Fit::fair) return fmt::format("nothing {} {} was tried", side, value);
    if (end.beyond == Fit::unjudged) return fmt::format("not judged {} {}", side, value);
    return fmt::format("{} {} {}", fit_words(end.beyond, end.verdict), side, value);
}

std::string range_text(const Tuning& tuning) {
    if (!tuning.low) return {};
    return fmt::format(
        "fair from {} to {}: {}; {}\n", value_words(tuning.number, tuning.low->value),
        value_words(tuning.number, tuning.high->value), end_words(tuning, *tuning.low, "below"),
        end_words(tuning, *tuning.high, "above"));
}

/// The values that were tried, and what the item is with each.
Table points_table(const Armoury& armoury, const Tuning& tuning) {
    Table table{
        "tune",
        {as::number("value", tuning.number.name(), in_full), as::json("refused").if_any(),
         as::text("verdict", "verdict").json(""), as::json("verdict").if_any(),
         as::share("pick_share", "best in", 0, 4)
             .if_any()
             .on_page("best in", "share of its contexts in which it is as good as the best"),
         as::share("grip", "lost without", 0, 6)
             .if_any()
             .on_page("lost without",
                      "what is lost without it, of what its place is worth; beside rivals "
                      "only"),
         as::share("shortfall", "lost with", 0, 6)
             .json("shortfall/mean")
             .if_any()
             .on_page("lost with", "what is lost by wearing it in place of the best, of what "
                                   "its place is worth; the mean"),
         as::share("shortfall_min", "at least", 0, 6)
             .json("shortfall/min")
             .if_any()
             .on_page("at least", "the same, in the context where it does best"),
         as::text("").without_title()}};
    for (const EncounterId encounter : tuning.encounters) {
        const std::string& id = armoury.at(encounter).id;
        table.columns.push_back(as::number("picks_" + id, 4).json("picks/" + id).if_any());
    }
    for (const TunePoint& point : tuning.points) {
        const ItemVerdict& v = point.verdict;
        if (!point.refused.empty()) {
            std::vector<Cell> row = {point.value, point.refused, "refused", {}, {}, {}, {},
                                     {},          point.refused};
            row.resize(table.columns.size());
            table.row(std::move(row));
            continue;
        }
        const bool judged = v.contexts > 0;
        std::vector<Cell> row = {point.value,
                                 {},
                                 Cell(verdict_name(v.verdict)).said(verdict_words(v)),
                                 verdict_name(v.verdict),
                                 Cell(v.pick_share).shown_if(judged),
                                 Cell(v.grip.mean).shown_if(v.contested > 0),
                                 Cell(v.shortfall.mean).shown_if(judged),
                                 Cell(v.shortfall.min).shown_if(judged),
                                 point.value == tuning.number.now ? "now" : ""};
        for (const double picks : point.picks) row.emplace_back(picks);
        table.row(std::move(row));
    }
    return table;
}

std::string breakpoints_text(const Tuning& tuning) {
    if (tuning.breakpoints.empty()) return {};
    std::string text = "\nBreakpoints\n";
    for (const Breakpoint& one : tuning.breakpoints)
        text += "  " + folded(one.sentence, 108, 4) + "\n";
    return text;
}

std::string upset_text(const Comparison& upset, const std::string& own, const std::string& with) {
    TextTable table({{"item"}, {"before"}, {"after"}});
    std::vector<VerdictShift> fair;
    for (const VerdictShift& shift : upset.verdicts) {
        if (!shift.moved() || shift.id == own || !shift.before || !shift.after) continue;
        if (shift.stays_fair())
            fair.push_back(shift);
        else
            table.row({shift.id, verdict_words(*shift.before), verdict_words(*shift.after)});
    }
    return fmt::format("\nOther verdicts that move with {}\n", with) +
           (table.empty() && fair.empty() ? "  none\n" : "") +
           (table.empty() ? std::string() : table.text()) + fair_moves_text(fair);
}

Json end_json(const std::optional<FairEnd>& end, Fit beyond) {
    return end && end->beyond == beyond ? Json(end->value) : Json(nullptr);
}

void fill_json(const Armoury& armoury, const Tuning& tuning, const std::optional<Comparison>& upset,
               Json& json) {
    json["item"] = armoury.at(tuning.number.item).id;
    json["stat"] = tuning.number.name();
    json["now"] = tuning.number.now;
    json["verdict"] = verdict_name(tuning.now().verdict.verdict);
    json["useless_below"] = end_json(tuning.low, Fit::weak);
    json["dominant_below"] = end_json(tuning.low, Fit::dominant);
    json["fair"] =
        tuning.low ? Json::array({tuning.low->value, tuning.high->value}) : Json(nullptr);
    json["dominant_above"] = end_json(tuning.high, Fit::dominant);
    json["useless_above"] = end_json(tuning.high, Fit::weak);
    json["proposal"] = tuning.proposal ? Json(*tuning.proposal) : Json(nullptr);
    json["proposed_verdict"] =
        tuning.proposed ? Json(verdict_name(tuning.proposed->verdict)) : Json(nullptr);
    json["sentence"] = tuning_sentence(armoury, tuning);
    json["points"] = rows_json(points_table(armoury, tuning));
    json["breakpoints"] = Json::array();
    for (const Breakpoint& one : tuning.breakpoints)
        json["breakpoints"].push_back({{"value", one.value}, {"sentence", one.sentence}});
    json["upset"] = nullptr;
    if (!upset) return;
    json["upset"] = Json::array();
    for (const VerdictShift& shift : upset->verdicts)
        if (shift.moved() && shift.before && shift.after)
            json["upset"].push_back({{"id", shift.id},
                                     {"before", verdict_name(shift.before->verdict)},
                                     {"after", verdict_name(shift.after->verdict)}});
}

} // namespace

std::string value_words(const TunedNumber& number, double value) {
    return shortest(value) + (number.key.find("percent.") != std::string::npos ? " %" : "");
}

std::string tuning_sentence(const Armoury& armoury, const Tuning& tuning) {
    const std::string& item = armoury.at(tuning.number.item).id;
    const std::string key =
        fmt::format("{} {}", tuning.number.name(), value_words(tuning.number, tuning.number.now));
    const TunePoint& now = tuning.now();
    const std::string verdict = verdict_name(now.verdict.verdict);
    if (!tuning.low && tuning.partial)
        return fmt::format("{} is {} with {}; nothing fair was found before this was stopped.",
                           item, verdict, key);
    if (!tuning.low && now.fit() == Fit::unjudged)
        return fmt::format("{} is {}, with any {}: {}", item, verdict, tuning.number.name(),
                           now.verdict.sentence);
    if (!tuning.low)
        return fmt::format("{} is {} with {}, and no other value from {} to {} makes it fair: look "
                           "at its other numbers.",
                           item, verdict, key,
                           value_words(tuning.number, tuning.points.front().value),
                           value_words(tuning.number, tuning.points.back().value));
    const std::string range = fmt::format("{} to {}", value_words(tuning.number, tuning.low->value),
                                          value_words(tuning.number, tuning.high->value));
    if (now.fit() == Fit::fair)
        return fmt::format("{} is {} with {}, within its fair range of {}.", item, verdict, key,
                           range);
    if (tuning.proposal)
        return fmt::format("{} is {} with {}; from {} it is fair. The smallest change: {}, which "
                           "makes it {}.",
                           item, verdict, key, range, value_words(tuning.number, *tuning.proposal),
                           verdict_name(tuning.proposed->verdict));
    return fmt::format("{} is {} with {}; from {} it is fair.", item, verdict, key, range);
}

Document show_tuning(const Armoury& armoury, const Tuning& tuning, const std::optional<double>& at,
                     const std::optional<Comparison>& upset, const std::string& patch) {
    Document document;
    document.partial = tuning.partial;
    document.text = present_text(armoury, tuning) + range_text(tuning) + "\n" +
                    folded(tuning_sentence(armoury, tuning), 108, 0) + "\n\n" +
                    terminal_text(points_table(armoury, tuning)) + "\n" +
                    terminal_key(points_table(armoury, tuning)) + breakpoints_text(tuning);
    if (upset)
        document.text +=
            upset_text(*upset, armoury.at(tuning.number.item).id,
                       fmt::format("{} {}", tuning.number.name(),
                                   value_words(tuning.number, at ? *at : *tuning.proposal)));
    if (!patch.empty())
        document.text += "\nAs a patch, for `patch -p0` in the armoury's folder\n" + patch;
    fill_json(armoury, tuning, upset, document.json);
    if (!patch.empty()) {
        document.json["patch"] = patch;
        document.files.push_back({"tune.patch", patch});
    }
    document.tables.push_back(points_table(armoury, tuning));
    document.figures.push_back(tuning_figure(armoury, tuning));
    return document;
}

} // namespace panoplon
